import type { Json } from "../../../plan/data.ts";
import type { State } from "../../../semantics/types.ts";
import type { Core, Standing } from "./navigator.ts";

/** Where texts outlive a page, as a browser's `localStorage` is. */
export interface Store {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
}
/** The parts of a browser's window that the binding uses. */
export interface HistoryWindow {
  readonly history: {
    readonly state: unknown;
    pushState(state: unknown, unused: string, url?: string): void;
    replaceState(state: unknown, unused: string, url?: string): void;
    go(by: number): void;
  };
  readonly location: { readonly href: string; assign?(url: string): void };
  readonly localStorage?: Store;
  readonly sessionStorage?: Store;
  readonly document?: { title: string; querySelector(selector: string): unknown };
  requestAnimationFrame?(then: () => void): unknown;
  addEventListener(type: "popstate", listener: () => void): void;
  removeEventListener(type: "popstate", listener: () => void): void;
}
export interface HistoryOptions {
  /** The path beneath which the app lives: `/shop`. */
  readonly base?: string | undefined;
  /** Where facts that persist are kept; `null`: nowhere. By default the browser's local storage. */
  readonly store?: Store | null | undefined;
  /** Is told of an address that belongs to no screen and no way in; the app is then where a launch leads. */
  readonly unknown?: ((address: string) => void) | undefined;
  /** Moves the focus to a screen that has just been shown. By default to the element marked `data-screen`. */
  readonly focus?: ((screen: Standing) => void) | undefined;
  readonly window?: HistoryWindow | undefined;
}

/** An entry says where one is. It never holds facts: what was signed out stays signed out, whichever entry is gone to. */
interface Entry {
  readonly etape: string;
  readonly at: number;
  readonly state: Omit<State, "facts">;
  readonly keys: readonly number[];
  /** Which writing of the facts that persist it was made under: under another one it may show what must not be shown now. */
  readonly under: number;
}
/** Facts as they are stored, and how often they have been written. */
interface Kept {
  readonly facts: Readonly<Record<string, Json>>;
  readonly writing: number;
}

/**
 * Binds a navigator to the browser's history: each move makes an entry, Back does what the design says that Back does,
 * Forward shows again what was there, a reload stays where it was, and a pasted link comes in by its entrance with its trail.
 * `name` and `version` tell entries of this very design from others: those of another design, of another version of it, or from before
 * somebody signed in or out elsewhere, are entered by their address. Gives what ends the binding.
 */
export function bindToHistory(core: Core, name: string, version: string, options: HistoryOptions = {}): () => void {
  const window = options.window ?? (globalThis as unknown as { window: HistoryWindow }).window;
  const { history } = window;
  const mark = `${name} ${version}`;
  const store = options.store === undefined ? window.localStorage : (options.store ?? undefined);
  const base = (options.base ?? "").replace(/\/$/, "");
  core.base = base;
  const key = `etape ${name}`;
  let kept = keptIn(store, key);

  const url = () => (core.address === undefined ? undefined : `${base}${core.address}`);
  const entryNow = () => {
    const entry = history.state as Partial<Entry> | null;
    return entry?.etape === mark && typeof entry.at === "number" && entry.state ? (entry as Entry) : undefined;
  };
  const mayShow = (there: Entry) => there.under === kept.writing;
  let at = 1;
  let quiet = false;
  const entry = (): Entry => {
    const { facts: _, ...state } = core.state;
    return { etape: mark, at, state, keys: core.standingKeys, under: kept.writing };
  };
  const put = () => history.replaceState(entry(), "", url());
  const push = () => {
    at += 1;
    history.pushState(entry(), "", url());
  };
  const show = (there: Entry, facts: Readonly<Record<string, Json>> = {}) =>
    core.restore({ ...there.state, facts: core.factsWith(facts) } as State, there.keys);
  const byAddress = () => {
    const path = window.location.href.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, "");
    const inside = path.startsWith(`${base}/`) || path === base ? path.slice(base.length) : undefined;
    const link = inside === undefined ? undefined : core.match(inside);
    if (link) core.send({ do: "enter", entrance: link.entrance, args: link.args, cold: true });
    else {
      core.send({ do: "launch" });
      if (inside === undefined || !/^\/?([?#]|$)/.test(inside)) options.unknown?.(inside ?? path);
    }
  };
  /** Keeps facts: those that persist for every tab, the others for a reload of this one. */
  const keepFacts = () => {
    window.sessionStorage?.setItem(key, JSON.stringify({ facts: core.state.facts, writing: 0 }));
    const facts = JSON.stringify(core.stored);
    if (!store || facts === JSON.stringify(kept.facts)) return;
    kept = { facts: core.stored, writing: kept.writing + 1 };
    store.setItem(key, JSON.stringify(kept));
  };

  let focused = -1;
  /** Title and focus follow what shows. */
  const follow = (first: boolean) => {
    const { screen } = core;
    if (window.document) window.document.title = screen.title;
    if (screen.key === focused) return;
    focused = screen.key;
    if (first) return;
    const move = () => (options.focus ? options.focus(screen) : focusOn(window.document?.querySelector("[data-screen]")));
    if (window.requestAnimationFrame) window.requestAnimationFrame(move);
    else move();
  };

  const known = entryNow();
  core.open ??= (outside) => window.location.assign?.(outside);
  if (known && mayShow(known)) {
    at = known.at;
    show(known, { ...keptIn(window.sessionStorage, key).facts, ...kept.facts });
    keepFacts();
    put();
  } else {
    core.restore({ ...core.state, facts: core.factsWith(kept.facts) });
    byAddress();
    keepFacts();
    // An entry beneath the first, so that Back comes to the design before it leaves the page.
    at = 0;
    put();
    push();
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
    if (by > 0 && mayShow(there)) show(there);
    else if (by > 0) {
      byAddress();
      put();
    }
    for (let steps = by; steps < 0; steps++) if (!back(steps === -1)) return;
  };
  /** One step back; says whether the next may follow. */
  const back = (last: boolean): boolean => {
    const outcome = core.send({ do: "back" });
    if (outcome === "left") {
      history.go(-(at + 1));
      return false;
    }
    // At the bottom, where Back was not to be, or where it asks first, the entry that was left is made again.
    if (outcome !== "moved" || core.state.held || (last && at === 0)) {
      push();
      return false;
    }
    if (last) put();
    return true;
  };
  // What shows the same (a fact, a width) is the same entry.
  let shown = "";
  const showing = () => `${core.line} ${JSON.stringify(core.screen.params)}`;
  const stop = core.subscribe(() => {
    const same = showing() === shown;
    shown = showing();
    keepFacts();
    follow(false);
    if (quiet) return;
    if (same) put();
    else push();
  });
  shown = showing();
  follow(true);
  window.addEventListener("popstate", popped);
  return () => {
    stop();
    window.removeEventListener("popstate", popped);
  };
}

function focusOn(element: unknown): void {
  const target = element as { tabIndex: number; focus(options: { preventScroll: boolean }): void } | null | undefined;
  if (!target) return;
  target.tabIndex = -1;
  target.focus({ preventScroll: true });
}

/** What is stored under a key; nothing where it can not be read. */
function keptIn(store: Store | undefined, key: string): Kept {
  try {
    const { facts, writing } = JSON.parse(store?.getItem(key) ?? "null") as Partial<Kept>;
    return { facts: typeof facts === "object" && facts !== null ? facts : {}, writing: typeof writing === "number" ? writing : 0 };
  } catch {
    return { facts: {}, writing: 0 };
  }
}
