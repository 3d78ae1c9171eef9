import { type Remote, wrap } from "comlink";
import type { CheckApi } from "./check.worker.ts";

/** Starts a worker of the core; who starts one stops it. */
export function startWorker(): { api: Remote<CheckApi>; stop: () => void } {
  const worker = new Worker(new URL("./check.worker.ts", import.meta.url), { type: "module" });
  return { api: wrap<CheckApi>(worker), stop: () => worker.terminate() };
}
