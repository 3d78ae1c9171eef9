import { Suspense, useEffect, useMemo, useRef, useState } from "react";
import { columnX, routeOf } from "../../../core/map/lines.ts";
import { CARD_WIDTH, tapsOn } from "../../../core/map/measure.ts";
import type { Room } from "../../../core/map/types.ts";
import type { Chosen } from "../../../core/model/edits/clip.ts";
import { elementOf, lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import { linkTo } from "../../session/actions/linking.ts";
import { focusSays } from "../../session/commands/look.ts";
import { worstByPlace } from "../../session/findingWords.ts";
import {
  useDocument,
  useFindings,
  useFocus,
  useLensing,
  useSeeing,
  useSelection,
  useSession,
  useSheets,
  useTrying,
  useWalk,
  useWalkState,
} from "../../session/hooks.ts";
import { keyOf, placeOf } from "../../session/selection.ts";
import { useLensView } from "../../session/useLens.ts";
import { beside, Later, preload, useBeside } from "../../ui/preloaded.tsx";
import { TypedAhead } from "../../ui/typedAhead.tsx";
import { LineEnds } from "./marks.tsx";
import { RowsDrawing } from "./RowsDrawing.tsx";
import { useDrawLeg } from "./useDrawLeg.ts";
import { useMapLayout } from "./useMapLayout.ts";
import { usePassing, usePlaced } from "./usePassing.ts";
import { useVisible } from "./useVisible.ts";
import { useZoom } from "./useZoom.ts";

const focusing = beside(() => import("../../../core/map/focus.ts"));
const LensPanel = preload(async () => (await import("./LensPanel.tsx")).LensPanel);
const FarDrawing = preload(async () => (await import("./FarDrawing.tsx")).FarDrawing);
const MapControls = preload(async () => (await import("./MapControls.tsx")).MapControls);
const StartHere = preload(async () => (await import("./StartHere.tsx")).StartHere);
const PatternPanel = preload(async () => (await import("./PatternPanel.tsx")).PatternPanel);
const LinkMade = preload(async () => (await import("./LinkMade.tsx")).LinkMade);
const TargetPicker = preload(async () => (await import("./TargetPicker.tsx")).TargetPicker);

/** Pixels at the foot of the map that the picker of targets covers. */
const PICKER_HEIGHT = 360;
/** The smallest scale at which what stands on cards and faces can be read. */
const LEAST_READ = 0.6;

/** The map: the structure drawn from the document, with the place where the walk stands. */
export function MapView() {
  return (
    <Suspense>
      <Drawn />
    </Suspense>
  );
}

function Drawn() {
  const session = useSession();
  const real = useDocument((d) => d.project);
  const trial = useTrying((t) => t.trial);
  const project = trial?.project ?? real;
  const trying = useSheets((s) => s.sheet?.is === "patterns");
  const { selected, also, select, toggle, link, linking, aim } = useSelection();
  const result = useFindings((f) => f.result);
  const state = useWalkState();
  const lastEvent = useWalk((w) => w.steps[w.at - 1]?.event);
  const { focus, show: showFocus } = useFocus();
  const { drawing, far, whole, draw: drawAs } = useSeeing();
  const { drawn, look } = useVisible();
  const [room, setRoom] = useState<Room>();
  const { layout, lines } = useMapLayout(project, drawing, far, room);
  const { pass, take } = usePassing(layout);
  const { svg, ground, frame, show, put, fit, zoomBy, showAll } = useZoom({
    drawing,
    width: layout.width,
    height: layout.height,
    look,
    pass,
    measured: setRoom,
  });
  const view = useLensView();
  const lens = trial?.places ?? view?.places;
  const lensed = useLensing((l) => l.choice.lens !== "findings");
  const [pointed, setPointed] = useState<string>();
  const worst = useMemo(() => worstByPlace(project, result?.findings ?? []), [project, result]);
  const here = state && currentScreen(state).at;
  const beneath = useMemo(() => new Set(state ? beneathOf(state) : []), [state]);
  const chosen = useMemo(() => new Set(also.map(keyOf)), [also]);
  const inFocus = useBeside(focusing)?.inFocus;
  const focused = useMemo(() => focus && inFocus?.(project, focus), [project, focus, inFocus]);
  const selectedLeg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  const takenLeg = lastEvent?.do === "leg" ? lookup(project).legs.get(lastEvent.leg) : undefined;
  const form = drawing !== "rows" && focus?.kind === "form" ? focus.form : undefined;
  const routed = useMemo(() => {
    // Far out, the legs of a form are told by flows.
    const legs = new Set([selectedLeg, takenLeg, ...(form === undefined ? (focused?.legs ?? []) : [])]);
    return [...legs].flatMap((leg) => (leg ? (routeOf(project, layout, leg) ?? []) : []));
  }, [project, layout, selectedLeg, takenLeg, focused, form]);
  /** The whole app: as it is drawn where that can still be read, else as names. */
  const seeAll = () => {
    if (drawing !== "names" && fit({ width: layout.width, height: layout.height }) < LEAST_READ) drawAs("names");
    else {
      if (!far) drawAs(drawing);
      showAll();
    }
  };
  const all = useRef(seeAll);
  all.current = seeAll;
  useEffect(() => {
    if (whole > 0) all.current();
  }, [whole]);
  const draw = useDrawLeg(svg, (from, to) => {
    if (to === undefined) link(from);
    else linkTo(session, to, from);
  });

  const selectedPlace = placeOf(project, selected);
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

  // Another drawing, chosen by its name: names show the whole; the others what is chosen, or where the walk stands.
  const intoView = () => {
    const card = layout.cards.find(({ id }) => id === selectedPlace) ?? layout.cards.find(({ id }) => id === here) ?? layout.cards[0];
    if (drawing === "names" || fit({ width: layout.width, height: layout.height }) === 1) showAll();
    else if (card) put({ x: Math.max(0, card.x - 260), y: Math.max(0, card.y - 180) }, { x: 8, y: 26 }, 1);
  };
  usePlaced(layout, take, put, intoView);
  // Names are laid for the room: in another room, all of them are shown again. Another drawing is placed above.
  const laid = useRef("");
  useEffect(() => {
    const now = `${drawing} ${far}`;
    if (laid.current === now && drawing === "names" && far) showAll();
    laid.current = now;
  }, [drawing, far, showAll]);

  const point = (event: React.PointerEvent) => {
    const target = event.target as Element;
    setPointed(
      target.closest("[data-card]")?.getAttribute("data-place") ?? target.closest("text")?.closest("[data-band]")?.getAttribute("data-place") ?? undefined,
    );
  };
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
    // What is only tried can be looked at, and not chosen.
    else if (trial && one && !isThere(real, one)) return;
    else if (one && (event.ctrlKey || event.metaKey || event.shiftKey)) toggle(one);
    else select(one);
  };
  const says = focusSays(project, focus);
  return (
    <div className="absolute inset-0 grid" style={{ gridTemplateColumns: lensed ? "minmax(0, 1fr) 210px" : "minmax(0, 1fr)" }}>
      <div className="@container relative min-w-0">
        <div
          ref={frame}
          role="group"
          aria-label="Map"
          tabIndex={-1}
          className={`map-frame absolute inset-0 overflow-hidden bg-paper outline-none`}
          onPointerDownCapture={(event) => {
            // What was pressed keeps the focus; else the map has it, so that its keys work.
            if (event.target instanceof SVGElement) frame.current?.focus({ preventScroll: true });
          }}
        >
          <svg
            ref={svg}
            className="h-full w-full touch-none select-none"
            onClick={click}
            {...(drawing === "rows" ? {} : { onPointerOver: point, onPointerLeave: () => setPointed(undefined) })}
            {...(trial ? {} : draw.handlers)}
            role="img"
            aria-label="Map of the app; the outline at the left says the same in words"
          >
            <LineEnds />
            <g ref={ground}>
              <g key={`${drawing} ${layout.form === "dots"}`} className={drawing === "rows" ? "map-in" : "m map-in"}>
                {drawing === "rows" ? (
                  <RowsDrawing
                    project={project}
                    layout={layout}
                    lines={lines}
                    routed={routed}
                    drawn={drawn}
                    worst={worst}
                    here={here}
                    beneath={beneath}
                    selected={selected}
                    chosen={chosen}
                    focus={focused}
                    lens={lens}
                    dropTarget={draw.over ?? (linking && aim)}
                  />
                ) : (
                  <Suspense>
                    <Later
                      part={FarDrawing}
                      project={project}
                      layout={layout}
                      routed={routed}
                      drawn={drawn}
                      worst={worst}
                      lens={lens}
                      here={here}
                      beneath={beneath}
                      selectedPlace={selectedPlace}
                      chosen={chosen}
                      focus={form === undefined ? focused : undefined}
                      form={form}
                      dropTarget={linking && aim}
                      pointed={pointed}
                    />
                  </Suspense>
                )}
              </g>
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
            className={`map-ruler pointer-events-none absolute inset-x-0 top-0 h-6 overflow-hidden border-hairline border-b bg-paper font-mono text-[11px] text-ink-2 ${drawing === "rows" ? "" : "hidden"}`}
            aria-hidden
          >
            {Array.from({ length: layout.ruled }, (_, i) => (
              <span
                key={columnX(layout, i)}
                className="absolute top-1 whitespace-nowrap"
                style={{ left: `calc(var(--map-x, 0px) + ${columnX(layout, i)}px * var(--map-k, 1))` }}
              >
                {tapsOn(i)}
              </span>
            ))}
          </div>
          <Suspense>
            {linking && (
              <Suspense fallback={<TypedAhead />}>
                <Later part={TargetPicker} />
              </Suspense>
            )}
            {trying && (
              <Suspense fallback={<TypedAhead />}>
                <Later part={PatternPanel} />
              </Suspense>
            )}
            {!linking && !trying && selectedLeg && <Later part={LinkMade} />}
          </Suspense>
          {says !== undefined && (
            <p className="absolute top-8 left-3 m-0 flex items-center gap-2 border border-accent bg-sheet px-2 py-1 text-[12px]" role="status">
              {says}
              <button type="button" className="min-h-6 min-w-6 text-ink-2 hover:text-ink" aria-label="Show everything" onClick={() => showFocus(undefined)}>
                ×
              </button>
            </p>
          )}
          {!linking && !trying && project.legs.length === 0 && (
            <Suspense>
              <Later part={StartHere} />
            </Suspense>
          )}
          <Suspense>
            <Later part={MapControls} project={project} zoomBy={zoomBy} showAll={seeAll} />
          </Suspense>
        </div>
      </div>
      {lensed && (
        <Suspense>
          <Later part={LensPanel} />
        </Suspense>
      )}
    </div>
  );
}

/** Screens that lie beneath the current one on its branch, and on the branches beneath. */
function beneathOf(state: NonNullable<ReturnType<typeof useWalkState>>): string[] {
  const out: string[] = [];
  for (let branch = topBranch(state); branch >= 0; branch--)
    for (const node of visiblePath(branchNode(state, branch))) if (node.kind === "stack") for (const item of node.items) out.push(shownIn(item).at);
  return out;
}

function isThere(project: Project, one: Chosen): boolean {
  const { places, legs } = lookup(project);
  if (one.kind === "element") return elementOf(project, one.place, one.id) !== undefined;
  return one.kind === "place" ? places.has(one.id) : one.kind === "leg" ? legs.has(one.id) : project.entrances.some(({ id }) => id === one.id);
}
