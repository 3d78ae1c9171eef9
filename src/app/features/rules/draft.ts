import { elementIdOf, lookup } from "../../../core/model/lookup.ts";
import { type Part, partsOf } from "../../../core/model/rules.ts";
import { ruleName } from "../../../core/model/ruleWords.ts";
import type { Project, Rule, What } from "../../../core/model/schema.ts";
import type { Selection } from "../../session/selection.ts";

/** A rule that is being written; parts may still be missing. */
export interface Draft {
  id: string;
  /** Empty as long as the rule is called by what it says. */
  name: string;
  about: string | undefined;
  severity: Rule["severity"];
  kind: Rule["kind"];
  parts: Partial<Record<Part, What>>;
  while: string;
  taps: number;
}

/** The parts of each kind in the order of its sentence, and those that it must have. */
export const PARTS_OF: Readonly<Record<Rule["kind"], { all: readonly Part[]; needed: readonly Part[] }>> = {
  never: { all: ["after", "see", "until"], needed: ["see"] },
  first: { all: ["before", "needs"], needed: ["before", "needs"] },
  only: { all: ["see"], needed: ["see"] },
  within: { all: ["to", "from"], needed: ["to"] },
};

export function emptyDraft(kind: Rule["kind"]): Draft {
  return { id: "", name: "", about: undefined, severity: undefined, kind, parts: {}, while: "", taps: 3 };
}

/** A rule as a draft; its name is empty where it is just what it says. */
export function draftOf(project: Project, rule: Rule): Draft {
  return {
    ...emptyDraft(rule.kind),
    id: rule.id,
    name: rule.name === ruleName(project, rule) ? "" : rule.name,
    about: rule.about,
    severity: rule.severity,
    parts: Object.fromEntries(partsOf(rule).map(({ part, what }) => [part, what])),
    ...(rule.kind === "only" ? { while: rule.while } : {}),
    ...(rule.kind === "within" ? { taps: rule.taps } : {}),
  };
}

/** The rule of a draft; undefined as long as something is missing. */
export function ruleOf(project: Project, draft: Draft): Rule | undefined {
  const { id, about, severity, kind, parts, taps } = draft;
  if (PARTS_OF[kind].needed.some((part) => !isSaying(parts[part]))) return undefined;
  if (kind === "only" && draft.while.trim() === "") return undefined;
  const common = { id, name: draft.name, ...(about === undefined ? {} : { about }), ...(severity === undefined ? {} : { severity }) };
  const what = (part: Part): What => parts[part] ?? {};
  const maybe = (part: Part) => (isSaying(parts[part]) ? { [part]: what(part) } : {});
  const places = (part: Part) => what(part).places ?? [];
  const made = (): Rule => {
    switch (kind) {
      case "never":
        return { ...common, kind, see: what("see"), ...maybe("after"), ...maybe("until") };
      case "first":
        return { ...common, kind, needs: what("needs"), before: what("before") };
      case "only":
        return { ...common, kind, while: draft.while, see: places("see") };
      case "within":
        return { ...common, kind, taps, to: places("to"), ...(isSaying(parts.from) ? { from: places("from") } : {}) };
    }
  };
  const rule = made();
  return rule.name === "" ? { ...rule, name: ruleName(project, rule) } : rule;
}

const isSaying = (what: What | undefined): boolean => what !== undefined && Object.values(what).some((ids) => ids.length > 0);

/** Whether only places can stand in a part. */
export function takesPlacesAlone(kind: Rule["kind"]): boolean {
  return kind === "only" || kind === "within";
}

/** One thing that a part speaks of. */
export interface Thing {
  of: keyof What;
  id: string;
}

/** A draft with more in one of its parts, each once. */
export function withThings(draft: Draft, part: Part, things: readonly Thing[]): Draft {
  const what: What = { ...draft.parts[part] };
  for (const { of, id } of things) if (!what[of]?.includes(id)) what[of] = [...(what[of] ?? []), id];
  return { ...draft, parts: { ...draft.parts, [part]: what } };
}

/** A draft without something in one of its parts. */
export function withoutThing(draft: Draft, part: Part, { of, id }: Thing): Draft {
  const { [of]: ids = [], ...others } = draft.parts[part] ?? {};
  const left = ids.filter((one) => one !== id);
  return { ...draft, parts: { ...draft.parts, [part]: left.length > 0 ? { ...others, [of]: left } : others } };
}

export function thingsIn(what: What | undefined): Thing[] {
  return (["places", "legs", "entrances"] as const).flatMap((of) => (what?.[of] ?? []).map((id) => ({ of, id })));
}

/** What something that is chosen on the map or in the outline stands for in a rule; of an element its legs. */
export function thingsChosen(project: Project, selected: Selection, placesAlone: boolean): Thing[] {
  if (!selected) return [];
  if (selected.kind === "place") return [{ of: "places", id: selected.id }];
  if (placesAlone) return selected.kind === "element" ? [{ of: "places", id: selected.place }] : [];
  if (selected.kind === "leg") return [{ of: "legs", id: selected.id }];
  if (selected.kind === "entrance") return [{ of: "entrances", id: selected.id }];
  const legs = (lookup(project).legsFrom.get(selected.place) ?? []).filter((leg) => elementIdOf(leg) === selected.id);
  return legs.map(({ id }) => ({ of: "legs", id }));
}
