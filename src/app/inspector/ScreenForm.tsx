import { useMemo } from "react";
import { placeValues } from "../../core/insight/sample.ts";
import { changeProject, changeScreen } from "../../core/model/edits/change.ts";
import { lookup, nameOf, upTarget } from "../../core/model/lookup.ts";
import type { Param, Screen } from "../../core/model/schema.ts";
import { placeScope } from "../../core/model/scope.ts";
import { Button } from "../parts/Button.tsx";
import { Check, Choice, TextField } from "../parts/Field.tsx";
import { TemplateField } from "../parts/TemplateField.tsx";
import { useDeletion } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { WalkHere } from "../walk/WalkHere.tsx";
import { BarForm } from "./BarForm.tsx";
import { AddElement, ElementList } from "./ElementList.tsx";
import { Head } from "./Head.tsx";
import { CommandButtons } from "./ManyForm.tsx";
import { PagesForm } from "./PagesForm.tsx";
import { ParamsForm } from "./ParamsForm.tsx";
import { Shared } from "./Shared.tsx";

export function ScreenForm({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const ask = useDeletion((d) => d.ask);
  const change = (part: Partial<Screen>) => apply(changeScreen(project, screen.id, part));
  const up = upTarget(project, screen.id);
  const values = useMemo(() => placeValues(project, screen.id), [project, screen.id]);
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={screen.planned ? "planned screen" : "screen"}
        name={screen.name || screen.id}
        what={{ kind: "place", id: screen.id }}
        onDelete={() => ask({ kind: "place", id: screen.id })}
      />
      <WalkHere key={screen.id} screen={screen} />
      <TextField label="Name" value={screen.name} onCommit={(name) => change({ name })} />
      <h4 className="caption m-0 mt-1">On it</h4>
      <ElementList place={screen.id} elements={screen.elements} />
      <Shared screen={screen} />
      <AddElement place={screen.id} />
      <TemplateField
        label="Title in the bar"
        value={screen.title ?? ""}
        placeholder={screen.name}
        scope={placeScope(project, screen.id)}
        values={values}
        onCommit={(title) => change({ title: title === "" ? undefined : title })}
      />
      <ParamsForm screen={screen} onChange={(params: Param[]) => change({ params })} />
      <PagesForm screen={screen} onChange={(pages) => change({ pages })} />
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
      <CommandButtons names={["Put into tabs", "Put into a stack", "Put into a drawer", "Put into a modal", "Duplicate"]} />
      {project.root !== screen.id && !lookup(project).owners.has(screen.id) && (
        <Button className="self-start" onClick={() => apply(changeProject({ root: screen.id }))}>
          Start the app here
        </Button>
      )}
    </div>
  );
}
