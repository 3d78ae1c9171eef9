// How Node runs our short programs.
import { setFlagsFromString } from "node:v8";

/**
 * Node optimizes what runs often, which pays in programs that run long. A check is over in a second, half of which would go
 * into that. So code is compiled quickly at first, and optimized only once it has run some fifteen times as much as usual.
 */
export const SHORT_RUN_FLAGS = ["--always-sparkplug", "--interrupt-budget=1000000"];

/** To be called before the program is loaded. */
export function tuneForShortRuns() {
  for (const flag of SHORT_RUN_FLAGS) setFlagsFromString(flag);
}
