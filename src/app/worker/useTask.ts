import { useEffect, useState } from "react";
import type { WorkerClient } from "./client.ts";
import { inWorker } from "./start.ts";

/** How a piece of work in a worker stands. */
export type Task<T> = { is: "idle" } | { is: "running" } | { is: "done"; value: T } | { is: "failed"; error: string; retry: () => void };

/**
 * Does a piece of work in a worker of its own for as long as the part of the page that asks is there. Other work stops it;
 * undefined is none. `work` has to be kept between renders.
 */
export function useTask<T>(work: ((worker: WorkerClient) => Promise<T>) | undefined): Task<T> {
  const [attempt, setAttempt] = useState(0);
  const [settled, setSettled] = useState<{ work: unknown; attempt: number; task: Task<T> }>();
  useEffect(() => {
    if (!work) return;
    const { done, stop } = inWorker(work);
    let stopped = false;
    const settle = (task: Task<T>) => !stopped && setSettled({ work, attempt, task });
    const retry = () => setAttempt(attempt + 1);
    done.then(
      (value) => settle({ is: "done", value }),
      (error: unknown) => settle({ is: "failed", error: error instanceof Error ? error.message : String(error), retry }),
    );
    return () => {
      stopped = true;
      stop();
    };
  }, [work, attempt]);
  if (!work) return { is: "idle" };
  return settled?.work === work && settled.attempt === attempt ? settled.task : { is: "running" };
}
