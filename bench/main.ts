import { checkBench } from "./check.ts";
import { engineBench } from "./engine.ts";

/** Measures what is wanted of the core. */
export function bench(wanted: (part: string) => boolean) {
  if (wanted("engine")) engineBench();
  if (wanted("check")) checkBench();
}
