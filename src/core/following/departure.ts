import { eventText, explain } from "../insight/explain.ts";
import { valueText } from "../insight/text.ts";
import { nameOf } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { sameValue } from "../plan/expression.ts";
import { stateLine } from "../semantics/line.ts";
import { currentScreen } from "../semantics/state.ts";
import { step } from "../semantics/step.ts";
import type { App, State } from "../semantics/types.ts";
import type { Entry } from "./entry.ts";
import { meantBy } from "./screens.ts";
import { beginnings } from "./start.ts";
import { anyWays } from "./ways.ts";

/** How an app departs: it shows what the design does not have, uses a control that is not there, or shows another screen, other arguments, or the same over another stack. */
export type DepartureKind = "unknown-screen" | "no-control" | "other-screen" | "other-arguments" | "other-stack";

/** Where a running app did what the design does not allow. */
export interface Departure {
  readonly is: DepartureKind;
  /** One sentence or two: where, what it did, and what the design does. */
  readonly sentence: string;
  /** The event in words, where the log tells it. */
  readonly did: string | undefined;
  /** The screens on which the app may have been. */
  readonly from: readonly string[];
  /** What showed then, as the log names it. */
  readonly shows: string | undefined;
  /** What was possible there: events in words, with the screen that each leads to. */
  readonly possible: ReadonlyArray<{ readonly by: string; readonly to: string }>;
}

/** Ways that are named in a sentence, at most, and that are listed. */
const NAMED = 3;
const LISTED = 40;
/** States that are asked what was possible in them. */
const ASKED = 8;

/** Tells a departure. `before` are the states in which the app may have been. */
export function departureOf(project: Project, app: App, entry: Entry, before: readonly State[]): Departure {
  const name = (id: string) => `“${nameOf(project, id)}”`;
  const from = [...new Set(before.map((state) => currentScreen(state).at))];
  const where = from.slice(0, NAMED).map(name).join(" or ");
  const did = entry.event ? eventText(project, entry.event) : entry.used === undefined ? undefined : `use of “${entry.used}”`;
  const possible = possibleFrom(project, app, before);
  const common = { did, from, shows: entry.shows, possible };
  const begun = did === undefined ? (where === "" ? "At its start" : `From ${where}`) : `After ${did}${where === "" ? "" : ` on ${where}`}`;
  const meant = entry.shows === undefined ? undefined : meantBy(project, entry.shows);
  const showed = entry.shows === undefined ? "" : meant && meant.screens.size > 0 ? [...meant.screens].map(name).join(" or ") : `“${entry.shows}”`;
  if (meant && meant.screens.size === 0)
    return { ...common, is: "unknown-screen", sentence: `${begun} the app showed ${showed}, which is no screen of the design.` };
  if (entry.event && before.length > 0) {
    const after = before.map((state) => step(app, state, entry.event as NavEvent));
    const near = after.find(({ state }) => !meant || meant.screens.has(currentScreen(state).at));
    if (near && (meant || entry.line !== undefined)) return { ...common, ...sameScreen(app, entry, near.state, begun, name) };
    const first = after[0];
    const why = first && before[0] && first.outcome !== "moved" ? explain(project, before[0], entry.event, first) : "";
    if (!meant) return { ...common, is: "no-control", sentence: `${capital(did ?? "")} on ${where} is not in the design. ${why}` };
    const expected = [...new Set(after.flatMap(({ state, outcome }) => (outcome === "moved" ? [currentScreen(state).at] : [])))];
    const design = expected.length > 0 ? `the design shows ${expected.slice(0, NAMED).map(name).join(" or ")}.` : `by the design nothing happens. ${why}`;
    return { ...common, is: "other-screen", sentence: `${begun} the app showed ${showed}; ${design}${byOthers(possible, meant.screens, showed)}` };
  }
  if (entry.event?.do === "launch" && before.length === 0) {
    const starts = [...new Set(beginnings(app, entry).map((state) => currentScreen(state).at))];
    const shown = showed === "" ? (entry.line ?? "something else") : showed;
    return {
      ...common,
      is: "other-screen",
      sentence: `At its launch the app showed ${shown}; the design shows ${starts.slice(0, NAMED).map(name).join(" or ")}.`,
    };
  }
  if (!meant && entry.line === undefined) return { ...common, is: "no-control", sentence: `${begun}: there is no such control there in the design.` };
  const onlyOver = !meant || possible.some(({ to }) => meant.screens.has(to)) || from.some((id) => meant.screens.has(id));
  if (onlyOver) {
    const told = entry.args && Object.keys(entry.args).length > 0 ? ` with ${valueText(entry.args)}` : "";
    const line = entry.line === undefined ? "" : ` (${entry.line})`;
    return {
      ...common,
      is: line === "" ? "other-arguments" : "other-stack",
      sentence: `${begun} the app showed ${showed || "a state"}${line}${told}; nothing that can be done there shows it so.`,
    };
  }
  const open = possible.slice(0, NAMED).map(({ by, to }) => `${name(to)} (${by})`);
  const could = open.length > 0 ? ` There it can go to ${open.join(", ")}${possible.length > NAMED ? " and others" : ""}.` : "";
  return { ...common, is: "other-screen", sentence: `${begun} the app went to ${showed}; nothing that can be done there leads to it.${could}` };
}

function sameScreen(app: App, entry: Entry, state: State, begun: string, name: (id: string) => string): Pick<Departure, "is" | "sentence"> {
  const line = stateLine(app.plan, state);
  const screen = currentScreen(state);
  const showed = `${begun} the app showed ${name(screen.at)}`;
  if (entry.line !== undefined && line !== entry.line)
    return { is: "other-stack", sentence: `${showed} over other places: the design has ${line}, the app ${entry.line}.` };
  const wrong = Object.entries(entry.args ?? {}).find(([param, value]) => value !== null && !sameValue(value, screen.args[param]));
  const [param, value] = wrong ?? ["", null];
  const design = screen.args[param];
  const passed = design === undefined ? "the design passes nothing for it" : `the design passes ${valueText(design)}`;
  return { is: "other-arguments", sentence: `${showed} with ${param} ${valueText(value)}; ${passed}.` };
}

function possibleFrom(project: Project, app: App, before: readonly State[]): Departure["possible"] {
  const out = new Map<string, { by: string; to: string }>();
  for (const state of before.slice(0, ASKED))
    for (const way of anyWays(project, app, state)) {
      if (way.event.do === "fact" || way.event.do === "width" || way.event.do === "launch") continue;
      const result = step(way.app, state, way.event);
      if (result.outcome !== "moved") continue;
      const by = eventText(project, plain(way.event));
      const to = currentScreen(result.state).at;
      if (out.size < LISTED) out.set(`${by} ${to}`, { by, to });
    }
  return [...out.values()];
}

/** An event without the row or what was typed: what it leads to is the same for all of them, as far as a sentence says. */
function plain(event: NavEvent): NavEvent {
  return event.do === "leg" ? { do: "leg", leg: event.leg } : event;
}

function byOthers(possible: Departure["possible"], screens: ReadonlySet<string>, showed: string): string {
  const ways = possible.filter(({ to }) => screens.has(to)).map(({ by }) => by);
  return ways.length === 0 ? "" : ` It goes to ${showed} by ${ways.slice(0, NAMED).join(", or by ")}.`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
