import { useRef, useState } from "react";
import { type ReadRows, readRows } from "../../../core/model/data/rows.ts";
import { changeType } from "../../../core/model/edits/types.ts";
import { problemLine, SIZE_LIMIT } from "../../../core/model/read.ts";
import { NAME_PATTERN, type RecordType } from "../../../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../../../core/model/utf8.ts";
import { useDocument } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

/** Sample rows from a table or a JSON list, pasted or from a file. Rows that do not fit are said, and the rest comes in only when that is asked for. */
export function PasteRows({ type }: { type: RecordType }) {
  const apply = useDocument((d) => d.apply);
  const file = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [read, setRead] = useState<ReadRows>();
  const [source, setSource] = useState("");
  const [said, setSaid] = useState("");
  // Columns that are no fields yet and could be: they are offered, and never dropped without a word.
  const offered = (read?.ignored ?? []).filter((name) => NAME_PATTERN.test(name));
  const withFields = () => {
    const wider = { ...type, fields: [...type.fields, ...offered.map((name) => ({ name, type: "text" }))] };
    take(readRows(source, wider), offered);
  };
  const take = (found: ReadRows, added: readonly string[] = []) => {
    const fields = [...type.fields, ...added.map((name) => ({ name, type: "text" }))];
    apply(changeType(type.id, { fields, samples: [...type.samples, ...found.rows] }, `Import ${found.rows.length} samples into`));
    const left = found.ignored.length > 0 ? ` Without ${found.ignored.length === 1 ? "the column" : "the columns"} ${found.ignored.join(", ")}.` : "";
    setSaid(`${found.rows.length} ${found.rows.length === 1 ? "row" : "rows"} came in${found.refused > 0 ? `; ${found.refused} did not` : ""}.${left}`);
    setRead(undefined);
    setText("");
  };
  const look = (source: string) => {
    const found = readRows(source, type);
    setSaid("");
    setSource(source);
    if (found.problems.length === 0 && found.ignored.length === 0 && found.rows.length > 0) take(found);
    else setRead(found);
  };
  return (
    <section aria-label="Import samples" className="text-[12px]">
      <label className="block text-[11.5px] text-ink-2">
        Paste rows: a table (from a spreadsheet, CSV) or a JSON list
        <textarea
          value={text}
          rows={3}
          placeholder={`${type.fields.map((f) => f.name).join(",")}\n…`}
          onChange={(event) => setText(event.target.value)}
          className="mt-0.5 block w-full border border-hairline bg-paper p-1.5 font-mono text-[11.5px] text-ink"
        />
      </label>
      <div className="mt-1 flex items-center gap-2">
        <Button disabled={text.trim() === ""} onClick={() => look(text)}>
          Add these rows
        </Button>
        <Button tone="quiet" onClick={() => file.current?.click()}>
          From a file…
        </Button>
        <input
          ref={file}
          type="file"
          accept=".csv,.tsv,.json,text/csv,application/json"
          aria-label="File of samples"
          className="hidden"
          onChange={async (event) => {
            const chosen = event.target.files?.[0];
            event.target.value = "";
            if (!chosen) return;
            if (chosen.size > SIZE_LIMIT) setSaid(`${chosen.name} is larger than 20 MiB and was not read.`);
            else {
              const decoded = decodeUtf8(new Uint8Array(await chosen.arrayBuffer()));
              if (decoded.ok) look(decoded.text);
              else setSaid(`${chosen.name} was not read: ${problemLine(utf8Problem(decoded))}.`);
            }
          }}
        />
        <span role="status" className="text-ink-2">
          {said}
        </span>
      </div>
      {read && (
        <div role="alert" className="mt-2 border border-urgent bg-sheet p-2">
          <p className="m-0 font-semibold">
            {read.refused > 0
              ? `${read.refused} of ${read.rows.length + read.refused} ${read.rows.length + read.refused === 1 ? "row does" : "rows do"} not fit. Nothing was taken in yet.`
              : read.rows.length === 0
                ? "There are no rows in it."
                : `${type.name ?? type.id} has no ${read.ignored.length === 1 ? "field" : "fields"} ${read.ignored.join(", ")}. Nothing was taken in yet.`}
          </p>
          <ul className="m-0 max-h-32 list-none overflow-y-auto p-0 font-mono text-[11.5px]">
            {read.problems.slice(0, 50).map((problem) => (
              <li key={`${problem.row} ${problem.field}`}>
                row {problem.row}
                {problem.field === "" ? "" : `, ${problem.field}`}: {problem.found}; expected {problem.expected}
              </li>
            ))}
            {read.problems.length > 50 && <li>and {read.problems.length - 50} more</li>}
          </ul>
          {read.refused > 0 && read.ignored.length > 0 && <p className="m-0">Not in the type, and left out: {read.ignored.join(", ")}.</p>}
          <div className="mt-1 flex gap-2">
            {offered.length > 0 && read.rows.length > 0 && read.refused === 0 && (
              <Button tone="main" onClick={withFields}>
                Add {offered.length === 1 ? `the field ${offered[0]}` : `the fields ${offered.join(", ")}`}, and take in the rows
              </Button>
            )}
            {read.rows.length > 0 && (
              <Button onClick={() => take(read)}>
                {read.refused === 0 ? "Take in the rows without" : `Take in the ${read.rows.length === 1 ? "one that fits" : `${read.rows.length} that fit`}`}
              </Button>
            )}
            <Button tone="quiet" onClick={() => setRead(undefined)}>
              Take in none
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
