import { proxy, type Remote, wrap } from "comlink";
import { create } from "zustand";
import type { Project } from "../../core/model/schema.ts";
import type { CheckApi } from "../workers/check.worker.ts";
import type { PlainResult } from "../workers/plain.ts";

interface FindingsState {
  result: PlainResult | undefined;
  /** The project that the result is about. */
  of: Project | undefined;
  running: boolean;
  /** States looked at by the check that is running. */
  states: number;
  /** The project whose check was stopped by hand; its findings are not known. */
  stopped: Project | undefined;
  error: string | undefined;
  check: (project: Project) => void;
  stop: () => void;
}

let worker: Worker | undefined;
let api: Remote<CheckApi> | undefined;
let busy = false;

/** The findings of the open document, kept up to date in a worker; a newer edit cancels an older check. */
export const useFindings = create<FindingsState>((set, get) => ({
  result: undefined,
  of: undefined,
  running: false,
  states: 0,
  stopped: undefined,
  error: undefined,
  stop: () => {
    if (!busy) return;
    stopWorker();
    busy = false;
    set({ running: false, stopped: get().of });
  },
  check: (project) => {
    if (get().of === project && (busy || (get().result && get().stopped !== project))) return;
    if (busy) stopWorker();
    const remote = startWorker();
    busy = true;
    set({ of: project, running: true, states: 0, stopped: undefined, error: undefined });
    remote
      .check(
        project,
        proxy((states: number) => get().of === project && set({ states })),
      )
      .then((result) => {
        if (get().of !== project) return;
        busy = false;
        set({ result, running: false });
      })
      .catch((error: unknown) => {
        if (get().of !== project) return;
        busy = false;
        set({ running: false, error: error instanceof Error ? error.message : String(error) });
      });
  },
}));

function startWorker(): Remote<CheckApi> {
  if (!worker || !api) {
    worker = new Worker(new URL("../workers/check.worker.ts", import.meta.url), { type: "module" });
    api = wrap<CheckApi>(worker);
  }
  return api;
}

function stopWorker() {
  worker?.terminate();
  worker = undefined;
  api = undefined;
}
