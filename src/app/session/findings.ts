import { createStore, type StoreApi } from "zustand";
import type { PictureFiles } from "../../core/model/pictures.ts";
import type { Project } from "../../core/model/schema.ts";
import { usePreferences } from "../ui/preferences.ts";
import type { WorkerClient } from "../worker/client.ts";
import { patchOf } from "../worker/patch.ts";
import type { PlainResult } from "../worker/protocol.ts";
import { startWorker } from "../worker/start.ts";
import { Checking, type CheckWorker } from "./checking.ts";

export interface FindingsState {
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
  /** Checks the same project again, because something beside it changed. */
  again: (project: Project) => void;
  stop: () => void;
}

/** How the check of a project ended, or that it runs. */
export function endOf({ of, running, stopped, error }: FindingsState, project: Project): "running" | "stopped" | "failed" | "done" {
  if (of !== project || running) return "running";
  return stopped === project ? "stopped" : error === undefined ? "done" : "failed";
}

/** The findings of a project; undefined where what is there is of one before it. */
export function resultOf(state: FindingsState, project: Project): PlainResult | undefined {
  return endOf(state, project) === "done" ? state.result : undefined;
}

/** What a check asks beside the project: the files of its pictures, and the taps beyond which a screen is far. */
export interface Beside {
  files?: PictureFiles | undefined;
  far?: number;
}

/** The findings of the open document, kept up to date in a worker; a newer edit cancels an older check. */
export function createFindings(beside: () => Beside = () => ({})): { store: StoreApi<FindingsState>; close: () => void } {
  const checking = new Checking(() => startChecker(beside), {
    progress: (_, states) => store.setState({ states }),
    done: (_, result) => store.setState({ result, running: false }),
    failed: (_, error) => store.setState({ running: false, error }),
  });
  const store = createStore<FindingsState>((set, get) => ({
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
    again: (project) => {
      if (get().of !== project) return;
      set({ running: true, states: 0, stopped: undefined, error: undefined });
      checking.check(project);
    },
    check: (project) => {
      const { of, running, result, stopped, error } = get();
      if (of === project && (running || (result && stopped !== project && error === undefined))) return;
      set({ of: project, running: true, states: 0, stopped: undefined, error: undefined });
      checking.check(project);
    },
  }));
  return { store, close: () => checking.stop() };
}

/** Checks what is not the open document, such as the document with a fix made, by the same limit, so that the two can be compared. */
export function checkedAside(worker: WorkerClient, project: Project): Promise<PlainResult> {
  return worker.ask("check", [project, undefined, usePreferences.getState().far]);
}

/** A worker that is sent a project whole at first, and then what was edited. */
function startChecker(beside: () => Beside): CheckWorker {
  const worker = startWorker();
  let sent: Project | undefined;
  return {
    check: (project, progress) => {
      const before = sent;
      sent = project;
      const { files, far } = beside();
      return before ? worker.ask("checkNext", [patchOf(before, project), files, far], progress) : worker.ask("check", [project, files, far], progress);
    },
    stop: () => worker.stop(),
  };
}
