import { useRef, useState } from "react";
import { type ReadRows, readRows } from "../../core/model/data/rows.ts";
import { changeType } from "../../core/model/edits/types.ts";
import { SIZE_LIMIT } from "../../core/model/read.ts";
import type { RecordType } from "../../core/model/schema.ts";
import { Button } from "../parts/Button.tsx";
import { useDocument } from "../store/document.ts";

/** Sample rows from a table or a JSON list, pasted or from a file. Rows that do not fit are said, and the rest comes in only when that is asked for. */
export function PasteRows({ type }: { type: RecordType }) {
  const apply = useDocument((d) => d.apply);
  const file = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [read, setRead] = useState<ReadRows>();
  const [said, setSaid] = useState("");
  const take = (found: ReadRows) => {
    apply(changeType(type.id, { samples: [...type.samples, ...found.rows] }, `Import ${found.rows.length} samples into`));
    setSaid(`${found.rows.length} ${found.rows.length === 1 ? "row" : "rows"} came in${found.refused > 0 ? `; ${found.refused} did not` : ""}.`);
    setRead(undefined);
    setText("");
  };
  const look = (source: string) => {
    const found = readRows(source, type);
    setSaid("");
    if (found.problems.length === 0 && found.rows.length > 0) take(found);
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
            else look(await chosen.text());
          }}
        />
        <span role="status" className="text-ink-2">
          {said}
        </span>
      </div>
      {read && (
        <div role="alert" className="mt-2 border border-urgent bg-sheet p-2">
          <p className="m-0 font-semibold">
            {read.refused} of {read.rows.length + read.refused} {read.rows.length + read.refused === 1 ? "row does" : "rows do"} not fit. Nothing was taken in
            yet.
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
          {read.ignored.length > 0 && <p className="m-0">Not in the type, and left out: {read.ignored.join(", ")}.</p>}
          <div className="mt-1 flex gap-2">
            {read.rows.length > 0 && (
              <Button onClick={() => take(read)}>Take in the {read.rows.length === 1 ? "one that fits" : `${read.rows.length} that fit`}</Button>
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
