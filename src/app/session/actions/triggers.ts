import type { PlaceTrigger } from "../../../core/model/edits/link.ts";

export type TriggerKind = PlaceTrigger["kind"];

/** Milliseconds after which a screen leads on by itself, where nothing else is said. */
export const USUAL_WAIT = 1000;

/** A trigger of a kind, as it is at first. */
export function triggerOf(kind: TriggerKind): PlaceTrigger {
  switch (kind) {
    case "swipe":
      return { kind, to: "left" };
    case "after":
      return { kind, ms: USUAL_WAIT };
    case "arrive":
    case "depart":
      return { kind };
  }
}
