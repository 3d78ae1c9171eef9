import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import { typedFields } from "../../insight/typed.ts";
import { lookup } from "../../model/lookup.ts";
import type { Json, NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { currentScreen } from "../../semantics/state.ts";
import { launch, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";
import { escaped } from "../../text/xml.ts";
import { tellingKey } from "./alike.ts";

/** States that a chart has at most. */
const MOST_STATES = 400;
/** Steps that are named one by one where they lead beyond the chart. */
const MOST_NAMED = 20;

/** The namespace of what a chart says beside the standard. */
export const CHART_NAMESPACE = "urn:etape:chart";

interface Chart {
  states: Array<{ id: string; line: string; steps: Array<{ event: string; to: number }> }>;
  /** Steps to states that are not in the chart any more. */
  beyond: string[];
  /** Events by which the app is left. */
  leaves: Set<string>;
}

/**
 * The app as a state chart (W3C SCXML 1.0, 2015): a state for each navigation state from launch, nearest
 * first, a transition for each event that moves. What a finite chart can not say is said at its head.
 */
export function scxml(project: Project): string {
  const { states, beyond, leaves } = chartOf(project);
  const lost = [
    "The arguments of screens tell its states apart only where something reads them, and the events carry none: a row is named in the event.",
    ...(leaves.size > 0 ? ["Leaving the app ends nothing here: the state stays, as it does for who comes back."] : []),
    ...(beyond.length > 0
      ? [
          `Stacks can be of any depth, a chart can not: it has the ${states.length} states nearest to launch, and ${beyond.length} steps that lead beyond them are left out.`,
          ...beyond.slice(0, MOST_NAMED).map((text) => `  ${text}`),
          ...(beyond.length > MOST_NAMED ? [`  and ${beyond.length - MOST_NAMED} more`] : []),
        ]
      : []),
  ];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<!-- Made by Etape from "${comment(project.name)}". Do not edit: change the design and make this file again.`,
    "     What is not said here:",
    ...lost.map((text) => `     ${comment(text)}`),
    "-->",
    `<scxml xmlns="http://www.w3.org/2005/07/scxml" xmlns:etape="${CHART_NAMESPACE}" version="1.0" name="${escaped(project.name)}" datamodel="null" initial="${states[0]?.id}">`,
    ...states.flatMap(({ id, line, steps }) => [
      `  <state id="${id}" etape:line="${escaped(line)}">`,
      ...steps.map(({ event, to }) => `    <transition event="${event}" target="${states[to]?.id}"/>`),
      "  </state>",
    ]),
    "</scxml>",
    "",
  ].join("\n");
}

function chartOf(project: Project): Chart {
  const first = launch(appOf(project));
  const known = new Map([[tellingKey(project, first), 0]]);
  const queue: State[] = [first];
  const named = new Map<string, number>();
  /** A state by the name of its screen; others in which the same screen shows are counted. */
  const made = (state: State) => {
    const screen = currentScreen(state).at;
    const count = (named.get(screen) ?? 0) + 1;
    named.set(screen, count);
    return { id: count === 1 ? screen : `${screen}-${count}`, line: stateLine(planOf(project), state), steps: [] };
  };
  const chart: Chart = { states: [made(first)], beyond: [], leaves: new Set() };
  for (let at = 0; at < queue.length; at++) {
    const state = queue[at] as State;
    for (const event of eventsIn(project, state)) {
      const result = step(appOf(project), state, event);
      const name = eventName(event);
      if (result.outcome === "left") chart.leaves.add(name);
      if (result.outcome !== "moved") continue;
      const key = tellingKey(project, result.state);
      let to = known.get(key);
      if (to === undefined && queue.length < MOST_STATES) {
        to = queue.length;
        known.set(key, to);
        queue.push(result.state);
        chart.states.push(made(result.state));
      }
      if (to === undefined) chart.beyond.push(`${name} from ${chart.states[at]?.line}`);
      else if (!chart.states[at]?.steps.some((one) => one.event === name)) chart.states[at]?.steps.push({ event: name, to });
    }
  }
  return chart;
}

/** What can happen in a state; where something is typed, as one would type it and then without. */
function eventsIn(project: Project, state: State): NavEvent[] {
  return candidateEvents(project, state).flatMap((event): NavEvent[] => {
    const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
    if (!leg || event.do !== "leg") return [event];
    return typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event));
  });
}

/** An event as a chart names it: what is done, of what, with which row or value: `leg.toHive.larkfoot`, `tab.rota`, `enter.alert.cold`. */
export function eventName(event: NavEvent): string {
  switch (event.do) {
    case "leg":
      return ["leg", event.leg, ...(event.item === undefined ? [] : [word(event.item)])].join(".");
    case "tab":
    case "pick":
      return `${event.do}.${event.to}`;
    case "close":
      return `close.${event.via}`;
    case "enter":
      return `enter.${event.entrance}.${event.cold ? "cold" : "warm"}`;
    case "fact":
      return `fact.${event.fact}.${word(event.value)}`;
    case "width":
      return `width.${event.to}`;
    case "lead":
    case "back":
    case "launch":
      return event.do;
  }
}

/** A value as part of an event's name, which has no spaces and no dots. */
function word(value: Json): string {
  return (typeof value === "string" ? value : JSON.stringify(value)).replace(/[^A-Za-z0-9]/g, (c) => `_${c.charCodeAt(0).toString(16)}`);
}

/** Text within a comment: two hyphens would end it. */
function comment(text: string): string {
  return escaped(text.replace(/[\r\n]+/g, " "))
    .replaceAll("&quot;", '"')
    .replaceAll("--", "- -");
}
