/**
 * The plain reference for the checker: every state one by one, by breadth-first search over
 * whole states, nothing hidden and nothing joined. For small documents whose conditions ask
 * nothing unknown. Written apart from the checker; it shares with it only the engine.
 */

import { appOf } from "../../src/core/insight/app.ts";
import { elementIdOf } from "../../src/core/model/lookup.ts";
import type { NavEvent, Project, Width } from "../../src/core/model/schema.ts";
import { planOf } from "../../src/core/plan/planOf.ts";
import { leadOf } from "../../src/core/semantics/bar.ts";
import { stateLine } from "../../src/core/semantics/line.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { arrive, beginning, step } from "../../src/core/semantics/step.ts";
import type { Node, Outcome, State } from "../../src/core/semantics/types.ts";
import { valuesFor } from "../../src/core/semantics/values.ts";
import { allEvents } from "../random/documents.ts";

interface Seen {
  state: State;
  line: string;
  screen: string;
  next: Array<{ event: NavEvent; to: string; outcome: string; why: string | undefined }>;
}
export interface OracleResult {
  /** `code subject subject`, in no order. Undefined where there are too many states, or stacks too deep. */
  findings: Set<string> | undefined;
  states: number;
}

export function oracle(project: Project, width: Width, most: number, deepest: number, all = allEvents(project)): OracleResult {
  const { seen, start, heard, overflow } = searched(project, width, { most, deepest, events: all, goesOn: false });
  if (overflow) return { findings: undefined, states: seen.size };
  const found = judge(project, seen, start, heard.passed);
  for (const line of heardLines(heard)) found.add(line);
  return { findings: new Set([...found].filter((line) => isOf(project, line))), states: seen.size };
}

/**
 * What a search meets that goes no deeper than a bound and through no more than so many states, where there is no end to them: all that it meets
 * is there. `taps` are the fewest by which it gets to screens that are far: no way is longer than that.
 */
export function metWithin(
  project: Project,
  width: Width,
  most: number,
  deepest: number,
): { findings: Set<string>; shown: Set<string>; taps: Map<string, number> } {
  const { seen, start, heard } = searched(project, width, { most, deepest, events: allEvents(project), goesOn: true });
  const hubs = hubsOf(project, seen.get(start)?.screen ?? "");
  const found = new Set(heardLines(heard));
  // Where facts outlast a launch, another launch that is not met here may show what Back leaves the app from.
  const launched = new Set(project.facts.some(({ persists }) => persists) ? project.screens.map(({ id }) => id) : launchedIn(seen, start));
  for (const node of seen.values()) if (node.next.length > 0) behaviourOf(project, node, hubs, launched, seen, found);
  return {
    findings: new Set([...found].filter((line) => isOf(project, line))),
    shown: shownIn(project, seen, heard.passed),
    taps: tapsTo(seen, start, project),
  };
}

/** What the logs of steps tell. */
interface Heard {
  refused: Set<string>;
  copied: Set<string>;
  lost: Set<string>;
  passed: Set<string>;
  loops: Set<string>;
}

function heardLines({ refused, lost, copied, loops }: Heard): string[] {
  const lines = (code: string, all: Set<string>) => [...all].map((subjects) => `${code} ${subjects}`);
  return [...lines("refused-move", refused), ...lines("lost-result", lost), ...lines("piled-copies", copied), ...lines("redirect-loop", loops)];
}

/** Whether what a line is about is in the document. */
function isOf(project: Project, line: string): boolean {
  return [...project.screens, ...project.containers, ...project.legs].some(({ id }) => id === line.split(" ")[1]);
}

/** How a search goes: through how many states, how deep, by which events; and whether it stops beyond that, or goes on with the rest. */
interface Bounds {
  most: number;
  deepest: number;
  events: NavEvent[];
  goesOn: boolean;
}

/** All states, by breadth-first search. */
function searched(
  original: Project,
  width: Width,
  { most, deepest, events: all, goesOn }: Bounds,
): { seen: Map<string, Seen>; start: string; heard: Heard; overflow: boolean } {
  const project = original;
  const app = appOf(project);
  const heard: Heard = { refused: new Set(), copied: new Set(), lost: new Set(), passed: new Set(), loops: new Set() };
  const hear = ({ log, ...result }: Outcome) => {
    for (const { leg, why } of log.refused) if (["no-stack", "not-showing", "no-place", "inside-itself"].includes(why)) heard.refused.add(leg);
    for (const { leg, names, to } of log.handed)
      for (const name of names) if (!original.screens.find((s) => s.id === to)?.params.some((param) => param.name === name)) heard.lost.add(`${leg} ${name}`);
    for (const { leg, place } of log.copied) if (!original.screens.find((s) => s.id === place)?.mayRepeat) heard.copied.add(`${leg} ${place}`);
    if ("why" in result && result.why === "redirect-loop") {
      const round = new Set(log.fired.slice(-16));
      heard.loops.add(original.legs.find((leg) => round.has(leg.id))?.id ?? "");
    } else for (const s of log.passed) for (const id of [currentScreen(s).at, ...s.layers.map((l) => l.at)]) heard.passed.add(id);
  };

  const seen = new Map<string, Seen>();
  const queue: string[] = [];
  let overflow = false;
  const add = (state: State): string => {
    const key = JSON.stringify(state);
    if (!seen.has(key)) {
      const isDeep = depth(state) > deepest;
      overflow ||= isDeep;
      seen.set(key, { state, line: stateLine(planOf(project), state), screen: currentScreen(state).at, next: [] });
      if (!isDeep) queue.push(key);
    }
    return key;
  };
  const launched = arrive(app, undefined, beginning(app, width));
  hear(launched);
  const start = add(launched.state);
  const events = all.filter((e) => e.do !== "width" && !(e.do === "enter" && !e.cold));
  for (let at = 0; at < queue.length && (goesOn || !overflow); at++) {
    if (seen.size > most) {
      overflow = true;
      if (goesOn) break;
    }
    const node = seen.get(queue[at] as string) as Seen;
    for (const event of events) {
      const result = step(app, node.state, event);
      hear(result);
      if (result.outcome !== "ignored")
        node.next.push({ event, to: add(result.state), outcome: result.outcome, why: "why" in result ? result.why : undefined });
    }
  }
  return { seen, start, heard, overflow };
}

export function depth(state: State): number {
  const deep = (node: Node): number => {
    switch (node.kind) {
      case "shown":
        return 0;
      case "stack":
        return Math.max(node.items.length, ...node.items.map(deep));
      case "tabs":
      case "drawer":
        return Math.max(...Object.values(node.lanes).map(deep));
    }
  };
  return Math.max(deep(state.base), ...state.layers.map((layer) => deep(layer.content)));
}

const OUT = ["leg", "tab", "pick", "lead", "close", "fact"];

/** All states that some steps lead to from one, itself included. */
function closure(seen: Map<string, Seen>, from: string, kinds: string[]): Set<string> {
  const out = new Set([from]);
  const queue = [from];
  for (let key = queue.pop(); key !== undefined; key = queue.pop())
    for (const { event, to, outcome } of seen.get(key)?.next ?? [])
      if (outcome === "moved" && kinds.includes(event.do) && !out.has(to)) {
        out.add(to);
        queue.push(to);
      }
  return out;
}

function judge(project: Project, seen: Map<string, Seen>, start: string, passed: Set<string>): Set<string> {
  const found = new Set<string>();
  const hubs = hubsOf(project, seen.get(start)?.screen ?? "");
  const launched = launchedIn(seen, start);
  const shown = shownIn(project, seen, passed);
  for (const modal of project.containers.filter((c) => c.kind === "modal" && !shown.has(c.id))) found.add(`unreachable ${modal.id}`);
  const hidden = project.containers.filter((c) => c.kind === "modal" && !shown.has(c.id)).flatMap((c) => tree(project, c.id));
  for (const screen of project.screens) if (!shown.has(screen.id) && !hidden.includes(screen.id)) found.add(`unreachable ${screen.id}`);

  const dead = new Set<string>();
  const lost: string[] = [];
  for (const [key, node] of seen) {
    const all = closure(seen, key, [...OUT, "back"]);
    const lines = (keys: Set<string>) => [...keys].some((k) => seen.get(k)?.line !== node.line);
    const stuck = node.state.layers.filter((layer) => [...all].every((k) => seen.get(k)?.state.layers.some((l) => l.at === layer.at)));
    for (const layer of stuck) found.add(`stuck-modal ${layer.at}`);
    behaviourOf(project, node, hubs, launched, seen, found);
    if (stuck.length > 0) continue;
    if (!lines(all)) dead.add(node.screen);
    else {
      if (!lines(closure(seen, key, OUT)) && !hubs.has(node.screen)) found.add(`back-only ${node.screen}`);
      if (![...all].some((k) => hubs.has(seen.get(k)?.screen ?? ""))) lost.push(key);
    }
  }
  for (const screen of dead) found.add(`dead-end ${screen}`);
  for (const group of groups(
    project,
    seen,
    lost.filter((key) => !dead.has(seen.get(key)?.screen ?? "")),
  ))
    found.add(`trap ${group.join(" ")}`);
  for (const screen of farScreens(seen, start, project)) found.add(`far ${screen}`);
  return found;
}

/** The screens that launches show. */
function launchedIn(seen: Map<string, Seen>, start: string): Set<string> {
  const out = new Set([seen.get(start)?.screen ?? ""]);
  for (const node of seen.values())
    for (const next of node.next) if (next.event.do === "launch" && next.outcome === "moved") out.add(seen.get(next.to)?.screen ?? "");
  return out;
}

/** Screens and modals that are shown. */
function shownIn(project: Project, seen: Map<string, Seen>, passed: Set<string>): Set<string> {
  const shown = new Set(passed);
  for (const node of seen.values()) {
    shown.add(node.screen);
    for (const layer of node.state.layers) shown.add(layer.at);
    if (!project.containers.find((c) => c.id === node.state.layers.at(-1)?.at && c.kind === "modal" && c.blocks)) beneath(project, node.state, shown);
  }
  return shown;
}

/** Screens on branches that can be used beneath layers that do not block. */
function beneath(project: Project, state: State, shown: Set<string>) {
  for (let branch = state.layers.length; branch > 0; branch--) {
    const modal = project.containers.find((c) => c.id === state.layers[branch - 1]?.at);
    if (modal?.kind !== "modal" || modal.blocks) return;
    shown.add(currentScreen(state, branch - 1).at);
  }
}

function tree(project: Project, id: string): string[] {
  const container = project.containers.find((c) => c.id === id);
  return container ? [id, ...[...container.members, container.start].filter((m) => m !== id).flatMap((m) => tree(project, m))] : [id];
}

function owners(project: Project, id: string): string[] {
  const owner = project.containers.find((c) => c.members.includes(id));
  return owner ? [owner.id, ...owners(project, owner.id)] : [];
}

function oncePlaces(project: Project, screen: string): string[] {
  const isOnce = (id: string) => [...project.screens, ...project.containers].some((p) => p.id === id && p.once);
  return [screen, ...owners(project, screen)].filter(isOnce);
}

export function hubsOf(project: Project, launched: string): Set<string> {
  const marked = project.screens.filter((s) => s.hub).map((s) => s.id);
  if (marked.length > 0) return new Set(marked);
  let level = [project.root];
  while (level.length > 0) {
    const containers = level.flatMap((id) => project.containers.filter((c) => c.id === id));
    const outer = containers.find((c) => c.kind === "tabs" || c.kind === "drawer");
    if (outer) return new Set(outer.members.map((m) => firstOf(project, m)).filter((id) => project.screens.some((s) => s.id === id)));
    level = containers.flatMap((c) => c.members);
  }
  return new Set([launched]);
}

function firstOf(project: Project, id: string, around: string[] = []): string {
  const container = project.containers.find((c) => c.id === id && !around.includes(id));
  return container ? firstOf(project, container.start, [...around, id]) : id;
}

/** Findings that one state and its steps show by themselves. */
function behaviourOf(project: Project, node: Seen, hubs: Set<string>, launched: Set<string>, seen: Map<string, Seen>, found: Set<string>) {
  if (leadOf(planOf(project), node.state, node.state.layers.length) === "idle") found.add(`idle-lead ${node.screen}`);
  for (const { event, to, outcome } of node.next) {
    if (event.do === "back" && outcome === "left" && !hubs.has(node.screen) && !launched.has(node.screen) && oncePlaces(project, node.screen).length === 0)
      found.add(`leaves-by-surprise ${node.screen}`);
    if (outcome !== "moved" || !hubs.has(node.screen) || !["back", "lead", "tab", "pick"].includes(event.do)) continue;
    const own = oncePlaces(project, node.screen);
    const once = oncePlaces(project, seen.get(to)?.screen ?? "").find((id) => !own.includes(id));
    if (once) found.add(`returns-to-finished ${once}`);
  }
  const screen = project.screens.find((s) => s.id === node.screen);
  const drawerOpen = stateLine(planOf(project), {
    ...node.state,
    layers: node.state.layers.slice(-1),
    base: node.state.layers.at(-1)?.content ?? node.state.base,
  }).includes("!");
  for (const element of drawerOpen ? [] : (screen?.elements ?? [])) {
    const legs = project.legs.filter((leg) => leg.from === node.screen && elementIdOf(leg) === element.id);
    if (legs.length === 0 || legs.some((leg) => leg.when === undefined)) continue;
    const values = valuesFor(appOf(project), node.state, currentScreen(node.state));
    const compiled = legs.flatMap(({ id }) => planOf(project).legs.get(id) ?? []);
    const usable = compiled.every(({ shown, enabled }) => [shown, enabled].every((one) => one === undefined || one.run(values) === true));
    if (usable && compiled.every(({ never, when }) => never || !when || when.run(values) !== true)) found.add(`silent ${node.screen} ${element.id}`);
  }
}

function groups(project: Project, seen: Map<string, Seen>, lost: string[]): string[][] {
  const inside = new Set(lost);
  const links = new Map<string, Set<string>>();
  for (const key of lost) {
    const node = seen.get(key) as Seen;
    const mine = links.get(node.screen) ?? new Set([node.screen]);
    links.set(node.screen, mine);
    for (const { event, to, outcome } of node.next) {
      if (outcome !== "moved" || ![...OUT, "back"].includes(event.do) || !inside.has(to)) continue;
      const other = seen.get(to)?.screen ?? "";
      mine.add(other);
      links.set(other, (links.get(other) ?? new Set([other])).add(node.screen));
    }
  }
  const out: string[][] = [];
  const done = new Set<string>();
  for (const screen of project.screens.map((s) => s.id)) {
    if (!links.has(screen) || done.has(screen)) continue;
    const group = new Set([screen]);
    for (const id of group) for (const other of links.get(id) ?? []) group.add(other);
    for (const id of group) done.add(id);
    out.push(project.screens.filter((s) => group.has(s.id)).map((s) => s.id));
  }
  return out;
}

function farScreens(seen: Map<string, Seen>, start: string, project: Project): string[] {
  return [...tapsTo(seen, start, project)].filter(([, count]) => count > 5).map(([screen]) => screen);
}

/** By screen the fewest taps from launch. */
function tapsTo(seen: Map<string, Seen>, start: string, project: Project): Map<string, number> {
  const after = new Set(project.legs.filter((leg) => leg.on.kind === "after").map((leg) => leg.id));
  const taps = new Map<string, number>([[start, 0]]);
  for (let changed = true; changed; ) {
    changed = false;
    for (const [key, node] of seen) {
      const mine = taps.get(key);
      if (mine === undefined) continue;
      for (const { event, to, outcome } of node.next) {
        if (outcome !== "moved" || event.do === "enter") continue;
        const free = ["back", "launch", "fact"].includes(event.do) || (event.do === "leg" && after.has(event.leg));
        const theirs = mine + (free ? 0 : 1);
        if (theirs < (taps.get(to) ?? Number.POSITIVE_INFINITY)) {
          taps.set(to, theirs);
          changed = true;
        }
      }
    }
  }
  const best = new Map<string, number>();
  for (const [key, count] of taps) {
    const screen = seen.get(key)?.screen ?? "";
    best.set(screen, Math.min(count, best.get(screen) ?? Number.POSITIVE_INFINITY));
  }
  return best;
}
