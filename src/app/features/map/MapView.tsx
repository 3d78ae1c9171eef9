import { Suspense, useEffect, useMemo, useRef } from "react";
import { inFocus } from "../../../core/map/focus.ts";
import { keepLines } from "../../../core/map/keep.ts";
import { layoutMap } from "../../../core/map/layout.ts";
import { columnX, type Line, linesOf, routeOf } from "../../../core/map/lines.ts";
import { CARD_WIDTH, tapsOn } from "../../../core/map/measure.ts";
import type { MapLayout } from "../../../core/map/types.ts";
import type { Chosen } from "../../../core/model/edits/clip.ts";
import { plannedIn } from "../../../core/model/edits/planned.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import { linkTo } from "../../session/actions/linking.ts";
import { focusSays } from "../../session/commands/look.ts";
import { worstByPlace } from "../../session/findingWords.ts";
import { useDocument, useFindings, useFocus, useSelection, useSession, useWalk, useWalkState } from "../../session/hooks.ts";
import { keyOf } from "../../session/selection.ts";
import { Later, preload } from "../../ui/preloaded.tsx";
import { TypedAhead } from "../../ui/typedAhead.tsx";
import { Drawing } from "./Drawing.tsx";
import { LineEnds } from "./marks.tsx";
import { useDrawLeg } from "./useDrawLeg.ts";
import { useVisible } from "./useVisible.ts";
import { useZoom } from "./useZoom.ts";

const LinkMade = preload(async () => (await import("./LinkMade.tsx")).LinkMade);
const TargetPicker = preload(async () => (await import("./TargetPicker.tsx")).TargetPicker);

/** Pixels at the foot of the map that the picker of targets covers. */
const PICKER_HEIGHT = 360;

/** The map: the structure drawn from the document, with the place where the walk stands. */
export function MapView() {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const { selected, also, select, toggle, link, linking, aim } = useSelection();
  const result = useFindings((f) => f.result);
  const state = useWalkState();
  const lastEvent = useWalk((w) => w.steps[w.at - 1]?.event);
  const { focus, show: showFocus } = useFocus();
  const { layout, lines } = useLayout(project);
  const { drawn, look } = useVisible();
  const { svg, ground, frame, detail, show, scaleBy, showAll } = useZoom(layout.width, layout.height, look);
  const worst = useMemo(() => worstByPlace(project, result?.findings ?? []), [project, result]);
  const here = state && currentScreen(state).at;
  const beneath = useMemo(() => new Set(state ? beneathOf(state) : []), [state]);
  const chosen = useMemo(() => new Set(also.map(keyOf)), [also]);
  const focused = useMemo(() => focus && inFocus(project, focus), [project, focus]);
  const selectedLeg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  const takenLeg = lastEvent?.do === "leg" ? lookup(project).legs.get(lastEvent.leg) : undefined;
  const routed = useMemo(() => {
    const legs = new Set([selectedLeg, takenLeg, ...(focused?.legs ?? [])]);
    return [...legs].flatMap((leg) => (leg ? (routeOf(project, layout, leg) ?? []) : []));
  }, [project, layout, selectedLeg, takenLeg, focused]);
  const draw = useDrawLeg(svg, (from, to) => {
    if (to === undefined) link(from);
    else linkTo(session, to, from);
  });

  const selectedPlace = selected?.kind === "place" ? selected.id : selected?.kind === "element" ? selected.place : selectedLeg?.from;
  // What is chosen, aimed at or walked to is brought into view once, and not again with every edit.
  const latest = useRef(layout);
  latest.current = layout;
  const first = useRef(true);
  useEffect(() => {
    const { cards, bands } = latest.current;
    const box = cards.find((card) => card.id === (aim ?? selectedPlace ?? "")) ?? bands.find((band) => band.id === (aim ?? selectedPlace));
    if (box && !first.current)
      show({ ...box, width: Math.min(box.width, CARD_WIDTH * 2), height: Math.min(box.height, 200) }, aim === undefined ? 0 : PICKER_HEIGHT);
    first.current = false;
  }, [aim, selectedPlace, show]);
  useEffect(() => {
    const card = latest.current.cards.find((c) => c.id === here);
    if (card) show(card);
  }, [here, show]);

  const click = (event: React.MouseEvent) => {
    const target = event.target as Element;
    const leg = target.closest("[data-leg]")?.getAttribute("data-leg") ?? target.closest("[data-trigger]")?.getAttribute("data-trigger");
    const place = target.closest("[data-place]")?.getAttribute("data-place");
    const row = target.closest("[data-row]")?.getAttribute("data-row");
    const entrance = target.closest("[data-entrance]")?.getAttribute("data-entrance");
    const one: Chosen | undefined = entrance
      ? { kind: "entrance", id: entrance }
      : leg
        ? { kind: "leg", id: leg }
        : place && row
          ? { kind: "element", place, id: row }
          : place
            ? { kind: "place", id: place }
            : undefined;
    if (place && row && session.pointing.getState().take(place, row)) return;
    if (linking && place) linkTo(session, place);
    else if (one && (event.ctrlKey || event.metaKey || event.shiftKey)) toggle(one);
    else select(one);
  };
  const says = focusSays(project, focus);
  return (
    <div
      ref={frame}
      role="group"
      aria-label="Map"
      tabIndex={-1}
      className={`map-frame absolute inset-0 overflow-hidden bg-paper outline-none detail-${detail}`}
      onPointerDownCapture={(event) => {
        // What was pressed keeps the focus; else the map has it, so that its keys work.
        if (event.target instanceof SVGElement) frame.current?.focus({ preventScroll: true });
      }}
    >
      <svg
        ref={svg}
        className="h-full w-full touch-none select-none"
        onClick={click}
        {...draw.handlers}
        role="img"
        aria-label="Map of the app; the outline at the left says the same in words"
      >
        <LineEnds />
        <g ref={ground}>
          <Drawing
            project={project}
            layout={layout}
            lines={lines}
            routed={routed}
            drawn={drawn}
            detail={detail}
            worst={worst}
            here={here}
            beneath={beneath}
            selected={selected}
            chosen={chosen}
            focus={focused}
            dropTarget={draw.over ?? (linking && aim)}
          />
          {draw.line && (
            <path
              d={`M${draw.line.x1} ${draw.line.y1}L${draw.line.x2} ${draw.line.y2}`}
              stroke="var(--accent)"
              strokeWidth={2}
              strokeDasharray="5 3"
              markerEnd="url(#end-push)"
              pointerEvents="none"
            />
          )}
        </g>
      </svg>
      <div
        className="map-ruler pointer-events-none absolute inset-x-0 top-0 h-6 overflow-hidden border-b border-hairline bg-paper font-mono text-[11px] text-ink-2"
        aria-hidden
      >
        {Array.from({ length: layout.ruled }, (_, i) => (
          <span
            key={columnX(layout, i)}
            className="absolute top-1 whitespace-nowrap"
            style={{ left: `calc(var(--map-x, 0px) + ${columnX(layout, i)}px * var(--map-k, 1))` }}
          >
            {detail === "full" ? tapsOn(i) : i}
          </span>
        ))}
      </div>
      <Suspense>
        {linking && (
          <Suspense fallback={<TypedAhead />}>
            <Later part={TargetPicker} />
          </Suspense>
        )}
        {!linking && selectedLeg && <Later part={LinkMade} />}
      </Suspense>
      {says !== undefined && (
        <p className="absolute top-8 left-3 m-0 flex items-center gap-2 border border-accent bg-sheet px-2 py-1 text-[12px]" role="status">
          {says}
          <button type="button" className="min-h-6 min-w-6 text-ink-2 hover:text-ink" aria-label="Show everything" onClick={() => showFocus(undefined)}>
            ×
          </button>
        </p>
      )}
      {project.legs.length === 0 && !linking && <FirstSteps screens={project.screens.length} />}
      <div className="absolute right-3 bottom-3 flex items-center gap-2 border border-hairline bg-paper px-2 py-1 font-mono text-[11px] text-ink-2">
        {countsOf(project)}
        <PlannedMark project={project} />
        <span className="mx-1 h-4 border-l border-hairline" />
        <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom out" onClick={() => scaleBy(0.8)}>
          −
        </button>
        <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom in" onClick={() => scaleBy(1.25)}>
          +
        </button>
        <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Show the whole map" onClick={showAll}>
          all
        </button>
      </div>
    </div>
  );
}

function countsOf(project: Project): string {
  const counted = (count: number, what: string, many = `${what}s`) => `${count} ${count === 1 ? what : many}`;
  return [counted(project.screens.length, "screen"), counted(project.legs.length, "leg"), counted(project.entrances.length, "way in", "ways in")].join(" · ");
}

/** How many stand-ins there are; a click chooses them all, to be changed in bulk. */
function PlannedMark({ project }: { project: Project }) {
  const selectAll = useSelection((s) => s.selectAll);
  const { screens, legs } = plannedIn(project);
  if (screens.length + legs.length === 0) return null;
  return (
    <button
      type="button"
      className="min-h-6 underline decoration-dashed underline-offset-4 hover:text-ink"
      title="Choose all that is only planned"
      onClick={() => selectAll([...legs.map((id) => ({ kind: "leg" as const, id })), ...screens.map((id) => ({ kind: "place" as const, id }))])}
    >
      {screens.length + legs.length} planned
    </button>
  );
}

/** The layout, with what came out the same as before kept as it was. */
function useLayout(project: Project): { layout: MapLayout; lines: Line[] } {
  const before = useRef<Line[] | undefined>(undefined);
  return useMemo(() => {
    const layout = layoutMap(project);
    before.current = keepLines(before.current, linesOf(project, layout));
    return { layout, lines: before.current };
  }, [project]);
}

/** What to do while nothing leads anywhere yet. */
function FirstSteps({ screens }: { screens: number }) {
  return (
    <ol className="absolute bottom-16 left-16 m-0 max-w-md list-none border-l-2 border-accent p-0 pl-4 text-[13.5px] leading-7 text-ink-2">
      <li className={screens > 1 ? "line-through" : "text-ink"}>Add the next screen: type its name at the left and press Enter.</li>
      <li className={screens > 1 ? "text-ink" : ""}>Pick a screen and give it a button, at the left below.</li>
      <li>Drag from the button to where it leads, or press L and type. Then tap it on the device.</li>
    </ol>
  );
}

/** Screens that lie beneath the current one on its branch, and on the branches beneath. */
function beneathOf(state: NonNullable<ReturnType<typeof useWalkState>>): string[] {
  const out: string[] = [];
  for (let branch = topBranch(state); branch >= 0; branch--)
    for (const node of visiblePath(branchNode(state, branch))) if (node.kind === "stack") for (const item of node.items) out.push(shownIn(item).at);
  return out;
}
