import { useEffect, useMemo, useRef, useState } from "react";
import { branchNode, currentScreen, shownIn, topBranch, visiblePath } from "../../core/engine/state.ts";
import { layoutMap } from "../../core/map/layout.ts";
import { columnX, linesOf, routeOf } from "../../core/map/lines.ts";
import { CARD_WIDTH } from "../../core/map/measure.ts";
import { linkElement } from "../../core/model/edits/link.ts";
import { elementIdOf } from "../../core/model/lookup.ts";
import { worstByPlace } from "../findings/words.ts";
import { useDocument } from "../store/document.ts";
import { useFindings } from "../store/findings.ts";
import { useSelection } from "../store/selection.ts";
import { useWalk, useWalkState } from "../store/walk.ts";
import { BandView, SpineView } from "./BandView.tsx";
import { CardView } from "./CardView.tsx";
import { LineView } from "./LineView.tsx";
import { LineEnds } from "./marks.tsx";
import { useDrawLeg } from "./useDrawLeg.ts";
import { useZoom } from "./useZoom.ts";

/** The map: the structure drawn from the document, with the place where the walk stands. */
export function MapView() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { selected, select, link } = useSelection();
  const result = useFindings((f) => f.result);
  const state = useWalkState();
  const lastEvent = useWalk((w) => w.steps[w.at - 1]?.event);
  const layout = useMemo(() => layoutMap(project), [project]);
  const { svg, ground, frame, detail, show, scaleBy, showAll } = useZoom(layout.width, layout.height);
  const lines = useMemo(() => linesOf(project, layout), [project, layout]);
  const worst = useMemo(() => worstByPlace(project, result?.findings ?? []), [project, result]);
  const here = state && currentScreen(state).at;
  const beneath = useMemo(() => new Set(state ? beneathOf(state) : []), [state]);
  const selectedLeg = selected?.kind === "leg" ? project.legs.find((leg) => leg.id === selected.id) : undefined;
  const takenLeg = lastEvent?.do === "leg" ? project.legs.find((leg) => leg.id === lastEvent.leg) : undefined;
  const routed = useMemo(
    () => [selectedLeg, takenLeg].flatMap((leg) => (leg ? (routeOf(project, layout, leg) ?? []) : [])),
    [project, layout, selectedLeg, takenLeg],
  );
  const [tip, setTip] = useState<string>();
  const draw = useDrawLeg(svg, (from, to) => {
    if (to === undefined) {
      link(from);
      return;
    }
    const made = linkElement(project, from.place, from.element, to);
    apply(made.edit);
    select({ kind: "leg", id: made.legId });
  });

  const selectedPlace = selected?.kind === "place" ? selected.id : selected?.kind === "element" ? selected.place : selectedLeg?.from;
  const first = useRef(true);
  useEffect(() => {
    const box = layout.cards.find((card) => card.id === (selectedPlace ?? "")) ?? layout.bands.find((band) => band.id === selectedPlace);
    if (box && !first.current) show({ ...box, width: Math.min(box.width, CARD_WIDTH * 2), height: Math.min(box.height, 200) });
    first.current = false;
  }, [selectedPlace, layout, show]);
  useEffect(() => {
    const card = layout.cards.find((c) => c.id === here);
    if (card) show(card);
  }, [here, layout, show]);

  const click = (event: React.MouseEvent) => {
    const target = event.target as Element;
    const leg = target.closest("[data-leg]")?.getAttribute("data-leg") ?? target.closest("[data-trigger]")?.getAttribute("data-trigger");
    const place = target.closest("[data-place]")?.getAttribute("data-place");
    const row = target.closest("[data-row]")?.getAttribute("data-row");
    const entrance = target.closest("[data-entrance]")?.getAttribute("data-entrance");
    if (entrance) select({ kind: "entrance", id: entrance });
    else if (leg) select({ kind: "leg", id: leg });
    else if (place && row) select({ kind: "element", place, id: row });
    else if (place) select({ kind: "place", id: place });
    else select(undefined);
  };
  return (
    <div ref={frame} className={`map-frame relative h-full overflow-hidden bg-paper detail-${detail}`}>
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
          {Array.from({ length: layout.columns }, (_, i) => columnX(layout, i) - 18).map((x) => (
            <path key={x} d={`M${x} 0V${layout.height}`} stroke="var(--hairline)" strokeDasharray="1 5" />
          ))}
          {layout.bands.map((band, i) => (
            <BandView key={band.id} band={band} project={project} index={i} selected={selectedPlace === band.id} />
          ))}
          {layout.spines.map((spine) => (
            <SpineView key={spine.id} spine={spine} layout={layout} />
          ))}
          {routed
            .filter((line) => line.drawn === "line")
            .map((line) => (
              <LineView key={`focus ${line.leg.id}`} line={line} project={project} focus />
            ))}
          <g className="map-lines">
            {lines.map((line) => (
              <LineView
                key={`${line.leg.from} ${line.from.y}`}
                line={line}
                project={project}
                focus={line.drawn === "stub" && routed.some((r) => r.leg.id === line.leg.id)}
              />
            ))}
          </g>
          {layout.launch && (
            <path d={`M${layout.launch.x - 24} ${layout.launch.y}h20`} stroke="var(--ink)" strokeWidth={2} markerEnd="url(#end-push)" fill="none">
              <title>The app starts here</title>
            </path>
          )}
          {layout.cards.map((card) => (
            <CardView
              key={card.id}
              card={card}
              here={card.id === here}
              beneath={card.id !== here && beneath.has(card.id)}
              selected={selectedPlace === card.id && selected?.kind !== "leg"}
              selectedElement={
                selected?.kind === "element" && selected.place === card.id ? selected.id : selectedLeg?.from === card.id ? elementIdOf(selectedLeg) : undefined
              }
              worst={worst.get(card.id)}
              dropTarget={draw.over === card.id}
            />
          ))}
          {layout.cards.map((card) =>
            card.entrances.map((entrance) => (
              <g key={entrance.id} className="card-detail" transform={`translate(${card.x} ${entrance.y})`} data-entrance={entrance.id}>
                <rect
                  width={CARD_WIDTH}
                  height={19}
                  rx={2}
                  fill="var(--paper)"
                  stroke={selected?.kind === "entrance" && selected.id === entrance.id ? "var(--accent)" : "var(--ink-2)"}
                  strokeDasharray="3 2"
                />
                <text x={9} y={13.5} fontSize={11} fill="var(--ink-2)">
                  ↑ {entrance.name.length > 17 ? `${entrance.name.slice(0, 16)}…` : entrance.name}
                </text>
              </g>
            )),
          )}
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
        {Array.from({ length: layout.columns }, (_, i) => (
          <span
            key={columnX(layout, i)}
            className="absolute top-1 whitespace-nowrap"
            style={{ left: `calc(var(--map-x, 0px) + ${columnX(layout, i)}px * var(--map-k, 1))` }}
          >
            {detail === "full" ? (i === 0 ? "start" : i === 1 ? "1 tap on" : `${i} taps on`) : i}
          </span>
        ))}
      </div>
      {project.legs.length === 0 && <FirstSteps screens={project.screens.length} />}
      <div className="absolute right-3 bottom-3 flex items-center gap-2 border border-hairline bg-paper px-2 py-1 font-mono text-[11px] text-ink-2">
        {tip ??
          [
            counted(project.screens.length, "screen"),
            counted(project.legs.length, "leg"),
            `${project.entrances.length} ${project.entrances.length === 1 ? "way" : "ways"} in`,
          ].join(" · ")}
        <span className="mx-1 h-4 border-l border-hairline" />
        <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom out" onClick={() => scaleBy(0.8)}>
          −
        </button>
        <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom in" onClick={() => scaleBy(1.25)}>
          +
        </button>
        <button
          type="button"
          className="min-h-6 min-w-6 hover:text-ink"
          onClick={showAll}
          onMouseEnter={() => setTip("the whole map")}
          onMouseLeave={() => setTip(undefined)}
        >
          all
        </button>
      </div>
    </div>
  );
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? "" : "s"}`;

/** What to do while nothing leads anywhere yet. */
function FirstSteps({ screens }: { screens: number }) {
  return (
    <ol className="absolute bottom-16 left-16 m-0 max-w-md list-none border-l-2 border-accent p-0 pl-4 text-[13.5px] leading-7 text-ink-2">
      <li className={screens > 1 ? "line-through" : "text-ink"}>Add the next screen: type its name at the left and press Enter.</li>
      <li className={screens > 1 ? "text-ink" : ""}>Pick a screen and give it a button, at the right.</li>
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
