import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";
import { cellValue } from "../../../core/model/data/rows.ts";
import { changeCell, changeType } from "../../../core/model/edits/types.ts";
import { typeLabel } from "../../../core/model/lookup.ts";
import type { Json, RecordType } from "../../../core/model/schema.ts";
import { useDocument } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

const ROW = 28;

/** Sample rows as a table; only those in view are drawn, so that ten thousand are as quick as ten. */
export function SampleTable({ type }: { type: RecordType }) {
  const apply = useDocument((d) => d.apply);
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: type.samples.length, getScrollElement: () => frame.current, estimateSize: () => ROW, overscan: 8 });
  const columns = `44px repeat(${type.fields.length}, minmax(90px, 1fr)) 80px`;
  return (
    <div className="min-h-0 min-w-0 border border-hairline bg-sheet">
      <div role="table" aria-label={`Samples of ${typeLabel(type)}`} aria-rowcount={type.samples.length + 1}>
        <div role="row" className="grid border-b border-hairline bg-band text-[11.5px] text-ink-2" style={{ gridTemplateColumns: columns }}>
          <span role="columnheader" className="px-2 py-1">
            #
          </span>
          {type.fields.map((field) => (
            <span key={field.name} role="columnheader" className="truncate px-2 py-1 font-mono">
              {field.name} <span className="font-sans">{field.type}</span>
            </span>
          ))}
          <span role="columnheader" aria-label="Order and delete" />
        </div>
        <div ref={frame} className="max-h-[40vh] overflow-y-auto" data-testid="samples">
          <div className="relative" style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map((item) => (
              <div
                key={item.key}
                role="row"
                aria-rowindex={item.index + 2}
                className="absolute inset-x-0 grid items-center border-b border-hairline/60 text-[12px]"
                style={{ gridTemplateColumns: columns, height: ROW, transform: `translateY(${item.start}px)` }}
              >
                <span role="cell" className="px-2 font-mono text-[11px] text-ink-2">
                  {item.index + 1}
                </span>
                {type.fields.map((field) => (
                  <Cell
                    key={field.name}
                    label={`${field.name} of row ${item.index + 1}`}
                    type={field.type}
                    value={type.samples[item.index]?.[field.name]}
                    onCommit={(value) => apply(changeCell(type.id, item.index, field.name, value))}
                  />
                ))}
                <span role="cell" className="flex">
                  <MoveRow type={type} from={item.index} by={-1} />
                  <MoveRow type={type} from={item.index} by={1} />
                  <button
                    type="button"
                    aria-label={`Delete row ${item.index + 1}`}
                    className="min-h-6 min-w-6 text-ink-2 hover:text-urgent"
                    onClick={() => apply(changeType(type.id, { samples: type.samples.filter((_, i) => i !== item.index) }, "Delete a sample of"))}
                  >
                    ×
                  </button>
                </span>
              </div>
            ))}
          </div>
        </div>
      </div>
      <div className="flex items-center gap-3 px-2 py-1 text-[11.5px] text-ink-2">
        <Button tone="quiet" onClick={() => apply(changeType(type.id, { samples: [...type.samples, {}] }, "Add a sample to"))}>
          + row
        </Button>
        {type.samples.length === 0 && <span>No samples yet: lists of this type show one plain row on the device.</span>}
      </div>
    </div>
  );
}

/** Puts a sample row one place up or down; rows are shown, and paged through, in this order. */
function MoveRow({ type, from, by }: { type: RecordType; from: number; by: 1 | -1 }) {
  const apply = useDocument((d) => d.apply);
  const to = from + by;
  const move = () => {
    const samples = [...type.samples];
    const [row] = samples.splice(from, 1);
    if (!row) return;
    samples.splice(to, 0, row);
    apply(changeType(type.id, { samples }, "Reorder samples of"));
  };
  return (
    <button
      type="button"
      aria-label={`Move row ${from + 1} ${by < 0 ? "up" : "down"}`}
      disabled={to < 0 || to >= type.samples.length}
      className="min-h-6 min-w-6 text-ink-2 enabled:hover:text-ink disabled:opacity-30"
      onClick={move}
    >
      {by < 0 ? "↑" : "↓"}
    </button>
  );
}

interface CellProps {
  label: string;
  type: string;
  value: Json | undefined;
  onCommit: (value: Json | undefined) => void;
}

function Cell({ label, type, value, onCommit }: CellProps) {
  const text = value === undefined ? "" : typeof value === "string" ? value : JSON.stringify(value);
  const [draft, setDraft] = useState<string>();
  const [wrong, setWrong] = useState(false);
  const commit = () => {
    if (draft === undefined) return;
    const next = draft === "" ? undefined : cellValue(draft, type);
    if (draft !== "" && next === undefined) {
      setWrong(true);
      return;
    }
    setWrong(false);
    setDraft(undefined);
    if (draft !== text) onCommit(next);
  };
  return (
    <span role="cell" className="min-w-0">
      <input
        aria-label={label}
        aria-invalid={wrong}
        title={wrong ? `A value of the type ${type} is expected; Escape takes back.` : undefined}
        value={draft ?? text}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") {
            setDraft(undefined);
            setWrong(false);
          }
        }}
        className={`h-[26px] w-full bg-transparent px-2 text-[12px] focus:bg-paper ${wrong ? "text-urgent underline decoration-wavy" : ""}`}
      />
    </span>
  );
}
