import { upTarget } from "../../core/engine/bar.ts";
import { addElement, freshElementId } from "../../core/model/edits/add.ts";
import { changeProject, changeScreen } from "../../core/model/edits/change.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import type { Param, Screen } from "../../core/model/schema.ts";
import { Button } from "../parts/Button.tsx";
import { Check, Choice, TextField } from "../parts/Field.tsx";
import { useDeletion } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { WalkHere } from "../walk/WalkHere.tsx";
import { BarForm } from "./BarForm.tsx";
import { Head } from "./Head.tsx";
import { ParamsForm } from "./ParamsForm.tsx";

export function ScreenForm({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { select, link } = useSelection();
  const ask = useDeletion((d) => d.ask);
  const change = (part: Partial<Screen>) => apply(changeScreen(project, screen.id, part));
  const legs = lookup(project).legsFrom.get(screen.id) ?? [];
  const up = upTarget(project, screen.id);
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={screen.planned ? "planned screen" : "screen"}
        name={screen.name || screen.id}
        id={screen.id}
        onDelete={() => ask({ kind: "place", id: screen.id })}
      />
      <WalkHere key={screen.id} screen={screen} />
      <TextField label="Name" value={screen.name} onCommit={(name) => change({ name })} />
      <h4 className="caption m-0 mt-1">On it</h4>
      <ul className="m-0 list-none p-0">
        {screen.elements.map((element) => {
          const count = legs.filter((leg) => "element" in leg.on && leg.on.element === element.id).length;
          return (
            <li key={element.id} className="flex items-center gap-2 text-[12.5px]">
              <button
                type="button"
                className="min-h-6 min-w-0 flex-1 truncate text-left hover:underline"
                onClick={() => select({ kind: "element", place: screen.id, id: element.id })}
              >
                {element.label || element.id} <span className="text-[11px] text-ink-2">{element.kind}</span>
              </button>
              <button type="button" className="min-h-6 px-1 text-[11.5px] text-accent" onClick={() => link({ place: screen.id, element: element.id })}>
                {count === 0 ? "lead…" : `${count} ${count === 1 ? "leg" : "legs"}`}
              </button>
            </li>
          );
        })}
      </ul>
      <AddElement screen={screen} />
      <TextField
        label="Title in the bar"
        value={screen.title ?? ""}
        placeholder={screen.name}
        onCommit={(title) => change({ title: title === "" ? undefined : title })}
      />
      <ParamsForm params={screen.params} onChange={(params: Param[]) => change({ params })} />
      <Choice
        label="Up leads to"
        value={screen.up}
        options={[
          { value: "auto", label: `as usual${screen.up === "auto" ? ` (${up === undefined ? "nowhere" : nameOf(project, up)})` : ""}` },
          { value: "none", label: "nowhere" },
          ...project.screens.filter((s) => s.id !== screen.id).map((s) => ({ value: s.id, label: s.name || s.id })),
        ]}
        onChange={(value) => change({ up: value })}
      />
      <BarForm bar={screen.bar} onChange={(bar) => change({ bar })} />
      <TextField
        label="Address"
        mono
        value={screen.path ?? ""}
        placeholder="/hives/{hiveId}"
        onCommit={(path) => change({ path: path === "" ? undefined : path })}
      />
      <TextField
        label="Name in code"
        mono
        value={screen.code ?? ""}
        placeholder={screen.id}
        onCommit={(code) => change({ code: code === "" ? undefined : code })}
      />
      <div className="grid grid-cols-2 gap-x-2">
        <Check label="a hub: always to be got back to" value={screen.hub === true} onChange={(v) => change({ hub: v || undefined })} />
        <Check label="gone through once" value={screen.once === true} onChange={(v) => change({ once: v || undefined })} />
        <Check label="may lie on itself" value={screen.mayRepeat === true} onChange={(v) => change({ mayRepeat: v || undefined })} />
        <Check label="covers the tabs" value={screen.coversTabs === true} onChange={(v) => change({ coversTabs: v || undefined })} />
        <Check label="only planned" value={screen.planned === true} onChange={(v) => change({ planned: v || undefined })} />
      </div>
      {project.root !== screen.id && !lookup(project).owners.has(screen.id) && (
        <Button className="self-start" onClick={() => apply(changeProject({ root: screen.id }))}>
          Start the app here
        </Button>
      )}
    </div>
  );
}

function AddElement({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { select } = useSelection();
  return (
    <form
      className="flex gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const label = String(data.get("label")).trim();
        if (label === "") return;
        const id = freshElementId(project, screen.id, label);
        apply(addElement(screen.id, { id, kind: data.get("kind") as Screen["elements"][number]["kind"], label }));
        event.currentTarget.reset();
        select({ kind: "element", place: screen.id, id });
      }}
    >
      <input
        name="label"
        aria-label="Label of a new element"
        placeholder="Add a button, a list…"
        className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 text-[12.5px]"
      />
      <select name="kind" aria-label="Kind of the new element" className="h-7 border border-hairline bg-paper text-[12px]">
        {["button", "icon", "link", "list", "field", "switch", "text", "image", "pager"].map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      <Button type="submit">Add</Button>
    </form>
  );
}
