import { expose } from "comlink";
import { check } from "../../core/check/check.ts";
import { wayTo } from "../../core/check/counterexample/wayTo.ts";
import type { Checked, HandedFile } from "../../core/handoff/handed.ts";
import { targetOf } from "../../core/handoff/target.ts";
import type { NavEvent, Project } from "../../core/model/schema.ts";
import { type Patch, patched } from "./patch.ts";
import { type PlainResult, plain } from "./plain.ts";

/** Checks a document off the main thread: one that the page has read, as it is. Fixes are functions, so the page works them out anew. */
const api = {
  /** `progress` is told now and then how many states were looked at. */
  check(project: Project, progress?: (states: number) => void): PlainResult {
    last = project;
    return plain(check(project, { stop: counting(progress), fixes: false }));
  },
  /** Checks what a patch makes of the project that was checked last. */
  checkNext(patch: Patch, progress?: (states: number) => void): PlainResult {
    if (!last) throw new Error("A patch needs a project that was checked before.");
    return api.check(patched(last, patch), progress);
  },
  wayTo(project: Project, screen: string): NavEvent[] | undefined {
    return wayTo(project, screen);
  },
  /** The files of some hand-offs, in the order of the targets named. */
  handOff(project: Project, targets: string[], checked: Checked): HandedFile[] {
    return targets.flatMap((id) => targetOf(id)?.files(project, checked) ?? []);
  },
};
let last: Project | undefined;

/** Milliseconds between two reports of progress. */
const REPORT = 200;

/** Is asked once for each state, never says stop, and tells how often it was asked. */
function counting(progress: ((states: number) => void) | undefined): () => boolean {
  let states = 0;
  let told = performance.now();
  return () => {
    states += 1;
    if (progress && states % 64 === 0 && performance.now() - told > REPORT) {
      told = performance.now();
      progress(states);
    }
    return false;
  };
}
export type CheckApi = typeof api;
expose(api);
