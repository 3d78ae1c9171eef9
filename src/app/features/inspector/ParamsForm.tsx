import { useState } from "react";
import { cellValue } from "../../../core/model/data/rows.ts";
import { renameId } from "../../../core/model/edits/rename.ts";
import { keyField } from "../../../core/model/lookup.ts";
import { NAME_PATTERN, type Param, type RecordType, type Row, type Screen } from "../../../core/model/schema.ts";
import { useDocument } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

/** What a screen needs to know. Another name follows to everyone who hands it on or reads it. */
export function ParamsForm({ screen, onChange }: { screen: Screen; onChange: (params: Param[]) => void }) {
  const { params } = screen;
  const apply = useDocument((d) => d.apply);
  const types = useDocument((d) => d.project.types);
  const options = ["text", "integer", "number", "boolean", "date", ...types.map((t) => t.id)];
  const set = (i: number, part: Partial<Param>) => onChange(params.map((p, at) => (at === i ? { ...p, ...part } : p)));
  const field = "h-6 border border-hairline bg-paper px-1 font-mono text-[11.5px]";
  return (
    <div>
      {params.map((param, i) => (
        <div key={param.name} className="mb-2 grid grid-cols-[minmax(0,1fr)_88px_24px] items-center gap-x-1.5 gap-y-1">
          <input
            aria-label="Parameter name"
            defaultValue={param.name}
            className={`${field} min-w-0`}
            onBlur={(event) => {
              const name = event.target.value;
              if (name !== param.name && NAME_PATTERN.test(name) && !params.some((p) => p.name === name))
                apply(renameId({ kind: "param", screen: screen.id, id: param.name }, name));
              else event.target.value = param.name;
            }}
          />
          <select
            aria-label={`Type of ${param.name}`}
            value={param.type}
            className={field}
            onChange={(event) => onChange(params.map((p, at) => (at === i ? { name: p.name, type: event.target.value, required: p.required } : p)))}
          >
            {options.map((option) => (
              <option key={option}>{option}</option>
            ))}
          </select>
          <button
            type="button"
            aria-label={`Delete ${param.name}`}
            className="min-h-6 min-w-6 text-ink-2 hover:text-urgent"
            onClick={() => onChange(params.filter((_, at) => at !== i))}
          >
            ×
          </button>
          <label className="flex min-h-6 items-center gap-1 text-[11.5px] text-ink-2">
            <input
              type="checkbox"
              checked={param.required}
              onChange={(event) => set(i, { required: event.target.checked })}
              className="h-3.5 w-3.5 accent-(--accent)"
            />
            required
          </label>
          <DefaultField
            key={`${param.type} ${JSON.stringify(param.default)}`}
            param={param}
            onChange={(next) => onChange(params.map((p, at) => (at === i ? next : p)))}
          />
        </div>
      ))}
      <form
        className="flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          const name = String(new FormData(event.currentTarget).get("name")).trim();
          if (!NAME_PATTERN.test(name) || params.some((p) => p.name === name)) return;
          onChange([...params, { name, type: "text", required: true }]);
          event.currentTarget.reset();
        }}
      >
        <input name="name" aria-label="Name of a new parameter" placeholder="hiveId" className={`${field} min-w-0 flex-1`} />
        <Button type="submit" tone="quiet">
          Add
        </Button>
      </form>
    </div>
  );
}

/** What is there where nothing is passed; empty for nothing. */
function DefaultField({ param, onChange }: { param: Param; onChange: (param: Param) => void }) {
  const text = param.default === undefined ? "" : typeof param.default === "string" ? param.default : JSON.stringify(param.default);
  const [draft, setDraft] = useState(text);
  const value = draft === "" ? undefined : cellValue(draft, param.type);
  const wrong = draft !== "" && value === undefined;
  const rows = useDocument((d) => d.project.types).find((type) => type.id === param.type);
  if (rows) return <DefaultRow param={param} type={rows} onChange={onChange} />;
  return (
    <input
      aria-label={`Default of ${param.name}`}
      title={wrong ? `A value of the type ${param.type} is expected.` : "What is there where nothing is passed"}
      placeholder="by default…"
      value={draft}
      aria-invalid={wrong}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => {
        if (wrong || draft === text) return;
        const { default: _, ...rest } = param;
        onChange(value === undefined ? rest : { ...rest, default: value });
      }}
      className={`col-span-2 h-6 w-full border bg-paper px-1 font-mono text-[11.5px] ${wrong ? "border-urgent" : "border-hairline"}`}
    />
  );
}

/** The sample row that is there where none is passed. */
function DefaultRow({ param, type, onChange }: { param: Param; type: RecordType; onChange: (param: Param) => void }) {
  const key = keyField(type);
  const keyed = (row: unknown) => (typeof row === "object" && row !== null && key in row ? String((row as Row)[key]) : "");
  return (
    <select
      aria-label={`Default of ${param.name}`}
      title="The row that is there where none is passed"
      value={keyed(param.default)}
      onChange={(event) => {
        const { default: _, ...rest } = param;
        const row = type.samples.find((sample) => keyed(sample) === event.target.value);
        onChange(row ? { ...rest, default: row } : rest);
      }}
      className="col-span-2 h-6 w-full border border-hairline bg-paper px-1 font-mono text-[11.5px]"
    >
      <option value="">by default…</option>
      {type.samples.map((sample, i) => (
        <option key={keyed(sample) || i} value={keyed(sample)}>
          {keyed(sample)}
        </option>
      ))}
    </select>
  );
}
