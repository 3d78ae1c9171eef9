/**
 * A short way to write the documents of the vectors. What it builds are whole, valid project
 * documents; `etape step` replays them like any other.
 *
 * A leg is one line: `ID FROM[:TRIGGER] MOVE [TARGET] [KEY=VALUE…]`. Without a trigger it is a
 * tap on a button of its own id. Keys: `if` is the condition, `set.FACT`, `pass.NAME` and `give.NAME` give
 * expressions, `resumes` marks it so; the others are the move's own.
 */
import { readProjectData } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";

type Data = Record<string, unknown>;
/** Members separated by spaces, the first the start; or these with settings. */
type Members = string | [string, Data];

export interface App {
  stacks?: Record<string, Members>;
  tabs?: Record<string, Members>;
  drawers?: Record<string, Members>;
  modals?: Record<string, Members>;
  screens?: Record<string, Data>;
  legs?: string[];
  facts?: Data[];
  types?: Data[];
  entrances?: Data[];
}

const DEFAULTS: Record<string, Data> = {
  stack: {},
  tabs: { edge: "bottom", onBack: "leave", chosenAgain: "root", keeps: true },
  drawer: { side: "left", over: true, pinnedFrom: "never", closeOn: ["outside", "back"], onBack: "leave", keeps: true },
  modal: { shape: "sheet", edge: "bottom", blocks: true, dims: true, closeOn: ["swipe", "back"] },
};

export function app(root: string, parts: App): Project {
  const kinds = { stack: parts.stacks, tabs: parts.tabs, drawer: parts.drawers, modal: parts.modals };
  const containers = Object.entries(kinds).flatMap(([kind, list]) => Object.entries(list ?? {}).map(([id, members]) => container(kind, id, members)));
  const known = new Set(containers.map((c) => c.id));
  const ids = new Set([root, ...containers.flatMap((c) => c.members as string[]), ...Object.keys(parts.screens ?? {})].filter((id) => !known.has(id)));
  const screens: Data[] = [...ids].map((id) => ({ id, name: id, params: [], up: "auto", elements: [], ...parts.screens?.[id] }));
  const legs = (parts.legs ?? []).map(leg);
  for (const one of legs) addElement([...screens, ...containers], one);
  const project = {
    format: "etape/1",
    name: root,
    root,
    facts: parts.facts ?? [],
    types: parts.types ?? [],
    containers,
    screens,
    legs,
    entrances: parts.entrances ?? [],
    walks: [],
  };
  const read = readProjectData(project);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.project;
}

function container(kind: string, id: string, given: Members): Data & { id: string } {
  const [list, settings] = typeof given === "string" ? [given, {}] : given;
  const members = list.split(" ").filter((m) => m !== "");
  return { id, kind, name: id, start: members[0] ?? "nothing", members, ...DEFAULTS[kind], ...settings };
}

const BOOLEANS = ["fresh", "instead"];

function leg(line: string): Data {
  const [id = "", source = "", kind, ...rest] = line.split(" ");
  const [from, trigger] = source.split(":");
  const out: Data = { id, from, on: triggerOf(trigger, id) };
  const move: Data = { kind };
  const pass: Data = {};
  const give: Data = {};
  const set: Data = {};
  for (const word of rest) {
    const at = word.search(/(?<![=!<>])=(?!=)/);
    const [key, value] = at < 0 ? [word, ""] : [word.slice(0, at), word.slice(at + 1)];
    if (at < 0 && key === "resumes") out.resumes = true;
    else if (at < 0) move[kind === "close" ? "modal" : kind === "menu" ? "drawer" : "to"] = key;
    else if (key === "if") out.when = value;
    else if (key.startsWith("set.")) set[key.slice(4)] = value;
    else if (key.startsWith("pass.")) pass[key.slice(5)] = value;
    else if (key.startsWith("give.")) give[key.slice(5)] = value;
    else move[key] = BOOLEANS.includes(key) ? value === "true" : value;
  }
  if (Object.keys(pass).length > 0) move.pass = pass;
  if (Object.keys(give).length > 0) move.give = give;
  if (kind !== "set") out.move = move;
  if (Object.keys(set).length > 0) out.set = set;
  return out;
}

function triggerOf(trigger: string | undefined, id: string): Data {
  const [name = "tap", inner] = (trigger ?? "tap").replace(")", "").split("(");
  switch (name) {
    case "after":
      return { kind: "after", ms: Number(inner) };
    case "arrive":
      return { kind: "arrive" };
    case "depart":
      return { kind: "depart", ...(inner === undefined ? {} : { by: inner.split("+") }) };
    case "swipe":
      return { kind: "swipe", to: inner };
    case "on":
      return { kind: "tap", element: inner };
    case "submit":
      return { kind: "submit", element: inner?.split("=")[0], ...(inner?.includes("=") ? { outcome: inner.split("=")[1] } : {}) };
    default:
      return { kind: name, element: id };
  }
}

/** Gives the leg's source the button that its trigger names, unless it has it. */
function addElement(places: Data[], one: Data) {
  const element = (one.on as { element?: string }).element;
  const place = places.find((p) => p.id === one.from);
  if (element === undefined || !place) return;
  const elements = (place.elements ?? []) as Array<{ id: string }>;
  if (!elements.some((e) => e.id === element)) place.elements = [...elements, { id: element, kind: "button", label: element }];
}
