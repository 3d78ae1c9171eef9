import { sameValue } from "../../model/json.ts";
import { firstScreen, lookup, nameOf, ownersAround, targetOf, treeOf } from "../../model/lookup.ts";
import { ruleName } from "../../model/ruleWords.ts";
import type { Leg, Project, Rule } from "../../model/schema.ts";

/** A rule that a project gives reason for, and the reason as a question. */
export interface SuggestedRule {
  rule: Rule;
  why: string;
}

/** Suggestions that are made, at most. */
const MOST = 8;
/** Screens that people look for from everywhere, by their names. */
const SOUGHT = /^(help|support|contact|search|home|menu|settings|account|cart|basket|emergency)\b/i;

/** Rules that the document gives reason for and does not have yet: from what is gone through once, from forms, from facts that open things, from hubs. */
export function suggestedRules(project: Project): SuggestedRule[] {
  const all = [...fromOnce(project), ...fromForms(project), ...fromFacts(project), ...fromSought(project)];
  const known = (project.rules ?? []).map(bare);
  const seen: object[] = [];
  return all
    .filter(({ rule }) => {
      const one = bare(rule);
      if ([...known, ...seen].some((other) => sameValue(other, one))) return false;
      seen.push(one);
      return true;
    })
    .slice(0, MOST);
}

/** A rule without what it is called. */
function bare({ id: _, name: __, about: ___, severity: ____, ...rest }: Rule): object {
  return rest;
}

function suggested(project: Project, rule: DistributedOmit<Rule, "id" | "name">, why: string): SuggestedRule {
  const named = { ...rule, id: "rule", name: "" } as Rule;
  return { rule: { ...named, name: ruleName(project, named) }, why };
}
type DistributedOmit<T, K extends keyof T> = T extends unknown ? Omit<T, K> : never;

const quoted = (project: Project, id: string) => `“${nameOf(project, id)}”`;

function hubs(project: Project): string[] {
  return project.screens.filter(({ hub }) => hub).map(({ id }) => id);
}

/** What is gone through once is not seen again after a hub, unless a leg leads back to it on purpose. */
function fromOnce(project: Project): SuggestedRule[] {
  const after = hubs(project);
  const once = [...project.containers, ...project.screens]
    .filter((place) => place.once && !ownersAround(project, place.id).some((owner) => owner.once) && !isSpokenOf(project, "never", place.id))
    .map(({ id }) => id);
  if (after.length === 0 || once.length === 0) return [];
  const inside = new Set(once.flatMap((id) => treeOf(project, id)));
  const back = project.legs.filter((leg) => inside.has(targetOf(leg) ?? "") && !inside.has(leg.from));
  const others = once.length > 1 ? ` and ${once.length - 1} more` : "";
  return [
    suggested(
      project,
      { kind: "never", see: { places: once }, after: { places: after }, ...(back.length > 0 ? { until: { legs: back.map(({ id }) => id) } } : {}) },
      `You marked ${quoted(project, once[0] ?? "")}${others} as gone through once: should nobody see ${once.length > 1 ? "them" : "it"} again after ${quoted(project, after[0] ?? "")}?`,
    ),
  ];
}

/** Whether some rule of a kind forbids, or puts off, a place already. */
function isSpokenOf(project: Project, kind: "never" | "first", id: string): boolean {
  return (project.rules ?? []).some((rule) => rule.kind === kind && (rule.kind === "never" ? rule.see : rule.before).places?.includes(id));
}

/** After a form was sent nobody comes back to it; and nobody sees what follows without the form. */
function fromForms(project: Project): SuggestedRule[] {
  const { screens } = lookup(project);
  const sends = project.legs.filter(
    (leg) =>
      leg.on.kind === "submit" &&
      screens.has(leg.from) &&
      !isOnce(project, leg.from) &&
      (leg.move?.kind === "replace" || leg.move?.kind === "reset" || leg.move?.kind === "push"),
  );
  return sends.flatMap((leg) => {
    const to = firstScreen(project, targetOf(leg) ?? "")?.id;
    if (to === undefined || to === leg.from) return [];
    const opens = leadingTo(project, leg.from).filter((one) => one.id !== leg.id);
    const form = quoted(project, leg.from);
    return [
      suggested(
        project,
        { kind: "never", see: { places: [leg.from] }, after: { places: [to] }, ...(opens.length > 0 ? { until: { legs: opens.map(({ id }) => id) } } : {}) },
        `${form} is sent, and ${quoted(project, to)} shows: should nobody come back to ${form} unless they open it again?`,
      ),
      ...(leadingTo(project, to).every((one) => one.from === leg.from)
        ? [
            suggested(
              project,
              { kind: "first", needs: { places: [leg.from] }, before: { places: [to] } },
              `${quoted(project, to)} follows on ${form}: should nobody see it without having been there?`,
            ),
          ]
        : []),
    ];
  });
}

/** The legs that lead to a screen, or to a container that shows it first. */
function leadingTo(project: Project, screen: string): Leg[] {
  return project.legs.filter((leg) => {
    const to = targetOf(leg);
    return to !== undefined && firstScreen(project, to)?.id === screen;
  });
}

function isOnce(project: Project, screen: string): boolean {
  return lookup(project).screens.get(screen)?.once === true || ownersAround(project, screen).some(({ once }) => once);
}

/** Before a fact that screens gone through once set, people see those screens alone. */
function fromFacts(project: Project): SuggestedRule[] {
  const once = project.screens.filter(({ id }) => isOnce(project, id)).map(({ id }) => id);
  if (once.length === 0) return [];
  return project.facts.flatMap((fact) => {
    if (fact.source !== "app" || fact.type !== "boolean" || fact.initial !== false) return [];
    const opens = project.legs.some((leg) => leg.set?.[fact.id] === "true" && isOnce(project, leg.from));
    if (!opens) return [];
    return [
      suggested(
        project,
        { kind: "only", while: `!fact.${fact.id}`, see: once },
        `${fact.name ?? fact.id} is set on ${once.length === 1 ? quoted(project, once[0] ?? "") : "screens that are gone through once"}: should nobody see anything else before?`,
      ),
    ];
  });
}

/** What people look for is near: screens of such names, and a hub. */
function fromSought(project: Project): SuggestedRule[] {
  const sought = project.screens.filter(({ id, name }) => SOUGHT.test(name) && id !== project.root).slice(0, 2);
  const home = hubs(project);
  return [
    ...sought.map(({ id }) =>
      suggested(project, { kind: "within", taps: 3, to: [id] }, `People look for ${quoted(project, id)}: should it be within three taps of everywhere?`),
    ),
    ...(home.length > 0
      ? [suggested(project, { kind: "within", taps: 3, to: home }, "Should everybody be back at a hub within three taps, from everywhere?")]
      : []),
  ];
}
