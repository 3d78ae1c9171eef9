import { handingBack } from "./handing.ts";
import { drawers, tabSets } from "./lanes.ts";
import { departing, layers } from "./layers.ts";
import { arriving, entrances, facts, firing } from "./outside.ts";
import { back, making, push, replaceAndReset, returning } from "./stacks.ts";
import { lead, up } from "./upwards.ts";
import type { Vector } from "./vector.ts";

/** All vectors by the rule that they belong to. They decide disputes. */
export const VECTORS: Record<string, Vector[]> = {
  Make: making,
  push,
  "replace and reset": replaceAndReset,
  return: returning,
  back,
  "tabs and select": tabSets,
  "drawers and menu": drawers,
  "open and close": layers,
  give: handingBack,
  departing,
  "the bar's lead": lead,
  up,
  enter: entrances,
  "facts, launch and width": facts,
  "which legs fire": firing,
  arriving,
};
