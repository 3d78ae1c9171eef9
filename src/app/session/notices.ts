import { createStore, type StoreApi } from "zustand";

export interface NoticeState {
  title: string | undefined;
  lines: string[];
  /** Says what was done and what could not be kept; it stays until it is closed or the next takes its place. */
  say: (title: string, lines?: string[]) => void;
  close: () => void;
}

/** What the last command has to say, where its result does not say it by itself. */
export const createNotices = (): StoreApi<NoticeState> =>
  createStore<NoticeState>((set) => ({
    title: undefined,
    lines: [],
    say: (title, lines = []) => set({ title, lines }),
    close: () => set({ title: undefined, lines: [] }),
  }));
