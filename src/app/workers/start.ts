import { type Remote, wrap } from "comlink";
import type { CheckApi } from "./check.worker.ts";

export type Api = Remote<CheckApi>;
/** A worker of the core; who starts one stops it. `failed` rejects with a sentence when the worker itself breaks down. */
export interface StartedWorker {
  api: Api;
  failed: Promise<never>;
  stop: () => void;
}

/** Starts a worker of the core. */
export function startWorker(): StartedWorker {
  const worker = new Worker(new URL("./check.worker.ts", import.meta.url), { type: "module" });
  const failed = new Promise<never>((_, reject) => {
    worker.addEventListener("error", (event) => reject(new Error(event.message || "the part of the page that checks could not be loaded")));
    worker.addEventListener("messageerror", () => reject(new Error("an answer of the part that checks could not be read")));
  });
  // Who races with it hears of it; nobody else has to.
  failed.catch(() => undefined);
  return { api: wrap<CheckApi>(worker), failed, stop: () => worker.terminate() };
}

/** Does one piece of work in a worker of its own, which ends with it. `done` settles always but after `stop`. */
export function inWorker<T>(work: (api: Api) => Promise<T>, start: () => StartedWorker = startWorker): { done: Promise<T>; stop: () => void } {
  const { api, failed, stop } = start();
  return { done: Promise.race([work(api), failed]).finally(stop), stop };
}
