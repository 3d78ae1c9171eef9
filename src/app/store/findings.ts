import { proxy } from "comlink";
import { create } from "zustand";
import type { Project } from "../../core/model/schema.ts";
import { patchOf } from "../workers/patch.ts";
import type { PlainResult } from "../workers/plain.ts";
import { startWorker } from "../workers/start.ts";
import { Checking, type CheckWorker } from "./checking.ts";

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

/** The findings of the open document, kept up to date in a worker; a newer edit cancels an older check. */
export const useFindings = create<FindingsState>((set, get) => {
  const checking = new Checking(startChecker, {
    progress: (_, states) => set({ states }),
    done: (_, result) => set({ result, running: false }),
    failed: (_, error) => set({ running: false, error }),
  });
  return {
    result: undefined,
    of: undefined,
    running: false,
    states: 0,
    stopped: undefined,
    error: undefined,
    stop: () => {
      if (!get().running) return;
      checking.stop();
      set({ running: false, stopped: get().of });
    },
    check: (project) => {
      const { of, running, result, stopped, error } = get();
      if (of === project && (running || (result && stopped !== project && error === undefined))) return;
      set({ of: project, running: true, states: 0, stopped: undefined, error: undefined });
      checking.check(project);
    },
  };
});

/** A worker that is sent a project whole at first, and then what was edited. */
function startChecker(): CheckWorker {
  const { api, failed, stop } = startWorker();
  let sent: Project | undefined;
  return {
    check: (project, progress) => {
      const before = sent;
      sent = project;
      const result = before ? api.checkNext(patchOf(before, project), proxy(progress)) : api.check(project, proxy(progress));
      return Promise.race([result, failed]);
    },
    stop,
  };
}
