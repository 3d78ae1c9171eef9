import type { Project } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import type { Hands } from "./useHands.ts";

/** What every part of the drawn device is about: one branch of a state, and the hands that use it. */
export interface Within {
  project: Project;
  state: State;
  branch: number;
  hands: Hands;
}
