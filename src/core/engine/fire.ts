import { sameValue } from "../model/expression.ts";
import { lookup } from "../model/lookup.ts";
import type { Json, Project } from "../model/schema.ts";
import { type CompiledLeg, compiled } from "./compiled.ts";
import { destinationOf } from "./enter.ts";
import { closed } from "./lanes.ts";
import { makeMove, placesExist } from "./moves.ts";
import type { Firing } from "./reach.ts";
import { branchNode, type Change, currentScreen, moved, nothingToDo, refused, type State, updateBranch, visiblePath } from "./state.ts";
import { rebuild } from "./trail.ts";

/**
 * Fires a leg: arguments and values from the state before, an open drawer that it belongs to
 * closed, then the move; if it was made, what the leg sets.
 */
export function fire(project: Project, state: State, firing: Firing): Change {
  const { watch } = compiled(project);
  watch?.fired(firing.compiled.leg.id);
  const change = carryOut(project, state, firing);
  if (change.is === "refused") watch?.refused(firing.compiled.leg.id, change.why);
  if (change.is === "moved" && change.copied !== undefined) watch?.copied(change.copied);
  return change;
}

function carryOut(project: Project, state: State, { compiled: entry, branch, values }: Firing): Change {
  const { leg } = entry;
  const facts = valuesToSet(project, entry, state, values);
  const before = spend(drawerClosed(state, branch, entry), branch, entry);
  const resumed = leg.resumes ? resume(project, before, facts ?? state.facts) : undefined;
  if (!resumed && leg.move && !placesExist(project, leg.move)) return refused("no-place");
  const args = argumentsOf(entry, values);
  if (facts === undefined || (!resumed && args === undefined)) return refused("no-value");
  const factsChange = Object.keys(facts).some((id) => !sameValue(facts[id], state.facts[id]));
  const change = resumed ?? (leg.move ? makeMove(project, before, branch, leg.move, args ?? {}) : factsChange ? moved(before) : nothingToDo);
  if (change.is === "moved") return factsChange ? { ...change, state: { ...change.state, facts } } : change;
  const drawerWasOpen = change.is === "ignored" && !drawerStays(state, branch, entry);
  return drawerWasOpen ? moved(before) : change;
}

/** The arguments that a leg passes, or undefined where a required one has no value. */
function argumentsOf(entry: CompiledLeg, values: Firing["values"]): Record<string, Json> | undefined {
  const args: Record<string, Json> = {};
  for (const { name, run, required, hasDefault } of entry.pass) {
    const value = run(values);
    if (value !== undefined) args[name] = value;
    else if (required && !hasDefault) return undefined;
  }
  return args;
}

/** All facts with what the leg sets, or undefined where one to set has no value, or none of the fact's own. */
function valuesToSet(project: Project, entry: CompiledLeg, state: State, values: Firing["values"]): Record<string, Json> | undefined {
  if (entry.set.length === 0) return state.facts;
  const facts = { ...state.facts };
  for (const { fact, run } of entry.set) {
    const value = run(values);
    const declared = lookup(project).facts.get(fact);
    if (value === undefined || (declared?.type === "choice" && !declared.values?.includes(value as string))) return undefined;
    facts[fact] = value;
  }
  return facts;
}

/** Whether no open drawer needs closing before this leg's move. */
function drawerStays(state: State, branch: number, { leg }: CompiledLeg): boolean {
  if (leg.move?.kind === "menu") return true;
  return !visiblePath(branchNode(state, branch)).some((node) => node.kind === "drawer" && node.open && node.at === leg.from);
}

function drawerClosed(state: State, branch: number, entry: CompiledLeg): State {
  if (drawerStays(state, branch, entry)) return state;
  const path = visiblePath(branchNode(state, branch));
  const depth = path.findIndex((node) => node.at === entry.leg.from);
  const node = path[depth];
  return node ? updateBranch(state, branch, depth, closed(node)) : state;
}

/** Marks an `after` leg as spent on the screen that it fires from. */
function spend(state: State, branch: number, { leg }: CompiledLeg): State {
  if (leg.on.kind !== "after") return state;
  const screen = currentScreen(state, branch);
  const depth = visiblePath(branchNode(state, branch)).length - 1;
  return updateBranch(state, branch, depth, { ...screen, spent: [...(screen.spent ?? []), leg.id] });
}

/** The rebuild to a waiting entrance whose condition holds with the facts as they will be; undefined where none does. */
function resume(project: Project, state: State, facts: State["facts"]): Change | undefined {
  if (!state.waiting) return undefined;
  const destination = destinationOf(project, { ...state, facts }, state.waiting.entrance, state.waiting.args);
  if (!destination?.allowed) return undefined;
  const { waiting: _, ...rest } = state;
  return destination.to === undefined ? refused("no-place") : rebuild(project, rest, destination.to, destination.args);
}
