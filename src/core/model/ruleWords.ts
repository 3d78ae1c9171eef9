import { legStart } from "./describe.ts";
import { factLabel, lookup, nameOf } from "./lookup.ts";
import type { Fact, Project, Rule, What } from "./schema.ts";

/** The four kinds of rules: what each is called where one is added, and what it is for. */
export const RULE_KINDS: Readonly<Record<Rule["kind"], { title: string; says: string }>> = {
  never: { title: "Never", says: "Something is not seen: ever, after something else, or until something else." },
  first: { title: "First", says: "Nobody sees one thing without having seen another first." },
  only: { title: "Only", says: "While something is so, people see these screens and no others." },
  within: { title: "Within taps", says: "From everywhere, or from some screens, it is never more than so many taps away." },
};

/** A rule as one sentence. */
export function ruleSentence(project: Project, rule: Rule): string {
  const names = (what: What) => or(namesIn(project, what));
  const places = (ids: readonly string[]) => or(ids.map((id) => quoted(project, id)));
  switch (rule.kind) {
    case "never": {
      const after = rule.after ? `After ${names(rule.after)}, nobody` : "Nobody";
      return `${after} ${rule.after || rule.until ? "" : "ever "}${metWords(project, rule.see)}${rule.until ? ` until ${names(rule.until)}` : ""}.`;
    }
    case "first":
      return `Nobody ${metWords(project, rule.before)} before ${names(rule.needs)}.`;
    case "only":
      return `While ${conditionInWords(project, rule.while)}, people see only ${places(rule.see)}.`;
    case "within":
      return `${places(rule.to)} is within ${rule.taps} ${rule.taps === 1 ? "tap" : "taps"} of ${rule.from ? places(rule.from) : "everywhere"}.`;
  }
}

/** What is met, as what people do: `sees "Cart", uses "Pay" on "Cart" or comes in by "Offer"`. */
export function metWords(project: Project, { places = [], legs = [], entrances = [] }: What): string {
  return or([
    ...(places.length > 0 ? [`sees ${or(namesIn(project, { places }))}`] : []),
    ...(legs.length > 0 ? [`uses ${or(namesIn(project, { legs }))}`] : []),
    ...(entrances.length > 0 ? [`comes in by ${or(namesIn(project, { entrances }))}`] : []),
  ]);
}

/** The names of all that a part of a rule speaks of, in quotes; of what is not there the id. */
export function namesIn(project: Project, { places = [], legs = [], entrances = [] }: What): string[] {
  return [...[...places, ...entrances].map((id) => quoted(project, id)), ...legs.map((id) => legInWords(project, id))];
}

function legInWords(project: Project, id: string): string {
  const leg = lookup(project).legs.get(id);
  return leg ? legStart(project, leg) : quoted(project, id);
}

/** One of the conditions that hold together: a fact has a value, or the window a width. */
export type Term = { fact: Fact; value: string | boolean } | { width: string };

/** What a condition says where that is only facts and the width, joined by "and"; undefined where it says anything else. */
export function simpleTerms(project: Project, condition: string): Term[] | undefined {
  const terms = condition.split("&&").map((term): Term | undefined => {
    const [, width] = /^\s*width\s*==\s*["'](narrow|middle|wide)["']\s*$/.exec(term) ?? [];
    if (width !== undefined) return { width };
    const [, not, id, value] = /^\s*(!?)fact\.([a-z]\w*)\s*(?:==\s*["']([^"'\\]*)["'])?\s*$/.exec(term) ?? [];
    const fact = project.facts.find((one) => one.id === id);
    if (!fact || (fact.type === "boolean") === (value !== undefined) || (value !== undefined && not === "!")) return undefined;
    return { fact, value: value ?? not !== "!" };
  });
  return terms.every((term) => term !== undefined) ? terms : undefined;
}

/** A condition as people say it, as far as it is simple; else as it is written. */
export function conditionInWords(project: Project, condition: string): string {
  const words = simpleTerms(project, condition)?.map((term) => {
    if ("width" in term) return `the window is ${term.width}`;
    const { fact, value } = term;
    return `"${factLabel(fact)}" is ${typeof value === "boolean" ? (value ? "yes" : "no") : value}`;
  });
  return words ? words.join(" and ") : condition;
}

const quoted = (project: Project, id: string) => `"${nameOf(project, id)}"`;

/** Words in a row: `a`, `a or b`, `a, b or c`. */
function or(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? "nothing") : `${words.slice(0, -1).join(", ")} or ${words.at(-1)}`;
}

/** A short name for a rule: `No Form after Sent`. */
export function ruleName(project: Project, rule: Rule): string {
  const first = (what: What) => {
    const [name = "nothing", ...others] = namesIn(project, what).map((one) => one.replaceAll('"', ""));
    return others.length > 0 ? `${name} and ${others.length} more` : name;
  };
  switch (rule.kind) {
    case "never":
      return `No ${first(rule.see)}${rule.after ? ` after ${first(rule.after)}` : ""}${rule.until ? ` until ${first(rule.until)}` : ""}`;
    case "first":
      return `${first(rule.needs)} before ${first(rule.before)}`;
    case "only":
      return `Only ${first({ places: rule.see })} while ${conditionInWords(project, rule.while).replaceAll('"', "")}`;
    case "within":
      return `${first({ places: rule.to })} within ${rule.taps} ${rule.taps === 1 ? "tap" : "taps"}`;
  }
}
