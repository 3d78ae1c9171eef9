import { legStart } from "../../model/describe.ts";
import { elementIdOf, elementOf, firstScreen, lookup, nameOf, ownersAround, targetOf, treeOf } from "../../model/lookup.ts";
import type { Element, Leg, Project } from "../../model/schema.ts";
import { triggerKey } from "../../plan/lower/legs.ts";
import { trailOf } from "../../plan/lower/templates.ts";
import type { Found } from "./rule.ts";

const quote = (project: Project, id: string) => `"${nameOf(project, id)}"`;
const ANSWERING = ["button", "icon", "link", "list", "pager"];

/** Later legs that never fire, because an earlier one with the same source and trigger has no condition. */
export function ambiguous(project: Project): Found[] {
  const seen = new Map<string, Leg[]>();
  return project.legs.flatMap((leg) => {
    const key = triggerKey(leg);
    const before = seen.get(key);
    const earlier = before?.find((other) => other.when === undefined && covers(other, leg));
    if (before) before.push(leg);
    else seen.set(key, [leg]);
    return earlier && leg.on.kind !== "after"
      ? [
          {
            subjects: [leg.id, earlier.id],
            message: `A leg of ${legStart(project, leg)} never fires: another comes before it on the same trigger, without a condition.`,
          },
        ]
      : [];
  });
}

function covers(earlier: Leg, later: Leg): boolean {
  if (earlier.on.kind !== "depart" || later.on.kind !== "depart") return true;
  const { by } = earlier.on;
  return by === undefined || (later.on.by?.every((kind) => by.includes(kind)) ?? false);
}

/** Entrances that land on a screen with nothing beneath it that is not a hub. */
export function noWayUp(project: Project, hubs: ReadonlySet<string>): Found[] {
  return project.entrances.flatMap((entrance) => {
    const screen = lookup(project).screens.get(entrance.to);
    if (!screen || hubs.has(screen.id)) return [];
    const owners = ownersAround(project, screen.id);
    if (owners.at(-1)?.kind === "modal") return [];
    const beneath = owners[0]?.kind === "stack" ? trailOf(project, screen.id).length - 1 : 0;
    return beneath > 0
      ? []
      : [
          {
            subjects: [entrance.id, screen.id],
            message: `${quote(project, entrance.id)} lands on ${quote(project, screen.id)} with nothing beneath it to go back or up to.`,
          },
        ];
  });
}

/** Buttons, icons, links, lists and pagers that no leg starts at; planned screens aside. */
export function idleElement(project: Project): Found[] {
  return withElements(project, (placeId, elements) => {
    if (lookup(project).screens.get(placeId)?.planned) return [];
    const used = new Set((lookup(project).legsFrom.get(placeId) ?? []).map(elementIdOf));
    return elements
      .filter((e) => ANSWERING.includes(e.kind) && !used.has(e.id))
      .map((e) => ({ subjects: [placeId, e.id], message: `"${e.label}" on ${quote(project, placeId)} leads nowhere: no leg starts at it.` }));
  });
}

/** Elements whose legs name only one outcome. */
export function oneOutcome(project: Project): Found[] {
  return withElements(project, (placeId, elements) => {
    const legs = (lookup(project).legsFrom.get(placeId) ?? []).flatMap((leg) =>
      "outcome" in leg.on && leg.on.outcome !== undefined ? [{ element: elementIdOf(leg), outcome: leg.on.outcome }] : [],
    );
    if (legs.length === 0) return [];
    return elements.flatMap((e) => {
      const outcomes = new Set(legs.flatMap(({ element, outcome }) => (element === e.id ? [outcome] : [])));
      return outcomes.size === 1
        ? [
            {
              subjects: [placeId, e.id],
              message: `"${e.label}" on ${quote(project, placeId)} knows only the outcome "${[...outcomes][0]}": what if it comes out otherwise?`,
            },
          ]
        : [];
    });
  });
}

function withElements(project: Project, find: (placeId: string, elements: Element[]) => Found[]): Found[] {
  return [...project.containers, ...project.screens].flatMap((place) => find(place.id, place.elements ?? []));
}

/** Two screens of one name, or two elements of one screen with one label that lead to different places. */
export function sameName(project: Project): Found[] {
  const screens = pairs(
    project.screens.filter((s) => s.name !== ""),
    (s) => s.name,
  ).map(([a, b]) => ({
    subjects: [a.id, b.id],
    message: `Two screens are called "${a.name}"; their ids are ${a.id} and ${b.id}.`,
  }));
  const elements = project.screens.flatMap((screen) => {
    const legs = lookup(project).legsFrom.get(screen.id) ?? [];
    const targets = (e: Element) => legs.filter((leg) => elementIdOf(leg) === e.id).map((leg) => targetOf(leg) ?? leg.move?.kind ?? "");
    return pairs(
      screen.elements.filter((e) => ANSWERING.includes(e.kind) && e.label !== ""),
      (e) => e.label,
      (a, b) => targets(a).length > 0 && targets(b).length > 0 && targets(a).sort().join(" ") !== targets(b).sort().join(" "),
    ).map(([a, b]) => ({
      subjects: [a.id, b.id],
      message: `Two elements of ${quote(project, screen.id)} are both called "${a.label}" and lead to different places.`,
    }));
  });
  return [...screens, ...elements];
}

/** All pairs of the same name of which something holds. */
function pairs<T>(list: T[], name: (entry: T) => string, holds: (a: T, b: T) => boolean = () => true): Array<[T, T]> {
  const groups = new Map<string, T[]>();
  for (const entry of list) {
    const group = groups.get(name(entry));
    if (group) group.push(entry);
    else groups.set(name(entry), [entry]);
  }
  return [...groups.values()].flatMap((group) => group.flatMap((a, i) => group.slice(i + 1).flatMap((b): Array<[T, T]> => (holds(a, b) ? [[a, b]] : []))));
}

/** Legs that lead to the place that they start from, without other arguments. */
export function selfLeg(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const pass = leg.move && "pass" in leg.move ? (leg.move.pass ?? {}) : {};
    const same = Object.entries(pass).every(([name, source]) => source.trim() === `param.${name}`);
    return targetOf(leg) === leg.from && same ? [{ subjects: [leg.id], message: `The leg of ${legStart(project, leg)} leads to where it starts.` }] : [];
  });
}

/** Carried elements that are missing on a side, carried twice, or in a leg whose motion does not grow. */
export function carryMismatch(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const carries = leg.motion?.carries ?? [];
    if (carries.length === 0) return [];
    const wrong = carryProblem(project, leg, carries);
    return wrong === undefined ? [] : [{ subjects: [leg.id], message: `What the leg from ${quote(project, leg.from)} carries does not fit: ${wrong}.` }];
  });
}

function carryProblem(project: Project, leg: Leg, carries: Array<{ from: string; to: string }>): string | undefined {
  if (leg.motion?.kind !== "grow") return `only the motion "grow" carries elements, not "${leg.motion?.kind}"`;
  const target = targetOf(leg);
  const to = target === undefined ? undefined : firstScreen(project, target)?.id;
  const known = (placeId: string, id: string) => [placeId, ...ownersAround(project, placeId).map((c) => c.id)].some((p) => elementOf(project, p, id));
  for (const [i, carry] of carries.entries()) {
    if (!known(leg.from, carry.from)) return `there is no element "${carry.from}" where it starts`;
    if (to !== undefined && !known(to, carry.to)) return `there is no element "${carry.to}" where it leads`;
    if (carries.findIndex((c) => c.from === carry.from || c.to === carry.to) < i) return `"${carry.from}" or "${carry.to}" is carried twice`;
  }
  return undefined;
}

/** Drawers that nothing opens: never pinned, no bar with a menu on a screen in them, no leg to them. */
export function noMenuControl(project: Project): Found[] {
  return project.containers.flatMap((drawer) => {
    if (drawer.kind !== "drawer" || drawer.pinnedFrom !== "never") return [];
    const inside = treeOf(project, drawer.id);
    const around = new Set([...inside, ...ownersAround(project, drawer.id).map((c) => c.id)]);
    const opens = project.legs.some(
      (leg) =>
        leg.move?.kind === "menu" && leg.move.action !== "close" && (leg.move.drawer === undefined ? around.has(leg.from) : leg.move.drawer === drawer.id),
    );
    const shows = inside.some((id) => lookup(project).screens.has(id) && leadIsMenu(project, id));
    return opens || shows
      ? []
      : [{ subjects: [drawer.id], message: `Nothing opens the drawer ${quote(project, drawer.id)}: no bar in it shows a menu and no leg opens it.` }];
  });
}

function leadIsMenu(project: Project, screenId: string): boolean {
  const own = lookup(project).screens.get(screenId)?.bar;
  const bar = own ?? ownersAround(project, screenId).find((c) => c.bar)?.bar;
  return bar?.show === true && bar.lead === "menu";
}

/** Shared elements that no screen shows, because each is excepted. */
export function unusedElement(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    const screens = treeOf(project, c.id).filter((id) => lookup(project).screens.has(id));
    return (c.elements ?? [])
      .filter((e) => screens.every((id) => e.except?.includes(id)))
      .map((e) => ({ subjects: [c.id, e.id], message: `"${e.label}" of ${quote(project, c.id)} is excepted on every screen in it, so nobody ever sees it.` }));
  });
}
