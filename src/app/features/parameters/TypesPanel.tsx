import { useState } from "react";
import { freshId } from "../../../core/model/edits/edit.ts";
import { renameField } from "../../../core/model/edits/fields.ts";
import { renameId } from "../../../core/model/edits/rename.ts";
import { addType, changeType, removeField, removeType } from "../../../core/model/edits/types.ts";
import { lookup, typeLabel } from "../../../core/model/lookup.ts";
import { NAME_PATTERN, type Project, type RecordType } from "../../../core/model/schema.ts";
import { useDocument } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField } from "../../ui/Field.tsx";

import { PasteRows } from "./PasteRows.tsx";
import { SampleTable } from "./SampleTable.tsx";

/** The record types: their fields, the first of which is the key, and their sample rows as a table. */
export function TypesPanel({ project }: { project: Project }) {
  const apply = useDocument((d) => d.apply);
  const [chosen, setChosen] = useState<string>();
  const type = lookup(project).types.get(chosen ?? "") ?? project.types[0];
  return (
    <div className="grid h-full min-h-0 grid-cols-[170px_minmax(0,1fr)]">
      <div className="border-r border-hairline p-3">
        <ul className="m-0 list-none p-0">
          {project.types.map((t) => (
            <li key={t.id}>
              <button
                type="button"
                aria-current={t === type}
                onClick={() => setChosen(t.id)}
                className={`flex min-h-7 w-full items-center justify-between px-2 text-left text-[12.5px] ${t === type ? "bg-accent-soft font-semibold" : "hover:bg-band"}`}
              >
                <span className="truncate">{typeLabel(t)}</span>
                <span className="text-[11px] font-normal text-ink-2">{t.samples.length}</span>
              </button>
            </li>
          ))}
        </ul>
        <form
          className="mt-2"
          onSubmit={(event) => {
            event.preventDefault();
            const name = String(new FormData(event.currentTarget).get("name")).trim();
            if (name === "") return;
            const id = freshId(name, lookup(project).types, "type");
            apply(addType({ id, name, fields: [{ name: "id", type: "text" }], samples: [] }));
            setChosen(id);
            event.currentTarget.reset();
          }}
        >
          <input
            name="name"
            aria-label="Name of a new record type"
            placeholder="A new type: Hive"
            className="h-7 w-full border border-hairline bg-paper px-1.5 text-[12.5px]"
          />
        </form>
      </div>
      {type ? (
        <TypeForm key={type.id} project={project} type={type} onId={setChosen} />
      ) : (
        <p className="m-0 p-4 text-[13px] text-ink-2">
          A record type says what a row of a list is: a hive with an id, a name and a place in the walk. Its samples fill the lists while you walk.
        </p>
      )}
    </div>
  );
}

function TypeForm({ project, type, onId }: { project: Project; type: RecordType; onId: (id: string) => void }) {
  const apply = useDocument((d) => d.apply);
  const used = usesOf(project, type.id);
  const types = ["text", "integer", "number", "boolean", "date", ...project.types.filter((t) => t.id !== type.id).map((t) => t.id)];
  const fields = (next: RecordType["fields"], what: string) => apply(changeType(type.id, { fields: next }, what));
  return (
    <div className="flex min-h-0 min-w-0 flex-col gap-3 p-4">
      <div className="flex items-end gap-3">
        <TextField
          label="Name"
          value={type.name ?? ""}
          placeholder={type.id}
          onCommit={(name) => apply(changeType(type.id, { name: name === "" ? undefined : name }, "Rename"))}
        />
        <TextField
          label="Id"
          mono
          value={type.id}
          onCommit={(id) => {
            apply(renameId({ kind: "type", id: type.id }, id));
            onId(id);
          }}
        />
        <Button
          tone="quiet"
          className="text-urgent"
          disabled={used.length > 0}
          title={used.length > 0 ? `Still used by ${used.join(", ")}` : ""}
          onClick={() => apply(removeType(type.id))}
        >
          Delete
        </Button>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        {type.fields.map((field, i) => (
          <div key={field.name} className="flex items-center gap-1 border border-hairline bg-sheet px-1.5 py-1 text-[12px]">
            {i === 0 && (
              <span className="text-[10.5px] text-ink-2" title="The first field is the key: it tells one row from another.">
                key
              </span>
            )}
            <input
              aria-label={`Name of the field ${field.name}`}
              defaultValue={field.name}
              className="h-6 w-20 bg-paper px-1 font-mono text-[11.5px]"
              onBlur={(event) => {
                const name = event.target.value;
                if (name !== field.name && NAME_PATTERN.test(name) && !type.fields.some((f) => f.name === name)) apply(renameField(type.id, field.name, name));
                else event.target.value = field.name;
              }}
            />
            <select
              aria-label={`Type of the field ${field.name}`}
              value={field.type}
              className="h-6 bg-paper text-[11.5px]"
              onChange={(event) =>
                fields(
                  type.fields.map((f) => (f === field ? { ...f, type: event.target.value } : f)),
                  "Change a field of",
                )
              }
            >
              {types.map((option) => (
                <option key={option}>{option}</option>
              ))}
            </select>
            <button
              type="button"
              aria-label={`Delete the field ${field.name}`}
              className="min-h-6 min-w-6 text-ink-2 hover:text-urgent"
              onClick={() => apply(removeField(type.id, field.name))}
            >
              ×
            </button>
          </div>
        ))}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            const name = String(new FormData(event.currentTarget).get("field")).trim();
            if (!NAME_PATTERN.test(name) || type.fields.some((f) => f.name === name)) return;
            fields([...type.fields, { name, type: "text" }], "Add a field to");
            event.currentTarget.reset();
          }}
        >
          <input
            name="field"
            aria-label="Name of a new field"
            placeholder="+ field"
            className="h-8 w-24 border border-hairline bg-paper px-1.5 font-mono text-[11.5px]"
          />
        </form>
      </div>
      <SampleTable type={type} />
      <PasteRows type={type} />
    </div>
  );
}

function usesOf(project: Project, id: string): string[] {
  const screens = project.screens.filter((s) => s.params.some((p) => p.type === id) || s.pages?.over === id || s.elements.some((e) => e.of === id));
  const types = project.types.filter((t) => t.fields.some((f) => f.type === id));
  const containers = project.containers.filter((c) => c.elements?.some((e) => e.of === id));
  return [...screens, ...types, ...containers].map((one) => one.name || one.id);
}
