import { elementIdOf, elementOf, lookup, nameOf } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import type { Refusal } from "../plan/data.ts";
import { planOf } from "../plan/planOf.ts";
import { branchesInReach, isSource } from "../semantics/reach.ts";
import { currentScreen } from "../semantics/state.ts";
import type { Outcome, State } from "../semantics/types.ts";
import { appOf } from "./app.ts";

const REFUSALS: Record<Refusal, string> = {
  "no-stack": "it goes on top, but there is no stack around it to go onto",
  "not-showing": "the container that it needs is nowhere on screen or beneath",
  "no-place": "it names a place that is not there or is of the wrong kind",
  "no-value": "something that it must pass or set has no value here",
  "inside-itself": "a container would come to stand inside itself",
  "not-allowed": "the way in is not open now, and nothing else is named instead",
  "redirect-loop": "arriving leads from screen to screen without end",
};

/** One sentence on what came of an event: why nothing happened, or that it did. */
export function explain(project: Project, before: State, event: NavEvent, result: Outcome): string {
  switch (result.outcome) {
    case "moved":
      return "It moved.";
    case "left":
      return "The app was left.";
    case "refused":
      return `The design makes it impossible: ${REFUSALS[result.why]}.`;
    case "ignored":
      return result.why === "nothing-to-do" ? "There is nothing that it would change." : ignoredText(project, before, event);
  }
}

function ignoredText(project: Project, state: State, event: NavEvent): string {
  const screen = `"${nameOf(project, currentScreen(state).at)}"`;
  switch (event.do) {
    case "leg":
      return legText(project, state, event.leg, screen);
    case "tab":
      return `No tab "${nameOf(project, event.to)}" can be used on ${screen}.`;
    case "pick":
      return `"${nameOf(project, event.to)}" is in no drawer that is open or pinned on ${screen}.`;
    case "lead":
      return `The bar of ${screen} shows nothing at its start.`;
    case "close":
      return `Nothing on top closes by ${event.via}.`;
    case "enter":
      return `There is no way in "${event.entrance}".`;
    case "fact":
      return `"${event.fact}" is no fact from outside with that value.`;
    case "back":
    case "launch":
    case "width":
      return "There is nothing that it would change.";
  }
}

function legText(project: Project, state: State, legId: string, screen: string): string {
  const leg = lookup(project).legs.get(legId);
  if (!leg) return `There is no leg "${legId}".`;
  if (!branchesInReach(appOf(project), state).some((branch) => isSource(appOf(project), state, branch, leg.from)))
    return `The leg starts from "${nameOf(project, leg.from)}", which is not in reach on ${screen}.`;
  const element = elementIdOf(leg);
  if (element !== undefined && !elementOf(project, leg.from, element)) return `The element "${element}" that the leg starts at is not there.`;
  if (planOf(project).legs.get(legId)?.never) return "An expression of the leg is not well typed, so it never fires.";
  return "Its condition does not hold, its element can not be used, or an earlier leg comes first.";
}

/** An event in a few words: `tap Hive row`, `tab Rota`, `Back`. */
export function eventText(project: Project, event: NavEvent): string {
  switch (event.do) {
    case "leg":
      return legEventText(project, event);
    case "tab":
      return `tab ${nameOf(project, event.to)}`;
    case "pick":
      return `pick ${nameOf(project, event.to)}`;
    case "lead":
      return "lead";
    case "close":
      return `close by ${event.via}`;
    case "back":
      return "Back";
    case "enter":
      return `${event.cold ? "cold " : ""}way in ${nameOf(project, event.entrance)}`;
    case "launch":
      return "launch again";
    case "fact":
      return `${lookup(project).facts.get(event.fact)?.name ?? event.fact} becomes ${String(event.value)}`;
    case "width":
      return `width ${event.to}`;
  }
}

function legEventText(project: Project, event: Extract<NavEvent, { do: "leg" }>): string {
  const leg = lookup(project).legs.get(event.leg);
  if (!leg) return `leg ${event.leg}`;
  const on = leg.on;
  const row = event.item === undefined ? "" : ` ${typeof event.item === "object" ? String(Object.values(event.item)[0]) : String(event.item)}`;
  const element = elementIdOf(leg);
  const label = element === undefined ? "" : ` ${elementOf(project, leg.from, element)?.label || element}`;
  switch (on.kind) {
    case "tap":
    case "submit":
    case "hold":
      return `${on.kind}${label}${row}${on.outcome === undefined ? "" : ` (${on.outcome})`}`;
    case "swipe":
      return `swipe ${on.to}${label}${row}`;
    case "after":
      return `wait ${on.ms} ms`;
    case "arrive":
    case "depart":
      return on.kind;
  }
}
