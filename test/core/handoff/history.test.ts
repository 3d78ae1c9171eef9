import { describe, expect, it } from "vitest";
import { bindToHistory, type HistoryWindow } from "../../../src/core/handoff/typescript/runtime/history.ts";
import { Core } from "../../../src/core/handoff/typescript/runtime/navigator.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { plainApp } from "../../../src/core/semantics/app.ts";
import { app } from "../../vectors/app.ts";

/** A browser's history as the standard has it: entries, a place among them, and popstate after going. */
class Browser implements HistoryWindow {
  entries: Array<{ state: unknown; url: string }>;
  at = 1;
  left = false;
  private readonly listeners = new Set<() => void>();

  constructor(url: string, before: unknown = undefined) {
    this.entries = [
      { state: null, url: "http://before.test/" },
      { state: before ?? null, url },
    ];
  }
  get history() {
    const browser = this;
    return {
      get state() {
        return structuredClone(browser.entries[browser.at]?.state ?? null);
      },
      pushState(state: unknown, _: string, url?: string) {
        browser.entries = [...browser.entries.slice(0, browser.at + 1), { state: structuredClone(state), url: url ?? browser.url }];
        browser.at += 1;
      },
      replaceState(state: unknown, _: string, url?: string) {
        browser.entries[browser.at] = { state: structuredClone(state), url: url ?? browser.url };
      },
      go(by: number) {
        browser.go(by);
      },
    };
  }
  readonly kept = new Map<string, string>();
  readonly sessionStorage = { getItem: (key: string) => this.kept.get(key) ?? null, setItem: (key: string, value: string) => void this.kept.set(key, value) };
  get url(): string {
    return this.entries[this.at]?.url ?? "";
  }
  get location() {
    return { href: this.url };
  }
  addEventListener(_: "popstate", listener: () => void) {
    this.listeners.add(listener);
  }
  removeEventListener(_: "popstate", listener: () => void) {
    this.listeners.delete(listener);
  }
  go(by: number) {
    const to = this.at + by;
    if (to < 0 || to >= this.entries.length) return;
    this.at = to;
    this.left = to === 0;
    if (!this.left) for (const listener of this.listeners) listener();
  }
}

const design = app("home", {
  stacks: { home: "list item form" },
  modals: { soft: ["note", { closeOn: ["back"] }], firm: ["terms", { closeOn: ["outside"] }], ask: ["sure", { closeOn: ["back"] }] },
  screens: { list: { path: "/list" }, item: { params: [{ name: "id", type: "text", required: false }], path: "/items/{id}" } },
  legs: ["open list push item", "write item push form", "soft item open soft", "firm item open firm", "guard form:depart open ask", "yes sure proceed"],
  entrances: [{ id: "link", name: "Link", kind: "link", pattern: "/items/{id}", to: "item", warm: "rebuild" }],
  facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
});
const ready = plainApp(planOf(design));

function opened(url = "http://app.test/", before?: unknown) {
  const browser = new Browser(url, before);
  const core = new Core(ready);
  const stop = bindToHistory(core, "app", browser);
  return { browser, core, stop };
}
const use = (core: Core, leg: string, args = {}) => core.send({ do: "leg", leg, args });

describe("the binding to the browser's history", () => {
  it("makes an entry with an address for each move, and takes Back as the design does", () => {
    const { browser, core } = opened();
    expect(browser.url).toBe("/list");
    use(core, "open", { id: "a" });
    expect(browser.url).toBe("/items/a");
    browser.go(-1);
    expect(core.line).toBe("home[list]");
    expect(browser.url).toBe("/list");
    expect(browser.left).toBe(false);
  });

  it("shows again by Forward what was there, with its arguments, and goes on from there", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    browser.go(-1);
    browser.go(1);
    expect(core.line).toBe("home[list,item]");
    expect(core.screen.args).toEqual({ id: "a" });
    use(core, "write");
    expect(core.line).toBe("home[list,item,form]");
  });

  it("leaves the page only when the design leaves the app", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    browser.go(-1);
    expect(browser.left).toBe(false);
    browser.go(-1);
    expect(browser.left).toBe(true);
  });

  it("closes a modal that Back closes, and stays on one that it does not", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    use(core, "soft");
    browser.go(-1);
    expect(core.line).toBe("home[list,item]");
    use(core, "firm");
    for (let i = 0; i < 3; i++) {
      browser.go(-1);
      expect(core.line).toBe("home[list,item] + firm(terms)");
      expect(browser.left).toBe(false);
    }
    expect(core.send({ do: "close", via: "outside" })).toBe("moved");
    browser.go(-1);
    expect(core.line).toBe("home[list]");
  });

  it("asks before it departs, and does what was held when that is said", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    use(core, "write");
    browser.go(-1);
    expect(core.line).toBe("home[list,item,form] + ask(sure)");
    use(core, "yes");
    expect(core.line).toBe("home[list,item]");
  });

  it("comes in by a pasted link with the trail beneath, and goes back along it", () => {
    const { browser, core } = opened("http://app.test/items/larch%20%26%20co?from=mail");
    expect(core.line).toBe("home[list,item]");
    expect(core.screen.args).toEqual({ id: "larch & co" });
    browser.go(-1);
    expect(core.line).toBe("home[list]");
    browser.go(-1);
    expect(browser.left).toBe(true);
  });

  it("stays where it was over a reload, and takes no entry of another app for its own", () => {
    const first = opened();
    use(first.core, "open", { id: "a" });
    use(first.core, "soft");
    const kept = first.browser.entries[first.browser.at]?.state;
    const again = opened("http://app.test/items/a", kept);
    expect(again.core.line).toBe("home[list,item] + soft(note)");
    const other = opened("http://app.test/", { ...(kept as object), etape: "another" });
    expect(other.core.line).toBe("home[list]");
  });

  it("holds no facts in an entry: what was signed out stays so by Back, Forward and reload", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    browser.go(-1);
    core.send({ do: "fact", fact: "online", value: false });
    for (const { state } of browser.entries.slice(1)) expect(JSON.stringify(state)).not.toContain("online");
    browser.go(1);
    expect(core.line).toBe("home[list,item]");
    expect(core.state.facts).toEqual({ online: false });
    const again = new Core(ready);
    bindToHistory(again, "app", browser);
    expect(again.line).toBe("home[list,item]");
    expect(again.state.facts).toEqual({ online: false });
  });

  it("enters an entry of another version of the design by its address, at a reload and on the way back", () => {
    const old = { etape: "app before", at: 1, state: { base: { kind: "shown", at: "gone", args: {} }, layers: [], width: "narrow" } };
    const reloaded = opened("http://app.test/items/a", old);
    expect(reloaded.core.line).toBe("home[list,item]");
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    use(core, "write");
    browser.entries[browser.at - 1] = { state: old, url: "http://app.test/items/b" };
    browser.go(-1);
    expect(core.line).toBe("home[list,item]");
    expect(core.screen.args).toEqual({ id: "b" });
  });

  it("goes back as many steps as the browser does at once", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    use(core, "open", { id: "b" });
    core.send({ do: "leg", leg: "soft" });
    browser.go(-2);
    expect(core.line).toBe("home[list]");
    expect(browser.url).toBe("/list");
    expect(browser.left).toBe(false);
  });

  it("makes no entry where the same shows as before", () => {
    const { browser, core } = opened();
    const entries = browser.entries.length;
    expect(core.send({ do: "fact", fact: "online", value: false })).toBe("moved");
    expect(core.send({ do: "width", to: "wide" })).toBe("moved");
    expect(browser.entries).toHaveLength(entries);
    expect(browser.entries[browser.at]?.state).toMatchObject({ state: { width: "wide" } });
  });

  it("does nothing more once it is ended", () => {
    const { browser, core, stop } = opened();
    stop();
    const entries = browser.entries.length;
    use(core, "open", { id: "a" });
    browser.go(-1);
    expect(browser.entries).toHaveLength(entries);
    expect(core.line).toBe("home[list,item]");
  });
});
