/** Random small documents and events, from a seed. The same seed always gives the same. */
import { readProjectData } from "../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../src/core/model/schema.ts";

export type Random = () => number;

/** A generator of numbers in [0, 1), after mulberry32 (Tommy Ettinger, 2017, public domain). */
export function seeded(seed: number): Random {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const chance = (random: Random, share: number) => random() < share;
const upTo = (random: Random, least: number, most: number) => least + Math.floor(random() * (most - least + 1));

type Data = Record<string, unknown>;

export interface Mix {
  /** Names that lead nowhere, starts that are no members, places without an owner. */
  broken?: boolean;
  /** depart and arrive legs, and modals and drawers that Back does not close. */
  guarded?: boolean;
  /** Conditions on outside facts and arguments, which a checker can not know. */
  unknown?: boolean;
  /** Most screens, containers around them and legs. */
  screens?: number;
  containers?: number;
  legs?: number;
}

const CONDITIONS = ["fact.f", "!fact.f", "fact.g == 'two'", "fact.f && fact.g != 'one'", "width == 'wide'"];
const UNKNOWN = ["fact.o", "!fact.o", "fact.o || fact.f", "has(param.p)", "param.p == 'x'"];

export function randomDocument(seed: number, mix: Mix = {}): Project {
  const random = seeded(seed);
  const screens: Data[] = Array.from({ length: upTo(random, 2, mix.screens ?? 6) }, (_, i) => randomScreen(random, `s${i}`, mix));
  const { containers, root } = randomContainers(
    random,
    screens.map((s) => String(s.id)),
    mix,
  );
  const places = [...screens, ...containers];
  const legs = Array.from({ length: upTo(random, 2, mix.legs ?? 9) }, (_, i) => randomLeg(random, `l${i}`, screens, containers, mix));
  for (const leg of legs) {
    const element = (leg.on as { element?: string }).element;
    const place = places.find((p) => p.id === leg.from);
    if (!element || !place) continue;
    const elements = (place.elements ?? []) as Data[];
    if (!elements.some((e) => e.id === element))
      place.elements = [...elements, { id: element, kind: "button", label: element, ...(chance(random, 0.08) ? { enabled: pick(random, CONDITIONS) } : {}) }];
  }
  const data = {
    format: "etape/1",
    name: `Random ${seed}`,
    root,
    facts: [
      { id: "f", type: "boolean", initial: false, source: "app", ...(chance(random, 0.4) ? { persists: true } : {}) },
      { id: "g", type: "choice", values: ["one", "two"], initial: "one", source: "app" },
      { id: "o", type: "boolean", initial: chance(random, 0.5), source: "outside" },
    ],
    types: [],
    containers,
    screens,
    legs,
    entrances: Array.from({ length: upTo(random, 0, 2) }, (_, i) => randomEntrance(random, `e${i}`, screens, mix)),
    walks: [],
  };
  const read = readProjectData(data);
  if (!read.ok) throw new Error(`seed ${seed}: ${JSON.stringify(read.problems)}`);
  return read.project;
}

function randomScreen(random: Random, id: string, mix: Mix): Data {
  const lead = pick(random, ["auto", "back", "up", "menu", "none"]);
  return {
    id,
    name: id,
    params: mix.unknown && chance(random, 0.3) ? [{ name: "p", type: "text", required: false }] : [],
    up: chance(random, 0.75) ? "auto" : chance(random, 0.5) ? "none" : `s${upTo(random, 0, mix.broken ? 8 : 1)}`,
    ...(chance(random, 0.35) ? { bar: { show: chance(random, 0.85), lead } } : {}),
    elements: [],
    ...(chance(random, 0.15) ? { hub: true } : {}),
    ...(chance(random, 0.12) ? { once: true } : {}),
    ...(chance(random, 0.1) ? { coversTabs: true } : {}),
    ...(chance(random, 0.1) ? { mayRepeat: true } : {}),
  };
}

/** Puts the screens into groups, the groups into containers, these into one root; some of it into modals. */
function randomContainers(random: Random, screens: string[], mix: Mix): { containers: Data[]; root: string } {
  const containers: Data[] = [];
  const groups: string[][] = [];
  for (const id of screens) {
    if (groups.length === 0 || chance(random, 0.45)) groups.push([id]);
    else pick(random, groups).push(id);
  }
  const add = (kind: string, members: string[]): string => {
    const id = `c${containers.length}`;
    containers.push(randomContainer(random, kind, id, members, mix));
    return id;
  };
  const tops: string[] = [];
  groups.forEach((group, i) => {
    const kind = chance(random, 0.65) ? "stack" : pick(random, ["tabs", "drawer", "stack"]);
    const inner = group.length === 1 && chance(random, 0.35) ? (group[0] as string) : add(kind, group);
    if (i > 0 && chance(random, 0.3)) add("modal", [inner]);
    else tops.push(inner);
  });
  if (mix.broken && chance(random, 0.2)) tops.pop();
  const most = (mix.containers ?? 3) > 1;
  if (tops.length === 1 && chance(random, 0.4)) return { containers, root: tops[0] as string };
  const middle = most && tops.length > 2 && chance(random, 0.4) ? [add(pick(random, ["stack", "tabs", "drawer"]), tops.slice(0, 2)), ...tops.slice(2)] : tops;
  return { containers, root: add(pick(random, ["stack", "tabs", "tabs", "drawer"]), middle.length > 0 ? middle : [screens[0] as string]) };
}

function randomContainer(random: Random, kind: string, id: string, members: string[], mix: Mix): Data {
  const start = mix.broken && chance(random, 0.06) ? "nowhere" : pick(random, members);
  const closeOn = ["outside", "swipe", "button"].filter(() => chance(random, 0.4));
  if (!mix.guarded || chance(random, 0.5)) closeOn.push("back");
  const common = {
    id,
    kind,
    name: id,
    start,
    members,
    ...(chance(random, 0.12) ? { bar: { show: true, lead: pick(random, ["auto", "menu", "none"]) } } : {}),
    ...(chance(random, 0.08) ? { once: true } : {}),
  };
  switch (kind) {
    case "tabs":
      return {
        ...common,
        edge: "bottom",
        onBack: pick(random, ["leave", "start", "previous"]),
        chosenAgain: pick(random, ["root", "nothing"]),
        keeps: chance(random, 0.75),
      };
    case "drawer":
      return {
        ...common,
        side: "left",
        over: chance(random, 0.7),
        pinnedFrom: pick(random, ["never", "never", "middle", "wide"]),
        closeOn,
        onBack: pick(random, ["leave", "start"]),
        keeps: chance(random, 0.75),
      };
    case "modal":
      return { ...common, shape: pick(random, ["sheet", "full", "dialog"]), edge: "bottom", blocks: chance(random, 0.7), dims: true, closeOn };
    default:
      return common;
  }
}

function randomLeg(random: Random, id: string, screens: Data[], containers: Data[], mix: Mix): Data {
  const screenIds = screens.map((s) => String(s.id));
  const ids = (kind: string) => containers.filter((c) => c.kind === kind).map((c) => String(c.id));
  const onContainer = containers.length > 0 && chance(random, 0.15);
  const from = onContainer ? String(pick(random, containers).id) : pick(random, screenIds);
  const on = randomTrigger(random, id, onContainer, mix);
  const conditions = mix.unknown ? [...CONDITIONS, ...UNKNOWN] : CONDITIONS;
  const move = randomMove(random, screenIds, ids, mix);
  const set = chance(random, 0.2)
    ? chance(random, 0.5)
      ? { f: pick(random, ["true", "false", "!fact.f"]) }
      : { g: pick(random, ["'one'", "'two'"]) }
    : undefined;
  return {
    id,
    from,
    on,
    ...(chance(random, 0.25) ? { when: pick(random, conditions) } : {}),
    ...(chance(random, 0.94) || !set ? { move } : {}),
    ...(set ? { set } : {}),
    ...(chance(random, 0.06) ? { resumes: true } : {}),
  };
}

function randomTrigger(random: Random, id: string, onContainer: boolean, mix: Mix): Data {
  if (mix.guarded && chance(random, 0.08))
    return { kind: "depart", ...(chance(random, 0.4) ? { by: [pick(random, ["back", "lead", "tab", "pick", "close", "link"])] } : {}) };
  if (!onContainer && mix.guarded && chance(random, 0.07)) return { kind: "arrive" };
  if (!onContainer && chance(random, 0.06)) return { kind: "after", ms: 500 };
  if (chance(random, 0.05)) return { kind: "swipe", to: "left" };
  return { kind: "tap", element: chance(random, 0.2) ? "shared" : id };
}

function randomMove(random: Random, screens: string[], ids: (kind: string) => string[], mix: Mix): Data {
  const place = () =>
    mix.broken && chance(random, 0.06)
      ? "nowhere"
      : chance(random, 0.85)
        ? pick(random, screens)
        : pick(random, [...screens, ...ids("stack"), ...ids("tabs"), ...ids("drawer")]);
  const one = (kind: string) => pick(random, ids(kind).length > 0 ? ids(kind) : ["nowhere"]);
  const within = chance(random, 0.15) ? { in: chance(random, 0.4) ? "beneath" : one("stack") } : {};
  const pass = mix.unknown && chance(random, 0.3) ? { pass: { p: "'x'" } } : {};
  const tidy = "in" in within && chance(random, 0.3) ? { tidy: pick(random, ["source", "stack"]) } : {};
  switch (
    pick(random, ["push", "push", "push", "push", "replace", "reset", "return", "open", "open", "close", "select", "menu", "back", "up", "proceed", "leave"])
  ) {
    case "push":
      return { kind: "push", to: place(), ...pass, ...within, ...(chance(random, 0.3) ? { repeat: pick(random, ["copy", "stay", "rewind"]) } : {}), ...tidy };
    case "replace":
      return { kind: "replace", to: place(), ...pass };
    case "reset":
      return { kind: "reset", to: place(), ...within };
    case "return":
      return { kind: "return", to: pick(random, screens), ...(chance(random, 0.5) ? { orElse: pick(random, ["push", "replace", "nothing"]) } : {}) };
    case "open":
      return ids("modal").length > 0 || mix.broken
        ? { kind: "open", to: one("modal"), ...(chance(random, 0.2) ? { show: pick(random, screens) } : {}), ...(chance(random, 0.2) ? { instead: true } : {}) }
        : { kind: "back" };
    case "close":
      return { kind: "close", ...(ids("modal").length > 0 && chance(random, 0.4) ? { modal: one("modal") } : {}) };
    case "select":
      return { kind: "select", to: place(), ...(chance(random, 0.3) ? { fresh: true } : {}), ...(chance(random, 0.2) ? { tidy: "source" } : {}) };
    case "menu":
      return { kind: "menu", ...(chance(random, 0.4) ? { action: pick(random, ["open", "close"]) } : {}) };
    case "up":
      return { kind: "up" };
    case "proceed":
      return mix.guarded ? { kind: "proceed" } : { kind: "back" };
    case "leave":
      return { kind: "leave" };
    default:
      return { kind: "back" };
  }
}

function randomEntrance(random: Random, id: string, screens: Data[], mix: Mix): Data {
  const to = mix.broken && chance(random, 0.1) ? "nowhere" : String(pick(random, screens).id);
  const guarded = chance(random, 0.4)
    ? { when: pick(random, CONDITIONS), ...(chance(random, 0.6) ? { otherwise: String(pick(random, screens).id), resume: chance(random, 0.5) } : {}) }
    : {};
  return { id, name: id, kind: "link", to, ...guarded, warm: pick(random, ["rebuild", "onTop"]) };
}

/** Every event that could be named in a project, possible now or not. */
export function allEvents(project: Project): NavEvent[] {
  const members = project.containers.flatMap((c) => c.members);
  return [
    ...project.legs.map((leg): NavEvent => ({ do: "leg", leg: leg.id })),
    ...members.flatMap((to): NavEvent[] => [
      { do: "tab", to },
      { do: "pick", to },
    ]),
    { do: "lead" },
    { do: "back" },
    ...(["outside", "swipe", "button", "back"] as const).map((via): NavEvent => ({ do: "close", via })),
    ...project.entrances.flatMap((e): NavEvent[] => [
      { do: "enter", entrance: e.id },
      { do: "enter", entrance: e.id, cold: true },
    ]),
    { do: "launch" },
    ...project.facts.flatMap((f): NavEvent[] =>
      (f.type === "boolean" ? [true, false] : [...(f.values ?? []), "none of them"]).map((value) => ({ do: "fact", fact: f.id, value })),
    ),
    ...(["narrow", "middle", "wide"] as const).map((to): NavEvent => ({ do: "width", to })),
    { do: "leg", leg: "nothing" },
    { do: "tab", to: "nothing" },
    { do: "enter", entrance: "nothing" },
  ];
}

/** A document with five more switches, which about half of its legs wait for or set, some to the opposite of another. */
export function switchedDocument(seed: number): Project {
  const base = randomDocument(seed, { guarded: seed % 3 === 0, broken: false, screens: 5, legs: 9, containers: 1 });
  const random = seeded(seed * 7 + 1);
  const ids = ["ka", "kb", "kc", "kd", "ke"];
  const one = () => `fact.${pick(random, ids)}`;
  const facts = ids.map((id) => ({
    id,
    type: "boolean" as const,
    initial: random() < 0.3,
    source: "app" as const,
    ...(random() < 0.3 ? { persists: true } : {}),
  }));
  const legs = base.legs.map((leg) => {
    const when = random() < 0.6 ? `${random() < 0.5 ? "!" : ""}${one()}` : `${one()} && !${one()}`;
    const set = { [pick(random, ids)]: pick(random, ["true", "false", `!${one()}`]) };
    return { ...leg, ...(random() < 0.45 ? { when } : {}), ...(random() < 0.45 ? { set } : {}) };
  });
  return { ...base, facts: [...base.facts, ...facts], legs };
}
