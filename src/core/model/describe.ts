import { elementIdOf, elementOf, nameOf } from "./lookup.ts";
import type { Leg, Project } from "./schema.ts";

/** Where a leg starts, in words: `"Enter" on "Sign in"`, or its trigger. */
export function legStart(project: Project, leg: Leg): string {
  const element = elementIdOf(leg);
  const by = element === undefined ? triggerLabel(leg) : `"${elementOf(project, leg.from, element)?.label || element}"`;
  const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? ` (${leg.on.outcome})` : "";
  return `${by}${outcome} ${element === undefined ? "of" : "on"} "${nameOf(project, leg.from)}"`;
}

/** The trigger of a leg without an element, in words. */
export function triggerLabel(leg: Pick<Leg, "on">): string {
  const on = leg.on;
  switch (on.kind) {
    case "swipe":
      return `swipe ${on.to}`;
    case "after":
      return on.ms >= 1000 ? `after ${on.ms / 1000} s` : `after ${on.ms} ms`;
    case "arrive":
      return "on arriving";
    case "depart":
      return "on departing";
    case "tap":
    case "submit":
    case "hold":
      return on.kind;
  }
}
