import { legName } from "../model/edits/remove.ts";
import { sameValue } from "../model/json.ts";
import { nameOf, typeLabel } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";

/** One thing that is other in the newer document. */
export interface Change {
  what: "added" | "removed" | "changed";
  kind: "project" | "screen" | "container" | "leg" | "way in" | "fact" | "record type" | "walk" | "rule";
  id: string;
  name: string;
  /** For what was changed: each field with what it was and is. */
  fields: Array<{ field: string; from: string; to: string }>;
}

/** What differs between two documents, in the order of the newer one; what was removed comes last within its kind. */
export function compareProjects(older: Project, newer: Project): Change[] {
  const name = (project: Project, id: string) => nameOf(project, id);
  return [
    ...changedFields("project", "project", newer.name, head(older), head(newer)),
    ...list("screen", older.screens, newer.screens, (p, s) => name(p, s.id), older, newer),
    ...list("container", older.containers, newer.containers, (p, c) => name(p, c.id), older, newer),
    ...list("leg", older.legs, newer.legs, (p, leg) => legName(p, leg), older, newer),
    ...list("way in", older.entrances, newer.entrances, (_, e) => e.name, older, newer),
    ...list("fact", older.facts, newer.facts, (_, f) => f.name ?? f.id, older, newer),
    ...list("record type", older.types, newer.types, (_, t) => typeLabel(t), older, newer),
    ...list("walk", older.walks, newer.walks, (_, w) => w.name, older, newer),
    ...list("rule", older.rules ?? [], newer.rules ?? [], (_, r) => r.name, older, newer),
  ];
}

function head(project: Project): Record<string, unknown> {
  return { name: project.name, about: project.about, root: project.root, accepted: project.accepted };
}

function list<T extends { id: string }>(
  kind: Change["kind"],
  older: readonly T[],
  newer: readonly T[],
  nameIn: (project: Project, entry: T) => string,
  before: Project,
  after: Project,
): Change[] {
  const was = new Map(older.map((entry) => [entry.id, entry]));
  const is = new Map(newer.map((entry) => [entry.id, entry]));
  const kept = newer.flatMap((entry): Change[] => {
    const old = was.get(entry.id);
    const name = nameIn(after, entry);
    return old ? changedFields(kind, entry.id, name, old, entry) : [{ what: "added", kind, id: entry.id, name, fields: [] }];
  });
  const gone = older.flatMap((entry): Change[] => (is.has(entry.id) ? [] : [{ what: "removed", kind, id: entry.id, name: nameIn(before, entry), fields: [] }]));
  return [...kept, ...gone];
}

function changedFields(kind: Change["kind"], id: string, name: string, older: object, newer: object): Change[] {
  const [was, is] = [new Map(Object.entries(older)), new Map(Object.entries(newer))];
  const fields = [...new Set([...was.keys(), ...is.keys()])]
    .filter((field) => !sameValue(was.get(field), is.get(field)))
    .map((field) => ({ field, from: shown(was.get(field)), to: shown(is.get(field)) }));
  return fields.length > 0 ? [{ what: "changed", kind, id, name, fields }] : [];
}

function shown(value: unknown): string {
  return value === undefined ? "nothing" : typeof value === "string" ? value : JSON.stringify(value);
}
