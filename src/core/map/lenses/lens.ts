import type { Project } from "../../model/schema.ts";
import type { LensTone, Severity } from "../draw/look.ts";

/** A lens, and what it was asked: where reach is counted from or to, what a change is against, which value is followed. */
export type LensChoice =
  | { lens: "findings" }
  /** Taps from launch; from where a place first shows; or back to a screen. */
  | { lens: "reach"; from?: string; to?: string }
  | { lens: "walked"; tests?: boolean }
  | { lens: "changed"; against: string }
  | { lens: "data"; screen?: string; param?: string }
  | { lens: "followed" };

export type LensId = LensChoice["lens"];

/** What a lens needs that is not in the document. */
export interface LensGiven {
  /** What the checker found. */
  findings?: ReadonlyArray<{ severity: Severity; subjects: readonly string[]; message: string; open?: boolean | undefined }>;
  /** The older document, what it is called, and which findings came and went since. */
  older?: { project: Project; name: string; came?: readonly string[]; went?: readonly string[] };
  /** Further walks that count as walked: those of the generated tests. */
  walks?: ReadonlyArray<{ events: Project["walks"][number]["events"] }>;
  /** What the log of a running app came to. */
  log?: FollowedLog;
}

/** What a log came to, as far as the map shows it: how often each screen showed and each leg was used, where it departs, where the app is now. */
export interface FollowedLog {
  entries: number;
  screens: Readonly<Record<string, number>>;
  legs: Readonly<Record<string, number>>;
  departures: ReadonlyArray<{ sentence: string; from: readonly string[]; count: number }>;
  now?: string | undefined;
}

/** What a lens shows of a place: a ground, a few signs on the map, and a sentence. */
export interface Seen {
  tone: LensTone;
  says: string;
  long: string;
}

/** A question asked of the whole map, and its answer. */
export interface LensView {
  id: LensId;
  /** The question in words, with what was chosen. */
  question: string;
  /** By screen or container. */
  places: ReadonlyMap<string, Seen>;
  legend: ReadonlyArray<{ tone: LensTone; says: string; count: number }>;
  /** What stands out most, each as a sentence. */
  extremes: readonly string[];
  /** What to look at, the most telling first. */
  list: ReadonlyArray<{ place?: string; says: string; note: string }>;
  /** How many have which value, where that tells something. */
  chart?: { title: string; labels: readonly string[]; counts: readonly number[] };
}

/** What a lens answers; each is a file, and a line in the table and in the list of names. */
export type LensViewer = (project: Project, choice: LensChoice, given: LensGiven) => LensView;

export const counted = (count: number, what: string, many = `${what}s`): string => `${count} ${count === 1 ? what : many}`;
