import { useEffect, useMemo, useRef, useState } from "react";
import { currentScreen } from "../../core/engine/state.ts";
import { addEntrance } from "../../core/model/edits/add.ts";
import { freshId } from "../../core/model/edits/edit.ts";
import { addScreenBeside } from "../../core/model/edits/link.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import { worstByPlace } from "../findings/words.ts";
import { useDeletion } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { useFindings } from "../store/findings.ts";
import { useSelection } from "../store/selection.ts";
import { useWalkState } from "../store/walk.ts";
import { type OutlineRow, outlineRows } from "./tree.ts";

/** The tree of containers and screens, what is wrong where, and the ways in; found, added and moved through by keyboard. */
export function Outline() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { selected, select, link } = useSelection();
  const askDelete = useDeletion((d) => d.ask);
  const result = useFindings((f) => f.result);
  const state = useWalkState();
  const here = state && currentScreen(state).at;
  const [query, setQuery] = useState("");
  const list = useRef<HTMLDivElement>(null);
  const openPlace =
    selected?.kind === "place"
      ? selected.id
      : selected?.kind === "element"
        ? selected.place
        : selected?.kind === "leg"
          ? lookup(project).legs.get(selected.id)?.from
          : undefined;
  const rows = useMemo(() => outlineRows(project, openPlace), [project, openPlace]);
  const worst = useMemo(() => worstByPlace(project, result?.findings ?? []), [project, result]);
  const wanted = query.trim().toLowerCase();
  const shown = wanted === "" ? rows : rows.filter((row) => row.name.toLowerCase().includes(wanted));

  const selectedKey = selected?.kind === "element" ? `${selected.place} ${selected.id}` : selected?.kind === "place" ? selected.id : undefined;
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  });
  const choose = (row: OutlineRow | undefined) => {
    if (row) select(row.element ? { kind: "element", place: row.place, id: row.element.id } : { kind: "place", id: row.place });
  };
  const keys = (event: React.KeyboardEvent) => {
    const at = shown.findIndex((row) => row.key === selectedKey);
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      choose(shown[Math.max(0, Math.min(shown.length - 1, at + (event.key === "ArrowDown" ? 1 : -1)))]);
    } else if ((event.key === "Delete" || event.key === "Backspace") && selected) {
      event.preventDefault();
      askDelete(selected);
    } else if ((event.key === "l" || event.key === "Enter") && selected?.kind === "element") {
      event.preventDefault();
      link({ place: selected.place, element: selected.id });
    }
  };
  const add = () => {
    const name = query.trim();
    if (name === "") return;
    const { edit, screenId } = addScreenBeside(project, openPlace, name);
    apply(edit);
    select({ kind: "place", id: screenId });
    setQuery("");
  };
  const exact = rows.some((row) => !row.element && row.name.toLowerCase() === wanted);
  return (
    <nav aria-label="Outline" className="flex h-full min-h-0 flex-col border-r border-hairline bg-sheet">
      <form
        className="p-3 pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (exact || shown.length === 1) {
            choose(shown.find((row) => row.name.toLowerCase() === wanted) ?? shown[0]);
            setQuery("");
          } else add();
        }}
      >
        <input
          id="find"
          value={query}
          onChange={(event) => setQuery(event.target.value)}
          placeholder="Find or add a screen…"
          aria-label="Find or add a screen"
          className="h-8 w-full border border-hairline bg-band px-2 text-[12.5px]"
          onKeyDown={(event) => event.key === "Escape" && setQuery("")}
        />
        {wanted !== "" && !exact && (
          <button type="button" onClick={add} className="mt-1 min-h-6 w-full truncate text-left text-[12px] font-semibold text-accent">
            + Add screen “{query.trim()}”{openPlace ? ` beside “${nameOf(project, openPlace)}”` : ""}
          </button>
        )}
      </form>
      <div ref={list} className="min-h-0 flex-1 overflow-y-auto pb-3">
        <div role="tree" aria-label="Places" tabIndex={0} onKeyDown={keys} className="outline-offset-[-2px]">
          {shown.map((row) => {
            const mark = row.element ? undefined : worst.get(row.place);
            const isSelected = row.key === selectedKey;
            return (
              <div
                key={row.key}
                role="treeitem"
                tabIndex={-1}
                aria-level={row.level + 1}
                aria-selected={isSelected}
                onClick={() => choose(row)}
                style={{ paddingLeft: 14 + row.level * 13 }}
                className={`flex min-h-[21px] cursor-default items-center gap-2 pr-3 text-[12.5px] ${isSelected ? "bg-accent-soft" : "hover:bg-band"} ${row.isContainer ? "font-semibold" : ""} ${row.element ? "text-ink-2" : ""} ${here === row.place && !row.element ? "font-semibold text-accent" : ""}`}
              >
                <span className="min-w-0 flex-1 truncate">{row.name}</span>
                {mark ? (
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
          })}
        </div>
        {shown.length === 0 && <p className="px-4 text-[12px] text-ink-2">Nothing is called that. Enter adds it as a screen.</p>}
        <h2 className="caption mx-3 mt-3 mb-1 flex items-center justify-between border-t border-hairline pt-2">
          Ways in
          <button
            type="button"
            aria-label="Add a way in"
            className="min-h-6 min-w-6 font-normal text-ink-2 hover:text-ink"
            onClick={() => {
              const id = freshId("way in", lookup(project).entrances, "wayIn");
              const to = here ?? project.screens[0]?.id;
              if (to === undefined) return;
              apply(addEntrance({ id, name: "New way in", kind: "link", to, warm: "rebuild" }));
              select({ kind: "entrance", id });
            }}
          >
            +
          </button>
        </h2>
        <p className="m-0 px-[14px] text-[12.5px] leading-[21px] text-ink-2">Launch</p>
        {project.entrances.map((entrance) => (
          <button
            key={entrance.id}
            type="button"
            onClick={() => select({ kind: "entrance", id: entrance.id })}
            className={`block min-h-6 w-full truncate px-[14px] text-left text-[12.5px] ${selected?.kind === "entrance" && selected.id === entrance.id ? "bg-accent-soft" : "hover:bg-band"}`}
          >
            {entrance.name} <span className="text-[11px] text-ink-2">{entrance.pattern ?? entrance.kind}</span>
          </button>
        ))}
      </div>
    </nav>
  );
}
