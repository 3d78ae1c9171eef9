import { memo } from "react";
import type { Seen } from "../../../core/map/lenses/lens.ts";
import type { Worst } from "../../session/findingWords.ts";
import { NameField } from "../../ui/NameField.tsx";
import type { OutlineRow } from "./tree.ts";

interface Props {
  row: OutlineRow;
  selected: boolean;
  chosen: boolean;
  here: boolean;
  aim: boolean;
  mark: Worst | undefined;
  /** What a lens shows of it. */
  lens: Seen | undefined;
  /** Whether its name is being written. */
  naming: boolean;
  /** Where something that is dragged would be put: before it or into it. */
  drop: "before" | "into" | undefined;
  onName: (name: string | undefined) => void;
}

/** One line of the outline: a place or an element, with what is wrong with it. */
export const RowView = memo(function RowView({ row, selected, chosen, here, aim, mark, lens, naming, drop, onName }: Props) {
  const ground = selected || chosen ? "bg-accent-soft" : "hover:bg-band";
  return (
    <div
      id={rowId(row.key)}
      data-key={row.key}
      role="treeitem"
      tabIndex={-1}
      aria-level={row.level + 1}
      aria-selected={selected || chosen}
      draggable={!naming}
      style={{ paddingLeft: 14 + row.level * 13 }}
      className={`outline-row relative flex min-h-6 focus:outline-none cursor-default items-center gap-2 pr-3 text-[12.5px] ${ground} ${row.isContainer ? "font-semibold" : ""} ${row.element ? "text-ink-2" : ""} ${here ? "font-semibold text-accent" : ""} ${aim || drop === "into" ? "outline-2 outline-dashed outline-accent -outline-offset-2" : ""}`}
    >
      {drop === "before" && <span className="absolute inset-x-2 top-0 h-0.5 bg-accent" />}
      {naming ? (
        <NameField
          label={`Another name for ${row.name}`}
          name={row.name}
          onName={onName}
          className="h-[20px] min-w-0 flex-1 px-1 text-[12.5px] font-normal text-ink"
        />
      ) : (
        <span className="min-w-0 flex-1 truncate">{row.name}</span>
      )}
      {lens ? (
        <span className="shrink-0 text-[11px] font-normal text-ink-2" title={lens.long}>
          <span aria-hidden="true">{lens.says}</span>
          <span className="sr-only">{lens.long}</span>
        </span>
      ) : mark ? (
        <span
          className={`h-2.5 w-2.5 shrink-0 rounded-full ${mark.severity === "blocker" ? "bg-urgent" : "bg-warm"}`}
          role="img"
          aria-label={`${mark.count} ${mark.severity}`}
        />
      ) : (
        <span className="shrink-0 text-[11px] font-normal text-ink-2">{row.says}</span>
      )}
    </div>
  );
}, looksSame);

/** The id of a row's element on the page. */
export function rowId(key: string): string {
  return `row-${key.replaceAll(" ", "-")}`;
}

/** Rows are made again with each edit; most of them look as before. */
function looksSame(a: Props, b: Props): boolean {
  return (
    !a.naming &&
    !b.naming &&
    a.row.key === b.row.key &&
    a.row.level === b.row.level &&
    a.row.name === b.row.name &&
    a.row.says === b.row.says &&
    a.row.isContainer === b.row.isContainer &&
    a.selected === b.selected &&
    a.chosen === b.chosen &&
    a.here === b.here &&
    a.aim === b.aim &&
    a.drop === b.drop &&
    a.lens?.says === b.lens?.says &&
    a.lens?.long === b.lens?.long &&
    a.mark?.severity === b.mark?.severity &&
    a.mark?.count === b.mark?.count
  );
}
