import * as z from "zod";
import { sameValue } from "../json.ts";
import { PARTS, type Project } from "../schema.ts";
import { type Edit, editKind } from "./edit.ts";

/** Entries of a list that are new or other than before, those that are gone, and the order of all where it is not the obvious one. */
const listOf = <T extends z.ZodType>(entry: T) =>
  z.strictObject({ put: z.array(entry), removed: z.array(z.string()), order: z.array(z.string()).optional() }).optional();

const LISTS = ["facts", "types", "containers", "screens", "legs", "entrances", "walks", "rules"] as const;
const FIELDS = ["$schema", "name", "about", "root", "accepted", "mapOrder"] as const;

const args = z.strictObject({
  lists: z.strictObject({
    facts: listOf(PARTS.Fact),
    types: listOf(PARTS.RecordType),
    containers: listOf(PARTS.Container),
    screens: listOf(PARTS.Screen),
    legs: listOf(PARTS.Leg),
    entrances: listOf(PARTS.Entrance),
    walks: listOf(PARTS.Walk),
    rules: listOf(PARTS.Rule),
  }),
  fields: z.record(z.string(), z.unknown()),
  without: z.array(z.enum(FIELDS)),
});

interface Entry {
  id: string;
}
interface ListChange {
  put: Entry[];
  removed: string[];
  order?: string[] | undefined;
}

export const revises = editKind("revise", args, (project, { lists, fields, without }) => {
  const out: Record<string, unknown> = { ...project, ...fields };
  for (const key of without) delete out[key];
  for (const key of LISTS) {
    const change = lists[key];
    if (change) out[key] = revised<Entry>(project[key] ?? [], change);
  }
  // A document without rules has no list of them.
  if (project.rules !== out.rules && (out.rules as unknown[] | undefined)?.length === 0) delete out.rules;
  return out as unknown as Project;
});

/**
 * What makes one document of another: entries that are put or taken away, by id. On a document that somebody else changed meanwhile
 * it changes just these entries and leaves the rest alone, which is how an edit is taken back there.
 */
export function difference(before: Project, after: Project, name: string): Edit {
  const lists = Object.fromEntries(
    LISTS.flatMap((key) => {
      const change = before[key] === after[key] ? undefined : changeOf(before[key] ?? [], after[key] ?? []);
      return change ? [[key, change]] : [];
    }),
  );
  const other = FIELDS.filter((key) => !sameValue(before[key], after[key]));
  return revises.make(name, {
    lists,
    fields: Object.fromEntries(other.flatMap((key) => (after[key] === undefined ? [] : [[key, after[key]]]))),
    without: other.filter((key) => after[key] === undefined),
  });
}

function changeOf(before: readonly Entry[], after: readonly Entry[]): ListChange | undefined {
  const had = new Map(before.map((entry) => [entry.id, entry]));
  const has = new Set(after.map((entry) => entry.id));
  const put = after.filter((entry) => {
    const old = had.get(entry.id);
    return old !== entry && !(old && sameValue(old, entry));
  });
  const removed = before.flatMap((entry) => (has.has(entry.id) ? [] : [entry.id]));
  const order = after.map((entry) => entry.id);
  const obvious = revised(before, { put, removed }).map((entry) => entry.id);
  const ordered = order.some((id, i) => obvious[i] !== id);
  if (put.length === 0 && removed.length === 0 && !ordered) return undefined;
  return { put, removed, ...(ordered ? { order } : {}) };
}

/** Entries stay where they are, new ones come last; with an order they follow it, and those that it does not know come after. */
function revised<T extends Entry>(list: readonly T[], { put, removed, order }: ListChange): T[] {
  const puts = new Map(put.map((entry) => [entry.id, entry as T]));
  const gone = new Set(removed);
  const kept = list.filter((entry) => !gone.has(entry.id)).map((entry) => puts.get(entry.id) ?? entry);
  const known = new Set(kept.map((entry) => entry.id));
  const all = [...kept, ...[...puts.values()].filter((entry) => !known.has(entry.id))];
  if (!order) return all;
  const at = new Map(order.map((id, i) => [id, i]));
  return all
    .map((entry, i) => ({ entry, place: at.get(entry.id) ?? order.length + i }))
    .sort((a, b) => a.place - b.place)
    .map(({ entry }) => entry);
}
