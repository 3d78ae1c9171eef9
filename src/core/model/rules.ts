import type { Project, Rule, What } from "./schema.ts";

/** The parts of a rule that speak of what is met: `needs` and `before` of a "first", and so on. */
export type Part = "see" | "after" | "until" | "needs" | "before" | "to" | "from";

/** A rule that looks at runs. */
export type RunRule = Extract<Rule, { kind: "never" | "first" }>;

const PARTS: readonly Part[] = ["see", "after", "until", "needs", "before", "to", "from"];

/** What a rule speaks of, part by part, in the order in which it is written. */
export function partsOf(rule: Rule): Array<{ part: Part; what: What }> {
  return PARTS.flatMap((part) => {
    const value = (rule as Record<string, unknown>)[part] as What | string[] | undefined;
    return value ? [{ part, what: Array.isArray(value) ? { places: value } : value }] : [];
  });
}

/** A rule with other parts. */
export function withParts(rule: Rule, change: (what: What) => What): Rule {
  const parts = partsOf(rule).map(({ part, what }) => {
    const changed = change(what);
    return [part, Array.isArray((rule as Record<string, unknown>)[part]) ? changed.places : changed];
  });
  return { ...rule, ...Object.fromEntries(parts) } as Rule;
}

/** Ids of places, legs and ways in. */
export interface Ids {
  places: ReadonlySet<string>;
  legs: ReadonlySet<string>;
  entrances: ReadonlySet<string>;
}

const KINDS = ["places", "legs", "entrances"] as const;

/** Whether something that a rule speaks of is among some ids. */
export function speaksOf(rule: Rule, ids: Ids): boolean {
  return partsOf(rule).some(({ what }) => KINDS.some((kind) => what[kind]?.some((id) => ids[kind].has(id))));
}

/**
 * The rules when something has been deleted. What is gone is taken out of each part that names something else as well; a part that names nothing
 * else keeps it, for without it the rule would promise something that nobody asked for. The check then says what is not there.
 */
export function withoutDeleted(rules: readonly Rule[], gone: Ids): Rule[] {
  const of = (what: What): What => {
    const left = Object.fromEntries(
      KINDS.flatMap((kind): Array<[string, string[]]> => {
        const ids = what[kind]?.filter((id) => !gone[kind].has(id)) ?? [];
        return ids.length > 0 ? [[kind, ids]] : [];
      }),
    );
    return Object.keys(left).length > 0 ? left : what;
  };
  return rules.map((rule) => (speaksOf(rule, gone) ? withParts(rule, of) : rule));
}

/** A project whose rules no longer speak of what is gone, as {@link withoutDeleted} says. */
export function withRulesWithout(project: Project, gone: Ids): Project {
  return project.rules?.some((rule) => speaksOf(rule, gone)) ? { ...project, rules: withoutDeleted(project.rules, gone) } : project;
}

/** The severity of what breaks a rule. */
export const severityOf = ({ severity }: Rule): "blocker" | "warning" | "note" => severity ?? "blocker";
