import { expose } from "comlink";
import { check } from "../../core/check/check.ts";
import { wayTo } from "../../core/check/way.ts";
import { type Checked, type HandedFile, targetOf } from "../../core/handoff/target.ts";
import { readProjectData } from "../../core/model/read.ts";
import type { NavEvent } from "../../core/model/schema.ts";
import { type PlainResult, plain } from "./plain.ts";

/** Checks a document off the main thread. Fixes are functions, so the page works them out anew. */
const api = {
  /** `progress` is told now and then how many states were looked at. */
  check(data: unknown, progress?: (states: number) => void): PlainResult | undefined {
    const result = readProjectData(data);
    return result.ok ? plain(check(result.project, { stop: counting(progress) })) : undefined;
  },
  wayTo(data: unknown, screen: string): NavEvent[] | undefined {
    const result = readProjectData(data);
    return result.ok ? wayTo(result.project, screen) : undefined;
  },
  /** The files of some hand-offs, in the order of the targets named. */
  handOff(data: unknown, targets: string[], checked: Checked): HandedFile[] {
    const result = readProjectData(data);
    return result.ok ? targets.flatMap((id) => targetOf(id)?.files(result.project, checked) ?? []) : [];
  },
};
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
