import * as z from "zod";
import { elementIdOf, elementOf, giveOf, lookup, passOf, treeOf } from "../lookup.ts";
import { problemLine, readProjectData } from "../read.ts";
import { type Element, FORMAT, type Leg, type Project, ProjectSchema } from "../schema.ts";
import { templateParts } from "../template.ts";
import { namesIn } from "./spelling.ts";

/** What can be chosen and copied. */
export type Chosen =
  | { kind: "place"; id: string }
  | { kind: "element"; place: string; id: string }
  | { kind: "leg"; id: string }
  | { kind: "entrance"; id: string };

/** A part of a project on its way to another place: a small document of its own, and which of its parts were chosen. */
export const ClipSchema = z.strictObject({
  etape: z.literal("clip/1"),
  /** The outermost places that were copied; none where only elements and legs were. */
  places: z.array(z.string()),
  /** Elements and legs by themselves stand on this screen of the document. */
  loose: z.string().optional(),
  /** The places that loose legs came from, by leg. */
  origins: z.record(z.string(), z.string()).optional(),
  document: ProjectSchema,
  /** The project in this browser that it was copied from, where the files of its pictures are. */
  from: z.string().optional(),
});
export type Clip = z.infer<typeof ClipSchema>;

/** Stands in for the screens that copied elements come from. */
const LOOSE = "looseElements";

/** Copies what is chosen, with its legs, and the facts and record types that these name. */
export function copied(project: Project, chosen: readonly Chosen[]): Clip {
  const places = chosen.flatMap((one) => (one.kind === "place" ? [one.id] : [])).filter((id) => lookup(project).places.has(id));
  const outermost = places.filter((id) => !places.some((other) => other !== id && treeOf(project, other).includes(id)));
  const inside = new Set(outermost.flatMap((id) => treeOf(project, id)));
  const elements = new Map<string, Element>();
  const copies = new Map<string, string>();
  const origins: Record<string, string> = {};
  const legs = project.legs.filter((leg) => inside.has(leg.from));
  for (const one of chosen) {
    const leg = one.kind === "leg" ? lookup(project).legs.get(one.id) : undefined;
    const place = one.kind === "element" ? one.place : leg?.from;
    if (place === undefined || inside.has(place)) continue;
    const elementId = one.kind === "element" ? one.id : leg && elementIdOf(leg);
    const element = elementId === undefined ? undefined : elementOf(project, place, elementId);
    const onIt = one.kind === "element" ? (lookup(project).legsFrom.get(place) ?? []).filter((l) => elementIdOf(l) === one.id) : leg ? [leg] : [];
    // An element may be chosen together with its legs: it is copied once.
    const copy = copies.get(`${place} ${elementId}`);
    const id = copy ?? (element ? freeName(elements, element.id) : undefined);
    if (element && id !== undefined && copy === undefined) {
      elements.set(id, { ...withoutExcept(element), id });
      copies.set(`${place} ${elementId}`, id);
    }
    for (const l of onIt) {
      if (legs.some((known) => known.id === l.id)) continue;
      legs.push(onto(l, LOOSE, id));
      origins[l.id] = l.from;
    }
  }
  const fragment: Project = {
    format: FORMAT,
    name: project.name,
    root: outermost[0] ?? LOOSE,
    facts: [],
    types: [],
    containers: project.containers.filter((c) => inside.has(c.id)),
    screens: [
      ...project.screens.filter((s) => inside.has(s.id)),
      ...(elements.size > 0 || legs.some((l) => l.from === LOOSE) ? [{ id: LOOSE, name: "", params: [], up: "auto", elements: [...elements.values()] }] : []),
    ],
    legs,
    entrances: project.entrances.filter((e) => chosen.some((one) => one.kind === "entrance" && one.id === e.id)),
    walks: [],
  };
  const needed = withTypesWithin(project, typesIn(fragment));
  const facts = new Set(factsIn(fragment));
  return {
    etape: "clip/1",
    places: outermost,
    ...(fragment.screens.some((s) => s.id === LOOSE) ? { loose: LOOSE, origins } : {}),
    document: { ...fragment, facts: project.facts.filter((f) => facts.has(f.id)), types: project.types.filter((t) => needed.has(t.id)) },
  };
}

function freeName(taken: ReadonlyMap<string, unknown>, id: string): string {
  if (!taken.has(id)) return id;
  for (let n = 2; ; n++) if (!taken.has(`${id}${n}`)) return `${id}${n}`;
}

function withoutExcept({ except: _, ...element }: Element): Element {
  return element;
}

/** A leg from another place, and from another element where one is given. */
export function onto(leg: Leg, from: string, element: string | undefined): Leg {
  return { ...leg, from, on: "element" in leg.on && element !== undefined ? { ...leg.on, element } : leg.on };
}

/** Reads a clip back from text, or says in a sentence why the text is none. */
export function readClip(text: string): { ok: true; clip: Clip } | { ok: false; message: string } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, message: "What is on the clipboard was not copied from a project." };
  }
  const clip = data as Partial<Clip> | null;
  if (typeof clip !== "object" || clip === null || clip.etape !== "clip/1" || !Array.isArray(clip.places))
    return { ok: false, message: "What is on the clipboard was not copied from a project." };
  const read = readProjectData(clip.document);
  if (!read.ok) return { ok: false, message: `What is on the clipboard can not be read: ${read.problems.slice(0, 3).map(problemLine).join("; ")}` };
  const known = new Set([...lookup(read.project).places.keys()]);
  const places = clip.places.filter((id): id is string => typeof id === "string" && known.has(id));
  const loose = typeof clip.loose === "string" && known.has(clip.loose) ? { loose: clip.loose } : {};
  const origins = Object.fromEntries(Object.entries(clip.origins ?? {}).filter((entry): entry is [string, string] => typeof entry[1] === "string"));
  const from = typeof clip.from === "string" ? { from: clip.from } : {};
  return { ok: true, clip: { etape: "clip/1", places, ...loose, origins, document: read.project, ...from } };
}

/** How much a clip holds, in words. */
export function clipSays({ places, loose, document }: Clip): string {
  const screens = document.screens.filter((s) => s.id !== loose).length;
  const elements = document.screens.find((s) => s.id === loose)?.elements.length ?? 0;
  const counted = (n: number, what: string, many = `${what}s`) => (n === 0 ? [] : [`${n} ${n === 1 ? what : many}`]);
  const parts = [
    ...counted(document.containers.length, "container"),
    ...counted(screens, "screen"),
    ...counted(elements, "element"),
    ...counted(document.legs.length, "leg"),
    ...counted(document.entrances.length, "way in", "ways in"),
  ];
  return parts.length > 0 || places.length > 0 ? parts.join(", ") : "nothing";
}

/** Facts that legs set and expressions name. */
function factsIn(fragment: Project): string[] {
  return [...fragment.legs.flatMap((leg) => Object.keys(leg.set ?? {})), ...sourcesIn(fragment).flatMap((source) => namesIn("fact", source))];
}

function sourcesIn(fragment: Project): string[] {
  const holes = (text: string | undefined) => templateParts(text ?? "").flatMap((part) => ("hole" in part ? [part.hole] : []));
  const elements = [...fragment.screens.flatMap((s) => s.elements), ...fragment.containers.flatMap((c) => c.elements ?? [])];
  return [
    ...fragment.screens.flatMap((s) => holes(s.title)),
    ...elements.flatMap((e) => [...holes(e.text), ...(e.shown === undefined ? [] : [e.shown]), ...(e.enabled === undefined ? [] : [e.enabled])]),
    ...fragment.legs.flatMap((leg) => [
      ...(leg.when === undefined ? [] : [leg.when]),
      ...Object.values(leg.set ?? {}),
      ...Object.values(passOf(leg) ?? {}),
      ...Object.values(giveOf(leg) ?? {}),
    ]),
    ...fragment.entrances.flatMap((e) => [...(e.when === undefined ? [] : [e.when]), ...Object.values(e.pass ?? {})]),
  ];
}

function typesIn(fragment: Project): string[] {
  const elements = [...fragment.screens.flatMap((s) => s.elements), ...fragment.containers.flatMap((c) => c.elements ?? [])];
  return [...elements.flatMap((e) => e.of ?? []), ...fragment.screens.flatMap((s) => [...s.params.map((p) => p.type), ...(s.pages ? [s.pages.over] : [])])];
}

/** The types named and those that their fields are of. */
function withTypesWithin(project: Project, ids: string[]): Set<string> {
  const out = new Set<string>();
  const queue = [...ids];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (out.has(id)) continue;
    out.add(id);
    queue.push(
      ...(lookup(project)
        .types.get(id)
        ?.fields.map((f) => f.type) ?? []),
    );
  }
  return out;
}
