import { lookup, nameOf } from "../model/lookup.ts";
import type { Container, Element, Leg, Project } from "../model/schema.ts";
import type { Conflict, Merged } from "./conflict.ts";

interface Sides {
  base: Project;
  ours: Project;
  theirs: Project;
}

/**
 * A merged document in which what one side deleted and the other still needs is there again: places that are led to or that hold what
 * stays, elements with legs, facts and record types that are spoken of; and in which every place stands in one container.
 */
export function mended({ project, conflicts }: Merged, sides: Sides): Merged {
  const mending = new Mending(project, conflicts, sides);
  // What comes back may need something else again.
  const most = lookup(sides.ours).places.size + lookup(sides.theirs).places.size + sides.ours.facts.length + sides.theirs.facts.length + 100;
  let before: Project | undefined;
  for (let i = 0; before !== mending.project && i < most; i++) {
    before = mending.project;
    mending.once();
  }
  return { project: mending.project, conflicts: mending.conflicts };
}

class Mending {
  constructor(
    public project: Project,
    readonly conflicts: Conflict[],
    private readonly sides: Sides,
  ) {}

  once() {
    this.owners();
    this.places();
    this.elements();
    this.data();
    this.starts();
  }

  private says(where: string, says: string) {
    if (!this.conflicts.some((one) => one.where === where && one.says === says)) this.conflicts.push({ where, field: "", says });
  }

  /** A side that has something, ours first. */
  private side(has: (side: Project) => boolean): Project | undefined {
    return [this.sides.ours, this.sides.theirs].find(has);
  }

  /** A place that both sides moved, to different containers, is where ours has it. */
  private owners() {
    const { containers } = this.project;
    const inside = new Map<string, string[]>();
    for (const { id, members } of containers) for (const member of members) inside.set(member, [...(inside.get(member) ?? []), id]);
    for (const [member, owners] of inside) {
      const [our, their] = [this.sides.ours, this.sides.theirs].map((side) =>
        side.containers.filter(({ members }) => members.includes(member)).map(({ id }) => id),
      );
      if (owners.length < 2 || (our?.length ?? 0) > 1 || (their?.length ?? 0) > 1) continue;
      const keep = owners.find((id) => our?.includes(id)) ?? owners[0];
      this.says(
        this.named(member),
        `both sides moved it, to “${nameOf(this.project, our?.[0] ?? "")}” and to “${nameOf(this.project, their?.[0] ?? "")}”; it is where ours is`,
      );
      this.change(
        owners.filter((id) => id !== keep),
        (container) => ({ ...container, members: container.members.filter((id) => id !== member) }),
      );
    }
  }

  private change(ids: readonly string[], change: (container: Container) => Container) {
    if (ids.length > 0) this.project = { ...this.project, containers: this.project.containers.map((one) => (ids.includes(one.id) ? change(one) : one)) };
  }

  private named(id: string): string {
    const { screens } = lookup(this.side((side) => lookup(side).places.has(id)) ?? this.project);
    return `${screens.has(id) ? "screen" : "container"} “${nameOf(this.side((side) => lookup(side).places.has(id)) ?? this.project, id)}” (${id})`;
  }

  /** Places that something leads to, or that have lost their container, come back. */
  private places() {
    const { places } = lookup(this.project);
    const needed = new Map<string, string>();
    const need = (id: string | undefined, by: string) => {
      if (id !== undefined && !places.has(id) && this.side((side) => lookup(side).places.has(id))) needed.set(id, by);
    };
    need(this.project.root, "the app starts with it");
    for (const leg of this.project.legs) {
      need(leg.from, `the leg ${leg.id} begins on it`);
      for (const id of namedBy(leg)) need(id, `the leg ${leg.id} leads there`);
    }
    for (const { id, to, otherwise } of this.project.entrances) for (const place of [to, otherwise]) need(place, `the way in ${id} leads there`);
    for (const { id, up } of this.project.screens) if (up !== "auto" && up !== "none") need(up, `Up leads there from ${id}`);
    for (const { id, members } of this.project.containers) for (const member of members) need(member, `it is in ${id}`);
    for (const [id, by] of needed) this.restore(id, by);
    this.homeless();
  }

  private restore(id: string, by: string) {
    const side = this.side((one) => lookup(one).places.has(id));
    const place = side && lookup(side).places.get(id);
    if (!place) return;
    this.says(this.named(id), `one side deleted it, and ${by} on the other; it stays`);
    if (place.kind === "screen") this.project = { ...this.project, screens: [...this.project.screens, place.screen] };
    else {
      const members = place.container.members.filter((member) => lookup(this.project).places.has(member) && !lookup(this.project).owners.has(member));
      this.project = { ...this.project, containers: [...this.project.containers, { ...place.container, members } as Container] };
    }
  }

  /** What stays although its container, or its place in it, is gone on the other side. */
  private homeless() {
    const { owners, places } = lookup(this.project);
    for (const [id, place] of places) {
      if (owners.has(id) || id === this.project.root || (place.kind === "container" && place.container.kind === "modal")) continue;
      const owner = [this.sides.ours, this.sides.theirs, this.sides.base].flatMap((side) => lookup(side).owners.get(id)?.id ?? [])[0];
      if (owner === undefined) continue;
      if (places.has(owner)) this.change([owner], (container) => ({ ...container, members: [...container.members, id] }));
      else this.restore(owner, `${id} is in it`);
      return;
    }
  }

  /** Elements that legs begin with come back. */
  private elements() {
    for (const leg of this.project.legs) {
      const element = "element" in leg.on ? leg.on.element : undefined;
      const there = element === undefined || elementsOn(this.project, leg.from).some(({ id }) => id === element);
      const kept = there ? undefined : [this.sides.ours, this.sides.theirs].flatMap((side) => elementsOn(side, leg.from)).find(({ id }) => id === element);
      if (!kept || !lookup(this.project).places.has(leg.from)) continue;
      this.says(`${this.named(leg.from)}, element ${kept.id}`, `one side deleted it, and the leg ${leg.id} begins with it on the other; it stays`);
      const add = <T extends { id: string; elements?: Element[] | undefined }>(one: T): T =>
        one.id === leg.from ? { ...one, elements: [...(one.elements ?? []), kept] } : one;
      this.project = { ...this.project, screens: this.project.screens.map(add), containers: this.project.containers.map(add) };
    }
  }

  /** Facts and record types that are spoken of come back. */
  private data() {
    const { facts, types, walks: _, ...rest } = this.project;
    const text = JSON.stringify(rest);
    const spoken = (id: string) => new RegExp(`\\bfact\\.${id}\\b|"set":\\{[^}]*"${id}":`).test(text);
    for (const side of [this.sides.ours, this.sides.theirs]) {
      const fact = side.facts.find(({ id }) => !facts.some((one) => one.id === id) && spoken(id));
      if (fact) {
        this.says(`fact ${fact.id}`, "one side deleted it, and the other speaks of it; it stays");
        this.project = { ...this.project, facts: [...this.project.facts, fact] };
        return;
      }
      const type = side.types.find(({ id }) => !types.some((one) => one.id === id) && new RegExp(`"(?:of|over|type)":"${id}"`).test(text));
      if (type) {
        this.says(`record type ${type.id}`, "one side deleted it, and the other uses it; it stays");
        this.project = { ...this.project, types: [...this.project.types, type] };
        return;
      }
    }
  }

  /** A container starts with one of its members. */
  private starts() {
    for (const { id, start, members } of this.project.containers) {
      if (members.includes(start) || members.length === 0) continue;
      const wanted = [this.sides.ours, this.sides.theirs].flatMap((side) => lookup(side).containers.get(id)?.start ?? []).find((one) => members.includes(one));
      this.change([id], (container) => ({ ...container, start: wanted ?? members[0] ?? container.start }));
    }
  }
}

/** The places that a leg's move names. */
function namedBy({ move }: Leg): string[] {
  if (!move) return [];
  const { to, in: within, show, modal, drawer } = move as Record<string, string | undefined>;
  return [to, within === "beneath" ? undefined : within, show, modal, drawer].flatMap((id) => id ?? []);
}

function elementsOn(project: Project, place: string): readonly Element[] {
  const found = lookup(project).places.get(place);
  return (found?.kind === "screen" ? found.screen.elements : found?.container.elements) ?? [];
}
