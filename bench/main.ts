import { checkBench } from "./check.ts";
import { engineBench } from "./engine.ts";
import { followBench } from "./follow.ts";
import { mapBench } from "./map.ts";

/** Measures what is wanted of the core. `once` is the program of bench/once.ts. */
export function bench(wanted: (part: string) => boolean, once: string) {
  if (wanted("engine")) engineBench();
  if (wanted("follow")) followBench();
  if (wanted("map")) mapBench();
  if (wanted("check")) checkBench(once);
}
