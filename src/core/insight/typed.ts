import { elementIdOf, elementsOf, giveOf, passOf } from "../model/lookup.ts";
import type { Json, Leg, Project } from "../model/schema.ts";
import { currentScreen } from "../semantics/state.ts";
import type { State } from "../semantics/types.ts";

/** What might be typed for a leg that asks fields: nothing, and each text that its conditions compare with. */
export function typedFields(project: Project, state: State, leg: Leg): Array<Record<string, Json> | undefined> {
  const element = elementsOf(project, leg.from).find((e) => e.id === elementIdOf(leg));
  const sources = [leg.when, element?.shown, element?.enabled, ...passed(leg)].filter((s) => s !== undefined).join(" ");
  if (!/\bfield\./.test(sources)) return [undefined];
  const fields = [...elementsOf(project, leg.from), ...elementsOf(project, currentScreen(state).at)];
  const texts = new Set(["sample", "", ...[...sources.matchAll(/"([^"]*)"|'([^']*)'/g)].map((m) => m[1] ?? m[2] ?? "")]);
  const fill = (text: string, on: boolean) =>
    Object.fromEntries(fields.flatMap((e): Array<[string, Json]> => (e.kind === "field" ? [[e.id, text]] : e.kind === "switch" ? [[e.id, on]] : [])));
  return [...texts].flatMap((text) => [fill(text, true), fill(text, false)]);
}

function passed(leg: Leg): string[] {
  return [passOf(leg), giveOf(leg), leg.set].flatMap((values) => Object.values(values ?? {}));
}
