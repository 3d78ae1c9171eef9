import type { Container, Element, Entrance, Leg, Move, Screen } from "../model/schema.ts";

/** The words between parentheses, as they are read and as they are told. One table a thing, so that the two cannot differ. */

export type Shape = Extract<Container, { kind: "modal" }>["shape"];

/** Where a modal of a shape comes from, unless something else is said. */
export function usualEdge(shape: Shape): Extract<Container, { kind: "modal" }>["edge"] {
  return shape === "sheet" || shape === "full" ? "bottom" : shape === "panel" ? "right" : "center";
}

/** What closes a new modal of a shape: what fills the screen has no outside. */
export function usualClosing(shape: Shape): Modal["closeOn"] {
  return shape === "full" ? ["swipe", "button", "back"] : ["outside", "swipe", "button", "back"];
}

/** Of a container: its kind, by the word that names it. */
export const CONTAINER_KINDS: Record<string, { kind: Container["kind"]; shape?: Shape }> = {
  stack: { kind: "stack" },
  tabs: { kind: "tabs" },
  drawer: { kind: "drawer" },
  modal: { kind: "modal", shape: "sheet" },
  sheet: { kind: "modal", shape: "sheet" },
  dialog: { kind: "modal", shape: "dialog" },
  "full screen": { kind: "modal", shape: "full" },
  panel: { kind: "modal", shape: "panel" },
};

/** A word that is either there or not. */
interface Flag<T> {
  word: string;
  has: (of: T) => boolean;
  set: (of: T) => T;
}
const flag = <T>(word: string, has: (of: T) => boolean, part: Partial<T>): Flag<T> => ({ word, has, set: (of) => ({ ...of, ...part }) });

/** A word with something behind it: `path /plots/{plotId}`. */
interface Said<T> {
  word: string;
  get: (of: T) => string | undefined;
  /** What is expected, where not everything can stand behind the word. */
  expects?: string;
  /** Undefined where the value says nothing. */
  set: (of: T, value: string) => T | undefined;
}
const said = <T>(word: string, get: (of: T) => string | undefined, set: (of: T, value: string) => T): Said<T> => ({ word, get, set });

export const SCREEN_FLAGS: ReadonlyArray<Flag<Screen>> = [
  flag<Screen>("hub", (s) => s.hub === true, { hub: true }),
  flag<Screen>("once", (s) => s.once === true, { once: true }),
  flag<Screen>("may repeat", (s) => s.mayRepeat === true, { mayRepeat: true }),
  flag<Screen>("covers tabs", (s) => s.coversTabs === true, { coversTabs: true }),
  flag<Screen>("planned", (s) => s.planned === true, { planned: true }),
  flag<Screen>("no up", (s) => s.up === "none", { up: "none" }),
];
export const SCREEN_SAID: ReadonlyArray<Said<Screen>> = [
  said<Screen>(
    "path",
    (s) => s.path,
    (s, path) => ({ ...s, path }),
  ),
  said<Screen>(
    "code",
    (s) => s.code,
    (s, code) => ({ ...s, code }),
  ),
  said<Screen>(
    "title",
    (s) => s.title,
    (s, title) => ({ ...s, title }),
  ),
  {
    word: "pages",
    expects: "pages plot by plotId, and along a field to order them",
    get: pagesText,
    set: (s, text) => {
      const pages = pagesOf(text);
      return pages && { ...s, pages };
    },
  },
];

/** `pages hive by hiveId along route`: previous and next over the rows of a record type. */
function pagesText({ pages }: Screen): string | undefined {
  return pages && `${pages.over} by ${pages.by}${pages.order === undefined ? "" : ` along ${pages.order}`}`;
}

function pagesOf(text: string): Screen["pages"] {
  const [, over, by, order] = /^(\w+) by (\w+)(?: along (\w+))?$/.exec(text) ?? [];
  return over === undefined || by === undefined ? undefined : { over, by, ...(order === undefined ? {} : { order }) };
}

type Barred = Pick<Screen, "bar">;
export const LEADS = ["back", "up", "menu", "none"] as const;
/** `no bar`, `lead menu`: of a screen or a container. */
export function barWord({ bar }: Barred): string | undefined {
  if (!bar) return undefined;
  return bar.show ? (bar.lead === "auto" ? "bar" : `lead ${bar.lead}`) : "no bar";
}
export function barOf(word: string): Screen["bar"] | undefined {
  if (word === "no bar") return { show: false, lead: "auto" };
  if (word === "bar") return { show: true, lead: "auto" };
  const lead = LEADS.find((one) => word === `lead ${one}`);
  return lead && { show: true, lead };
}

const ofKind = <K extends Container["kind"]>(kind: K, word: string, has: (of: Extract<Container, { kind: K }>) => boolean, part: object): Flag<Container> => ({
  word,
  has: (of) => of.kind === kind && has(of as Extract<Container, { kind: K }>),
  set: (of) => (of.kind === kind ? ({ ...of, ...part } as Container) : of),
});
type Modal = Extract<Container, { kind: "modal" }>;
const without = (way: Modal["closeOn"][number], word: string): Flag<Container> => ({
  word,
  has: (of) => of.kind === "modal" && !of.closeOn.includes(way),
  set: (of) => (of.kind === "modal" ? { ...of, closeOn: of.closeOn.filter((one) => one !== way) } : of),
});
/** What a container does otherwise than a new one of its kind. */
export const CONTAINER_FLAGS: ReadonlyArray<Flag<Container>> = [
  { word: "once", has: (of) => of.once === true, set: (of) => ({ ...of, once: true }) },
  ofKind("tabs", "at the top", (c) => c.edge === "top", { edge: "top" }),
  ofKind("tabs", "at the side", (c) => c.edge === "side", { edge: "side" }),
  ofKind("tabs", "at the top when wide", (c) => c.edgeWide === "top", { edgeWide: "top" }),
  ofKind("tabs", "at the side when wide", (c) => c.edgeWide === "side", { edgeWide: "side" }),
  ofKind("tabs", "at the bottom when wide", (c) => c.edgeWide === "bottom", { edgeWide: "bottom" }),
  ofKind("tabs", "Back leaves", (c) => c.onBack === "leave", { onBack: "leave" }),
  ofKind("tabs", "Back to the previous tab", (c) => c.onBack === "previous", { onBack: "previous" }),
  ofKind("tabs", "same tab does nothing", (c) => c.chosenAgain === "nothing", { chosenAgain: "nothing" }),
  ofKind("tabs", "forgets", (c) => !c.keeps, { keeps: false }),
  ofKind("tabs", "swipes", (c) => c.swipes === true, { swipes: true }),
  ofKind("drawer", "right", (c) => c.side === "right", { side: "right" }),
  ofKind("drawer", "pushes the page", (c) => !c.over, { over: false }),
  ofKind("drawer", "pinned from middle", (c) => c.pinnedFrom === "middle", { pinnedFrom: "middle" }),
  ofKind("drawer", "pinned when wide", (c) => c.pinnedFrom === "wide", { pinnedFrom: "wide" }),
  ofKind("drawer", "pinned at the top", (c) => c.pinnedAs === "top", { pinnedAs: "top" }),
  ofKind("drawer", "pinned at the side", (c) => c.pinnedAs === "side", { pinnedAs: "side" }),
  ofKind("drawer", "Back to the start", (c) => c.onBack === "start", { onBack: "start" }),
  ofKind("drawer", "forgets", (c) => !c.keeps, { keeps: false }),
  ofKind("modal", "does not block", (c) => !c.blocks, { blocks: false }),
  ofKind("modal", "does not dim", (c) => !c.dims, { dims: false }),
  { ...without("outside", "stays on a tap outside"), has: (of) => of.kind === "modal" && of.shape !== "full" && !of.closeOn.includes("outside") },
  {
    word: "a tap outside closes",
    has: (of) => of.kind === "modal" && of.shape === "full" && of.closeOn.includes("outside"),
    set: (of) => (of.kind === "modal" && !of.closeOn.includes("outside") ? { ...of, closeOn: ["outside", ...of.closeOn] } : of),
  },
  without("swipe", "no swipe closes"),
  without("button", "no × closes"),
  without("back", "Back does not close"),
];

export const ELEMENT_SAID: ReadonlyArray<Said<Element>> = [
  said<Element>(
    "of",
    (e) => e.of,
    (e, of) => ({ ...e, of }),
  ),
  said<Element>(
    "says",
    (e) => e.text,
    (e, text) => ({ ...e, text }),
  ),
  said<Element>(
    "shown if",
    (e) => e.shown,
    (e, shown) => ({ ...e, shown }),
  ),
  said<Element>(
    "enabled if",
    (e) => e.enabled,
    (e, enabled) => ({ ...e, enabled }),
  ),
];
export const ELEMENT_FLAGS: ReadonlyArray<Flag<Element>> = [
  flag<Element>("in bar", (e) => e.at === "bar", { at: "bar" }),
  flag<Element>("at foot", (e) => e.at === "foot", { at: "foot" }),
];

/** The words for a way that leads to a place, the trade's first; the others are read as well. */
export const WAYS: Record<"push" | "replace" | "reset" | "return" | "open" | "select", readonly string[]> = {
  push: ["push", "on top"],
  replace: ["replace", "instead of this"],
  reset: ["reset", "history anew", "clear history"],
  return: ["pop to", "back to", "back to it"],
  open: ["open", "modal", "sheet", "dialog", "full screen", "panel"],
  select: ["switch", "tab"],
};

/** Of a way that is named: it is in the innermost stack around where it starts, whatever people would mean there. */
export const AROUND = "in the stack around it";

/** What a move does otherwise than its kind does by itself. */
export const MOVE_FLAGS: ReadonlyArray<Flag<Move> & { with: string; names?: "return" | "open" | "select" }> = [
  {
    word: "beneath",
    with: "push or reset",
    has: (m: Move) => (m.kind === "push" || m.kind === "reset") && m.in === "beneath",
    set: (m: Move) => (m.kind === "push" || m.kind === "reset" ? { ...m, in: "beneath" } : m),
  },
  ...(["copy", "stay", "rewind"] as const).map((repeat) => ({
    with: "push",
    word: { copy: "again as a copy", stay: "stay if it shows", rewind: "rewind to it" }[repeat],
    has: (m: Move) => m.kind === "push" && m.repeat === repeat,
    set: (m: Move) => (m.kind === "push" ? { ...m, repeat } : m),
  })),
  ...(["source", "stack"] as const).map((tidy) => ({
    with: "push or switch",
    word: tidy === "source" ? "this goes" : "this stack goes",
    has: (m: Move) => (m.kind === "push" || m.kind === "select") && m.tidy === tidy,
    set: (m: Move) => (m.kind === "push" || m.kind === "select" ? { ...m, tidy } : m),
  })),
  ...(["push", "replace", "nothing"] as const).map((orElse) => ({
    with: "pop to",
    names: "return" as const,
    word: orElse === "nothing" ? "or nothing" : `or ${orElse}`,
    has: (m: Move) => m.kind === "return" && m.orElse === orElse,
    set: (m: Move) => (m.kind === "return" ? { ...m, orElse } : m),
  })),
  {
    word: "instead",
    with: "open",
    names: "open",
    has: (m: Move) => m.kind === "open" && m.instead === true,
    set: (m: Move) => (m.kind === "open" ? { ...m, instead: true } : m),
  },
  {
    word: "from its start",
    with: "switch",
    names: "select",
    has: (m: Move) => m.kind === "select" && m.fresh === true,
    set: (m: Move) => (m.kind === "select" ? { ...m, fresh: true } : m),
  },
];

export const LEG_FLAGS: ReadonlyArray<Flag<Leg>> = [
  flag<Leg>("resumes", (l) => l.resumes === true, { resumes: true }),
  flag<Leg>("planned", (l) => l.planned === true, { planned: true }),
];
export const LEG_SAID: ReadonlyArray<Said<Leg>> = [
  said<Leg>(
    "if",
    (l) => l.when,
    (l, when) => ({ ...l, when }),
  ),
  said<Leg>(
    "note",
    (l) => l.note,
    (l, note) => ({ ...l, note }),
  ),
];

export const WAY_IN_FLAGS: ReadonlyArray<Flag<Entrance>> = [
  flag<Entrance>("notification", (e) => e.kind === "notification", { kind: "notification" }),
  flag<Entrance>("shortcut", (e) => e.kind === "shortcut", { kind: "shortcut" }),
  flag<Entrance>("waits", (e) => e.resume === true, { resume: true }),
  flag<Entrance>("on top", (e) => e.warm === "onTop", { warm: "onTop" }),
];

/** `from the right`, `half high`: where a modal comes from and how much of the page it takes. */
export function modalPlace(word: string): Partial<Extract<Container, { kind: "modal" }>> | undefined {
  const [, edge] = /^from the (top|bottom|left|right|center)$/.exec(word) ?? [];
  if (edge !== undefined) return { edge: edge as "top" };
  const [, align] = /^aligned to the (start|center|end)$/.exec(word) ?? [];
  if (align !== undefined) return { align: align as "start" };
  const extent = { "as large as it needs": "fit", "half the page": "half", "most of the page": "most" }[word];
  return extent === undefined ? undefined : { extent: extent as "fit" };
}
