import { firstScreen, lookup } from "../model/lookup.ts";
import type { Entrance, Json, Project } from "../model/schema.ts";
import { patternVariables } from "../model/template.ts";
import { sampleArguments } from "./available.ts";

/** Sets of values that are tried for one way in, at most. */
const MOST = 24;

/**
 * What the variables of a way in may be, so that conditions which ask for them turn out either way: a sample, what is compared with in its own
 * condition and on the screen that it leads to (numbers also one less and one more), and the keys of sample rows.
 */
export function addressValues(project: Project, entrance: Entrance): Array<Record<string, Json>> {
  const sample = sampleArguments(project, entrance);
  const names = entrance.pattern === undefined ? [] : patternVariables(entrance.pattern);
  if (names.length === 0) return [sample];
  const others = [...new Set([...comparedWith(project, entrance), ...rowKeys(project)])];
  const all = [sample];
  for (const name of names)
    for (const before of all.slice()) for (const value of others) if (all.length < MOST && before[name] !== value) all.push({ ...before, [name]: value });
  return all;
}

function comparedWith(project: Project, entrance: Entrance): string[] {
  const screen = firstScreen(project, entrance.to);
  const legs = screen ? (lookup(project).legsFrom.get(screen.id) ?? []) : [];
  const sources = [
    entrance.when,
    ...Object.values(entrance.pass ?? {}),
    ...(screen?.elements ?? []).flatMap(({ shown, enabled }) => [shown, enabled]),
    ...legs.flatMap(({ when, set }) => [when, ...Object.values(set ?? {})]),
  ];
  return sources.flatMap((source) => (source && /\b(link|param)\./.test(source) ? literalsIn(source) : []));
}

/** The texts and numbers in an expression, as text; of numbers also those next to them. */
function literalsIn(source: string): string[] {
  const texts = [...source.matchAll(/"([^"]*)"|'([^']*)'/g)].map(([, double, single]) => double ?? single ?? "");
  const numbers = [...source.replace(/"[^"]*"|'[^']*'/g, "").matchAll(/(?<![\w.])-?\d+(?:\.\d+)?/g)].map(([text]) => Number(text));
  return [...texts.filter((text) => text !== ""), ...numbers.flatMap((number) => [number, number - 1, number + 1].map(String))];
}

function rowKeys(project: Project): string[] {
  return project.types.flatMap(({ fields, samples }) =>
    samples.flatMap((row) => {
      const key = row[fields[0]?.name ?? ""];
      return typeof key === "string" || typeof key === "number" ? [String(key)] : [];
    }),
  );
}
