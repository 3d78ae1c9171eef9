import { lazy, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { isLines } from "../../../core/lines/isLines.ts";
import { tableLines } from "../../../core/lines/table.ts";
import { applyEdit } from "../../../core/model/edits/kinds.ts";
import { addScreenBeside } from "../../../core/model/edits/link.ts";
import { elementIdOf, lookup } from "../../../core/model/lookup.ts";
import { rankedByName, sameName } from "../../../core/model/names.ts";
import type { Project } from "../../../core/model/schema.ts";
import { currentScreen } from "../../../core/semantics/state.ts";
import { linkTo } from "../../session/actions/linking.ts";
import { worstByPlace } from "../../session/findingWords.ts";
import { useDocument, useFindings, useRenaming, useSelection, useSession, useWalkState } from "../../session/hooks.ts";

import { allChosen, keyOf, placeOf, type Selection } from "../../session/selection.ts";

import { useLensView } from "../../session/useLens.ts";
import { Later, preload } from "../../ui/preloaded.tsx";
import { RowView, rowId } from "./RowView.tsx";
import { renameRow } from "./rename.ts";
import { addedWhere, type OutlineRow, outlineRows } from "./tree.ts";
import { useDragRows } from "./useDragRows.ts";

const WaysIn = preload(async () => (await import("./WaysIn.tsx")).WaysIn);

const LinesDialog = lazy(async () => ({ default: (await import("./LinesDialog.tsx")).LinesDialog }));
const LinesPreview = lazy(async () => ({ default: (await import("./LinesPreview.tsx")).LinesPreview }));

/** Pixels beneath a chosen row that should be in view with it. */
const LISTED = 64;

/** The tree of containers and screens, what is wrong where, and the ways in; everything in it by keyboard. */
export function Outline() {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { selected, also, select, selectAll, toggle, link, linking, aim } = useSelection();
  const naming = useRenaming();
  const result = useFindings((f) => f.result);
  const state = useWalkState();
  const here = state && currentScreen(state).at;
  const lens = useLensView();
  const [query, setQuery] = useState("");
  /** Pasted lines that could not be built. */
  const [refused, setRefused] = useState<string>();
  const list = useRef<HTMLDivElement>(null);
  const drag = useDragRows(project);
  const openPlace = placeOf(project, selected);
  const rows = useMemo(() => outlineRows(project, openPlace), [project, openPlace]);
  const worst = useMemo(() => worstByPlace(project, result?.findings ?? []), [project, result]);
  const chosen = useMemo(() => new Set(allChosen({ selected, also }).map(keyOf)), [selected, also]);
  const wanted = query.trim();
  const lined = isLines(query);
  // While a line is typed the outline stays as it is.
  const sought = lined ? "" : wanted;
  const shown = useMemo(() => rankedByName(rows, sought, (row) => [row.name]), [rows, sought]);
  /** The suggestion that the arrows are on while a name is typed. */
  const [hot, setHot] = useState<string>();
  const selectedKey = rowKeyOf(project, selected);
  useEffect(() => {
    const row = list.current?.querySelector(`[data-key="${CSS.escape(selectedKey ?? "")}"]`);
    const [frame, box] = [list.current?.getBoundingClientRect(), row?.getBoundingClientRect()];
    // With some of what stands on it, which is listed beneath it.
    if (frame && box && (box.top < frame.top || box.bottom + LISTED > frame.bottom)) row?.scrollIntoView({ block: "center" });
  }, [selectedKey]);

  const choose = (row: OutlineRow | undefined, how: "alone" | "more" | "range" = "alone") => {
    if (!row) return;
    if (linking && !row.element) linkTo(session, row.place);
    else if (how === "more") toggle(chosenOf(row));
    else if (how === "range") selectAll(range(shown, selectedKey, row).map(chosenOf));
    else select(chosenOf(row));
  };
  const keys = (event: React.KeyboardEvent) => {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const at = shown.findIndex((row) => row.key === selectedKey);
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const by = event.key === "ArrowDown" ? 1 : -1;
      if (event.shiftKey) stretch(nextAlike(shown, at, by));
      else choose(shown[Math.max(0, Math.min(shown.length - 1, at + by))]);
    } else if (event.key === "Home" || event.key === "End") {
      event.preventDefault();
      choose(event.key === "Home" ? shown[0] : shown.at(-1));
    } else if (event.key === "Enter" && selected?.kind === "element") {
      event.preventDefault();
      link({ place: selected.place, element: selected.id });
    } else if (event.key === "Enter" && selected?.kind === "place") {
      event.preventDefault();
      document.getElementById("new-element")?.focus();
    }
  };
  /** Shift and an arrow choose one more, or one less where that was chosen already. */
  const stretch = (next: OutlineRow | undefined) => {
    if (!next) return;
    const known = allChosen({ selected, also });
    const back = known.findIndex((one) => keyOf(one) === next.key);
    selectAll(back >= 0 ? known.slice(0, back + 1) : [...known, chosenOf(next)]);
  };
  /** Adds what is named and not there, one screen for each name; the last is chosen, and the next can be typed at once. */
  const add = (names: readonly string[]) => {
    let now = project;
    let beside = openPlace;
    for (const name of names) {
      if (now.screens.some((screen) => sameName(screen.name, name))) continue;
      const { edit, screenId } = addScreenBeside(now, beside, name);
      apply(edit);
      now = applyEdit(now, edit);
      beside = screenId;
    }
    if (beside !== undefined && now !== project) select({ kind: "place", id: beside });
    setQuery("");
  };
  const build = async (text: string) => {
    const { buildLines, mayBeAddresses } = await import("./buildLines.ts");
    if (buildLines(session, text, openPlace)) setQuery("");
    else if (text.includes("\n") && !mayBeAddresses(session, text)) setRefused(text);
  };
  const enter = () => {
    if (lined && !shown.some((row) => row.key === hot) && !exactRow(shown, wanted)) {
      void build(query);
      return;
    }
    const names = query.split(/[,\n]/).map((name) => name.trim());
    const found = shown.find((row) => row.key === hot) ?? exactRow(shown, wanted);
    setHot(undefined);
    if (found) {
      choose(found);
      setQuery("");
    } else add(names.filter((name) => name !== ""));
  };
  const exact = exactRow(shown, wanted);
  const keysInField = (event: React.KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      if (wanted === "") list.current?.querySelector<HTMLElement>("[role=tree]")?.focus();
      else {
        const at = shown.findIndex((row) => row.key === hot);
        setHot(shown[Math.max(-1, Math.min(shown.length - 1, at + (event.key === "ArrowDown" ? 1 : -1)))]?.key);
      }
    } else if (event.key === "Escape") {
      event.preventDefault();
      setHot(undefined);
      setQuery("");
      if (wanted === "") list.current?.querySelector<HTMLElement>("[role=tree]")?.focus();
    }
  };
  return (
    <nav aria-label="Outline" className="flex h-full min-h-0 flex-col bg-sheet">
      <form
        className="p-3 pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          enter();
        }}
      >
        <input
          id="find"
          value={query}
          onChange={(event) => {
            setQuery(event.target.value);
            setHot(undefined);
          }}
          onPaste={(event) => {
            const text = event.clipboardData.getData("text/plain");
            if (!text.includes("\n")) return;
            event.preventDefault();
            if (tableLines(text) || text.split(/\r?\n/).some((line) => isLines(line) || /^(\s+\S|\/|https?:)/.test(line))) {
              void build(text);
              return;
            }
            setQuery(
              text
                .split(/\r?\n/)
                .map((line) => line.trim())
                .filter((line) => line !== "")
                .join(", "),
            );
          }}
          placeholder="Find, add, or build: Plot: Edit > Edit plot"
          title="A name finds or adds a screen. A line builds: Plots: Plot list > Plot, New plot > New plot (sheet)"
          aria-label="Find or add a screen"
          aria-activedescendant={hot === undefined ? undefined : rowId(hot)}
          className="h-8 w-full border border-hairline bg-band px-2 text-[12.5px]"
          onKeyDown={keysInField}
        />
        {lined && !exact && (
          <Suspense>
            <LinesPreview project={project} text={query} beside={openPlace} />
          </Suspense>
        )}
        {wanted !== "" && !exact && !lined && (
          <button type="submit" className="mt-1 min-h-6 w-full truncate text-left text-[12px] font-semibold text-accent">
            + Add {wanted.includes(",") ? "screens" : "screen"} “{wanted}”{openPlace ? addedWhere(project, openPlace) : ""}
          </button>
        )}
      </form>
      <div ref={list} className="min-h-0 flex-1 overflow-y-auto pb-3">
        <div
          id="places"
          role="tree"
          aria-label="Places"
          aria-multiselectable="true"
          aria-activedescendant={selectedKey === undefined ? undefined : rowId(selectedKey)}
          tabIndex={0}
          onKeyDown={keys}
          onClick={(event) => {
            const key = (event.target as Element).closest<HTMLElement>("[data-key]")?.dataset.key;
            choose(
              shown.find((row) => row.key === key),
              event.ctrlKey || event.metaKey ? "more" : event.shiftKey ? "range" : "alone",
            );
          }}
          onDoubleClick={(event) => {
            const key = (event.target as Element).closest<HTMLElement>("[data-key]")?.dataset.key;
            if (key !== undefined) naming.begin(key);
          }}
          {...drag.handlers}
          className="outline-offset-[-2px]"
        >
          {shown.map((row) => (
            <RowView
              key={row.key}
              row={row}
              selected={row.key === selectedKey && selected?.kind !== "leg"}
              chosen={chosen.has(row.key)}
              here={here === row.place && !row.element}
              aim={(linking !== undefined && aim === row.key) || hot === row.key}
              mark={row.element || lens ? undefined : worst.get(row.place)}
              lens={row.element ? undefined : lens?.places.get(row.place)}
              naming={naming.key === row.key}
              drop={drag.drop?.key === row.key ? drag.drop.where : undefined}
              onName={(name) => {
                if (naming.key === row.key) document.getElementById("places")?.focus();
                naming.end();
                if (name && name !== row.name) apply(renameRow(project, row, name));
              }}
            />
          ))}
        </div>
        {shown.length === 0 && !lined && <p className="px-4 text-[12px] text-ink-2">Nothing is called that. Enter adds it as a screen.</p>}
        <Suspense>
          <Later part={WaysIn} />
        </Suspense>
      </div>
      {refused !== undefined && (
        <Suspense>
          <LinesDialog pasted={refused} beside={openPlace} onClose={() => setRefused(undefined)} />
        </Suspense>
      )}
    </nav>
  );
}

/** The row that what is chosen stands in: of a leg, that of what it starts at. */
function rowKeyOf(project: Project, selected: Selection): string | undefined {
  if (selected?.kind === "element" || selected?.kind === "place") return keyOf(selected);
  const leg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  const element = leg && elementIdOf(leg);
  return leg && (element === undefined ? leg.from : keyOf({ kind: "element", place: leg.from, id: element }));
}

/** The row of exactly that name: a screen before a container before an element. */
function exactRow(rows: readonly OutlineRow[], name: string): OutlineRow | undefined {
  const same = name === "" ? [] : rows.filter((row) => sameName(row.name, name));
  return same.find((row) => !row.isContainer && !row.element) ?? same.find((row) => !row.element) ?? same[0];
}

/** The next row up or down that is a place where the current one is, or another element of the same place. */
function nextAlike(rows: readonly OutlineRow[], at: number, by: 1 | -1): OutlineRow | undefined {
  const from = rows[at];
  for (let i = at + by; i >= 0 && i < rows.length; i += by) {
    const row = rows[i];
    if (row && (from?.element ? row.element && row.place === from.place : !row.element)) return row;
  }
  return undefined;
}

function chosenOf(row: OutlineRow) {
  return row.element ? { kind: "element" as const, place: row.place, id: row.element.id } : { kind: "place" as const, id: row.place };
}

function range(rows: OutlineRow[], from: string | undefined, to: OutlineRow): OutlineRow[] {
  const [a, b] = [rows.findIndex((row) => row.key === from), rows.indexOf(to)];
  const part = rows.slice(Math.min(a < 0 ? b : a, b), Math.max(a, b) + 1);
  // Elements are listed within an open place; a range of places leaves them out.
  const places = part.filter((row) => row.element === undefined);
  const ordered = (places.length > 0 && to.element === undefined ? places : part.filter((row) => row.place === to.place && row.element)).filter(
    (row) => row !== to,
  );
  return [...ordered, to];
}
