import type { Core } from "./navigator.ts";
import type { State } from "./state.ts";

/** The parts of a browser's window that the binding uses. */
export interface HistoryWindow {
  readonly history: {
    readonly state: unknown;
    pushState(state: unknown, unused: string, url?: string): void;
    replaceState(state: unknown, unused: string, url?: string): void;
    go(by: number): void;
  };
  readonly location: { readonly href: string };
  addEventListener(type: "popstate", listener: () => void): void;
  removeEventListener(type: "popstate", listener: () => void): void;
}
interface Entry {
  readonly etape: string;
  readonly at: number;
  readonly state: State;
}

/**
 * Binds a navigator to the browser's history: each move makes an entry, Back does what the design says that Back does,
 * Forward shows again what was there, a reload stays where it was, and a pasted link comes in by its entrance with its trail.
 * `mark` tells entries of this design from others. Gives what ends the binding.
 */
export function bindToHistory(core: Core, mark: string, window: HistoryWindow): () => void {
  const { history } = window;
  const entryNow = () => {
    const entry = history.state as Partial<Entry> | null;
    return entry?.etape === mark && typeof entry.at === "number" && entry.state ? (entry as Entry) : undefined;
  };
  const entry = (at: number): Entry => ({ etape: mark, at, state: core.state });
  let at = 1;
  let quiet = false;
  const put = () => history.replaceState(entry(at), "", core.address);
  const push = () => {
    at += 1;
    history.pushState(entry(at), "", core.address);
  };

  const known = entryNow();
  if (known) {
    at = known.at;
    quiet = true;
    core.restore(known.state);
    quiet = false;
  } else {
    const link = core.match(window.location.href);
    if (link) core.send({ do: "enter", entrance: link.entrance, args: link.args, cold: true });
    // An entry beneath the first, so that Back comes to the design before it leaves the page.
    history.replaceState(entry(0), "", core.address);
    history.pushState(entry(1), "", core.address);
  }

  const popped = () => {
    const there = entryNow();
    if (!there) return;
    const by = there.at - at;
    at = there.at;
    if (by === 0) return;
    quiet = true;
    if (by > 0) core.restore(there.state);
    else back();
    quiet = false;
  };
  const back = () => {
    const outcome = core.send({ do: "back" });
    if (outcome === "left") {
      history.go(-(at + 1));
      return;
    }
    // At the bottom, or where Back was not to be, the entry that was left is made anew.
    if (at === 0 || outcome !== "moved") push();
    else put();
  };
  // What shows the same (a fact, a width) is the same entry.
  let shown = "";
  const showing = () => `${core.line} ${JSON.stringify(core.screen.args)}`;
  const stop = core.subscribe(() => {
    const same = showing() === shown;
    shown = showing();
    if (quiet) return;
    if (same) put();
    else push();
  });
  shown = showing();
  window.addEventListener("popstate", popped);
  return () => {
    stop();
    window.removeEventListener("popstate", popped);
  };
}
