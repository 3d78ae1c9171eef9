import { useMemo } from "react";
import { headOf } from "../../../core/map/draw/far.ts";
import { flowsOf, shownPlace } from "../../../core/map/flows.ts";
import { pathOf, routeOf } from "../../../core/map/lines.ts";
import { obstacles } from "../../../core/map/route.ts";
import type { MapLayout, Point } from "../../../core/map/types.ts";
import type { Project } from "../../../core/model/schema.ts";

/** Far out, what leads to and from the place that is pointed at or chosen: the legs of a screen, the flows of a ground. */
export function PointedLegs({ project, layout, place }: { project: Project; layout: MapLayout; place: string | undefined }) {
  const lines = useMemo(() => (place === undefined ? [] : linesOfPlace(project, layout, place)), [project, layout, place]);
  return (
    <g pointerEvents="none">
      {lines.map(({ id, out, points }) => (
        <path key={id} className={out ? "pointed" : "pointed in"} d={pathOf(points) + headOf(points, 5)} />
      ))}
    </g>
  );
}

function linesOfPlace(project: Project, layout: MapLayout, place: string): Array<{ id: string; out: boolean; points: Point[] }> {
  if (layout.cards.some(({ id }) => id === place)) {
    const blocked = obstacles(layout);
    const seen = new Set<string>();
    return project.legs.flatMap((leg) => {
      const to = shownPlace(project, leg);
      const [out, into] = [leg.from === place, to === place];
      // Several legs between the same two are one line.
      const between = `${leg.from} ${to}`;
      if (out === into || seen.has(between)) return [];
      seen.add(between);
      const line = routeOf(project, layout, leg, blocked);
      return line ? [{ id: between, out, points: line.points }] : [];
    });
  }
  return flowsOf(project, layout, { of: place }).flows.map(({ from, to, points }) => ({ id: `${from} ${to}`, out: from === place, points }));
}
