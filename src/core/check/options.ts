import type { PictureFiles } from "../model/pictures.ts";
import type { Exploration } from "./system/exploration.ts";

/** Taps from launch beyond which a screen counts as far, unless another limit is set. */
export const FAR = 5;

export interface CheckOptions {
  /** The files of the pictures that are there; where it is left out, nothing is said of files. */
  pictures?: PictureFiles;
  /** States to look at in each class of widths. */
  states?: number;
  /** Asked now and then; true ends the search, and the proof says that it is not complete. */
  stop?: () => boolean;
  /** Taps from launch beyond which a screen is far; 5 where it is left out. */
  far?: number;
  /** Told of each look at the project: its precision, states, findings, what it leaves unsure, and milliseconds. */
  trace?: (line: string) => void;
  /** Shown the searches that the findings come from. */
  explored?: (explorations: readonly Exploration[]) => void;
  /** Whether repairs are worked out; they are where it is left out. Who sends findings elsewhere has no use for them. */
  fixes?: boolean;
}
