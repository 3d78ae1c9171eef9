import { compile } from "../model/expression.ts";
import { firstScreen, giveOf, lookup, passOf, passTarget, treeOf } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Entrance, Leg, Param, Project, Screen } from "../model/schema.ts";
import { entranceScope, legScope } from "../model/scope.ts";
import { patternVariables } from "../model/template.ts";
import { handingBackTo } from "./takers.ts";

/** Who hands a parameter to a screen, and from what: a leg that newly shows it, one that comes back to it with a result, or a way in. */
export type Provider = { source: string | undefined } & ({ kind: "leg" | "back"; leg: Leg } | { kind: "entrance"; entrance: Entrance });

/** All who hand a parameter to a screen, with the expression that each hands on; undefined is a gap. */
export function providersOf(project: Project, screen: Screen, param: Param): Provider[] {
  const legs = (once(project, legsShowing).get(screen.id) ?? []).map((leg): Provider => ({ kind: "leg", leg, source: passOf(leg)?.[param.name] }));
  const entrances = project.entrances.flatMap((entrance): Provider[] => {
    if (entrance.to !== screen.id) return [];
    const bound = entrance.pass === undefined && patternVariables(entrance.pattern ?? "").includes(param.name) ? `link.${param.name}` : undefined;
    return [{ kind: "entrance", entrance, source: entrance.pass?.[param.name] ?? bound }];
  });
  const back = (handingBackTo(project).get(screen.id) ?? []).flatMap((leg): Provider[] => {
    const source = giveOf(leg)?.[param.name];
    return source === undefined ? [] : [{ kind: "back", leg, source }];
  });
  return [...legs, ...back, ...entrances];
}

/** Legs by the screen that newly show them. */
function legsShowing(project: Project): Map<string, Leg[]> {
  const made = new Map<string, Leg[]>();
  for (const leg of project.legs) {
    if (leg.move?.kind === "return" && leg.move.orElse === "nothing") continue;
    const target = passTarget(project, leg);
    const screen = target === undefined ? undefined : firstScreen(project, target)?.id;
    if (screen !== undefined) made.set(screen, [...(made.get(screen) ?? []), leg]);
  }
  return made;
}

/** A parameter of a screen. */
export interface Slot {
  screen: string;
  param: string;
}
/** Where a value comes from, and everywhere it goes. */
export interface Flow {
  /** The slots that it passes through, those nearest to where it is born first. */
  slots: Slot[];
  legs: Leg[];
  entrances: Entrance[];
  /** Where it begins: a row, what was typed, an address, a fact, or a value written down. */
  born: Provider[];
}

/** Follows the value of one parameter back to where it is born, and from there on to every screen that it reaches. */
export function followValue(project: Project, start: Slot): Flow {
  const edges = edgesOf(project);
  const key = (slot: Slot) => `${slot.screen} ${slot.param}`;
  const seen = new Map<string, Slot>([[key(start), start]]);
  const used = new Set<Edge>();
  const spread = (begin: Slot[], next: (edge: Edge, slot: Slot) => Slot[]) => {
    const reached: Slot[] = [];
    const queue = [...begin];
    const done = new Set(begin.map(key));
    for (let slot = queue.shift(); slot; slot = queue.shift())
      for (const edge of edges)
        for (const other of next(edge, slot)) {
          used.add(edge);
          if (done.has(key(other))) continue;
          done.add(key(other));
          seen.set(key(other), other);
          reached.push(other);
          queue.push(other);
        }
    return reached;
  };
  const back = spread([start], (edge, slot) => (key(edge.to) === key(slot) ? edge.from : []));
  const on = spread([start, ...back], (edge, slot) => (edge.from.some((from) => key(from) === key(slot)) ? [edge.to] : []));
  const born = edges.filter(
    (edge) => edge.from.length === 0 && edge.provider.source !== undefined && [start, ...back].some((slot) => key(slot) === key(edge.to)),
  );
  const providers = [...used, ...born].map((edge) => edge.provider);
  return {
    slots: [...back.reverse(), start, ...on],
    legs: [...new Set(providers.flatMap((p) => (p.kind === "entrance" ? [] : [p.leg])))],
    entrances: [...new Set(providers.flatMap((p) => (p.kind === "entrance" ? [p.entrance] : [])))],
    born: born.map((edge) => edge.provider),
  };
}

/** One handing on: the slots whose values the expression reads, and the slot that gets its value. */
interface Edge {
  from: Slot[];
  to: Slot;
  provider: Provider;
}

function edgesOf(project: Project): Edge[] {
  return project.screens.flatMap((screen) =>
    screen.params.flatMap((param) =>
      providersOf(project, screen, param).map((provider) => ({ from: readBy(project, provider), to: { screen: screen.id, param: param.name }, provider })),
    ),
  );
}

function readBy(project: Project, provider: Provider): Slot[] {
  if (provider.source === undefined || provider.kind === "entrance") return [];
  const { from } = provider.leg;
  const compiled = compile(provider.source, legScope(project, provider.leg));
  const names = compiled.ok ? compiled.reads.flatMap((read) => (read.name === "param" && read.field !== undefined ? [read.field] : [])) : [];
  const screens = treeOf(project, from).flatMap((id) => lookup(project).screens.get(id) ?? []);
  return names.flatMap((param) => screens.filter((s) => s.params.some((p) => p.name === param)).map((s) => ({ screen: s.id, param })));
}

/** Where a provider's value begins, in words. */
export function bornSays(project: Project, provider: Provider): string {
  const { source } = provider;
  if (source === undefined) return "nothing";
  const compiled = compile(source, provider.kind === "entrance" ? entranceScope(project, provider.entrance) : legScope(project, provider.leg));
  const roots = new Set(compiled.ok ? compiled.reads.map((read) => read.name) : []);
  if (roots.has("item")) return "the row that was used";
  if (roots.has("field")) return "what was typed";
  if (roots.has("link")) return "the address";
  if (roots.has("next") || roots.has("prev")) return "the neighbouring row";
  if (roots.has("fact")) return "a fact";
  return "a value written down";
}
