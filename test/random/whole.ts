/** Random documents in which everything of the model occurs often, and walks that go wherever they can. Held to by counts. */
import { appOf } from "../../src/core/insight/app.ts";
import { readProjectData } from "../../src/core/model/read.ts";
import type { Json, Leg, NavEvent, Project } from "../../src/core/model/schema.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import { pick, type Random, seeded } from "./documents.ts";

type Data = Record<string, unknown>;

const chance = (random: Random, share: number) => random() < share;
const upTo = (random: Random, least: number, most: number) => least + Math.floor(random() * (most - least + 1));
/** The entry some of the time, so that it is left out as often. */
const maybe = (random: Random, share: number, entry: () => Data): Data => (chance(random, share) ? entry() : {});

const ROWS = [
  { id: "r1", rank: 3, done: true, note: "one" },
  { id: "r2", rank: 1, done: false, note: "two" },
  { id: "r3", rank: 2, done: false, note: "" },
];
const CONDITIONS = ["fact.f", "!fact.f", "fact.g == 'two'", "fact.f && fact.g != 'one'", "width == 'wide'", "fact.o || fact.f", "width != 'narrow'"];
const ON_SCREEN = ["has(param.id)", "param.id == 'r1'", "!(param.id == 'r2')", "has(param.n) && param.n > 1", "param.flag", "has(param.row) && param.row.done"];

/** What a document is made of while it is made. */
interface Making {
  random: Random;
  screens: Data[];
  containers: Data[];
  /** Names that lead nowhere, ill-typed expressions, places that nothing owns. */
  broken: boolean;
}

/** A document of 3 to 9 screens in nested containers of all kinds. The same seed gives the same document. */
export function wholeDocument(seed: number): Project {
  const random = seeded(seed * 2 + 1);
  const making: Making = { random, screens: [], containers: [], broken: chance(random, 0.25) };
  const root = place(making, 0);
  const modals = upTo(random, 0, 3);
  for (let i = 0; i < modals; i++) container(making, "modal", [place(making, 2)]);
  while (making.screens.length < 3) screen(making);
  const legs = Array.from({ length: upTo(random, 4, 16) }, (_, i) => leg(making, `l${i}`));
  const data = {
    format: "etape/1",
    name: `Whole ${seed}`,
    root,
    facts: [
      { id: "f", type: "boolean", initial: chance(random, 0.5), source: "app", ...maybe(random, 0.5, () => ({ persists: true })) },
      { id: "g", type: "choice", values: ["one", "two"], initial: "one", source: "app" },
      { id: "o", type: "boolean", initial: false, source: "outside" },
      { id: "p", type: "choice", values: ["red", "blue"], initial: "red", source: "outside" },
    ],
    types: [
      {
        id: "thing",
        fields: [
          { name: "id", type: "text" },
          { name: "rank", type: "integer" },
          { name: "done", type: "boolean" },
          { name: "note", type: "text" },
        ],
        samples: ROWS,
      },
    ],
    containers: making.containers,
    screens: making.screens,
    legs,
    entrances: Array.from({ length: upTo(random, 0, 3) }, (_, i) => entrance(making, `e${i}`)),
    walks: [],
  };
  const read = readProjectData(data);
  if (!read.ok) throw new Error(`seed ${seed}: ${JSON.stringify(read.problems)}`);
  return read.project;
}

/** A screen, or a container with more of the same in it. */
function place(making: Making, depth: number): string {
  const { random } = making;
  if (depth > 3 || making.screens.length > 7 || (depth > 0 && chance(random, 0.35))) return screen(making);
  const kind = pick(random, ["stack", "stack", "stack", "tabs", "tabs", "drawer"]);
  const count = kind === "stack" ? upTo(random, 1, 3) : upTo(random, 2, 3);
  return container(
    making,
    kind,
    Array.from({ length: count }, () => (kind === "stack" && chance(random, 0.7) ? screen(making) : place(making, depth + 1))),
  );
}

function screen({ random, screens, broken }: Making): string {
  const id = `s${screens.length}`;
  const params = [
    { name: "id", type: "text", required: chance(random, 0.5), ...maybe(random, 0.3, () => ({ default: "r2" })) },
    { name: "n", type: "integer", required: false, ...maybe(random, 0.4, () => ({ default: 2 })) },
    { name: "flag", type: "boolean", required: false },
    { name: "row", type: "thing", required: false },
  ].filter(() => chance(random, 0.45));
  const byId = params.some((p) => p.name === "id");
  screens.push({
    id,
    name: id,
    params,
    up: pick(random, ["auto", "auto", "auto", "none", `s${upTo(random, 0, broken ? 12 : 2)}`]),
    ...maybe(random, 0.3, () => ({ bar: bar(random) })),
    elements: [
      { id: "rows", kind: "list", label: "Rows", of: "thing" },
      { id: "name", kind: "field", label: "Name" },
      { id: "on", kind: "switch", label: "On" },
    ],
    ...(byId ? maybe(random, 0.5, () => ({ pages: { over: "thing", by: "id", ...maybe(random, 0.5, () => ({ order: "rank" })) } })) : {}),
    ...maybe(random, 0.15, () => ({ coversTabs: true })),
    ...maybe(random, 0.3, () => ({ mayRepeat: true })),
  });
  return id;
}

const bar = (random: Random) => ({ show: chance(random, 0.85), lead: pick(random, ["auto", "back", "up", "menu", "menu", "none"]) });

function container({ random, containers, broken }: Making, kind: string, members: string[]): string {
  const id = `c${containers.length}`;
  const start = broken && chance(random, 0.08) ? pick(random, ["nowhere", "c0"]) : pick(random, members);
  const closeOn = ["outside", "swipe", "button", "back"].filter(() => chance(random, 0.6));
  const own: Record<string, () => Data> = {
    stack: () => ({}),
    tabs: () => ({
      edge: pick(random, ["bottom", "top", "side"]),
      onBack: pick(random, ["leave", "start", "previous"]),
      chosenAgain: pick(random, ["root", "nothing"]),
      keeps: chance(random, 0.6),
      ...maybe(random, 0.3, () => ({ swipes: true })),
    }),
    drawer: () => ({
      side: "left",
      over: chance(random, 0.5),
      pinnedFrom: pick(random, ["never", "middle", "wide"]),
      closeOn,
      onBack: pick(random, ["leave", "start"]),
      keeps: chance(random, 0.6),
    }),
    modal: () => ({ shape: pick(random, ["sheet", "full", "dialog", "panel"]), edge: "bottom", blocks: chance(random, 0.6), dims: true, closeOn }),
  };
  containers.push({ id, kind, name: id, start, members, ...maybe(random, 0.2, () => ({ bar: bar(random) })), ...own[kind]?.() });
  return id;
}

function leg(making: Making, id: string): Data {
  const { random, screens, containers } = making;
  const onContainer = containers.length > 0 && chance(random, 0.3);
  const source = pick(random, onContainer ? containers : screens);
  const on = trigger(making, id, source, onContainer);
  const conditions = onContainer ? CONDITIONS : [...CONDITIONS, ...ON_SCREEN.filter((text) => declares(source, text))];
  const typed = on.kind === "submit" && !onContainer;
  const set = maybe(random, 0.3, () => ({
    set: chance(random, 0.6)
      ? { f: pick(random, ["true", "false", "!fact.f", "width == 'wide'"]) }
      : { g: pick(random, ["'one'", "'two'", "fact.f ? 'one' : 'two'"]) },
  }));
  return {
    id,
    from: source.id,
    on,
    ...maybe(random, 0.3, () => ({ when: typed ? pick(random, ["has(field.name)", "field.on", "field.name != ''"]) : pick(random, conditions) })),
    ...(chance(random, 0.9) || !("set" in set) ? { move: move(making, source, on, onContainer) } : {}),
    ...set,
    ...maybe(random, 0.12, () => ({ resumes: true })),
  };
}

/** Whether a screen has the parameter that an expression reads. */
function declares(source: Data, text: string): boolean {
  const params = (source.params ?? []) as Array<{ name: string }>;
  return params.some(({ name }) => text.includes(`param.${name}`));
}

function trigger({ random, broken, screens }: Making, id: string, source: Data, onContainer: boolean): Data {
  const kind = pick(random, ["tap", "tap", "tap", "tap", "hold", "submit", "swipe", "depart", ...(onContainer ? [] : ["after", "arrive", "rows"])]);
  const elements = (source.elements ?? []) as Data[];
  const element = (name: string) => {
    if (elements.some((e) => e.id === name) || (broken && chance(random, 0.1))) return name;
    const more = {
      ...maybe(random, 0.15, () => ({ shown: pick(random, CONDITIONS) })),
      ...maybe(random, 0.15, () => ({ enabled: pick(random, CONDITIONS) })),
      ...(onContainer ? maybe(random, 0.3, () => ({ except: [pick(random, screens).id] })) : {}),
    };
    source.elements = [...elements, { id: name, kind: "button", label: name, ...more }];
    return name;
  };
  switch (kind) {
    case "rows":
      return { kind: "tap", element: "rows" };
    case "submit":
      return { kind, element: element(`send${upTo(random, 0, 1)}`), ...maybe(random, 0.5, () => ({ outcome: pick(random, ["saved", "failed"]) })) };
    case "swipe":
      return { kind, to: pick(random, ["left", "right"]), ...maybe(random, 0.3, () => ({ element: element("area") })) };
    case "after":
      return { kind, ms: pick(random, [500, 500, 2000]) };
    case "arrive":
      return { kind };
    case "depart":
      return {
        kind,
        ...maybe(random, 0.5, () => ({ by: [pick(random, ["back", "lead", "tab", "pick", "close", "link"]), "back"].slice(0, upTo(random, 1, 2)) })),
      };
    default:
      return { kind, element: element(chance(random, 0.3) ? "shared" : id) };
  }
}

function move(making: Making, source: Data, on: Data, onContainer: boolean): Data {
  const { random, screens, containers, broken } = making;
  const ids = (kind: string) => containers.filter((c) => c.kind === kind).map((c) => String(c.id));
  const some = (list: string[]) => (list.length > 0 && !(broken && chance(random, 0.06)) ? pick(random, list) : "nowhere");
  const aScreen = () => some(screens.map((s) => String(s.id)));
  const aPlace = () => (chance(random, 0.75) ? aScreen() : some(containers.filter((c) => c.kind !== "modal").map((c) => String(c.id))));
  const lanes = containers.filter((c) => c.kind === "tabs" || c.kind === "drawer").flatMap((c) => c.members as string[]);
  const pass = maybe(random, 0.6, () => ({ pass: passed(random, source, on, onContainer) }));
  const give = maybe(random, 0.6, () => ({ give: passed(random, source, on, onContainer) }));
  const within = maybe(random, 0.35, () => ({ in: chance(random, 0.4) ? "beneath" : some(ids("stack")) }));
  const tidy = maybe(random, 0.4, () => ({ tidy: pick(random, ["source", "stack"]) }));
  switch (
    pick(random, ["push", "push", "push", "push", "replace", "reset", "return", "open", "open", "close", "select", "menu", "back", "up", "leave", "proceed"])
  ) {
    case "push":
      return {
        kind: "push",
        to: aPlace(),
        ...pass,
        ...within,
        ...maybe(random, 0.6, () => ({ repeat: pick(random, ["copy", "stay", "stay", "rewind", "rewind"]) })),
        ...tidy,
      };
    case "replace":
      return { kind: "replace", to: aPlace(), ...pass };
    case "reset":
      return { kind: "reset", to: aPlace(), ...pass, ...within };
    case "return":
      return { kind: "return", to: aScreen(), ...pass, ...maybe(random, 0.7, () => ({ orElse: pick(random, ["push", "replace", "nothing"]) })), ...give };
    case "open":
      if (ids("modal").length === 0) return { kind: "back" };
      return {
        kind: "open",
        to: some(ids("modal")),
        ...maybe(random, 0.3, () => ({ show: aPlace() })),
        ...pass,
        ...maybe(random, 0.3, () => ({ instead: true })),
      };
    case "close":
      return { kind: "close", ...(ids("modal").length > 0 ? maybe(random, 0.4, () => ({ modal: some(ids("modal")) })) : {}), ...give };
    case "select":
      return { kind: "select", to: some(lanes), ...maybe(random, 0.4, () => ({ fresh: true })), ...tidy };
    case "menu": {
      const named = ids("drawer").length > 0 ? maybe(random, 0.4, () => ({ drawer: some(ids("drawer")) })) : {};
      return { kind: "menu", ...named, ...maybe(random, 0.5, () => ({ action: pick(random, ["open", "close", "toggle"]) })) };
    }
    case "up":
      return { kind: "up" };
    case "leave":
      return { kind: "leave", ...maybe(random, 0.5, () => ({ url: "https://example.com" })) };
    case "proceed":
      return { kind: "proceed" };
    default:
      return { kind: "back", ...give };
  }
}

/** Arguments from what the source has: its own parameters, the row, what is typed, neighbours, facts, literals. */
function passed(random: Random, source: Data, on: Data, onContainer: boolean): Record<string, string> {
  const own = onContainer ? [] : ((source.params ?? []) as Array<{ name: string }>).map((p) => p.name);
  const pages = !onContainer && source.pages !== undefined;
  const ids = [
    "'r1'",
    "'r3'",
    ...own.filter((n) => n === "id").map(() => "param.id"),
    ...(pages ? ["next.id", "prev.id", "has(next.id) ? next.id : 'r1'"] : []),
  ];
  if (on.element === "rows") ids.push("item.id", "item.id", "item.note + '!'");
  if (on.kind === "submit" && !onContainer) ids.push("field.name");
  const out: Record<string, string> = {};
  if (chance(random, 0.8)) out.id = pick(random, ids);
  if (chance(random, 0.3)) out.n = pick(random, ["1", "1 + 2", "-3", ...(on.element === "rows" ? ["item.rank"] : [])]);
  if (chance(random, 0.2)) out.flag = pick(random, ["true", "fact.f", "fact.g == 'one'"]);
  if (chance(random, 0.2) && on.element === "rows") out.row = "item";
  if (chance(random, 0.05)) out.extra = "'dropped'";
  return out;
}

function entrance(making: Making, id: string): Data {
  const { random, screens, containers, broken } = making;
  const to = broken && chance(random, 0.2) ? "nowhere" : String(pick(random, screens).id);
  const pattern = maybe(random, 0.7, () => ({ pattern: pick(random, [`/${id}/{id}`, `/${id}/{id}/{n}`, `/${id}`, `/${id}/{+rest}`]) }));
  return {
    id,
    name: id,
    kind: pick(random, ["link", "notification", "shortcut"]),
    ...pattern,
    to,
    ...("pattern" in pattern && String(pattern.pattern).includes("{id}") ? maybe(random, 0.5, () => ({ pass: { id: "link.id", n: "2" } })) : {}),
    ...maybe(random, 0.5, () => ({
      when: pick(random, CONDITIONS),
      ...maybe(random, 0.75, () => ({ otherwise: String(pick(random, [...screens, ...containers]).id), resume: chance(random, 0.6) })),
    })),
    warm: pick(random, ["rebuild", "onTop"]),
  };
}

/** The same document with nothing in it that rests on arguments, rows or typed text: all that a plain search meets can be known. */
export function withoutArguments(project: Project): Project {
  const rests = (text: string) => /\b(param|item|field|next|prev|link)\b/.test(text);
  return {
    ...project,
    screens: project.screens.map(({ pages: _, ...screen }) => ({ ...screen, params: [] })),
    legs: project.legs.map(({ when, ...leg }) => {
      const { pass: _pass, give, ...move } = (leg.move ?? {}) as { pass?: unknown; give?: Record<string, string> };
      const known = Object.keys(give ?? {}).map((name) => [name, "'r1'"]);
      const set = Object.fromEntries(Object.entries(leg.set ?? {}).filter(([, text]) => !rests(text)));
      return {
        ...leg,
        ...(leg.move ? { move: { ...move, ...(known.length > 0 ? { give: Object.fromEntries(known) } : {}) } as Leg["move"] } : {}),
        ...(leg.set && Object.keys(set).length > 0 ? { set } : { set: undefined }),
        ...(when === undefined || rests(when) ? {} : { when }),
      } as Leg;
    }),
    entrances: project.entrances.map(({ pass: _, ...entrance }) => ({ ...entrance, ...(entrance.when && rests(entrance.when) ? { when: "fact.f" } : {}) })),
  };
}

/** Every event that could be named, with rows, typed text and the variables of addresses. */
export function wholeEvents(project: Project): NavEvent[] {
  const rows: Json[] = ["r1", 2, ROWS[2] as Json, "no such row"];
  const fields: Array<Record<string, Json>> = [
    { name: "x", on: true },
    { name: "", on: false },
  ];
  return [
    ...project.legs.flatMap((one): NavEvent[] => {
      const event = { do: "leg", leg: one.id } as const;
      if ("element" in one.on && one.on.element === "rows") return rows.map((item) => ({ ...event, item: item as string }));
      return one.on.kind === "submit" ? [event, ...fields.map((typed) => ({ ...event, fields: typed }))] : [event];
    }),
    ...project.containers.flatMap((c) => c.members.map((to): NavEvent => ({ do: c.kind === "drawer" ? "pick" : "tab", to }))),
    { do: "lead" },
    { do: "back" },
    ...(["outside", "swipe", "button", "back"] as const).map((via): NavEvent => ({ do: "close", via })),
    ...project.entrances.flatMap((e): NavEvent[] =>
      [{ id: "r1", n: "2", rest: "a" }, { id: "r3", n: "x", rest: "a/b" }, undefined].flatMap((args) =>
        [false, true].map((cold): NavEvent => ({ do: "enter", entrance: e.id, ...(args ? { args } : {}), ...(cold ? { cold } : {}) })),
      ),
    ),
    { do: "launch" },
    ...[true, false].map((value): NavEvent => ({ do: "fact", fact: "o", value })),
    ...["red", "blue", "green"].map((value): NavEvent => ({ do: "fact", fact: "p", value })),
    ...(["narrow", "middle", "wide"] as const).map((to): NavEvent => ({ do: "width", to })),
  ];
}

/** A walk of some events from launch, of which most do something and some do not. */
export function randomWalk(project: Project, events: readonly NavEvent[], seed: number, length: number): NavEvent[] {
  const random = seeded(seed);
  const app = appOf(project);
  let state = launch(app);
  return Array.from({ length }, () => {
    let event = pick(random, events);
    if (chance(random, 0.8)) for (let tries = 0; tries < 12 && step(app, state, event).outcome === "ignored"; tries++) event = pick(random, events);
    state = step(app, state, event).state;
    return event;
  });
}

/** What of the model occurs in a document, once for each time: kinds, options and their values. */
export function featuresOf(project: Project): string[] {
  const options = (name: string, value: object): string[] =>
    Object.entries(value).flatMap(([key, inner]): string[] => {
      if (["id", "name", "from", "to", "start", "members", "label", "format", "element", "extra"].includes(key)) return [];
      if (typeof inner === "boolean" || (typeof inner === "string" && /^[a-zA-Z]+$/.test(inner) && !/^[scle]\d+$|^nowhere$/.test(inner)))
        return [`${name}.${key}=${inner}`];
      if (Array.isArray(inner)) return inner.length === 0 ? [] : [`${name}.${key}`];
      return typeof inner === "object" && inner !== null ? [`${name}.${key}`, ...(key === "bar" ? options("bar", inner) : [])] : [`${name}.${key}`];
    });
  return [
    ...project.containers.flatMap((c) => options(c.kind, c)),
    ...project.screens.flatMap((s) => options("screen", s)),
    ...project.legs.flatMap((l) => [...options("leg", l), ...options(`on ${l.on.kind}`, l.on), ...(l.move ? options(l.move.kind, l.move) : [])]),
    ...project.entrances.flatMap((e) => options("entrance", e)),
  ];
}
