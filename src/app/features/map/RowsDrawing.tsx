import { memo, useMemo } from "react";
import type { InFocus } from "../../../core/map/focus.ts";
import type { Seen } from "../../../core/map/lenses/lens.ts";
import { columnX, type Line } from "../../../core/map/lines.ts";
import type { Box, MapLayout } from "../../../core/map/types.ts";
import { elementIdOf, lookup } from "../../../core/model/lookup.ts";
import type { Leg, Project } from "../../../core/model/schema.ts";
import type { Worst } from "../../session/findingWords.ts";
import type { Selection } from "../../session/selection.ts";
import { BandView, SpineView } from "./BandView.tsx";
import { CardView } from "./CardView.tsx";
import { EntranceView } from "./EntranceView.tsx";
import { LineView } from "./LineView.tsx";
import { useGradually } from "./useGradually.ts";
import { meets } from "./useVisible.ts";

interface Props {
  project: Project;
  layout: MapLayout;
  lines: readonly Line[];
  /** Legs drawn in full because they are in focus. */
  routed: readonly Line[];
  drawn: Box;
  worst: ReadonlyMap<string, Worst>;
  here: string | undefined;
  beneath: ReadonlySet<string>;
  selected: Selection;
  /** Keys of everything chosen. */
  chosen: ReadonlySet<string>;
  focus: InFocus | undefined;
  /** What a lens shows of each place. */
  lens: ReadonlyMap<string, Seen> | undefined;
  dropTarget: string | undefined;
}

/** The map near: everything on its ground that is in view, each card with its elements. */
export function RowsDrawing(props: Props) {
  const { project, layout, lines, routed, drawn, selected, chosen, focus, dropTarget } = props;
  const selectedPlace = placeOf(project, selected);
  const wanted = useMemo(() => layout.cards.filter((card) => meets(card, drawn)).map((card) => card.id), [layout, drawn]);
  const shown = useGradually(wanted);
  return (
    <>
      <Ground project={project} layout={layout} drawn={drawn} selectedPlace={selectedPlace} chosen={chosen} dropTarget={dropTarget} />
      {routed
        .filter((line) => line.drawn === "line")
        .map((line) => (
          <LineView key={`focus ${line.leg.id}`} line={line} project={project} focus atStart={focus !== undefined} />
        ))}
      {!focus && <Lines project={project} lines={lines} routed={routed} drawn={drawn} shown={shown} />}
      {layout.launch && (
        <path d={`M${layout.launch.x - 24} ${layout.launch.y}h20`} stroke="var(--ink)" strokeWidth={2} markerEnd="url(#end-push)" fill="none">
          <title>The app starts here</title>
        </path>
      )}
      <Cards
        project={project}
        layout={layout}
        worst={props.worst}
        here={props.here}
        beneath={props.beneath}
        selected={selected}
        chosen={chosen}
        focus={focus}
        lens={props.lens}
        dropTarget={dropTarget}
        selectedPlace={selectedPlace}
        shown={shown}
      />
    </>
  );
}

function placeOf(project: Project, selected: Selection): string | undefined {
  if (selected?.kind === "leg") return lookup(project).legs.get(selected.id)?.from;
  return selected?.kind === "place" ? selected.id : selected?.kind === "element" ? selected.place : undefined;
}

interface GroundProps extends Pick<Props, "project" | "layout" | "drawn" | "chosen" | "dropTarget"> {
  selectedPlace: string | undefined;
}

const Ground = memo(function Ground({ project, layout, drawn, selectedPlace, chosen, dropTarget }: GroundProps) {
  return (
    <>
      {Array.from({ length: layout.ruled }, (_, i) => columnX(layout, i) - 18).map((x) => (
        <path key={x} d={`M${x} 0V${layout.height}`} stroke="var(--hairline)" strokeDasharray="1 5" />
      ))}
      {layout.bands.map((band, i) =>
        meets(band, drawn) ? (
          <BandView
            key={band.id}
            band={band}
            project={project}
            index={i}
            selected={selectedPlace === band.id || chosen.has(band.id) || dropTarget === band.id}
          />
        ) : null,
      )}
      {layout.spines.map((spine) => (
        <SpineView key={spine.id} spine={spine} />
      ))}
    </>
  );
});

interface LinesProps extends Pick<Props, "project" | "lines" | "routed" | "drawn"> {
  /** Screens whose cards are drawn; lines come with them, and lines that only cross the view after them. */
  shown: ReadonlySet<string>;
}

const Lines = memo(function Lines({ project, lines, routed, drawn, shown }: LinesProps) {
  const byCard = useMemo(() => Map.groupBy(lines, (line) => line.leg.from), [lines]);
  const passing = useMemo(() => lines.filter((line) => line.drawn === "line" && crosses(line, drawn)), [lines, drawn]);
  const focused = new Set(routed.map((line) => line.leg));
  return (
    <g className="map-lines">
      {[...shown].map((id) => (
        <CardLines key={id} project={project} lines={byCard.get(id) ?? NO_LINES} focused={focused} />
      ))}
      {passing.map((line) => (shown.has(line.leg.from) ? null : <LineView key={line.leg.id} line={line} project={project} focus={false} />))}
    </g>
  );
});

const NO_LINES: readonly Line[] = [];

interface CardLinesProps {
  project: Project;
  lines: readonly Line[];
  focused: ReadonlySet<Leg>;
}

/** The lines and stubs that start at one card. */
const CardLines = memo(
  function CardLines({ project, lines, focused }: CardLinesProps) {
    return lines.map((line) => <LineView key={`${line.from.y}`} line={line} project={project} focus={line.drawn === "stub" && focused.has(line.leg)} />);
  },
  (a, b) => a.project === b.project && a.lines === b.lines && b.lines.every((line) => a.focused.has(line.leg) === b.focused.has(line.leg)),
);

const Cards = memo(function Cards({
  project,
  layout,
  worst,
  here,
  beneath,
  selected,
  chosen,
  focus,
  lens,
  dropTarget,
  selectedPlace,
  shown,
}: Omit<Props, "lines" | "routed" | "drawn"> & {
  selectedPlace: string | undefined;
  shown: ReadonlySet<string>;
}) {
  const selectedLeg: Leg | undefined = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  const byId = useMemo(() => new Map(layout.cards.map((card) => [card.id, card])), [layout]);
  const inView = [...shown].flatMap((id) => byId.get(id) ?? []);
  return (
    <>
      {inView.map((card) => (
        <CardView
          key={card.id}
          card={card}
          here={card.id === here}
          faint={focus !== undefined && !focus.places.has(card.id)}
          beneath={card.id !== here && beneath.has(card.id)}
          selected={(selectedPlace === card.id && selected?.kind !== "leg") || chosen.has(card.id)}
          selectedElement={
            selected?.kind === "element" && selected.place === card.id ? selected.id : selectedLeg?.from === card.id ? elementIdOf(selectedLeg) : undefined
          }
          worst={lens ? undefined : worst.get(card.id)}
          lens={lens?.get(card.id)}
          dropTarget={dropTarget === card.id}
        />
      ))}
      {inView.flatMap((card) =>
        card.entrances.map((entrance) => (
          <EntranceView
            key={entrance.id}
            id={entrance.id}
            name={entrance.name}
            x={card.x}
            y={entrance.y}
            selected={selected?.kind === "entrance" && selected.id === entrance.id}
          />
        )),
      )}
    </>
  );
});

/** Whether a line, with the name of its stub, is in a part of the map. */
function crosses({ points, drawn }: Line, seen: Box): boolean {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y } of points) {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  }
  if (drawn === "stub") right += 100;
  return left < seen.x + seen.width && right > seen.x && top - 8 < seen.y + seen.height && bottom + 8 > seen.y;
}
