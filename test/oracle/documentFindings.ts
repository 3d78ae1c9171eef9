/**
 * A second reading of the findings that need no search, written from what they say and apart from the checker. Left to the checker's own tests:
 * wrong types, links, pictures, and what an entrance lands on.
 */
import { elementIdOf, elementsOf } from "../../src/core/model/lookup.ts";
import type { Container, Leg, Project, Screen } from "../../src/core/model/schema.ts";
import { namesRightKinds } from "./engine.ts";

const USABLE = ["button", "icon", "link", "list", "pager"];

export const READ_TWICE = [
  "broken-target",
  "no-owner",
  "no-start",
  "missing-argument",
  "ambiguous",
  "up-cycle",
  "up-arguments",
  "idle-element",
  "tab-count",
  "no-menu-control",
  "no-outside",
  "one-outcome",
  "unused-fact",
] as const;

/** `code subject subject`, of each that holds. */
export function documentFindings(project: Project): Set<string> {
  const screens = new Map(project.screens.map((one) => [one.id, one]));
  const containers = new Map(project.containers.map((one) => [one.id, one]));
  const isPlace = (id: string) => screens.has(id) || containers.has(id);
  const kind = (id: string) => containers.get(id)?.kind;
  const owners = (id: string) => project.containers.filter(({ members }) => members.includes(id));
  const out = new Set<string>();
  const say = (...words: string[]) => out.add(words.join(" "));
  const first = (id: string, seen: readonly string[] = []): Screen | undefined => {
    const container = seen.includes(id) ? undefined : containers.get(id);
    return container ? first(container.start, [...seen, id]) : screens.get(id);
  };
  const needed = (screen: Screen | undefined) => (screen?.params ?? []).filter((param) => param.required && param.default === undefined);
  const upOf = ({ id, up }: Screen): string | undefined => {
    if (up === "none") return undefined;
    if (up !== "auto") return up;
    const [owner] = owners(id);
    return owner?.kind === "stack" && owner.start !== id ? owner.start : undefined;
  };

  for (const leg of project.legs) {
    const { move } = leg;
    if (move && !namesRightKinds(project, move)) say("broken-target", leg.id);
    const shown = move && "to" in move ? (move.kind === "open" ? (move.show ?? move.to) : move.to) : undefined;
    const pass = move && "pass" in move ? (move.pass ?? {}) : {};
    // What is gone back to has its arguments; where it is not beneath, it is pushed or put in place of this.
    const arrives = !(move?.kind === "return" && move.orElse === "nothing");
    if (move && shown !== undefined && arrives && namesRightKinds(project, move))
      for (const { name } of needed(first(shown))) if (!Object.hasOwn(pass, name)) say("missing-argument", leg.id, first(shown)?.id ?? "", name);
  }
  for (const entrance of project.entrances) {
    const { id, to, otherwise, pattern, pass = {} } = entrance;
    if (!screens.has(to) || (otherwise !== undefined && !isPlace(otherwise))) say("broken-target", id);
    if (pattern === undefined && screens.has(to))
      for (const { name } of needed(screens.get(to))) if (!Object.hasOwn(pass, name)) say("missing-argument", id, to, name);
  }
  for (const { id, start, members } of project.containers) {
    if (members.length > 0 && !isPlace(start)) say("broken-target", id);
    if (members.length === 0 || !members.includes(start)) say("no-start", id);
  }
  for (const screen of project.screens) if (screen.up !== "auto" && screen.up !== "none" && !screens.has(screen.up)) say("broken-target", screen.id);

  for (const place of [...project.screens, ...project.containers]) {
    const count = owners(place.id).length;
    const alone = count === 0 && place.id !== project.root && kind(place.id) !== "modal";
    if (alone || count > 1) say("no-owner", place.id);
  }

  for (const [i, leg] of project.legs.entries()) {
    const earlier = project.legs.slice(0, i).find((one) => one.from === leg.from && one.when === undefined && sameTrigger(one, leg));
    // An `after` leg fires once for each showing: then the later one can.
    if (earlier && leg.on.kind !== "after") say("ambiguous", leg.id, earlier.id);
  }

  for (const screen of project.screens) {
    const cycle: string[] = [];
    for (let at: Screen | undefined = screen; at; at = screens.get(upOf(at) ?? "")) {
      if (at.id === screen.id && cycle.length > 0) {
        say("up-cycle", ...project.screens.map(({ id }) => id).filter((id) => cycle.includes(id)));
        break;
      }
      if (cycle.includes(at.id)) break;
      cycle.push(at.id);
    }
    const target = upOf(screen) ?? "";
    for (const { name } of needed(first(target))) if (!screen.params.some((param) => param.name === name)) say("up-arguments", screen.id, target, name);
  }

  for (const place of [...project.screens, ...project.containers])
    for (const element of elementsOf(project, place.id)) {
      const legs = project.legs.filter((leg) => leg.from === place.id && elementIdOf(leg) === element.id);
      if (USABLE.includes(element.kind) && legs.length === 0 && !screens.get(place.id)?.planned) say("idle-element", place.id, element.id);
      const outcomes = legs.flatMap(({ on }) => ("outcome" in on && on.outcome !== undefined ? [on.outcome] : []));
      if (new Set(outcomes).size === 1) say("one-outcome", place.id, element.id);
    }

  for (const container of project.containers) {
    if (container.kind === "tabs" && (container.members.length === 1 || (container.members.length > 5 && container.edge === "bottom")))
      say("tab-count", container.id);
    if (container.kind === "modal" && container.shape === "full" && container.closeOn.includes("outside")) say("no-outside", container.id);
    if (container.kind === "drawer" && container.pinnedFrom === "never" && !isOpened(container)) say("no-menu-control", container.id);
  }

  for (const { id } of project.facts) {
    const texts = JSON.stringify([project.legs, project.screens, project.containers, project.entrances, project.rules ?? []]);
    if (!new RegExp(`fact\\.${id}\\b`).test(texts)) say("unused-fact", id);
  }
  return out;

  /** Whether a screen in a drawer shows the menu as its lead, or a leg opens it. */
  function isOpened(drawer: Container): boolean {
    const opens = (id: string, bar: Screen["bar"], seen: readonly string[]): boolean => {
      const place = screens.get(id) ?? containers.get(id);
      const own = place?.bar ?? bar;
      const container = seen.includes(id) ? undefined : containers.get(id);
      if (!container) return own?.show === true && own.lead === "menu";
      return [...new Set([...container.members, container.start])].some((member) => opens(member, own, [...seen, id]));
    };
    const around = (id: string): Screen["bar"] => {
      const [owner] = owners(id);
      return owner && (owner.bar ?? around(owner.id));
    };
    const inside = (id: string, seen: readonly string[] = []): string[] =>
      seen.includes(id) ? [] : [id, ...(containers.get(id)?.members ?? []).flatMap((one) => inside(one, [...seen, id]))];
    const tree = inside(drawer.id);
    const legs = project.legs.some(
      ({ from, move }) => move?.kind === "menu" && move.action !== "close" && (move.drawer === drawer.id || (move.drawer === undefined && tree.includes(from))),
    );
    return legs || opens(drawer.id, around(drawer.id), []);
  }
}

function sameTrigger({ on: a }: Leg, { on: b }: Leg): boolean {
  if (a.kind !== b.kind) return false;
  const parts = (on: Leg["on"]) =>
    JSON.stringify(
      Object.entries(on)
        .filter(([key, value]) => value !== undefined && key !== "by")
        .sort(),
    );
  if (a.kind === "depart" && b.kind === "depart") return a.by === undefined || (b.by?.every((one) => a.by?.includes(one)) ?? false);
  return parts(a) === parts(b);
}
