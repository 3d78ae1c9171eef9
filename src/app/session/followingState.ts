import type { FollowReport } from "../../core/following/tally.ts";
import type { Project } from "../../core/model/schema.ts";

/** What is known of a running app. */
export interface FollowingState {
  /** The log that is followed: a file, or what a running app tells. */
  source: string | undefined;
  report: FollowReport | undefined;
  /** The run that was heard of last, and the screen that it shows. */
  run: string | undefined;
  now: string | undefined;
  /** Lines that could not be read, the first few. */
  unreadable: string[];
  /** Whether the walk goes where the app goes. */
  along: boolean;
  setAlong: (along: boolean) => void;
  /** Follows more of a log: lines as they were written. A new source starts over. */
  take: (source: string, lines: readonly string[]) => void;
  /** Follows the same log by another document. */
  again: (project: Project) => void;
}
