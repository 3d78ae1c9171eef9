import { type Change, compareProjects } from "../../compare/compare.ts";
import { fieldsInWords } from "../../compare/words.ts";
import { runWalk } from "../../insight/walks.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { LensTone } from "../draw/look.ts";
import { counted, type LensViewer, type Seen } from "./lens.ts";

/** What is other than in an older document. */
export const changed: LensViewer = (project, _, { older }) => {
  if (!older)
    return {
      id: "changed",
      question: "What changed since an older version?",
      places: new Map(),
      legend: [],
      extremes: ["Choose a version or a file to compare with."],
      list: [],
    };
  const changes = compareProjects(older.project, project);
  const moved = project.screens.flatMap(({ id }) => {
    const [was, is] = [lookup(older.project).owners.get(id)?.id, lookup(project).owners.get(id)?.id];
    return lookup(older.project).screens.has(id) && was !== is ? [{ id, was, is }] : [];
  });
  const marks = new Map<string, { kind: keyof typeof KINDS; says: string[] }>();
  const mark = (place: string, kind: keyof typeof KINDS, says: string) => {
    const known = marks.get(place);
    if (known) known.says.push(says);
    else marks.set(place, { kind, says: [says] });
    if (known && RANK.indexOf(kind) < RANK.indexOf(known.kind)) known.kind = kind;
  };
  for (const { id, was } of moved) mark(id, "moved", `moved here${was === undefined ? "" : ` from “${nameOf(older.project, was)}”`}`);
  for (const change of changes) markChange(project, older.project, change, mark);
  const gone = changes.filter(({ what, kind }) => what === "removed" && (kind === "screen" || kind === "container"));
  const places = new Map<string, Seen>();
  for (const [place, { kind, says }] of marks)
    places.set(place, { tone: KINDS[kind].tone, says: KINDS[kind].sign, long: `“${nameOf(project, place)}”: ${says.join("; ")}` });
  const count = (kind: keyof typeof KINDS) => [...marks.values()].filter((one) => one.kind === kind).length;
  return {
    id: "changed",
    question: `What changed since ${older.name}?`,
    places,
    legend: [
      { tone: "good", says: "+ new", count: count("added") },
      { tone: "s1", says: "→ moved to another place", count: count("moved") },
      { tone: "warm", says: "~ other legs or contents", count: count("changed") },
      { tone: "urgent", says: "− gone (in the list)", count: gone.length },
    ],
    extremes: [
      ...(changes.length === 0 ? ["Nothing changed."] : []),
      ...(older.came?.map((message) => `New finding: ${message}`) ?? []),
      ...(older.went && older.went.length > 0 ? [`${counted(older.went.length, "finding")} ${older.went.length === 1 ? "has" : "have"} gone since.`] : []),
      ...brokenSince(older.project, project).map((name) => `The walk “${name}” no longer passes.`),
    ],
    list: [
      ...gone.map(({ kind, name }) => ({ says: name, note: `${kind} gone` })),
      ...[...marks].flatMap(([place, { says }]) => says.map((note) => ({ place, says: nameOf(project, place), note }))),
      ...changes.filter(({ kind }) => !["screen", "container", "leg"].includes(kind)).flatMap((change) => plain(older.project, project, change)),
    ],
  };
};

/** Kept walks that passed in an older document and no longer do. */
function brokenSince(older: Project, project: Project): string[] {
  return project.walks
    .filter((walk) => older.walks.some(({ id }) => id === walk.id) && runWalk(older, walk).passed && !runWalk(project, walk).passed)
    .map(({ name }) => name);
}

const KINDS = {
  added: { tone: "good", sign: "+" },
  moved: { tone: "s1", sign: "→" },
  changed: { tone: "warm", sign: "~" },
} as const satisfies Record<string, { tone: LensTone; sign: string }>;
const RANK: ReadonlyArray<keyof typeof KINDS> = ["added", "moved", "changed"];

function markChange(project: Project, older: Project, change: Change, mark: (place: string, kind: keyof typeof KINDS, says: string) => void) {
  const { what, kind, id, name } = change;
  if (kind === "screen" || kind === "container") {
    if (what === "added") mark(id, "added", `new ${kind}`);
    if (what === "changed") for (const says of fieldsInWords(older, project, change)) mark(id, "changed", says);
    return;
  }
  if (kind !== "leg") return;
  const from = lookup(what === "removed" ? older : project).legs.get(id)?.from;
  if (from === undefined || !lookup(project).places.has(from)) return;
  if (what === "changed") for (const says of fieldsInWords(older, project, change)) mark(from, "changed", `leg ${name}: ${says}`);
  else mark(from, "changed", what === "added" ? `new leg ${name}` : `leg ${name} is gone`);
}

function plain(older: Project, project: Project, change: Change): Array<{ says: string; note: string }> {
  const { what, kind, name } = change;
  if (what === "changed") return fieldsInWords(older, project, change).map((note) => ({ says: kind === "project" ? "The project" : name, note }));
  return [{ says: name, note: `${what === "added" ? "new" : "gone:"} ${kind}` }];
}
