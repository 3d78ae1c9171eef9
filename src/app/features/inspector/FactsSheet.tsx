import { changeFact } from "../../../core/model/edits/change.ts";
import { freshId } from "../../../core/model/edits/edit.ts";
import { addFact, removeFact } from "../../../core/model/edits/facts.ts";
import { renameId } from "../../../core/model/edits/rename.ts";
import { namesIn } from "../../../core/model/edits/spelling.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Fact, Project } from "../../../core/model/schema.ts";
import { useDocument, useSheets } from "../../session/hooks.ts";

import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Check, Choice, TextField } from "../../ui/Field.tsx";

/** The facts of the app: what conditions can ask about, and where each is set and asked. */
export function FactsSheet() {
  const { sheet, close } = useSheets();
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  return (
    <Dialog title="Facts" open={sheet?.is === "facts"} onClose={close} wide>
      <p className="m-0 mb-3 text-[12.5px] text-ink-2">
        Something true or chosen, in the app or outside it, that conditions can ask about as <code className="font-mono">fact.ID</code>.
      </p>
      <ul className="m-0 list-none p-0">
        {project.facts.map((fact) => (
          <FactRow key={fact.id} project={project} fact={fact} />
        ))}
      </ul>
      {project.facts.length === 0 && <p className="m-0 mb-3">There are none yet. Most apps have one for having signed in.</p>}
      <form
        className="mt-3 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const name = String(new FormData(event.currentTarget).get("name")).trim();
          if (name === "") return;
          apply(addFact({ id: freshId(name, lookup(project).facts, "fact"), name, type: "boolean", initial: false, source: "app" }));
          event.currentTarget.reset();
        }}
      >
        <label className="flex-1 text-[11.5px] text-ink-2">
          A new fact
          <input
            name="name"
            autoFocus
            placeholder="has joined"
            className="mt-0.5 block h-7 w-full border border-hairline bg-paper px-1.5 text-[12.5px] text-ink"
          />
        </label>
        <Button type="submit">Add</Button>
      </form>
    </Dialog>
  );
}

function FactRow({ project, fact }: { project: Project; fact: Fact }) {
  const apply = useDocument((d) => d.apply);
  const change = (part: Partial<Fact>) => apply(changeFact(fact.id, part));
  const { set, asked } = usesOf(project, fact.id);
  const uses = set + asked;
  return (
    <li className="mb-3 border-l-2 border-hairline pl-3">
      <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
        <TextField label="Name" value={fact.name ?? ""} placeholder={fact.id} onCommit={(name) => change({ name: name === "" ? undefined : name })} />
        <TextField label="Id" mono value={fact.id} onCommit={(id) => apply(renameId({ kind: "fact", id: fact.id }, id))} />
        <Button
          tone="quiet"
          className="text-urgent"
          disabled={uses > 0}
          title={uses > 0 ? "It is still set or asked about." : "Delete it"}
          onClick={() => apply(removeFact(fact.id))}
        >
          Delete
        </Button>
      </div>
      <div className="mt-1 grid grid-cols-3 gap-2">
        <Choice
          label="It is"
          value={fact.type}
          options={[
            { value: "boolean", label: "true or false" },
            { value: "choice", label: "one of several" },
          ]}
          onChange={(type) => change(type === "boolean" ? { type, values: undefined, initial: false } : { type, values: ["one", "other"], initial: "one" })}
        />
        <Choice
          label="At first"
          value={String(fact.initial)}
          options={(fact.type === "boolean" ? ["false", "true"] : (fact.values ?? [])).map((value) => ({ value, label: value }))}
          onChange={(value) => change({ initial: fact.type === "boolean" ? value === "true" : value })}
        />
        <Choice
          label="Decided by"
          value={fact.source}
          options={[
            { value: "app", label: "the app" },
            { value: "outside", label: "something outside" },
          ]}
          onChange={(source) => change({ source })}
        />
      </div>
      {fact.type === "choice" && (
        <TextField
          label="The values, with commas between"
          value={(fact.values ?? []).join(", ")}
          onCommit={(text) => {
            const values = [...new Set(text.split(",").map((value) => value.trim()))].filter((value) => value !== "");
            const [first] = values;
            if (first !== undefined) change({ values, initial: values.includes(String(fact.initial)) ? fact.initial : first });
          }}
        />
      )}
      <div className="flex items-center gap-4">
        <Check label="kept between launches" value={fact.persists === true} onChange={(v) => change({ persists: v || undefined })} />
        <span className="text-[11.5px] text-ink-2">
          set by {set}, asked by {asked}
        </span>
      </div>
    </li>
  );
}

function usesOf(project: Project, id: string): { set: number; asked: number } {
  const sources = [
    ...project.legs.flatMap((leg) => [...(leg.when === undefined ? [] : [leg.when]), ...Object.values(leg.set ?? {})]),
    ...project.entrances.flatMap((e) => e.when ?? []),
    ...[...project.screens, ...project.containers].flatMap((p) => (p.elements ?? []).flatMap((e) => [e.shown ?? "", e.enabled ?? ""])),
  ];
  return {
    set: project.legs.filter((leg) => leg.set && Object.hasOwn(leg.set, id)).length,
    asked: sources.filter((source) => namesIn("fact", source).includes(id)).length,
  };
}
