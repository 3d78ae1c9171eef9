import { readProjectData } from "../src/core/model/read.ts";
import type { Project } from "../src/core/model/schema.ts";
import { seeded } from "../test/random/documents.ts";

type Data = Record<string, unknown>;

/** What an app as people build them is put together from. */
interface Making {
  random: () => number;
  screens: Data[];
  containers: Data[];
  legs: Data[];
  facts: Data[];
}

/**
 * An app as people build them, of about so many screens: a sign-in before five tabs in a drawer, features of lists, details that lead
 * to similar ones, edits in a modal of two steps of which some ask about unsaved changes, settings with sign-out, a way in that waits
 * for the sign-in, and calls from one feature into another.
 */
export function builtApp(count: number, seed = 1): Project {
  const making: Making = { random: seeded(seed), screens: [], containers: [], legs: [], facts: [] };
  making.facts.push({ id: "signedIn", type: "boolean", initial: false, source: "app", persists: true });
  const lanes = Array.from({ length: 5 }, (_, i) => `tab${i}`);
  const members: Record<string, string[]> = Object.fromEntries(lanes.map((lane) => [lane, []]));
  screen(making, "signIn", { hub: false });
  tap(making, "signIn", "enter", { kind: "replace", to: "menu" }, { set: { signedIn: "true" }, resumes: true });
  const lists: Array<{ lane: string; list: string; detail: string }> = [];
  for (let i = 0; making.screens.length < count - 3 || lists.length < lanes.length; i++) {
    const lane = lanes[i % lanes.length] as string;
    const made = feature(making, i, i < 2 || making.random() < 0.1);
    members[lane]?.push(made.list, made.detail);
    lists.push({ lane, ...made });
  }
  // From the first list of a tab to the others, and from a detail into another feature.
  lists.forEach(({ lane, list, detail }, i) => {
    const first = lists.find((other) => other.lane === lane)?.list;
    if (first && first !== list) tap(making, first, `to${i}`, { kind: "push", to: list });
    const other = lists[Math.floor(making.random() * lists.length)];
    if (other && other.lane !== lane && making.random() < 0.3)
      tap(making, detail, `call${i}`, { kind: "push", to: other.detail, in: other.lane, pass: { id: "param.id" } });
  });
  screen(making, "settings", {});
  screen(making, "about", {});
  tap(making, "settings", "about", { kind: "push", to: "about" });
  tap(making, "settings", "out", { kind: "reset", to: "signIn", in: "root" }, { set: { signedIn: "false" } });
  for (const lane of lanes) container(making, "stack", lane, members[lane] ?? []);
  container(making, "tabs", "tabs", lanes, { edge: "bottom", onBack: "start", chosenAgain: "root", keeps: true });
  container(making, "stack", "more", ["settings", "about"]);
  container(making, "drawer", "menu", ["tabs", "more"], {
    side: "left",
    over: true,
    pinnedFrom: "never",
    closeOn: ["outside", "back"],
    onBack: "start",
    keeps: true,
    bar: { show: true, lead: "auto" },
  });
  container(making, "stack", "root", ["signIn", "menu"]);
  for (const lane of lanes) bar(making, members[lane]?.[0]);
  bar(making, "settings");
  const target = lists[0]?.detail ?? "";
  const data = {
    format: "etape/1",
    name: `Built ${count}`,
    root: "root",
    facts: making.facts,
    types: [],
    containers: making.containers,
    screens: making.screens,
    legs: making.legs,
    entrances: [
      {
        id: "shared",
        name: "Shared",
        kind: "link",
        pattern: "/shared/{id}",
        to: target,
        when: "fact.signedIn",
        otherwise: "signIn",
        resume: true,
        warm: "rebuild",
      },
    ],
    walks: [],
  };
  const read = readProjectData(data);
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  return read.project;
}

/** A list, its details, which lead to similar ones, and an edit in a modal of two steps. */
function feature(making: Making, i: number, asks: boolean): { list: string; detail: string } {
  const [list, detail, edit, review] = [`list${i}`, `detail${i}`, `edit${i}`, `review${i}`];
  const params = { params: [{ name: "id", type: "text", required: true }] };
  screen(making, list, {});
  screen(making, detail, { ...params, mayRepeat: true });
  screen(making, edit, {});
  screen(making, review, {});
  tap(making, list, "open", { kind: "push", to: detail, pass: { id: "'x'" } });
  if (making.random() < 0.6) tap(making, detail, "similar", { kind: "push", to: detail, pass: { id: "'y'" } });
  const [modal, flow] = [`sheet${i}`, `flow${i}`];
  container(making, "stack", flow, [edit, review]);
  container(making, "modal", modal, [flow], { shape: "sheet", edge: "bottom", blocks: true, dims: true, closeOn: ["swipe", "back", "button"] });
  tap(making, detail, "edit", { kind: "open", to: modal });
  tap(making, edit, "next", { kind: "push", to: review });
  tap(making, review, "save", { kind: "close", modal }, asks ? { set: { [`dirty${i}`]: "false" } } : {});
  if (!asks) return { list, detail };
  making.facts.push({ id: `dirty${i}`, type: "boolean", initial: false, source: "app" });
  const [ask, sure] = [`ask${i}`, `sure${i}`];
  screen(making, sure, {});
  container(making, "modal", ask, [sure], { shape: "dialog", edge: "center", blocks: true, dims: true, closeOn: ["outside", "back"] });
  making.legs.push({ id: `${edit}Change`, from: edit, on: { kind: "tap", element: "change" }, set: { [`dirty${i}`]: "true" } });
  element(making, edit, "change");
  making.legs.push({ id: `${edit}Leaves`, from: flow, on: { kind: "depart" }, when: `fact.dirty${i}`, move: { kind: "open", to: ask } });
  tap(making, sure, "discard", { kind: "proceed" }, { set: { [`dirty${i}`]: "false" } });
  tap(making, sure, "stay", { kind: "close", modal: ask });
  return { list, detail };
}

function screen({ screens }: Making, id: string, more: Data) {
  screens.push({ id, name: id, params: [], up: "auto", elements: [], ...more });
}

function container({ containers }: Making, kind: string, id: string, members: string[], more: Data = {}) {
  containers.push({ kind, id, name: id, start: members[0], members, ...more });
}

function element({ screens }: Making, place: string, id: string) {
  const found = screens.find((one) => one.id === place);
  (found?.elements as Data[] | undefined)?.push({ id, kind: "button", label: id });
}

function tap(making: Making, from: string, id: string, move: Data, more: Data = {}) {
  element(making, from, id);
  making.legs.push({ id: `${from}${id.charAt(0).toUpperCase()}${id.slice(1)}`, from, on: { kind: "tap", element: id }, move, ...more });
}

/** The menu in the bar of a screen. */
function bar({ screens }: Making, id: string | undefined) {
  const found = screens.find((one) => one.id === id);
  if (found) found.bar = { show: true, lead: "menu" };
}
