import type { Project } from "../model/schema.ts";
import type { Making } from "./making.ts";

/** A name that a pattern asks for. */
export interface Ask {
  id: string;
  /** Beside the field: `The button`. */
  label: string;
  /** What it says until somebody changes it; of several names, with commas between. */
  usual: string;
  /**
   * What the name is of: a new place (which nothing else may be called), several new places, what stands on an element, or the rows of a
   * list (a record type that is there, or a new one).
   */
  of: "place" | "places" | "label" | "rows";
}

/** A shape of navigation that can be put into a project at a place: a function from a few names and the place to edits. */
export interface Pattern {
  id: string;
  name: string;
  /** Whether an empty project offers it to begin with. */
  shape?: boolean;
  /** What people have then, in a sentence. */
  says: string;
  /** Everyday words by which it is found, too. */
  words: readonly string[];
  asks: readonly Ask[];
  /** Where it goes when this place is chosen, as `on “Plots”`; undefined where it cannot go. */
  where: (project: Project, place: string) => string | undefined;
  put: (making: Making) => void;
}
