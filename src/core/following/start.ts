import { comingInto } from "../insight/app.ts";
import { reachGraph } from "../insight/reach.ts";
import { once } from "../model/once.ts";
import type { Json, Project } from "../model/schema.ts";
import type { Width } from "../plan/data.ts";
import type { Plan } from "../plan/plan.ts";
import { factsFitting } from "../semantics/guards.ts";
import { branchNode, currentScreen, nearestStack, topBranch, updateBranch, visiblePath } from "../semantics/state.ts";
import { arrive, beginning } from "../semantics/step.ts";
import type { App, Node, State } from "../semantics/types.ts";
import type { Told } from "./agree.ts";
import type { Entry } from "./entry.ts";
import { stateOfLine } from "./lineState.ts";
import { expressionsOf } from "./ways.ts";

/** States with which a run may begin, at most: a fact more doubles them. */
const MOST = 96;

/**
 * How the app may be right after its launch: facts that persist or come from outside may have any value, and the window any width,
 * unless the entry says what they are. The likeliest first.
 */
export function beginnings(app: App, entry: Entry): State[] {
  const named = entry.facts;
  const widths: Width[] = named === undefined && goesByWidth(app) ? ["narrow", "middle", "wide"] : ["narrow"];
  const starts = widths.map((width): State => {
    const first = beginning(app, width);
    return { ...first, facts: { ...first.facts, ...factsFitting(app, named) } };
  });
  const all = named === undefined ? withOpenFacts(app, starts) : starts;
  return all.map((start) => arrive(app, undefined, start).state);
}

function withOpenFacts(app: App, starts: readonly State[]): State[] {
  let all = [...starts];
  for (const [id, fact] of app.plan.facts) {
    if (!fact.outside && !fact.persists) continue;
    const values: readonly Json[] = fact.values ?? [true, false];
    const others = (state: State) => values.filter((value) => value !== state.facts[id]);
    all = [...all, ...all.flatMap((state) => others(state).map((value): State => ({ ...state, facts: { ...state.facts, [id]: value } })))].slice(0, MOST);
  }
  return all;
}

/** Whether it makes a difference how wide the window is. */
function goesByWidth({ plan }: App): boolean {
  return once(plan, readsWidth);
}

function readsWidth({ containers, legs, entrances }: Plan): boolean {
  if ([...containers.values()].some(({ pinnedAt }) => pinnedAt && pinnedAt.length > 0)) return true;
  const all = [...[...legs.values()].flatMap(expressionsOf), ...[...entrances.values()].map(({ when }) => when)];
  return all.some((one) => one && JSON.stringify(one.tree).includes('["name","width"]'));
}

const graphs = (project: Project) => reachGraph(project);

/**
 * How the app may be where nothing that came before tells: what the line says, else every state that was found in which the screen
 * shows, else the screen on top of where the app was, and the screen as a way in lays it down.
 */
export function somewhere(project: Project, app: App, told: Told, entry: Entry, before: readonly State[]): State[] {
  const last = before[0] ?? arrive(app, undefined, beginning(app)).state;
  const facts = { ...last.facts, ...factsFitting(app, entry.facts) };
  const byLine = told.line === undefined ? undefined : stateOfLine(app.plan, told.line, { facts, width: last.width });
  if (byLine) return [withKnown(byLine, [...before, ...shown(project, told)])];
  const onTop = before.flatMap((state) => pushed(state, told));
  const found = shown(project, told);
  const screens = [...(told.meant?.screens ?? [])];
  return [...onTop, ...found, ...screens.flatMap((screen) => comingInto(project, last, screen) ?? [])];
}

function shown(project: Project, { meant }: Told): State[] {
  return meant ? once(project, graphs).met.flatMap(({ screen, state }) => (meant.screens.has(screen) ? [state] : [])) : [];
}

/** The screen on top of the nearest stack, in place of what shows, and where it lies beneath already. */
function pushed(state: State, told: Told): State[] {
  const branch = topBranch(state);
  const found = nearestStack(state, branch);
  const path = visiblePath(branchNode(state, branch));
  return [...(told.meant?.screens ?? [])].flatMap((at) => {
    const screen: Node = { kind: "shown", at, args: {} };
    const replaced = updateBranch(state, branch, path.length - 1, screen);
    if (!found) return [replaced];
    const { stack, depth } = found;
    const under = stack.items.findLastIndex((item) => item.at === at);
    const cut = under < 0 ? [] : [updateBranch(state, branch, depth, { ...stack, items: stack.items.slice(0, under + 1) })];
    return [...cut, updateBranch(state, branch, depth, { ...stack, items: [...stack.items, screen] }), replaced];
  });
}

/** The state of a line with the arguments that its screens had before, where they were met. */
function withKnown(state: State, met: readonly State[]): State {
  const known = new Map<string, Node>();
  const look = (node: Node) => {
    if (node.kind === "shown") {
      if (!known.has(node.at)) known.set(node.at, node);
    } else for (const inner of node.kind === "stack" ? node.items : Object.values(node.lanes)) look(inner);
  };
  for (const one of met) for (const node of [one.base, ...one.layers.map(({ content }) => content)]) look(node);
  const filled = (node: Node): Node => {
    switch (node.kind) {
      case "shown": {
        const like = known.get(node.at);
        return like?.kind === "shown" ? { ...node, args: { ...like.args } } : node;
      }
      case "stack":
        return { ...node, items: node.items.map(filled) };
      case "tabs":
      case "drawer":
        return { ...node, lanes: Object.fromEntries(Object.entries(node.lanes).map(([id, inner]) => [id, filled(inner)])) };
    }
  };
  return { ...state, base: filled(state.base), layers: state.layers.map((layer) => ({ ...layer, content: filled(layer.content) })) };
}

/** All arguments of the screen that shows: what is not known of a screen that was come to from nowhere. */
export function allArguments(app: App, state: State): ReadonlySet<string> {
  return new Set(app.plan.screens.get(currentScreen(state).at)?.params.map(({ name }) => name));
}
