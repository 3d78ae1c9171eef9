import { checkBench } from "./check.ts";
import { engineBench } from "./engine.ts";

/** Measures what is wanted of the core. `once` is the program of bench/once.ts, `flags` are how the command line runs Node. */
export function bench(wanted: (part: string) => boolean, once: string, flags: readonly string[]) {
  if (wanted("engine")) engineBench();
  if (wanted("check")) checkBench(once, flags);
}
