import { describe, expect, it } from "vitest";
import { looksData } from "../../../src/core/handoff/code/looks.ts";
import { bindToHistory, type HistoryWindow } from "../../../src/core/handoff/typescript/runtime/history.ts";
import { Core } from "../../../src/core/handoff/typescript/runtime/navigator.ts";
import { planFrom } from "../../../src/core/plan/plan.ts";
import { planData } from "../../../src/core/plan/planOf.ts";
import { plainApp } from "../../../src/core/semantics/app.ts";
import { app } from "../../vectors/app.ts";

/** A browser's history as the standard has it: entries, a place among them, and popstate after going. */
class Browser implements HistoryWindow {
  entries: Array<{ state: unknown; url: string }>;
  at = 1;
  left = false;
  private readonly listeners = new Set<() => void>();

  /** `shared` is what all tabs of one browser store. */
  constructor(url: string, before: unknown = undefined, shared = new Map<string, string>()) {
    this.localStorage = { getItem: (key) => shared.get(key) ?? null, setItem: (key, value) => void shared.set(key, value) };
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
  readonly localStorage: HistoryWindow["localStorage"];
  readonly document = { title: "", querySelector: () => null };
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
  types: [{ id: "thing", fields: [{ name: "id", type: "text" }], samples: [] }],
  screens: {
    list: { path: "/list", elements: [{ id: "open", kind: "list", label: "Things", of: "thing" }] },
    item: { params: [{ name: "id", type: "text", required: false }], path: "/items/{id}" },
  },
  legs: [
    "open list push item pass.id=item.id",
    "write item push form",
    "soft item open soft",
    "firm item open firm",
    "guard form:depart open ask",
    "yes sure proceed",
  ],
  entrances: [{ id: "link", name: "Link", kind: "link", pattern: "/items/{id}", to: "item", warm: "rebuild" }],
  facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
});
const ready = plainApp(planFrom(planData(design)));

function opened(url = "http://app.test/", before?: unknown) {
  const browser = new Browser(url, before);
  const core = new Core(ready, looksData(design));
  const stop = bindToHistory(core, "app", "1", { window: browser });
  return { browser, core, stop };
}
const use = (core: Core, leg: string, item?: { id: string }) => core.send({ do: "leg", leg, ...(item ? { item } : {}) });

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
    expect(core.screen.params).toEqual({ id: "a" });
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
    expect(core.screen.params).toEqual({ id: "larch & co" });
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
    const again = new Core(ready, looksData(design));
    bindToHistory(again, "app", "1", { window: browser });
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
    expect(core.screen.params).toEqual({ id: "b" });
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

  describe("with people who sign in", () => {
    const club = app("s", {
      stacks: { s: "gate home account bye" },
      screens: { home: { path: "/home" }, account: { path: "/account" }, gate: { path: "/" }, bye: { path: "/bye", title: "See you" } },
      facts: [
        { id: "member", type: "boolean", initial: false, source: "app", persists: true },
        { id: "draft", type: "boolean", initial: false, source: "app" },
      ],
      legs: [
        "known gate:arrive reset home if=fact.member",
        "signIn gate reset home set.member=true",
        "mine home push account",
        "write account set set.draft=true",
        "signOut account reset bye set.member=false",
        "again bye reset gate",
        "out home:arrive reset gate if=!fact.member",
      ],
      entrances: [{ id: "mine2", name: "Mine", kind: "link", pattern: "/account", to: "account", when: "fact.member", otherwise: "gate", warm: "rebuild" }],
    });
    const tab = (shared: Map<string, string>, url = "http://club.test/", before?: unknown, version = "1") => {
      const browser = new Browser(url, before, shared);
      const core = new Core(plainApp(planFrom(planData(club))), looksData(club));
      bindToHistory(core, "club", version, { window: browser });
      return { browser, core };
    };
    const all = new Map<string, string>();

    it("knows them in a new tab and after a new deployment, and what does not persist only in its own tab", () => {
      const shared = new Map(all);
      const one = tab(shared);
      use(one.core, "signIn");
      use(one.core, "mine");
      use(one.core, "write");
      expect(one.core.state.facts).toEqual({ member: true, draft: true });
      expect(tab(shared).core.line).toBe("s[home]");
      expect(tab(shared, "http://club.test/", undefined, "2").core.line).toBe("s[home]");
      expect(tab(shared).core.state.facts).toEqual({ member: true, draft: false });
      expect(tab(shared, "http://club.test/account").core.line).toBe("s[gate,account]");
    });

    it("keeps who has signed out signed out: by Back, Forward, reload and in a new tab", () => {
      const shared = new Map(all);
      const { browser, core } = tab(shared);
      use(core, "signIn");
      use(core, "mine");
      use(core, "signOut");
      expect(core.line).toBe("s[bye]");
      expect(browser.document.title).toBe("See you");
      const before = browser.entries[browser.at - 1]?.state;
      browser.go(-1);
      expect(core.line).toBe("s[bye]");
      expect(browser.left).toBe(true);
      // An entry from when somebody was signed in, at a reload: it is entered by its address, which asks.
      expect(tab(shared, "http://club.test/account", before).core.line).toBe("s[gate]");
      expect(tab(shared).core.line).toBe("s[gate]");
      expect(tab(shared, "http://club.test/account").core.line).toBe("s[gate]");
      for (const { state } of browser.entries.slice(1)) expect(JSON.stringify(state)).not.toContain("member");
    });

    it("who signs out in one tab is signed out in another once it is loaded anew", () => {
      const shared = new Map(all);
      const one = tab(shared);
      use(one.core, "signIn");
      const two = tab(shared, "http://club.test/account");
      use(one.core, "mine");
      use(one.core, "signOut");
      const kept = two.browser.entries[two.browser.at]?.state;
      expect(tab(shared, "http://club.test/account", kept).core.line).toBe("s[gate]");
    });

    it("stores nothing that the design does not know, and reads nothing that is no fact of it", () => {
      const shared = new Map([["etape club", JSON.stringify({ facts: { member: "yes", gone: true }, writing: 3 })]]);
      const { core } = tab(shared);
      expect(core.line).toBe("s[gate]");
      expect(core.state.facts).toEqual({ member: false, draft: false });
      shared.set("etape club", "{broken");
      expect(tab(shared).core.line).toBe("s[gate]");
    });
  });

  it("opens every address that it shows, beneath a base path, and tells of one that belongs to nothing", () => {
    const bound = (url: string) => {
      const browser = new Browser(url);
      const core = new Core(ready, looksData(design));
      const unknown: string[] = [];
      bindToHistory(core, "app", "1", { window: browser, base: "/shop/", unknown: (address) => unknown.push(address) });
      return { browser, core, unknown };
    };
    const { browser, core, unknown } = bound("http://app.test/shop");
    expect([core.line, browser.url, unknown]).toEqual(["home[list]", "/shop/list", []]);
    use(core, "open", { id: "a" });
    expect(browser.url).toBe("/shop/items/a");
    expect(bound("http://app.test/shop/list").unknown).toEqual([]);
    expect(bound("http://app.test/shop/items/b?from=mail").core.screen.params).toEqual({ id: "b" });
    expect(bound("http://app.test/shop/nothing/here").unknown).toEqual(["/nothing/here"]);
    expect(bound("http://app.test/shopping").unknown).toEqual(["/shopping"]);
    expect(bound("http://app.test/items/b").core.line).toBe("home[list]");
  });

  it("keeps the key of a screen over Back, Forward and a reload, and gives it to no other", () => {
    const { browser, core } = opened();
    const list = core.screen.key;
    use(core, "open", { id: "a" });
    const item = core.screen.key;
    expect(item).not.toBe(list);
    browser.go(-1);
    expect(core.screen.key).toBe(list);
    browser.go(1);
    expect(core.screen.key).toBe(item);
    const again = opened("http://app.test/items/a", browser.entries[browser.at]?.state);
    expect(again.core.screen.key).toBe(item);
    again.core.send({ do: "back" });
    use(again.core, "open", { id: "a" });
    expect([list, item]).not.toContain(again.core.screen.key);
  });

  it("takes ten Backs in a row, and two steps at once that something asks about", () => {
    const { browser, core } = opened();
    use(core, "open", { id: "a" });
    use(core, "write");
    browser.go(-2);
    expect(core.line).toBe("home[list,item,form] + ask(sure)");
    expect(browser.left).toBe(false);
    for (let i = 0; i < 10 && !browser.left; i++) browser.go(-1);
    expect(core.line).toBe("home[list,item,form] + ask(sure)");
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
