import { lookup } from "../model/lookup.ts";
import type { Json, Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import { withDrawersClosed } from "./lanes.ts";
import { make, parametersOf } from "./make.ts";
import { type Args, type Change, moved, nearestStack, noControl, refused, type State, updateBranch } from "./state.ts";
import { rebuild } from "./trail.ts";
import { argumentsFromText } from "./values.ts";

/** Facts at a launch: the initial values. */
export function initialFacts(project: Project): Record<string, Json> {
  return Object.fromEntries(project.facts.map((fact) => [fact.id, fact.initial]));
}

/** The facts of a new start: those that persist or come from outside are kept. */
export function factsAnew(project: Project, state: State): Record<string, Json> {
  const facts: Record<string, Json> = {};
  for (const fact of project.facts) {
    const kept = fact.persists || fact.source === "outside" ? state.facts[fact.id] : undefined;
    facts[fact.id] = kept ?? fact.initial;
  }
  return facts;
}

/** The state of a new start in the same width. */
export function relaunched(project: Project, state: State): State {
  return { base: make(project, project.root), layers: [], facts: factsAnew(project, state), width: state.width };
}

/** Where an entrance leads now: whether its condition holds, the place (undefined where there is no such screen) and its arguments. */
export function destinationOf(
  project: Project,
  state: State,
  entranceId: string,
  given: Args,
): { allowed: boolean; to: string | undefined; args: Args } | undefined {
  const entry = compiled(project).entrances.get(entranceId);
  if (!entry) return undefined;
  const { entrance } = entry;
  const values = { fact: state.facts, width: state.width, link: asText(given) };
  const allowed = entry.when === undefined || (entry.when !== "never" && entry.when.run(values) === true);
  const to = lookup(project).screens.has(entrance.to) ? entrance.to : undefined;
  if (entry.pass) {
    const args: Record<string, Json> = {};
    for (const { name, run } of entry.pass) {
      const value = run(values);
      if (value !== undefined) args[name] = value;
    }
    return { allowed, to, args };
  }
  const bound: Record<string, Json> = {};
  for (const name of entry.variables) {
    const value = given[name];
    if (value !== undefined) bound[name] = value;
  }
  return { allowed, to, args: argumentsFromText(parametersOf(project, entrance.to), bound) };
}

/** The event enter, cold or warm, without asking depart legs. */
export function enter(project: Project, state: State, event: { entrance: string; args?: Args; cold?: boolean }): Change {
  const entrance = lookup(project).entrances.get(event.entrance);
  if (!entrance) return noControl;
  const from = event.cold ? relaunched(project, state) : state;
  const given = event.args ?? {};
  const destination = destinationOf(project, from, entrance.id, given);
  if (!destination) return noControl;
  if (!destination.allowed) {
    if (entrance.otherwise === undefined) return event.cold ? moved(from) : refused("not-allowed");
    const waiting = entrance.resume ? { ...from, waiting: { entrance: entrance.id, args: given } } : from;
    return rebuild(project, waiting, entrance.otherwise, {});
  }
  if (destination.to === undefined) return refused("no-place");
  if (event.cold || entrance.warm === "rebuild") return rebuild(project, from, destination.to, destination.args);
  return onTop(project, from, destination.to, destination.args);
}

function onTop(project: Project, state: State, to: string, args: Args): Change {
  const bare = withDrawersClosed({ ...state, layers: [] }, 0);
  const found = nearestStack(bare, 0);
  if (!found) return rebuild(project, state, to, args);
  return moved(updateBranch(bare, 0, found.depth, { ...found.stack, items: [...found.stack.items, make(project, to, args)] }));
}

function asText(args: Args): Record<string, string> {
  return Object.fromEntries(Object.entries(args).map(([name, value]) => [name, typeof value === "string" ? value : JSON.stringify(value)]));
}
