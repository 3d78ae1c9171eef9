import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { transformSync } from "esbuild";
import { describe, expect, it, vi } from "vitest";
import { inputsOf } from "../../../src/core/handoff/code/inputs.ts";
import { usableLegs } from "../../../src/core/handoff/code/plan.ts";
import { planCode } from "../../../src/core/handoff/typescript/literal.ts";
import { typescriptModule } from "../../../src/core/handoff/typescript/module.ts";
import { runtimeNames, runtimeSource } from "../../../src/core/handoff/typescript/runtime.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planData, planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { amount } from "../../random/amount.ts";
import { allEvents, randomDocument } from "../../random/documents.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { VECTORS } from "../../vectors/all.ts";
import { app } from "../../vectors/app.ts";
import { eventOf } from "../../vectors/vector.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;
const folder = mkdtempSync(join(tmpdir(), "etape-typescript-"));

interface Generated {
  start(): unknown;
  next(state: unknown, event: NavEvent): { outcome: string; why?: string; state: unknown };
  lineOf(state: unknown): string;
}
let files = 0;

/** The generated module as Node runs it: its types taken off, nothing else. */
async function run(project: Project): Promise<Generated> {
  files += 1;
  const file = join(folder, `${files}.mjs`);
  writeFileSync(file, transformSync(typescriptModule(project), { loader: "ts" }).code);
  return (await import(pathToFileURL(file).href)) as Generated;
}

/** The runtime of generated modules as Node runs it, made once: what tells one module from another is its plan. */
const runtime = (async () => {
  const file = join(folder, "runtime.mjs");
  writeFileSync(file, transformSync(`${runtimeSource()}\nexport { launch, plainApp, planFrom, stateLine, step };`, { loader: "ts" }).code);
  return (await import(pathToFileURL(file).href)) as {
    planFrom(data: unknown): unknown;
    plainApp(plan: unknown): unknown;
    launch(app: unknown): unknown;
    step(app: unknown, state: unknown, event: NavEvent): ReturnType<Generated["next"]>;
    stateLine(plan: unknown, state: unknown): string;
  };
})();

/** The same as `run`, by the one runtime and the plan as it stands in the module. */
async function runPlan(project: Project): Promise<Generated> {
  const { planFrom, plainApp, launch: begin, step: next, stateLine: lineOf } = await runtime;
  const module: { exports: { plan?: unknown } } = { exports: {} };
  new Function("module", transformSync(planCode(planData(project)), { loader: "ts", format: "cjs" }).code)(module);
  const plan = planFrom(module.exports.plan);
  const ready = plainApp(plan);
  return { start: () => begin(ready), next: (state, event) => next(ready, state, event), lineOf: (state) => lineOf(plan, state) };
}

describe("the generated TypeScript moves as the engine does", () => {
  it("on every vector", async () => {
    for (const [rule, vectors] of Object.entries(VECTORS))
      for (const { app: project, launch: first, steps, says } of vectors) {
        const module = await runPlan(project);
        let state = module.start();
        expect(module.lineOf(state), says).toBe(first);
        const found = steps.map(([short]) => {
          const result = module.next(state, eventOf(short));
          if (result.outcome !== "moved") expect(result.state).toBe(state);
          state = result.state;
          return result.outcome === "moved" ? module.lineOf(state) : result.outcome === "refused" ? `refused ${result.why}` : result.outcome;
        });
        expect(found, `${rule}: ${says}`).toEqual(steps.map(([, expected]) => expected.replace(/^ignored .*/, "ignored")));
      }
  });

  it("on random events in 500 random documents, argument by argument and fact by fact", async () => {
    for (let seed = 0; seed < amount(500, 50); seed++) {
      const project = seed % 5 === 0 ? randomDocument(seed, { broken: true, guarded: true, unknown: true }) : wholeDocument(seed);
      const module = await (seed % 25 === 0 ? run : runPlan)(project);
      let ours = launch(appOf(project));
      let theirs = module.start();
      for (const event of randomWalk(project, seed % 5 === 0 ? allEvents(project) : wholeEvents(project), seed, 30)) {
        const a = step(appOf(project), ours, event);
        const b = module.next(theirs, event);
        expect([b.outcome, b.why, module.lineOf(b.state)], `seed ${seed}, ${JSON.stringify(event)}`).toEqual([
          a.outcome,
          "why" in a ? a.why : undefined,
          stateLine(planOf(project), a.state),
        ]);
        expect(b.state).toEqual(a.state);
        ours = a.state;
        theirs = b.state;
      }
    }
  });

  it("and has no name twice at its outermost level", () => {
    const names = runtimeNames();
    expect(names.length).toBeGreaterThan(100);
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
  });

  it("on the walks of the demo", async () => {
    const module = await run(demo);
    for (const walk of demo.walks) {
      let state = module.start();
      let ours = launch(appOf(demo));
      for (const event of walk.events) {
        state = module.next(state, event).state;
        ours = step(appOf(demo), ours, event).state;
        expect(module.lineOf(state)).toBe(stateLine(planOf(demo), ours));
      }
    }
  });
});

interface Nav {
  line: string;
  address: string | undefined;
  screen: { id: string; params: Record<string, unknown>; key: number; title: string };
  pages: Array<{ modal: string | undefined; screen: Nav["screen"]; around: unknown[]; standing: Array<Nav["screen"]>; inReach: boolean }>;
  motion: { kind: string; reverse: boolean } | undefined;
  facts: Record<string, unknown>;
  stored: Record<string, unknown>;
  legs: Record<string, (...given: unknown[]) => string>;
  can: Record<string, (...given: unknown[]) => boolean>;
  why: Record<string, (...given: unknown[]) => string | undefined>;
  use: Record<string, Record<string, (...given: unknown[]) => string>>;
  element(place: string, id: string): { hidden: boolean; disabled: boolean; text: string | undefined };
  open(address: string): string;
  stop(): void;
  enter: Record<string, (...given: unknown[]) => string>;
  back(): string;
  send(event: NavEvent): string;
  subscribe(listener: (state: unknown, event: unknown) => void): () => void;
}
type Module = Generated & { Navigator: new (options: unknown) => Nav; addresses: Record<string, (args: Record<string, unknown>) => string | undefined> };

describe("the navigator", () => {
  const project = app("s", {
    stacks: { s: "list item gate" },
    screens: {
      list: { elements: [{ id: "rows", kind: "list", label: "Rows", of: "thing" }] },
      item: {
        params: [
          { name: "id", type: "text", required: true },
          { name: "note", type: "text", required: false, default: "none" },
        ],
      },
    },
    facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
    types: [{ id: "thing", fields: [{ name: "id", type: "text" }], samples: [] }],
    legs: ["open list:on(rows) push item pass.id=item.id", "sync list push gate if=fact.online"],
    entrances: [{ id: "shared", name: "Shared", kind: "link", pattern: "/items/{id}", to: "item", warm: "rebuild" }],
  });

  it("carries what is given, fills in defaults, knows the address, and tells who listens", async () => {
    const { Navigator, addresses } = (await run(project)) as Module;
    const nav = new Navigator({ guards: { online: () => true } });
    const heard: unknown[] = [];
    const stop = nav.subscribe((_, event) => heard.push(event));
    expect(nav.legs.open?.({ id: "a b" })).toBe("moved");
    expect(nav.screen).toMatchObject({ id: "item", params: { id: "a b", note: "none" }, title: "item" });
    expect(nav.address).toBe("/items/a%20b");
    expect(addresses.shared?.({ id: "ä/ö" })).toBe("/items/%C3%A4%2F%C3%B6");
    stop();
    expect(nav.back()).toBe("moved");
    expect(heard).toHaveLength(1);
    expect(nav.back()).toBe("left");
    expect(nav.enter.shared?.({ id: "q" }, true)).toBe("moved");
    expect(nav.line).toBe("s[list,item]");
  });

  it("asks the guards before each event", async () => {
    const { Navigator } = (await run(project)) as Module;
    let online = false;
    const nav = new Navigator({ guards: { online: () => online } });
    expect(nav.legs.sync?.()).toBe("ignored");
    online = true;
    expect(nav.legs.sync?.()).toBe("moved");
  });

  it("tells who listens where a fact from outside leads on by itself", async () => {
    const gate = app("s", {
      stacks: { s: "list offline" },
      facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
      legs: ["lost list:arrive push offline if=!fact.online", "open list push list"],
    });
    const { Navigator } = (await run(gate)) as Module;
    let online = true;
    const after: string[] = [];
    const nav = new Navigator({ guards: { online: () => online }, hooks: { after: ({ event }: { event: { do: string } }) => after.push(event.do) } });
    const lines: string[] = [];
    nav.subscribe(() => lines.push(nav.line));
    online = false;
    expect(nav.legs.open?.()).toBe("ignored");
    expect(lines).toEqual(["s[list,offline]"]);
    expect(after).toEqual(["fact"]);
  });

  it("starts where the guards' first answers lead, and runs no hook before the navigator is there", async () => {
    const gate = app("s", {
      stacks: { s: "list offline" },
      facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
      legs: ["lost list:arrive push offline if=!fact.online"],
    });
    const { Navigator } = (await run(gate)) as Module;
    const after: string[] = [];
    const nav = new Navigator({ guards: { online: () => false }, hooks: { after: () => after.push(nav.line) } });
    expect(nav.line).toBe("s[list,offline]");
    expect(after).toEqual([]);
    nav.back();
    expect(after).toEqual(["s[list,offline]"]);
  });

  it("gives a screen its own address, and that of a way in where it has none", async () => {
    const named = app("s", {
      stacks: { s: "list item" },
      screens: {
        list: { path: "/all", elements: [{ id: "key", kind: "field", label: "Key" }] },
        item: { params: [{ name: "id", type: "text", required: true }], path: "/all/{id}" },
      },
      legs: ["open list:submit(go) push item pass.id=field.key"],
      entrances: [{ id: "other", name: "Other", kind: "notification", pattern: "/alerts/{id}", to: "item", warm: "rebuild" }],
    });
    const { Navigator } = (await run(named)) as Module;
    const nav = new Navigator({});
    expect(nav.address).toBe("/all");
    nav.legs.open?.({ key: "a/b" });
    expect(nav.address).toBe("/all/a%2Fb");
    expect(nav.open("/all")).toBe("moved");
    expect(nav.line).toBe("s[list]");
    expect(nav.open("/all/x%20y?q=1")).toBe("moved");
    expect([nav.line, nav.screen.params]).toEqual(["s[list,item]", { id: "x y" }]);
    expect(nav.open("/nothing")).toBe("ignored");
  });

  it("writes half a pair of surrogates in an address as the character for what is none, and throws nothing", async () => {
    const { Navigator, addresses } = (await run(project)) as Module;
    expect(addresses.shared?.({ id: "a\uD800b" })).toBe("/items/a%EF%BF%BDb");
    const nav = new Navigator({ guards: { online: () => true } });
    nav.legs.open?.({ id: "\uDC00" });
    expect(nav.address).toBe("/items/%EF%BF%BD");
    nav.back();
    nav.legs.open?.({ id: "bee \u{1F41D}" });
    expect(nav.address).toBe("/items/bee%20%F0%9F%90%9D");
  });

  it("has rows of its own, whatever another navigator was given", async () => {
    const paged = app("s", {
      stacks: { s: "page" },
      screens: { page: { params: [{ name: "id", type: "text", required: false, default: "a" }], pages: { over: "hive", by: "id" } } },
      types: [{ id: "hive", fields: [{ name: "id", type: "text" }], samples: [{ id: "a" }, { id: "b" }] }],
      legs: ["on page replace page if=has(next.id) pass.id=next.id"],
    });
    const { Navigator } = (await run(paged)) as Module;
    const first = new Navigator({});
    const other = new Navigator({ rows: { hive: () => [{ id: "a" }, { id: "z" }] } });
    for (const nav of [first, other]) expect(nav.send({ do: "leg", leg: "on" })).toBe("moved");
    expect([first.screen.params, other.screen.params]).toEqual([{ id: "b" }, { id: "z" }]);
  });

  const shop = app("tabs", {
    tabs: { tabs: "shop cart" },
    stacks: { shop: "list plant", sheet: "colours" },
    modals: { picker: ["sheet", { motion: { kind: "grow" } }] },
    facts: [
      { id: "member", type: "boolean", initial: false, source: "app", persists: true },
      { id: "seen", type: "boolean", initial: false, source: "app" },
    ],
    types: [
      {
        id: "plant",
        name: "Plant",
        fields: [
          { name: "id", type: "text" },
          { name: "price", type: "number" },
          { name: "note", type: "text" },
        ],
        samples: [{ id: "fern", price: 3, note: "" }],
      },
    ],
    screens: {
      list: { elements: [{ id: "rows", kind: "list", label: "Plants", of: "plant" }] },
      plant: {
        title: "{param.id}, {has(param.colour) ? param.colour : 'no colour'}",
        params: [
          { name: "id", type: "text", required: true },
          { name: "colour", type: "text", required: false },
        ],
        elements: [
          { id: "code", kind: "field", label: "Code" },
          { id: "gift", kind: "switch", label: "As a gift" },
          { id: "buy", kind: "button", label: "Buy", text: "Buy {param.id}", enabled: "has(param.colour)" },
          { id: "help", kind: "link", label: "Help", shown: "fact.member" },
        ],
      },
      colours: { elements: [{ id: "rows", kind: "list", label: "Colours", of: "plant" }] },
    },
    legs: [
      "toPlant list:on(rows) push plant pass.id=item.id",
      "choose plant open picker",
      "picked colours:on(rows) close give.colour=item.note",
      "bought plant:submit(buy=paid) select cart if=field.code!='' set.seen=field.gift",
      "free plant:submit(buy=paid) select cart set.member=true",
      "failed plant:submit(buy=refused) back",
      "soon cart:after(20) select shop",
      "out cart leave url=https://example.org/paid",
      "helped plant:on(help) back",
    ],
  });

  it("asks for no more than the design cannot work out, and the design's own passes arrive", async () => {
    const { Navigator } = (await run(shop)) as Module;
    const nav = new Navigator({ timers: false });
    expect(nav.legs.toPlant?.({ id: "rose", colour: "forged", price: 1 })).toBe("moved");
    expect(nav.screen).toMatchObject({ id: "plant", params: { id: "rose" }, title: "rose, no colour" });
    expect(nav.send({ do: "leg", leg: "toPlant", args: { id: "forged" } } as never)).toBe("ignored");
  });

  it("hands back what was picked to the same screen, which keeps its key; titles, elements and reasons follow", async () => {
    const { Navigator } = (await run(shop)) as Module;
    const nav = new Navigator({ timers: false });
    nav.legs.toPlant?.({ id: "rose" });
    const { key } = nav.screen;
    expect(nav.element("plant", "buy")).toEqual({ hidden: false, disabled: true, text: "Buy rose" });
    expect(nav.element("plant", "help").hidden).toBe(true);
    expect([nav.can.failed?.(), nav.why.failed?.(), nav.can.picked?.({ note: "red" })]).toEqual([false, "no-such-control", false]);
    nav.legs.choose?.();
    expect(nav.pages.map(({ modal, screen, inReach }) => [modal, screen.id, inReach])).toEqual([
      [undefined, "plant", false],
      ["picker", "colours", true],
    ]);
    expect(nav.element("plant", "buy").disabled).toBe(true);
    expect([nav.motion?.kind, nav.motion?.reverse]).toEqual(["grow", false]);
    expect(nav.legs.picked?.({ note: "red" })).toBe("moved");
    expect([nav.motion?.kind, nav.motion?.reverse]).toEqual(["grow", true]);
    expect(nav.screen).toEqual({ id: "plant", params: { id: "rose", colour: "red" }, key, title: "rose, red" });
    expect(nav.screen).toBe(nav.screen);
    expect(nav.pages[0]?.standing.map(({ id }) => id)).toEqual(["list", "plant"]);
    expect(nav.can.failed?.()).toBe(true);
  });

  it("takes the first leg of an element that can, by the outcome", async () => {
    const { Navigator } = (await run(shop)) as Module;
    const bought = (fields: object, outcome: string) => {
      const nav = new Navigator({ timers: false });
      nav.legs.toPlant?.({ id: "rose" });
      nav.legs.choose?.();
      nav.legs.picked?.({ note: "red" });
      const came = nav.use.plant?.buy?.(fields, outcome);
      return [came, nav.screen.id, nav.facts];
    };
    expect(bought({ code: "x", gift: true }, "paid")).toEqual(["moved", "cart", { member: false, seen: true }]);
    expect(bought({ code: "", gift: true }, "paid")).toEqual(["moved", "cart", { member: true, seen: false }]);
    expect(bought({ code: "", gift: true }, "refused")).toEqual(["moved", "list", { member: false, seen: false }]);
  });

  it("takes stored facts in and gives them out, those that persist alone", async () => {
    const { Navigator } = (await run(shop)) as Module;
    const nav = new Navigator({ timers: false, facts: { member: true, seen: "no truth value", gone: true } });
    expect([nav.facts, nav.stored]).toEqual([{ member: true, seen: false }, { member: true }]);
  });

  it("carries out legs on a while and what leads out of the app, unless it is told not to", async () => {
    vi.useFakeTimers();
    const { Navigator } = (await run(shop)) as Module;
    const opened: string[] = [];
    const nav = new Navigator({ open: (url: string) => opened.push(url) });
    const tab = (of: Nav, to: string) => of.send({ do: "tab", to });
    tab(nav, "cart");
    expect(nav.legs.out?.()).toBe("left");
    expect([opened, nav.line]).toEqual([["https://example.org/paid"], "tabs{shop[list],*cart}"]);
    vi.advanceTimersByTime(19);
    expect(nav.screen.id).toBe("cart");
    vi.advanceTimersByTime(1);
    expect(nav.screen.id).toBe("list");
    // Whoever goes before it is time is not brought back.
    const other = new Navigator({});
    tab(other, "cart");
    tab(other, "shop");
    vi.advanceTimersByTime(100);
    expect(other.line).toBe("tabs{*shop[list],cart}");
    const quiet = new Navigator({ timers: false });
    tab(quiet, "cart");
    const ended = new Navigator({});
    tab(ended, "cart");
    ended.stop();
    vi.advanceTimersByTime(100);
    expect([quiet.screen.id, ended.screen.id]).toEqual(["cart", "cart"]);
    vi.useRealTimers();
  });

  it("is held by a hook, and goes on when it may, unless something else has moved", async () => {
    const { Navigator } = (await run(project)) as Module;
    const goOn: Array<() => void> = [];
    const after: string[] = [];
    let holds = true;
    const nav = new Navigator({
      guards: { online: () => true },
      hooks: {
        before: (_: unknown, resume: () => void) => {
          goOn.push(resume);
          return !holds;
        },
        after: ({ event }: { event: { do: string } }) => after.push(event.do),
      },
    });
    expect(nav.legs.open?.({ id: "a" })).toBe("held");
    expect(nav.line).toBe("s[list]");
    goOn[0]?.();
    expect(nav.line).toBe("s[list,item]");
    goOn[0]?.();
    expect(nav.line).toBe("s[list,item]");
    nav.back();
    holds = false;
    nav.back();
    goOn[1]?.();
    expect(nav.line).toBe("s[list]");
    expect(after).toEqual(["leg", "back"]);
  });
});

const SETTINGS = {
  compilerOptions: {
    strict: true,
    noEmit: true,
    target: "es2022",
    lib: ["es2022", "dom"],
    module: "esnext",
    moduleResolution: "bundler",
    allowImportingTsExtensions: true,
    noUncheckedIndexedAccess: true,
    exactOptionalPropertyTypes: true,
    noUnusedLocals: true,
    noUnusedParameters: true,
    noImplicitOverride: true,
    noImplicitReturns: true,
    erasableSyntaxOnly: true,
    types: [],
  },
};

/** The compiler's complaints about files, by strict settings: `FILE(LINE,COLUMN): error …`. */
function complaints(sources: Record<string, string>): string[] {
  const home = mkdtempSync(join(folder, "compiled-"));
  writeFileSync(join(home, "tsconfig.json"), JSON.stringify(SETTINGS));
  for (const [name, source] of Object.entries(sources)) writeFileSync(join(home, name), source);
  const { stdout, error } = spawnSync(process.execPath, [resolve("node_modules/typescript/bin/tsc"), "-p", home, "--pretty", "false"], {
    encoding: "utf8",
    cwd: home,
  });
  if (error) throw error;
  return stdout.split("\n").filter((text) => text.includes("error"));
}

/** Lines of use, each to be judged alone, after a heading that all share. */
function judged(project: Project, lines: string[]): boolean[] {
  const heading =
    'import { Navigator, type Views, addresses } from "./navigation.ts";\nexport type { Views };\nexport const use = (nav: Navigator): unknown[] => [addresses, nav];\n';
  const sources: Record<string, string> = { "navigation.ts": typescriptModule(project) };
  lines.forEach((line, i) => {
    sources[`use${i}.ts`] = `${heading}${line}\n`;
  });
  const all = complaints(sources);
  expect(all.filter((text) => text.startsWith("navigation"))).toEqual([]);
  return lines.map((_, i) => !all.some((text) => text.startsWith(`use${i}.ts(`)));
}

describe("the compiler", () => {
  it("takes the module under strict settings, whatever the names", () => {
    const words = app("class", {
      stacks: { class: "delete default" },
      screens: {
        delete: { name: '*/ alert("x") /*\n', params: [{ name: "function", type: "state", required: true }] },
        default: { code: "constructor", params: [{ name: "new", type: "plan", required: false }] },
      },
      types: [
        { id: "state", name: "State", fields: [{ name: "id", type: "text" }], samples: [{ id: "</script>" }] },
        { id: "plan", name: "plan", fields: [{ name: "pLAN", type: "date" }], samples: [] },
        { id: "pLAN", name: "PLAN", fields: [{ name: "typeof", type: "boolean" }], samples: [] },
      ],
      legs: ["await default push delete", "go delete push default pass.new=param.function"],
      entrances: [{ id: "import", name: "line\nbreak", kind: "link", pattern: "/x/{function}", to: "default", warm: "rebuild" }],
    });
    for (const project of [words, randomDocument(3, { unknown: true }), app("a", { screens: { a: {} } })])
      expect(complaints({ "navigation.ts": typescriptModule(project) }), project.name).toEqual([]);
  });

  it("refuses every call of Hollowcomb with a gap, a wrong type, a wrong name or one thing too many", () => {
    const lines = usableLegs(demo).flatMap(({ leg }) => {
      const { row, fields } = inputsOf(demo, [leg]);
      const value = (type: string) => (type === "integer" || type === "number" ? 1 : type === "boolean" ? true : "x");
      const names = row?.fields === "all" ? row.type.fields.map(({ name }) => name) : (row?.fields ?? []);
      const used = Object.fromEntries(names.map((name) => [name, value(row?.type.fields.find((one) => one.name === name)?.type ?? "")]));
      const typed = Object.fromEntries(fields.map(({ id, type }) => [id, value(type)]));
      const given = [...(row ? [used] : []), ...(fields.length > 0 ? [typed] : [])];
      const call = (...args: unknown[]) => `export const call = (nav: Navigator) => nav.legs.${leg.id}(${args.map((one) => JSON.stringify(one)).join(", ")});`;
      const wrong = given.map((one) => ({ ...one, [Object.keys(one)[0] ?? ""]: { no: "value" } }));
      const misspelt = given.map((one) => Object.fromEntries(Object.entries(one).map(([name, of]) => [`${name}s`, of])));
      return [call(...given), call(...given, {}), ...(given.length > 0 ? [call(), call(...wrong), call(...misspelt)] : [])].map(
        (line, i) => [line, i === 0] as const,
      );
    });
    expect(lines.length).toBeGreaterThan(150);
    expect(
      judged(
        demo,
        lines.map(([line]) => line),
      ),
    ).toEqual(lines.map(([, right]) => right));
  });

  it("refuses what is forgotten, misspelt, wrong or too much: rows, fields, outcomes, legs, tabs, ways in, views, guards, addresses, elements", () => {
    const screens = demo.screens.map((s) => s.code ?? s.id);
    const table = (names: string[]) => `export const views: Views<string> = { ${names.map((name) => `${name}: () => "x"`).join(", ")} };`;
    const nav = (line: string) => `export const call = (nav: Navigator) => ${line};`;
    const right = [
      table(screens),
      nav('nav.use.join.join({ code: "x" }, "known code")'),
      nav('nav.legs.toHive({ id: "x" })'),
      nav("nav.can.hiveOfDay() && nav.why.toYou() === undefined"),
      nav('nav.tab("rotaTab")'),
      nav('nav.pick("season")'),
      nav('nav.enter.miteAlert({ hiveId: "x", level: 3 })'),
      'export const a = addresses.miteAlert({ hiveId: "x", level: 3 });',
      nav('nav.element("hive", "next").disabled'),
      nav('nav.screen.id === "hive" ? nav.screen.params.hiveId : ""'),
      nav("nav.facts.member && nav.stored.member"),
      'export const made = new Navigator({ guards: { online: () => true, season: () => "summer" }, facts: { member: true } });',
      'export const made = new Navigator({ guards: { online: () => true, season: () => "summer" }, rows: { shift: () => [] } });',
    ];
    const refused = [
      table(screens.slice(1)),
      table([...screens, "nowhere"]),
      "export const views: Partial<Views<string>> = { hive: ({ apiaryId }) => apiaryId };",
      nav("nav.legs.toHive()"),
      nav("nav.legs.toHive({ id: 1 })"),
      nav('nav.legs.toHive({ key: "x" })'),
      nav('nav.legs.toHives({ id: "x" })'),
      nav('nav.legs.hiveOfDay({ id: "x" })'),
      nav("nav.legs.seenAll()"),
      nav("nav.can.toHive()"),
      nav('nav.use.join.join({ code: "x" })'),
      nav('nav.use.join.join({ code: "x" }, "a code")'),
      nav('nav.use.join.join({ coed: "x" }, "known code")'),
      nav('nav.use.join.leave({ code: "x" })'),
      nav('nav.tab("rota")'),
      nav('nav.pick("rotaTab")'),
      nav('nav.close("door")'),
      nav('nav.enter.miteAlert({ hiveId: "x" })'),
      nav('nav.enter.miteAlert({ hiveId: "x", level: "three" })'),
      nav("nav.enter.miteAlerts({})"),
      "export const a = addresses.miteAlert({});",
      'export const a = addresses.miteAlert({ hiveId: "x", level: 3, more: 1 });',
      nav('nav.element("hive", "swap")'),
      nav('nav.screen.id === "hives"'),
      nav('nav.screen.id === "hive" ? nav.screen.params.apiaryId : ""'),
      nav("nav.stored.unsaved"),
      "export const made = new Navigator({ guards: { online: () => true } });",
      'export const made = new Navigator({ guards: { online: () => 1, season: () => "summer" } });',
      'export const made = new Navigator({ guards: { online: () => true, season: () => "sumer" } });',
      'export const made = new Navigator({ guards: { online: () => true, season: () => "summer", rain: () => true } });',
      'export const made = new Navigator({ guards: { online: () => true, season: () => "summer" }, facts: { unsaved: true } });',
      'export const made = new Navigator({ guards: { online: () => true, season: () => "summer" }, rows: { shift: () => [{ id: 1 }] } });',
    ];
    const lines = [...right, ...refused];
    const found = judged(demo, lines);
    expect(lines.filter((_, i) => found[i])).toEqual(right);
  });
});
