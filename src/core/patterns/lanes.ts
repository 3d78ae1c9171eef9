import { wrap } from "../model/edits/arrange.ts";
import { changeContainer, changeLeg, changeScreen } from "../model/edits/change.ts";
import { firstScreen, lookup, nameOf, ownersAround, treeOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import type { Making } from "./making.ts";
import { screenAt } from "./places.ts";

type Kind = "tabs" | "drawer";

/** `around “Yard”`, of a place that new tabs or a new drawer can go around. */
export function aroundPlace(project: Project, place: string, kind: Kind): string | undefined {
  const { containers, places, owners } = lookup(project);
  const around = ownersAround(project, place).map((one) => one.kind);
  const own = containers.get(place)?.kind;
  const owner = owners.get(place)?.kind;
  if (!places.has(place) || own === "modal" || own === kind || around.includes("modal") || around.includes(kind)) return undefined;
  const first = firstScreen(project, place);
  // What is gone through once, or moves on by itself, or covers tabs, is no place to choose others from; nor is one without a bar for the menu.
  if (!first || first.once || first.coversTabs || !screenAt(project, first.id) || (kind === "drawer" && first.bar?.show === false)) return undefined;
  if (owner !== undefined && owner !== "stack") return undefined;
  // What a screen puts in its own place would be put into the lane, and the lanes remain around it.
  if (
    lookup(project)
      .legsFrom.get(place)
      ?.some(({ move }) => move?.kind === "replace")
  )
    return undefined;
  return `around “${nameOf(project, place)}”`;
}

/** Puts a place into new tabs or a new drawer, and more members beside it, each with a history of its own. */
export function lanesAround(making: Making, kind: Kind, name: string) {
  const { place } = making;
  const container = lookup(making.project).containers.get(place);
  const outer = lookup(making.project).owners.get(place)?.id;
  making.apply(wrap(making.project, [place], kind, name));
  const { owners } = lookup(making.project);
  const lane = owners.get(place);
  const lanes = container ? lane : owners.get(lane?.id ?? "");
  if (!lanes) return;
  const inside = new Set(treeOf(making.project, lanes.id));
  for (const leg of making.project.legs) {
    const { move } = leg;
    // What is shown anew in another's place comes with the lanes around it.
    if ((move?.kind === "replace" || move?.kind === "reset") && move.to === place && !inside.has(leg.from))
      making.apply(changeLeg(making.project, leg, { move: { ...move, to: lanes.id } }));
    // What began the screen's own stack anew still begins that one anew, and not the lane.
    if (move?.kind === "reset" && move.in === undefined && leg.from === place && outer !== undefined && !inside.has(move.to))
      making.apply(changeLeg(making.project, leg, { move: { ...move, in: outer } }));
  }
  making.hub(place);
  const first = firstScreen(making.project, place);
  if (kind === "drawer") {
    making.apply(changeContainer(making.project, lanes.id, { onBack: "start" }));
    if (first) making.apply(changeScreen(making.project, first.id, { bar: { show: true, ...first.bar, lead: "menu" } }));
  }
  making.put([
    `${making.at(lanes.id)}`,
    ...making.names("others").flatMap((other) => [`  ${other}`, `    ${other} (hub${kind === "drawer" ? ", lead menu" : ""})`]),
  ]);
}
