import { WorkerClient } from "./client.ts";

/** Starts a worker of the core; who starts one stops it. */
export function startWorker(): WorkerClient {
  return new WorkerClient(new Worker(new URL("./check.worker.ts", import.meta.url), { type: "module" }));
}

/** Does one piece of work in a worker of its own, which ends with it. `done` settles always but after `stop`. */
export function inWorker<T>(work: (worker: WorkerClient) => Promise<T>, start: () => WorkerClient = startWorker): { done: Promise<T>; stop: () => void } {
  const worker = start();
  return { done: work(worker).finally(() => worker.stop()), stop: () => worker.stop() };
}
