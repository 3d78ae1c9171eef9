import { memo } from "react";
import type { InFocus } from "../../core/map/focus.ts";
import type { Box, MapLayout } from "../../core/map/layout.ts";
import { columnX, type Line } from "../../core/map/lines.ts";
import { elementIdOf, lookup } from "../../core/model/lookup.ts";
import type { Leg, Project } from "../../core/model/schema.ts";
import type { Worst } from "../findings/words.ts";
import type { Selection } from "../store/selection.ts";
import { BandView, SpineView } from "./BandView.tsx";
import { CardView } from "./CardView.tsx";
import { EntranceView } from "./EntranceView.tsx";
import { LineView } from "./LineView.tsx";
import { meets } from "./useVisible.ts";
import type { Detail } from "./useZoom.ts";

interface Props {
  project: Project;
  layout: MapLayout;
  lines: readonly Line[];
  /** Legs drawn in full because they are in focus. */
  routed: readonly Line[];
  drawn: Box;
  detail: Detail;
  worst: ReadonlyMap<string, Worst>;
  here: string | undefined;
  beneath: ReadonlySet<string>;
  selected: Selection;
  /** Keys of everything chosen. */
  chosen: ReadonlySet<string>;
  focus: InFocus | undefined;
  dropTarget: string | undefined;
}

/** Everything on the map's ground that is in view. */
export const Drawing = memo(function Drawing(props: Props) {
  const { project, layout, lines, routed, drawn, detail, worst, here, beneath, selected, chosen, focus, dropTarget } = props;
  const selectedLeg: Leg | undefined = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  const selectedPlace = selected?.kind === "place" ? selected.id : selected?.kind === "element" ? selected.place : selectedLeg?.from;
  const inView = layout.cards.filter((card) => meets(card, drawn));
  const faint = (ids: string[]) => focus !== undefined && !ids.some((id) => focus.places.has(id));
  const shownLines = detail === "dots" || focus ? [] : lines.filter((line) => (detail === "full" || line.drawn === "line") && meets(extent(line), drawn));
  return (
    <>
      {Array.from({ length: layout.columns }, (_, i) => columnX(layout, i) - 18).map((x) => (
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
        <SpineView key={spine.id} spine={spine} layout={layout} />
      ))}
      {routed
        .filter((line) => line.drawn === "line")
        .map((line) => (
          <LineView key={`focus ${line.leg.id}`} line={line} project={project} focus atStart={focus !== undefined} />
        ))}
      <g className="map-lines">
        {shownLines.map((line) => (
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
      {inView.map((card) => (
        <CardView
          key={card.id}
          card={card}
          here={card.id === here}
          light={detail !== "full"}
          faint={faint([card.id])}
          beneath={card.id !== here && beneath.has(card.id)}
          selected={(selectedPlace === card.id && selected?.kind !== "leg") || chosen.has(card.id)}
          selectedElement={
            selected?.kind === "element" && selected.place === card.id ? selected.id : selectedLeg?.from === card.id ? elementIdOf(selectedLeg) : undefined
          }
          worst={worst.get(card.id)}
          dropTarget={dropTarget === card.id}
        />
      ))}
      {detail === "full" &&
        inView.flatMap((card) =>
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

/** The box around a line, with room for a stub's name. */
function extent({ points, drawn }: Line): Box {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y: y - 8, width: Math.max(...xs) - x + (drawn === "stub" ? 100 : 1), height: Math.max(...ys) - y + 16 };
}
