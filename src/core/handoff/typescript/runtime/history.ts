import type { Json } from "../../../plan/data.ts";
import type { State } from "../../../semantics/types.ts";
import type { Core } from "./navigator.ts";

/** The parts of a browser's window that the binding uses. */
export interface HistoryWindow {
  readonly history: {
    readonly state: unknown;
    pushState(state: unknown, unused: string, url?: string): void;
    replaceState(state: unknown, unused: string, url?: string): void;
    go(by: number): void;
  };
  readonly location: { readonly href: string };
  /** Where facts outlive a reload of this tab. */
  readonly sessionStorage?: { getItem(key: string): string | null; setItem(key: string, value: string): void };
  addEventListener(type: "popstate", listener: () => void): void;
  removeEventListener(type: "popstate", listener: () => void): void;
}
/** An entry says where one is. It never holds facts: what was signed out stays signed out, whichever entry is gone to. */
interface Entry {
  readonly etape: string;
  readonly at: number;
  readonly state: Omit<State, "facts">;
}

/**
 * Binds a navigator to the browser's history: each move makes an entry, Back does what the design says that Back does,
 * Forward shows again what was there, a reload stays where it was, and a pasted link comes in by its entrance with its trail.
 * `mark` tells entries of this very design from others: those of another design, or of another version of it, are entered by their
 * address. Facts are kept for a reload of the tab, and never go back with the history. Gives what ends the binding.
 */
export function bindToHistory(core: Core, mark: string, window: HistoryWindow): () => void {
  const { history } = window;
  const entryNow = () => {
    const entry = history.state as Partial<Entry> | null;
    return entry?.etape === mark && typeof entry.at === "number" && entry.state ? (entry as Entry) : undefined;
  };
  const entry = (at: number): Entry => {
    const { facts: _, ...state } = core.state;
    return { etape: mark, at, state };
  };
  const show = (there: Entry) => core.restore({ ...there.state, facts: core.state.facts });
  const byAddress = () => {
    const link = core.match(window.location.href);
    if (link) core.send({ do: "enter", entrance: link.entrance, args: link.args, cold: true });
  };
  const key = `etape facts ${mark}`;
  const keepFacts = () => window.sessionStorage?.setItem(key, JSON.stringify(core.state.facts));
  let at = 1;
  let quiet = false;
  const put = () => history.replaceState(entry(at), "", core.address);
  const push = () => {
    at += 1;
    history.pushState(entry(at), "", core.address);
  };

  const known = entryNow();
  const facts = factsKept(window, key);
  if (known) {
    at = known.at;
    quiet = true;
    core.restore({ ...known.state, facts: { ...core.state.facts, ...facts } });
    quiet = false;
  } else {
    byAddress();
    // An entry beneath the first, so that Back comes to the design before it leaves the page.
    history.replaceState(entry(0), "", core.address);
    history.pushState(entry(1), "", core.address);
  }

  const popped = () => {
    const there = entryNow();
    quiet = true;
    if (there) goTo(there);
    else {
      // Somebody else's entry, or one of another version of the design.
      byAddress();
      put();
    }
    quiet = false;
  };
  const goTo = (there: Entry) => {
    const by = there.at - at;
    at = there.at;
    if (by > 0) show(there);
    for (let steps = by; steps < 0; steps++) if (!back(steps === -1)) return;
  };
  /** One step back; says whether the next may follow. */
  const back = (last: boolean): boolean => {
    const outcome = core.send({ do: "back" });
    if (outcome === "left") {
      history.go(-(at + 1));
      return false;
    }
    // At the bottom, or where Back was not to be, the entry that was left is made again.
    if (outcome !== "moved" || (last && at === 0)) {
      push();
      return false;
    }
    if (last) put();
    return true;
  };
  // What shows the same (a fact, a width) is the same entry.
  let shown = "";
  const showing = () => `${core.line} ${JSON.stringify(core.screen.args)}`;
  const stop = core.subscribe(() => {
    const same = showing() === shown;
    shown = showing();
    keepFacts();
    if (quiet) return;
    if (same) put();
    else push();
  });
  shown = showing();
  keepFacts();
  window.addEventListener("popstate", popped);
  return () => {
    stop();
    window.removeEventListener("popstate", popped);
  };
}

/** The facts that were kept before a reload. */
function factsKept(window: HistoryWindow, key: string): Record<string, Json> {
  try {
    return JSON.parse(window.sessionStorage?.getItem(key) ?? "{}") as Record<string, Json>;
  } catch {
    return {};
  }
}
