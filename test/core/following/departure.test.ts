import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { transformSync } from "esbuild";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromLog } from "../../../src/core/following/draft.ts";
import type { Entry } from "../../../src/core/following/entry.ts";
import { walkFromLog } from "../../../src/core/following/keep.ts";
import { stateOfLine } from "../../../src/core/following/lineState.ts";
import { readLog } from "../../../src/core/following/read.ts";
import { followLog } from "../../../src/core/following/tally.ts";
import { typescriptModule } from "../../../src/core/handoff/typescript/module.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { runWalk } from "../../../src/core/insight/walks.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { pick, seeded } from "../../random/documents.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";
import { eventOf } from "../../vectors/vector.ts";
import { logOf } from "./logs.ts";

const rows = (log: readonly Entry[]) => log.map((entry, i) => ({ entry, row: i + 1 }));
const sentences = (project: Project, log: readonly Entry[]) => followLog(project, rows(log)).departures.map(({ sentence, is }) => `${is}: ${sentence}`);
const launched: Entry = { run: "r", event: { do: "launch" }, facts: {}, shows: "list" };

const shop = app("tabs", {
  tabs: { tabs: "main cart" },
  stacks: { main: "list item" },
  screens: {
    list: { path: "/list", elements: [{ id: "rows", kind: "list", label: "Things", of: "thing" }] },
    item: { path: "/items/{id}", code: "ItemView", params: [{ name: "id", type: "text", required: true }] },
  },
  types: [{ id: "thing", fields: [{ name: "id", type: "text" }], samples: [{ id: "1" }] }],
  legs: ["open list:on(rows) push item pass.id=item.id", 'fixed list push item pass.id="7"', "toCart item select cart"],
});

describe("a departure says where, what the app did, and what the design does", () => {
  it.each<[string, Entry[], RegExp]>([
    [
      "another screen",
      [launched, { run: "r", event: eventOf("fixed"), shows: "cart" }],
      /^other-screen: After tap fixed on “list” the app showed “cart”; the design shows “item”\. It goes to “cart” by tab cart/,
    ],
    [
      "no screen of the design",
      [launched, { run: "r", event: eventOf("fixed"), shows: "checkout" }],
      /^unknown-screen: .* the app showed “checkout”, which is no screen of the design\.$/,
    ],
    [
      "other arguments",
      [launched, { run: "r", event: eventOf("fixed"), shows: "item", args: { id: "8" } }],
      /^other-arguments: .* showed “item” with id "?8"?; the design passes "?7"?\.$/,
    ],
    [
      "another stack",
      [launched, { run: "r", event: eventOf("fixed"), shows: "item", line: "tabs{*main[item]}" }],
      /^other-stack: .* the design has tabs\{\*main\[list,item\]\}, the app tabs\{\*main\[item\]\}\.$/,
    ],
    ["a control that is not there", [launched, { run: "r", event: eventOf("toCart") }], /^no-control: Tap toCart on “list” is not in the design\./],
    ["a jump, in a log of screens alone", [launched, { run: "r", shows: "nowhere" }], /^unknown-screen: From “list” the app showed “nowhere”/],
    ["another start", [{ ...launched, shows: "cart" }], /^other-screen: At its launch the app showed “cart”; the design shows “list”\.$/],
  ])("%s", (_, log, says) => {
    expect(sentences(shop, log)).toEqual([expect.stringMatching(says)]);
  });

  it("once for each kind, with how often, and goes on from where the app is", () => {
    const bad: Entry = { run: "r", event: eventOf("fixed"), shows: "cart" };
    const back: Entry = { run: "r", event: { do: "tab", to: "main" }, shows: "list" };
    const report = followLog(shop, rows([launched, bad, back, bad, back, bad]));
    expect([report.departed, report.departures.map(({ count, row }) => [count, row])]).toEqual([3, [[3, 2]]]);
  });

  it("nowhere for rows that the design does not have, addresses, names in code, and what was typed", () => {
    const log: Entry[] = [
      launched,
      { run: "r", event: { do: "leg", leg: "open", item: "k77" }, shows: "item", args: { id: "k77" } },
      { run: "r", event: { do: "back" }, shows: "list" },
      { run: "r", shows: "https://shop.example/items/k%2078" },
      { run: "r", event: { do: "back" }, shows: "list" },
      { run: "r", shows: "ItemView", args: { id: "own" } },
    ];
    expect(sentences(shop, log)).toEqual([]);
    expect(followLog(shop, rows(log)).backs).toEqual({ 1: 2 });
  });

  it("with one event of a random walk changed: there, unless the design comes to the same by it", () => {
    let [told, alike] = [0, 0];
    for (let seed = 1; seed <= 150; seed++) {
      const project = wholeDocument(seed);
      const events = randomWalk(project, wholeEvents(project), seed, 20);
      const random = seeded(seed);
      const { log, states } = logOf(project, events, "everything");
      const at = 1 + Math.floor(random() * (log.length - 1));
      const other = pick(random, wholeEvents(project));
      const entry = log[at] as Entry;
      const changed = log.map((one, i) => (i === at ? { ...one, event: other } : one));
      const was = states[at - 1];
      if (!was) continue;
      const after = step(appOf(project), was, other).state;
      const same = stateLine(planOf(project), after) === entry.line && JSON.stringify(currentScreen(after).args) === JSON.stringify(entry.args);
      const first = followLog(project, rows(changed.slice(0, at + 1))).departures;
      if (same) {
        alike += 1;
        expect(first, `seed ${seed}`).toEqual([]);
      } else if (first.length > 0) {
        told += 1;
        expect(
          first.map(({ row }) => row),
          `seed ${seed}`,
        ).toEqual([at + 1]);
      }
    }
    expect(told).toBeGreaterThan(40);
    expect(alike).toBeGreaterThan(10);
  });
});

describe("OTLP/JSON log records", () => {
  const record = (attributes: Record<string, string>, time = "1772359200000000000") => ({
    timeUnixNano: time,
    attributes: Object.entries(attributes).map(([key, stringValue]) => ({ key, value: { stringValue } })),
  });
  const line = (...records: object[]) =>
    JSON.stringify({
      resourceLogs: [{ resource: { attributes: [{ key: "service.name", value: { stringValue: "shop" } }] }, scopeLogs: [{ logRecords: records }] }],
    });

  it("are read by session, screen and control; others are passed over", () => {
    const { log, problems } = readLog(
      [
        line(record({ "session.id": "s1", "app.screen.id": "list" }), record({ "session.id": "s1", "http.route": "/x" })),
        line(record({ "session.id": "s1", "app.widget.id": "fixed" }), record({ "session.id": "s1", "app.screen.name": "item" })),
      ].join("\n"),
    );
    expect(problems).toEqual([]);
    expect(log.map(({ entry }) => entry)).toEqual([
      { run: "s1", at: "2026-03-01T10:00:00.000Z", shows: "list" },
      { run: "s1", at: "2026-03-01T10:00:00.000Z", used: "fixed" },
      { run: "s1", at: "2026-03-01T10:00:00.000Z", shows: "item" },
    ]);
    const report = followLog(shop, log);
    expect([report.departed, report.legs, report.screens]).toEqual([0, { fixed: 1 }, { item: 1, list: 1 }]);
    // A tab by its name, as people see it.
    const chosen = [launched, { run: "r", used: "Basket" }, { run: "r", shows: "cart" }];
    const basket = { ...shop, screens: shop.screens.map((screen) => (screen.id === "cart" ? { ...screen, name: "Basket" } : screen)) };
    const { departed, controls, screens } = followLog(basket, rows(chosen));
    expect([departed, controls, screens]).toEqual([0, {}, { list: 1, cart: 1 }]);
    expect(followLog(shop, [...log, { row: 9, entry: { run: "s1", used: "Share" } }]).controls).toEqual({ Share: 1 });
  });

  it("and lines of any other kind are named with what is expected", () => {
    const { problems } = readLog('{"run":"a"}\nnot json\n{"event":{"do":"tp"}}\n{"resourceLogs":[{"scopeLogs":7}]}');
    expect(problems.map(({ row }) => row)).toEqual([1, 2, 3, 4]);
    expect(problems.map(({ problem }) => problem)).toEqual([
      expect.stringContaining('one of "event", "used", "shows" and "line"'),
      expect.stringContaining("expected one JSON object"),
      expect.stringContaining("event.do"),
      expect.stringContaining("resourceLogs[0].scopeLogs"),
    ]);
  });
});

describe("what a log gives", () => {
  it("a walk up to a line, that replays to the same state", () => {
    const events: NavEvent[] = [
      { do: "leg", leg: "fixed" },
      { do: "leg", leg: "toCart" },
    ];
    const { log } = logOf(shop, events, "everything", "a1");
    const kept = walkFromLog(shop, rows(log), "a1", 2);
    expect(kept).toMatchObject({ ok: true, walk: { events: events.slice(0, 1), expect: [{ after: 1, shows: "tabs{*main[list,item]}" }] } });
    if (kept.ok) expect(runWalk(shop, kept.walk).passed).toBe(true);
    expect(walkFromLog(shop, rows(log), "a2")).toMatchObject({ ok: false });
  });

  it("a walk of random logs of screens alone too, where it can be one", () => {
    let kept = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const project = wholeDocument(seed);
      const { log } = logOf(project, randomWalk(project, wholeEvents(project), seed, 8), "screens");
      const walk = walkFromLog(project, rows(log), "r");
      if (!walk.ok) continue;
      kept += 1;
      const lines = runWalk(project, walk.walk);
      expect(lines.failed, `seed ${seed}`).toEqual([]);
    }
    expect(kept).toBeGreaterThan(12);
  });

  it("a first draft of a project, without a blocker, from which the app does not depart", () => {
    for (let seed = 1; seed <= 40; seed++) {
      const project = wholeDocument(seed);
      const { log } = logOf(project, randomWalk(project, wholeEvents(project), seed, 30), "screens");
      const text = log.map((entry) => JSON.stringify(entry)).join("\n");
      const draft = fromLog(text, "Draft");
      if (!draft.ok) throw new Error(`seed ${seed}: ${JSON.stringify(draft.problems)}`);
      expect(
        check(draft.project).findings.filter(({ severity, open }) => severity === "blocker" && !open),
        `seed ${seed}`,
      ).toEqual([]);
      expect(
        followLog(draft.project, readLog(text).log).departures.filter(({ unsure }) => !unsure),
        `seed ${seed}`,
      ).toEqual([]);
    }
  });

  it("names and parameters of a draft as the log has them, and says what it could not know", () => {
    const draft = fromLog(
      '{"run":"a","shows":"hive-list"}\n{"run":"a","used":"Open it","shows":"HiveDetail","args":{"id":"7","page":2}}\n{"run":"a","shows":"hive-list"}',
    );
    if (!draft.ok) throw new Error("a draft");
    expect(draft.project.screens.map(({ id, name, params }) => [id, name, params.map(({ type }) => type)])).toEqual([
      ["hiveList", "Hive list", []],
      ["hiveDetail", "Hive detail", ["text", "integer"]],
    ]);
    expect(draft.project.screens[0]?.elements.map(({ label }) => label)).toEqual(["Open it"]);
    expect(draft.lost).toContain("Hive detail: where id comes from");
    expect(fromLog('{"run":"a","event":{"do":"launch"}}')).toMatchObject({ ok: false });
  });

  it("a state from a line, for every state that random walks come to", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const project = wholeDocument(seed);
      if (project.legs.some(({ move }) => move && "to" in move && move.to === "nowhere")) continue;
      let state = launch(appOf(project));
      for (const event of randomWalk(project, wholeEvents(project), seed, 20)) {
        state = step(appOf(project), state, event).state;
        const line = stateLine(planOf(project), state);
        const read = stateOfLine(planOf(project), line, state);
        if (read) expect(stateLine(planOf(project), read)).toBe(line);
        else expect(line, `seed ${seed}`).toMatch(/nowhere|\bc\d+\b(?![[{(])/);
      }
    }
    expect(stateOfLine(planOf(shop), "tabs{*main[list,}", launch(appOf(shop)))).toBeUndefined();
  });
});

describe("the log of generated code", () => {
  interface Navigator {
    send(event: NavEvent): string;
    restore(state: unknown): void;
    state: unknown;
  }

  it("is followed without a departure, for random documents and for the example; what was typed is not in it", async () => {
    const example = readProject(readFileSync("examples/bandstand/bandstand.etape.json", "utf8"));
    if (!example.ok) throw new Error("the example can be read");
    const folder = mkdtempSync(join(tmpdir(), "etape-log-"));
    let entries = 0;
    for (const [i, project] of [example.project, ...Array.from({ length: 12 }, (_, seed) => wholeDocument(seed + 1))].entries()) {
      const file = join(folder, `${i}.mjs`);
      writeFileSync(file, transformSync(typescriptModule(project), { loader: "ts" }).code);
      const { Navigator } = (await import(pathToFileURL(file).href)) as { Navigator: new (options: object) => Navigator };
      const log: Entry[] = [];
      const outside = Object.fromEntries(project.facts.flatMap((f) => (f.source === "outside" ? [[f.id, () => f.values?.at(-1) ?? true]] : [])));
      const nav = new Navigator({ guards: outside, timers: false, run: "t", log: (entry: Entry) => log.push(JSON.parse(JSON.stringify(entry))) });
      const events = randomWalk(
        project,
        wholeEvents(project).filter(({ do: kind }) => kind !== "fact"),
        i,
        60,
      );
      for (const [at, event] of events.entries()) {
        const before = nav.state;
        nav.send(event);
        if (at % 9 === 8) nav.restore(before);
      }
      entries += log.length;
      expect(JSON.stringify(log)).not.toContain('"fields"');
      expect(sentences(project, log), project.name).toEqual([]);
    }
    expect(entries).toBeGreaterThan(600);
  });
});
