import * as z from "zod";
import { sameValue } from "../json.ts";
import { elementIdOf, elementsOf, lookup, nameOf, targetOf } from "../lookup.ts";
import { moveWord } from "../propose.ts";
import type { Leg, Move, Project, Screen } from "../schema.ts";
import { type Chosen, type Clip, ClipSchema, clipSays, onto } from "./clip.ts";
import { type Edit, editKind, freshId, quoted } from "./edit.ts";
import { renamed } from "./references.ts";
import { suitedFrom } from "./repoint.ts";

export interface Pasted {
  project: Project;
  /** What was pasted, to be chosen. */
  chosen: Chosen[];
  /** What could not stay as it was, a sentence each. */
  says: string[];
}

/**
 * Pastes a clip. Places go into the container that is chosen or holds what is chosen; elements
 * go onto every place that is chosen. Copies get ids of their own and legs among them lead to
 * the copies; legs to what was not copied lead where they led, as long as there is such a place.
 */
export function pasted(project: Project, clip: Clip, onto: readonly string[]): Pasted {
  const fragment = withFreshIds(project, clip);
  const says: string[] = [];
  const withData = withFactsAndTypes(project, fragment.document, says);
  const owner = fragment.places.length === 0 ? undefined : ownerFor(project, onto[0]);
  const looseScreen = fragment.document.screens.find((s) => s.id === fragment.loose);
  const containers = fragment.document.containers;
  const members = fragment.places.filter((id) => containers.find((c) => c.id === id)?.kind !== "modal");
  const places = new Set([...containers.map((c) => c.id), ...fragment.document.screens.filter((s) => s !== looseScreen).map((s) => s.id)]);
  const grown: Project = {
    ...withData,
    containers: [...withData.containers.map((c) => (c.id === owner && members.length > 0 ? { ...c, members: [...c.members, ...members] } : c)), ...containers],
    screens: [...withData.screens, ...fragment.document.screens.filter((s) => s !== looseScreen).map((s) => withUp(s, places, withData))],
    entrances: [...withData.entrances, ...fragment.document.entrances],
  };
  const known = lookup(grown).places;
  const copies = fragment.document.legs.filter((leg) => leg.from !== fragment.loose);
  const among = copies.filter((leg) => places.has(targetOf(leg) ?? "")).length;
  if (among > 0) says.push(`${among === 1 ? "One leg leads" : `${among} legs lead`} to the copies.`);
  let made: Project = { ...grown, legs: [...grown.legs, ...copies.flatMap((leg) => whole(known, leg, says))] };
  const chosen: Chosen[] = fragment.places.map((id) => ({ kind: "place", id }));
  if (looseScreen) {
    const from = onto.filter((id) => known.has(id));
    if (from.length === 0) says.push("Nothing is chosen that elements could be put on.");
    for (const placeId of from) {
      const put = putLoose(
        made,
        placeId,
        looseScreen,
        fragment.document.legs.filter((leg) => leg.from === looseScreen.id),
        fragment.origins ?? {},
        says,
      );
      made = put.project;
      chosen.push(...put.chosen);
    }
  }
  chosen.push(...fragment.document.entrances.map((e): Chosen => ({ kind: "entrance", id: e.id })));
  if (members.length > 0 && owner === undefined) says.push("There is no container to put it into; it stands by itself.");
  return { project: made, chosen, says };
}

export const pastes = editKind("paste", z.strictObject({ clip: ClipSchema, onto: z.array(z.string()) }), (p, { clip, onto }) => pasted(p, clip, onto).project);
/** The edit that pastes; what it says is found by {@link pasted} beforehand. */
export function paste(clip: Clip, onto: readonly string[], word: "Paste" | "Duplicate" = "Paste"): Edit {
  return pastes.make(`${word} ${clipSays(clip)}`, { clip, onto: [...onto] });
}

/** The container that pasted places go into: the one chosen, the one around what is chosen, else the root. */
function ownerFor(project: Project, chosen: string | undefined): string | undefined {
  const { containers, owners } = lookup(project);
  if (chosen !== undefined && containers.has(chosen)) return chosen;
  return owners.get(chosen ?? "")?.id ?? (containers.has(project.root) ? project.root : undefined);
}

function withFreshIds(project: Project, clip: Clip): Clip {
  const known = lookup(project);
  const fresh = (ids: string[], taken: Iterable<string>) => {
    const all = new Set(taken);
    return new Map(
      ids.map((id) => {
        const next = freshId(id, all);
        all.add(next);
        return [id, next] as const;
      }),
    );
  };
  const { document, loose } = clip;
  const own = [...document.containers.map((c) => c.id), ...document.screens.map((s) => s.id)];
  const places = fresh(own, known.places.keys());
  const legs = fresh(
    document.legs.map((l) => l.id),
    known.legs.keys(),
  );
  const entrances = fresh(
    document.entrances.map((e) => e.id),
    known.entrances.keys(),
  );
  return {
    ...clip,
    places: clip.places.map((id) => places.get(id) ?? id),
    ...(loose === undefined ? {} : { loose: places.get(loose) ?? loose }),
    origins: Object.fromEntries(Object.entries(clip.origins ?? {}).map(([id, from]) => [legs.get(id) ?? id, from])),
    document: renamed(document, { places, legs, entrances }),
  };
}

function withFactsAndTypes(project: Project, fragment: Project, says: string[]): Project {
  const known = lookup(project);
  const add = <T extends { id: string }>(list: T[], had: ReadonlyMap<string, T>, what: string): T[] =>
    list.filter((one) => {
      const mine = had.get(one.id);
      if (mine && !sameValue(mine, one)) says.push(`The ${what} ${one.id} is another here; this project's own is used.`);
      if (!mine) says.push(`The ${what} ${one.id} came along.`);
      return !mine;
    });
  return {
    ...project,
    facts: [...project.facts, ...add(fragment.facts, known.facts, "fact")],
    types: [...project.types, ...add(fragment.types, known.types, "record type")],
  };
}

function withUp(screen: Screen, copies: Set<string>, project: Project): Screen {
  const there = screen.up === "auto" || screen.up === "none" || copies.has(screen.up) || lookup(project).screens.has(screen.up);
  return there ? screen : { ...screen, up: "auto" };
}

/** A pasted leg, if what it names is there; without the parts that are not. */
function whole(places: ReadonlyMap<string, unknown>, leg: Leg, says: string[]): Leg[] {
  const to = targetOf(leg);
  if (to !== undefined && !places.has(to)) {
    says.push(`The leg ${leg.id} is lost: there is no ${to} here.`);
    return [];
  }
  if (!leg.move) return [leg];
  const move = withoutMissing(leg.move, places);
  if (move !== leg.move) says.push(`The leg ${leg.id} named a container that is not here; it goes by what is around it.`);
  return [move === leg.move ? leg : { ...leg, move }];
}

function withoutMissing(move: Move, places: ReadonlyMap<string, unknown>): Move {
  const missing = (id: string | undefined) => id !== undefined && id !== "beneath" && !places.has(id);
  if ((move.kind === "push" || move.kind === "reset") && missing(move.in)) return without(move, "in");
  if (move.kind === "open" && missing(move.show)) return without(move, "show");
  if (move.kind === "close" && missing(move.modal)) return { kind: "close" };
  if (move.kind === "menu" && missing(move.drawer)) return without(move, "drawer");
  return move;
}

function without<M extends Move, K extends keyof M>(move: M, key: K): Move {
  const { [key]: _, ...rest } = move;
  return rest as unknown as Move;
}

function putLoose(
  project: Project,
  placeId: string,
  loose: Screen,
  legs: Leg[],
  origins: Record<string, string>,
  says: string[],
): { project: Project; chosen: Chosen[] } {
  const { places } = lookup(project);
  const place = places.get(placeId);
  const taken = new Set(elementsOf(project, placeId).map((e) => e.id));
  const ids = new Map<string, string>();
  for (const element of loose.elements) {
    const id = freshId(element.id, taken);
    ids.set(element.id, id);
    taken.add(id);
  }
  const elements = loose.elements.map((e) => ({ ...e, id: ids.get(e.id) ?? e.id }));
  const legIds = new Set(lookup(project).legs.keys());
  const copies = legs.flatMap((leg): Leg[] => {
    if (place?.kind === "container" && (leg.on.kind === "after" || leg.on.kind === "arrive")) {
      says.push(`The leg ${leg.id} is lost: only a screen can have it.`);
      return [];
    }
    const id = freshId(leg.id, legIds);
    legIds.add(id);
    const put = { ...onto(leg, placeId, ids.get(elementIdOf(leg) ?? "")), id };
    const move = suitedFrom(project, put, origins[leg.id], placeId);
    if (move !== put.move) says.push(`On ${quoted(nameOf(project, placeId))}, the leg ${id} goes another way, as suits it there: ${moveWord(move)}.`);
    return whole(places, move ? { ...put, move } : put, says);
  });
  const next: Project = {
    ...project,
    screens: project.screens.map((s) => (s.id === placeId ? { ...s, elements: [...s.elements, ...elements] } : s)),
    containers: project.containers.map((c) => (c.id === placeId ? { ...c, elements: [...(c.elements ?? []), ...elements] } : c)),
    legs: [...project.legs, ...copies],
  };
  const chosen: Chosen[] =
    elements.length > 0 ? elements.map((e) => ({ kind: "element", place: placeId, id: e.id })) : copies.map((l) => ({ kind: "leg", id: l.id }));
  return { project: next, chosen };
}
