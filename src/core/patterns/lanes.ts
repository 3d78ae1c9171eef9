import { moveAllInto, wrap } from "../model/edits/arrange.ts";
import { changeContainer, changeLeg, changeScreen } from "../model/edits/change.ts";
import { firstScreen, lookup, nameOf, ownersAround, targetOf, treeOf } from "../model/lookup.ts";
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

/** Screens of the stack of a screen that nothing but the screen, or one of them, leads to: they go where it goes. */
function alongWith(project: Project, place: string): string[] {
  const { owners, screens } = lookup(project);
  const stack = owners.get(place);
  if (stack?.kind !== "stack" || !screens.has(place)) return [];
  const along = new Set([place]);
  const reached = [...project.legs.flatMap((leg) => targetOf(leg) ?? []), ...project.entrances.map(({ to }) => to)];
  for (let before = 0; before < along.size; ) {
    before = along.size;
    for (const id of stack.members) {
      const screen = screens.get(id);
      if (!screen || along.has(id) || id === stack.start || screen.once || !reached.includes(id)) continue;
      if (project.legs.every((leg) => targetOf(leg) !== id || along.has(leg.from))) along.add(id);
    }
  }
  along.delete(place);
  return [...along];
}

/** Puts a place into new tabs or a new drawer, and more members beside it, each with a history of its own. */
export function lanesAround(making: Making, kind: Kind, name: string) {
  const { place } = making;
  const container = lookup(making.project).containers.get(place);
  const outer = lookup(making.project).owners.get(place)?.id;
  const along = alongWith(making.project, place);
  making.apply(wrap(making.project, [place], kind, name));
  const { owners } = lookup(making.project);
  const lane = owners.get(place);
  const lanes = container ? lane : owners.get(lane?.id ?? "");
  if (!lanes) return;
  if (along.length > 0 && lane) making.apply(moveAllInto(making.project, along, lane.id));
  const inside = new Set(treeOf(making.project, lanes.id));
  for (const leg of making.project.legs) {
    const { move } = leg;
    // What is newly shown in another's place comes with the lanes around it.
    if ((move?.kind === "replace" || move?.kind === "reset") && move.to === place && !inside.has(leg.from))
      making.apply(changeLeg(making.project, leg, { move: { ...move, to: lanes.id } }));
    // What started the screen's own stack over still starts that one over, and not the lane.
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
