import { createStore, type StoreApi } from "zustand";
import type { LensChoice, LensGiven, LensView } from "../../core/map/lenses/lens.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import type { Project } from "../../core/model/schema.ts";
import type { WorkerClient } from "../worker/client.ts";
import type { PlainResult } from "../worker/protocol.ts";
import { startWorker } from "../worker/start.ts";
import { checkedAside } from "./findings.ts";

/** A document that the lens of changes compares with. */
export interface Older {
  id: string;
  name: string;
  project: Project;
  /** What the checker finds in it; undefined while that is not known. */
  result: PlainResult | undefined;
}

export interface LensState {
  choice: LensChoice;
  /** What the lens shows, and of which project; undefined for findings, which need no lens, and before it is known. */
  view: LensView | undefined;
  of: Project | undefined;
  error: string | undefined;
  older: Older | undefined;
  choose: (choice: LensChoice) => void;
  /** The document to compare with from now on. */
  against: (older: Omit<Older, "result">) => void;
  /** Looks again, at a project and at what is known of it. */
  look: (project: Project, given: LensGiven) => void;
  /** What an edit would change of how far things are. */
  considered: (project: Project, edit: Edit) => Promise<string[]>;
}

/** The lens through which the map is seen. It looks in a worker, at the newest that it is asked for. */
export function createLensing(start: () => WorkerClient = startWorker): { store: StoreApi<LensState>; close: () => void } {
  let worker: WorkerClient | undefined;
  let running = false;
  let wanted: { project: Project; given: LensGiven } | undefined;
  const ask = () => {
    worker ??= start();
    return worker;
  };
  const run = async () => {
    const now = wanted;
    if (!now || running) return;
    running = true;
    const { choice } = store.getState();
    try {
      const view = await ask().ask("lens", [now.project, choice, now.given]);
      if (store.getState().choice === choice) store.setState({ view: view as LensView, of: now.project, error: undefined });
    } catch (error) {
      store.setState({ error: error instanceof Error ? error.message : String(error) });
    }
    running = false;
    if (wanted !== now || store.getState().choice !== choice) void run();
  };
  const store = createStore<LensState>((set, get) => ({
    choice: { lens: "findings" },
    view: undefined,
    of: undefined,
    error: undefined,
    older: undefined,
    choose: (choice) => set({ choice, view: undefined, error: undefined }),
    against: (older) => {
      set({ older: { ...older, result: undefined }, choice: { lens: "changed", against: older.id }, view: undefined });
      void checkedAside(ask(), older.project)
        .then((result) => {
          const now = get().older;
          if (now?.id === older.id) set({ older: { ...now, result } });
        })
        .catch(() => undefined);
    },
    look: (project, given) => {
      if (get().choice.lens === "findings") return;
      wanted = { project, given };
      void run();
    },
    considered: async (project, edit) => (await ask().ask("reachAfter", [project, edit, get().choice])).says,
  }));
  return { store, close: () => worker?.stop() };
}
