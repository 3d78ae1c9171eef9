import { sameValue } from "../model/json.ts";
import { nameOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import type { Conflict, Merged } from "./conflict.ts";
import { mended } from "./mend.ts";
import { orderedIds } from "./order.ts";

/** What the entries of a list are told apart by, by the name of the list. */
const KEYS: Readonly<Record<string, (entry: Record<string, unknown>) => string>> = {
  ...Object.fromEntries(
    ["facts", "types", "containers", "screens", "legs", "entrances", "walks", "rules", "elements"].map((list) => [list, ({ id }) => String(id)]),
  ),
  params: ({ name }) => String(name),
  fields: ({ name }) => String(name),
  pictures: ({ file }) => String(file),
  // A control can have several areas, and an area is where it is.
  areas: ({ control, at }) => `${control} ${(at as number[]).join(" ")}`,
  accepted: ({ code, subjects }) => `${code} ${(subjects as string[]).join(" ")}`,
};
/** Lists of single words in which each is there or not. */
const SETS: readonly string[] = ["members", "except", "closeOn", "values"];
/** Lists of ids in rules; other lists of these names hold more than ids. */
const IN_RULES: readonly string[] = ["places", "legs", "entrances", "see", "to", "from"];
const KINDS: Readonly<Record<string, string>> = {
  facts: "fact",
  types: "record type",
  containers: "container",
  screens: "screen",
  legs: "leg",
  entrances: "way in",
  walks: "walk",
  rules: "rule",
  elements: "element",
  params: "parameter",
  fields: "field",
  pictures: "picture",
  areas: "area",
  accepted: "accepted finding",
};

/**
 * Merges two documents that began as the same one, part by part, each known by its id. What only one side changed is taken; what
 * both changed alike is one change. Where both changed a field differently the merged document has ours, and where one side deletes
 * what the other changed or leads to, it stays; both are named. Which side is which matters for nothing else.
 */
export function mergeProjects(base: Project, ours: Project, theirs: Project): Merged {
  const merging = new Merging(ours, theirs);
  const project = merging.value(base, ours, theirs, { list: "", where: "the project", field: "" }) as Project;
  return mended({ project, conflicts: merging.conflicts }, { base, ours, theirs });
}

interface At {
  /** The name of the field that the value stands in. */
  list: string;
  where: string;
  field: string;
}

class Merging {
  readonly conflicts: Conflict[] = [];

  constructor(
    private readonly ours: Project,
    private readonly theirs: Project,
  ) {}

  value(base: unknown, ours: unknown, theirs: unknown, at: At): unknown {
    if (sameValue(ours, theirs) || sameValue(base, theirs)) return ours;
    if (sameValue(base, ours)) return theirs;
    if (Array.isArray(ours) && Array.isArray(theirs)) return this.lists(Array.isArray(base) ? base : [], ours, theirs, at);
    if (isRecord(ours) && isRecord(theirs) && ours.kind === theirs.kind) {
      const was = isRecord(base) && base.kind === ours.kind ? base : {};
      return this.records(was, ours, theirs, at);
    }
    return this.differ(base, ours, theirs, at);
  }

  private records(base: Record<string, unknown>, ours: Record<string, unknown>, theirs: Record<string, unknown>, at: At): Record<string, unknown> {
    const keys = [...new Set([...Object.keys(ours), ...Object.keys(theirs)])];
    const fields = keys.map((key): [string, unknown] => [
      key,
      this.value(base[key], ours[key], theirs[key], { list: key, where: at.where, field: at.field === "" ? key : `${at.field}.${key}` }),
    ]);
    return Object.fromEntries(fields.filter(([, value]) => value !== undefined));
  }

  private lists(base: readonly unknown[], ours: readonly unknown[], theirs: readonly unknown[], at: At): unknown {
    const key = isRuleList(at.list, base, ours, theirs) ? undefined : KEYS[at.list];
    const isRule = isRuleList(at.list, base, ours, theirs);
    const names = isRule || SETS.includes(at.list) ? (word: unknown) => String(word) : key && ((entry: unknown) => key(entry as Record<string, unknown>));
    if (!names) return this.differ(base, ours, theirs, at);
    const [was, our, their] = [base, ours, theirs].map((list) => new Map(list.map((entry) => [names(entry), entry]))) as [Named, Named, Named];
    const { ids, conflict } = orderedIds([...was.keys()], [...our.keys()], [...their.keys()]);
    if (conflict && at.list === "members") this.conflict(at, "both sides put the members into another order; ours stays");
    const entries = key ? ids.flatMap((id) => this.entry(was.get(id), our.get(id), their.get(id), id, at)) : ids.filter((id) => stays(was, our, their, id));
    // A rule has to speak of something.
    if (isRule && entries.length === 0) return this.differ(base, ours, theirs, at);
    return entries;
  }

  /** One entry of a list, which may be gone on a side. */
  private entry(base: unknown, ours: unknown, theirs: unknown, id: string, at: At): unknown[] {
    const inside = this.within(at, id);
    if (ours !== undefined && theirs !== undefined) return [this.value(base, ours, theirs, inside)];
    const kept = ours ?? theirs;
    if (base === undefined) return [kept];
    if (sameValue(base, kept)) return [];
    this.conflict(inside, `${ours === undefined ? "we" : "they"} deleted it, and ${ours === undefined ? "they" : "we"} changed it; it stays`);
    return [kept];
  }

  private within(at: At, id: string): At {
    const kind = KINDS[at.list] ?? at.list;
    const place = [this.ours, this.theirs].find((side) => side.screens.some((one) => one.id === id) || side.containers.some((one) => one.id === id));
    const name = (at.list === "screens" || at.list === "containers") && place ? `${kind} “${nameOf(place, id)}” (${id})` : `${kind} ${id}`;
    return { list: at.list, where: at.where === "the project" ? name : `${at.where}, ${name}`, field: "" };
  }

  private differ(base: unknown, ours: unknown, theirs: unknown, at: At): unknown {
    this.conflict(at, `was ${told(base)}, ours is ${told(ours)}, theirs ${told(theirs)}; ours stays`);
    return ours;
  }

  private conflict({ where, field }: At, says: string) {
    this.conflicts.push({ where, field, says });
  }
}

/** Whether lists are those of ids in a rule. */
function isRuleList(list: string, ...lists: ReadonlyArray<readonly unknown[]>): boolean {
  return IN_RULES.includes(list) && lists.flat().every((one) => typeof one === "string");
}

type Named = Map<string, unknown>;

/** Whether a word of a set stays: it is there on both sides, or one added it. */
function stays(base: Named, ours: Named, theirs: Named, id: string): boolean {
  return (ours.has(id) && theirs.has(id)) || !base.has(id);
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function told(value: unknown): string {
  const text = value === undefined ? "nothing" : JSON.stringify(value);
  return text.length > 120 ? `${text.slice(0, 119)}…` : text;
}
