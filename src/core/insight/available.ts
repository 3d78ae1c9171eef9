import { keyField, lookup, rowTypeOf } from "../model/lookup.ts";
import type { Entrance, Json, NavEvent, Project, Width } from "../model/schema.ts";
import { patternVariables } from "../model/template.ts";
import { planOf } from "../plan/planOf.ts";
import { branchesInReach, isSource } from "../semantics/reach.ts";
import { branchNode, visiblePath } from "../semantics/state.ts";
import { step } from "../semantics/step.ts";
import type { State } from "../semantics/types.ts";
import { appOf } from "./app.ts";

/**
 * Every event that a person, the clock or the outside could cause now: exactly those that
 * `step` would not ignore. List legs come once for each sample row, link entrances with
 * sample arguments, cold and warm.
 */
export function available(project: Project, state: State): NavEvent[] {
  return candidateEvents(project, state).filter((event) => step(appOf(project), state, event).outcome !== "ignored");
}

/** What could be tried in a state, whether or not anything would come of it. */
export function candidateEvents(project: Project, state: State): NavEvent[] {
  const events: NavEvent[] = [];
  const { containers } = lookup(project);
  const seen = new Set<string>();
  for (const branch of branchesInReach(appOf(project), state)) {
    const path = visiblePath(branchNode(state, branch)).reverse();
    const modal = state.layers[branch - 1]?.at;
    for (const place of [...path.map((node) => node.at), ...(modal === undefined ? [] : [modal])]) {
      if (seen.has(place)) continue;
      seen.add(place);
      if (!isSource(appOf(project), state, branch, place)) {
        seen.delete(place);
        continue;
      }
      for (const leg of planOf(project).from.get(place)?.events ?? []) events.push(...legEvents(project, leg.id));
    }
    for (const node of path) {
      if (node.kind !== "tabs" && node.kind !== "drawer") continue;
      for (const to of containers.get(node.at)?.members ?? []) events.push({ do: node.kind === "tabs" ? "tab" : "pick", to });
    }
  }
  events.push({ do: "lead" }, { do: "back" });
  for (const via of ["outside", "swipe", "button"] as const) events.push({ do: "close", via });
  for (const entrance of project.entrances) {
    const args = sampleArguments(project, entrance);
    const event: NavEvent = { do: "enter", entrance: entrance.id, ...(Object.keys(args).length > 0 ? { args } : {}) };
    events.push(event, { ...event, cold: true });
  }
  events.push({ do: "launch" });
  for (const fact of project.facts)
    for (const value of fact.type === "boolean" ? [true, false] : (fact.values ?? [])) events.push({ do: "fact", fact: fact.id, value });
  for (const to of ["narrow", "middle", "wide"] satisfies Width[]) events.push({ do: "width", to });
  return withoutRepeats(events);
}

/** The event of a leg, once for each sample row where its element lists a record type. */
export function legEvents(project: Project, id: string): NavEvent[] {
  const leg = lookup(project).legs.get(id);
  const type = leg && rowTypeOf(project, leg);
  if (!type || type.samples.length === 0) return [{ do: "leg", leg: id }];
  const key = keyField(type);
  return type.samples.map((row) => ({ do: "leg", leg: id, item: typeof row[key] === "string" ? row[key] : row }));
}

/** Values for the variables of an entrance's pattern, taken from samples where one has a field of that name or role. */
export function sampleArguments(project: Project, entrance: Entrance): Record<string, Json> {
  const out: Record<string, Json> = {};
  for (const name of entrance.pattern === undefined ? [] : patternVariables(entrance.pattern)) out[name] = sampleValue(project, name);
  return out;
}

function sampleValue(project: Project, name: string): string {
  for (const type of project.types) {
    const row = type.samples[0];
    const value = row?.[name] ?? (name.toLowerCase().startsWith(type.id.toLowerCase()) ? row?.[keyField(type)] : undefined);
    if (typeof value === "string" || typeof value === "number") return String(value);
  }
  return "1";
}

function withoutRepeats(events: NavEvent[]): NavEvent[] {
  const seen = new Set<string>();
  return events.filter((event) => {
    const key = JSON.stringify(event);
    return !seen.has(key) && seen.add(key);
  });
}
