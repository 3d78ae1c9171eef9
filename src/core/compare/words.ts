import { sameValue } from "../model/json.ts";
import { factLabel, lookup, nameOf } from "../model/lookup.ts";
import { takesGive, takesPass, withGive, withPass } from "../model/moves.ts";
import { moveSentence } from "../model/propose.ts";
import { ruleSentence } from "../model/ruleWords.ts";
import type { Bar, Element, Leg, Move, Param, Picture, Project } from "../model/schema.ts";
import { type Change, compareProjects } from "./compare.ts";

/** What differs between two documents as sentences for people, the thing before the colon: no ids and no notation of the file. */
export function changesInWords(older: Project, newer: Project): string[] {
  return compareProjects(older, newer).flatMap((change) => sentences(older, newer, change));
}

/** What is other of one thing, each field as a sentence without the thing's name. */
export function fieldsInWords(older: Project, newer: Project, change: Change): string[] {
  const [was, is] = [entryOf(older, change), entryOf(newer, change)];
  return change.fields.map(({ field }) => fieldSentence(newer, older, field, was[field], is[field], lookup(newer).legs.get(change.id)));
}

function sentences(older: Project, newer: Project, change: Change): string[] {
  const what = `${change.kind === "project" ? "the project" : change.kind} ${quoted(change.name)}`;
  const leg = lookup(newer).legs.get(change.id);
  const rule = change.kind === "rule" ? newer.rules?.find(({ id }) => id === change.id) : undefined;
  if (rule && change.what === "added") return [`Adds a ${what}: ${decapital(ruleSentence(newer, rule))}`];
  if (rule && change.what === "changed") return [`Rule ${quoted(rule.name)} says now: ${decapital(ruleSentence(newer, rule))}`];
  if (change.what === "added")
    return [`Adds ${article(change.kind)} ${what}${change.kind === "leg" && leg?.move ? `: ${moveSentence(newer, leg.from, leg.move)}` : "."}`];
  if (change.what === "removed") return [`Takes away the ${what}.`];
  const head = capital(change.kind === "project" ? "the project" : `${change.kind} ${quoted(change.name)}`);
  return fieldsInWords(older, newer, change).map((says) => `${head}: ${says}`);
}

/** What stands in a document for what a change is about. */
function entryOf(project: Project, { kind, id }: Change): Record<string, unknown> {
  const { screens, containers, legs, entrances, facts, types } = lookup(project);
  const found =
    kind === "project"
      ? project
      : (screens.get(id) ??
        containers.get(id) ??
        legs.get(id) ??
        entrances.get(id) ??
        facts.get(id) ??
        types.get(id) ??
        project.walks.find((w) => w.id === id) ??
        project.rules?.find((r) => r.id === id));
  return { ...found };
}

function fieldSentence(project: Project, before: Project, field: string, was: unknown, is: unknown, leg: Leg | undefined): string {
  switch (field) {
    case "name":
    case "label":
      return `is called ${quoted(String(is))} now.`;
    case "move":
      return leg?.move ? moveChange(project, leg.from, was as Move | undefined, leg.move) : "leads nowhere now.";
    case "elements":
      return listed(
        was as Element[] | undefined,
        is as Element[] | undefined,
        (e) => e.id,
        (e) => quoted(e.label || e.id),
      );
    case "pictures":
      return listed(
        was as Picture[] | undefined,
        is as Picture[] | undefined,
        (p) => p.file,
        (p) => `the picture ${quoted(p.file)}`,
      );
    case "params":
      return listed(
        was as Param[] | undefined,
        is as Param[] | undefined,
        (p) => p.name,
        (p) => p.name,
      );
    case "members":
      return listed(
        was as string[] | undefined,
        is as string[] | undefined,
        (id) => id,
        (id) => quoted(nameOf(lookup(project).places.has(id) ? project : before, id)),
      );
    case "bar":
      return barSentence(is as Bar | undefined);
    case "up":
      return is === "none" ? "shows no Up." : is === "auto" ? "Up leads as usual." : `Up leads to ${quoted(nameOf(project, String(is)))}.`;
    case "when":
      return is === undefined ? "always, without a condition." : `only if ${String(is)}.`;
    case "accepted":
      return "other findings count as intended.";
    default:
      return `${FIELDS[field] ?? spaced(field)} ${valueWords(project, is)}${was === undefined ? "" : `, was ${valueWords(before, was)}`}.`;
  }
}

/** How a leg goes now; where only what it passes is other, just that. */
function moveChange(project: Project, from: string, was: Move | undefined, is: Move): string {
  const bare = (move: Move) => withGive(withPass(move, undefined), undefined);
  if (was === undefined || !sameValue(bare(was), bare(is))) return decapital(moveSentence(project, from, is));
  const [wasGiven, given] = [takesGive(was) ? was.give : undefined, takesGive(is) ? is.give : undefined];
  const passes = sameValue(withGive(was, undefined), withGive(is, undefined)) ? [] : [`passes ${values(takesPass(is) ? is.pass : undefined)}.`];
  const gives = sameValue(wasGiven ?? {}, given ?? {}) ? [] : [`hands back ${values(given)}.`];
  return [...passes, ...gives].join(" ");
}

function values(sources: Record<string, string> = {}): string {
  const all = Object.entries(sources).map(([name, source]) => `${name} = ${source}`);
  return all.length > 0 ? all.join(", ") : "nothing";
}

/** Fields by what they mean; those that are not here say it by their own name. */
const FIELDS: Record<string, string> = {
  start: "shows first",
  root: "starts with",
  to: "leads to",
  pass: "hands on",
  set: "sets",
  closeOn: "closes by",
  onBack: "Back from it:",
  hub: "a hub:",
  once: "gone through once:",
  mayRepeat: "may lie on itself:",
  coversTabs: "covers the tabs:",
  keeps: "stays as it was left:",
  planned: "only planned:",
  resumes: "goes on with what waited:",
  otherwise: "otherwise leads to",
  pattern: "its address is",
  path: "its address is",
  on: "is taken by",
};

function barSentence(bar: Bar | undefined): string {
  if (!bar) return "its bar is as around it.";
  if (!bar.show) return "shows no bar.";
  const leads = { auto: "Back where there is one, else Up", back: "Back", up: "Up", menu: "the menu", none: "nothing" };
  return `its bar starts with ${leads[bar.lead]}.`;
}

function listed<T>(was: readonly T[] = [], is: readonly T[] = [], idOf: (entry: T) => string, nameIt: (entry: T) => string): string {
  const [old, now] = [new Map(was.map((e) => [idOf(e), e])), new Map(is.map((e) => [idOf(e), e]))];
  const added = is.filter((e) => !old.has(idOf(e))).map(nameIt);
  const gone = was.filter((e) => !now.has(idOf(e))).map(nameIt);
  const changed = is.filter((e) => old.has(idOf(e)) && JSON.stringify(old.get(idOf(e))) !== JSON.stringify(e)).map(nameIt);
  const parts = [
    ...(added.length > 0 ? [`gets ${added.join(", ")}`] : []),
    ...(gone.length > 0 ? [`loses ${gone.join(", ")}`] : []),
    ...(changed.length > 0 ? [`changes ${changed.join(", ")}`] : []),
  ];
  return `${parts.length > 0 ? parts.join(" and ") : "puts them into another order"}.`;
}

/** A value in words: names for ids, yes and no, lists with commas. */
function valueWords(project: Project, value: unknown): string {
  if (value === undefined || value === null) return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (Array.isArray(value)) return value.length === 0 ? "nothing" : value.map((one) => valueWords(project, one)).join(", ");
  if (typeof value === "object")
    return Object.entries(value)
      .map(([key, inner]) => `${spaced(keyWords(project, key))} ${valueWords(project, inner)}`)
      .join(", ");
  const text = String(value);
  return lookup(project).places.has(text) ? quoted(nameOf(project, text)) : text === "" ? "an empty text" : text;
}

function keyWords(project: Project, key: string): string {
  const fact = lookup(project).facts.get(key);
  return fact ? `${factLabel(fact)} =` : key;
}

/** A name of the file format as words: `pinnedFrom` is “pinned from”. */
function spaced(name: string): string {
  return name.includes(" ") ? name : name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}

const quoted = (name: string) => `“${name}”`;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const decapital = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const article = (word: string) => (/^[aeiou]/.test(word) ? "an" : "a");
