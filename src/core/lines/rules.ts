import { freshId } from "../model/edits/edit.ts";
import { elementIdOf, elementsOf, lookup } from "../model/lookup.ts";
import { sameName } from "../model/names.ts";
import { partsOf } from "../model/rules.ts";
import { type Leg, MOST_TAPS, type Project, type Rule, type What } from "../model/schema.ts";
import type { RuleNode, ThingNode } from "./ast.ts";
import type { Problems } from "./problems.ts";

/** The rules of some lines, in a project that has what they speak of. `placeOf` finds a place by its path. */
export function rulesOf(nodes: readonly RuleNode[], project: Project, placeOf: (path: readonly string[]) => string | undefined, problems: Problems): Rule[] {
  const taken = new Set(project.rules?.map(({ id }) => id));
  return nodes.flatMap((node) => {
    const rule = ruleOf(node, freshId(node.name, taken, "rule"), project, placeOf, problems);
    if (rule) taken.add(rule.id);
    return rule ?? [];
  });
}

function ruleOf(node: RuleNode, id: string, project: Project, placeOf: (path: readonly string[]) => string | undefined, problems: Problems): Rule | undefined {
  const before = problems.list.length;
  const what = (word: string): What | undefined => {
    const things = node.things[word];
    return things && whatOf(things, project, placeOf, problems);
  };
  const needed = (word: string): What => {
    if (!node.things[word]?.length)
      problems.wrong(node, `found nothing after “${word}”, expected the names of places, "Label" on a place, or way in and its name`);
    return what(word) ?? {};
  };
  const places = (word: string): string[] => {
    const { places = [], legs, entrances } = needed(word);
    if (legs || entrances) problems.wrong(node, `after “${word}” only places can stand`);
    return places;
  };
  const rule = made();
  return problems.list.length > before ? undefined : rule;

  function made(): Rule {
    const [severity] = node.options;
    const known = (["blocker", "warning", "note"] as const).find((one) => one === severity?.text);
    for (const option of node.options) if (option.text !== known) problems.wrong(option, `found “${option.text}”, expected blocker, warning or note`);
    const common = { id, name: node.name, ...(known && known !== "blocker" ? { severity: known } : {}) };
    switch (node.kind) {
      case "never": {
        const [after, until] = [what("after"), what("until")];
        return { ...common, kind: "never", see: needed("never"), ...(after ? { after } : {}), ...(until ? { until } : {}) };
      }
      case "first":
        return { ...common, kind: "first", needs: needed("first"), before: needed("before") };
      case "only":
        if (node.while === undefined) problems.wrong(node, "found no condition, expected while and a condition such as while !fact.member");
        return { ...common, kind: "only", while: node.while ?? "true", see: places("only") };
      case "reach": {
        const taps = node.taps ?? 0;
        if (taps < 1 || taps > MOST_TAPS) problems.wrong(node, `expected within and a number of taps from 1 to ${MOST_TAPS}, such as within 3 taps`);
        return { ...common, kind: "within", taps, to: places("reach"), ...(node.things.of ? { from: places("of") } : {}) };
      }
    }
  }
}

function whatOf(things: readonly ThingNode[], project: Project, placeOf: (path: readonly string[]) => string | undefined, problems: Problems): What {
  const out = { places: [] as string[], legs: [] as string[], entrances: [] as string[] };
  for (const thing of things) {
    if (thing.is === "way in") {
      const found = project.entrances.find(({ name, pattern }) => sameName(name, thing.name) || pattern === thing.name);
      if (found) out.entrances.push(found.id);
      else problems.wrong(thing, `there is no way in “${thing.name}”`);
      continue;
    }
    const path = thing.is === "place" ? thing.path : thing.on;
    const place = placeOf(path);
    if (place === undefined) problems.wrong(thing, `there is no place “${path.join("/")}”; expected the name of a screen or container`);
    else if (thing.is === "place") out.places.push(place);
    else {
      const legs = legsOn(project, place, thing.label);
      if (legs.length > 0) out.legs.push(...legs.map(({ id }) => id));
      else problems.wrong(thing, `nothing leads on from “${thing.label}” on “${path.join("/")}”`);
    }
  }
  return Object.fromEntries(Object.entries(out).filter(([, ids]) => ids.length > 0));
}

/** The legs of the elements of a label on a place. */
function legsOn(project: Project, place: string, label: string): Leg[] {
  const ids = new Set(elementsOf(project, place).flatMap((element) => (sameName(element.label, label) ? [element.id] : [])));
  return (lookup(project).legsFrom.get(place) ?? []).filter((leg) => ids.has(elementIdOf(leg) ?? ""));
}

/** A rule as a line; undefined where lines can not say what it speaks of. `path` writes a place, `quoted` a name. */
export function ruleLine(project: Project, rule: Rule, path: (id: string) => string, name: string): string | undefined {
  if (!partsOf(rule).every(({ what }) => canBeTold(project, what))) return undefined;
  const told = (what: What) => thingsText(project, what, path);
  const severity = rule.severity && rule.severity !== "blocker" ? ` (${rule.severity})` : "";
  const head = `rule ${name}${severity}: `;
  switch (rule.kind) {
    case "never":
      return `${head}never ${told(rule.see)}${rule.after ? ` after ${told(rule.after)}` : ""}${rule.until ? ` until ${told(rule.until)}` : ""}`;
    case "first":
      return `${head}first ${told(rule.needs)} before ${told(rule.before)}`;
    case "only":
      return `${head}only ${told({ places: rule.see })} while ${rule.while}`;
    case "within":
      return `${head}reach ${told({ places: rule.to })} within ${rule.taps} ${rule.taps === 1 ? "tap" : "taps"}${rule.from ? ` of ${told({ places: rule.from })}` : ""}`;
  }
}

/** Whether lines can say what a part of a rule speaks of: what is there, and legs as all those of an element. */
function canBeTold(project: Project, { places = [], legs = [], entrances = [] }: What): boolean {
  const known = lookup(project);
  const whole = groupsOf(project, legs).flatMap(({ ids }) => ids);
  return places.every((id) => known.places.has(id)) && entrances.every((id) => known.entrances.has(id)) && whole.length === new Set(legs).size;
}

/** Legs by their elements: those elements all of whose legs are among them. */
function groupsOf(project: Project, legs: readonly string[]): Array<{ place: string; label: string; ids: string[] }> {
  const seen = new Set<string>();
  return legs.flatMap((id) => {
    const leg = lookup(project).legs.get(id);
    const element = leg && elementsOf(project, leg.from).find((one) => one.id === elementIdOf(leg));
    if (!leg || !element || seen.has(id)) return [];
    const ids = legsOn(project, leg.from, element.label).map((one) => one.id);
    for (const one of ids) seen.add(one);
    return ids.every((one) => legs.includes(one)) ? [{ place: leg.from, label: element.label, ids }] : [];
  });
}

function thingsText(project: Project, what: What, path: (id: string) => string): string {
  return [
    ...(what.places ?? []).map(path),
    ...groupsOf(project, what.legs ?? []).map(({ place, label }) => `${JSON.stringify(label)} on ${path(place)}`),
    ...(what.entrances ?? []).map((id) => `way in ${JSON.stringify(lookup(project).entrances.get(id)?.name ?? id)}`),
  ].join(", ");
}
