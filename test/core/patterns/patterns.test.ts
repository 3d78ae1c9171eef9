import { existsSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { check } from "../../../src/core/check/check.ts";
import { since } from "../../../src/core/check/compareFindings.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { toLines } from "../../../src/core/lines/tell.ts";
import { emptyProject } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { lookup, nameOf } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { example, patternsDoc } from "../../../src/core/patterns/docs.ts";
import type { Pattern } from "../../../src/core/patterns/pattern.ts";
import { putPattern, usualNames } from "../../../src/core/patterns/put.ts";
import { PATTERNS } from "../../../src/core/patterns/table.ts";
import { amount } from "../../random/amount.ts";
import { app } from "../../vectors/app.ts";

const each = PATTERNS.map((pattern) => [pattern.id, pattern] as const);
const named = (id: string): Pattern => {
  const pattern = PATTERNS.find((one) => one.id === id);
  if (!pattern) throw new Error(id);
  return pattern;
};
const putIn = (project: Project, id: string, place: string, given: Record<string, string> = {}): Project => {
  const put = putPattern(project, named(id), place, given);
  if (!put.ok) throw new Error([...put.problems.values()].join(" "));
  return put.project;
};
const demo = (name: string): Project => {
  const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
  if (!read.ok) throw new Error(name);
  return read.project;
};
const found = (project: Project) => check(project, { fixes: false }).findings;

describe.each(each)("the pattern %s", (_, pattern) => {
  it("goes into an empty project without a finding that was not there, as one edit, and can be read and told as lines", () => {
    const { before, project } = example(pattern);
    expect(since(found(before), found(project)).came).toEqual([]);
    const put = putPattern(before, pattern, before.root);
    expect(put.ok && applyEdit(before, put.edit)).toEqual(project);
    const read = readProject(writeProject(project));
    expect(read.ok && read.project).toEqual(project);
    const again = fromLines(toLines(project));
    expect(again.ok && toLines(again.project)).toBe(toLines(project));
  });

  it("takes any name as it is", () => {
    const odd = ['A: b > c, "d" (sheet)', "close", "back\\ 'n' back", "§ 名前 🐝", "- list", "/a/b", "on arriving"];
    const given = Object.fromEntries(pattern.asks.map((ask, i) => [ask.id, ask.of === "places" ? `${i} one: x, ${i} > two` : `${odd[i % odd.length]} ${i}`]));
    const put = putPattern(emptyProject("App"), pattern, "home", given);
    if (!put.ok) throw new Error([...put.problems.values()].join(" "));
    const texts = new Set(
      JSON.stringify(put.project)
        .match(/"(?:[^"\\]|\\.)*"/g)
        ?.map((text) => JSON.parse(text) as string),
    );
    // What is usually not needed here is not needed under another name.
    const usual = JSON.stringify(example(pattern).project);
    for (const { id, of } of pattern.asks.filter((ask) => usual.includes(JSON.stringify(ask.usual.split(",")[0]))))
      if (of === "place" || of === "label")
        for (const name of of === "label" && !texts.has(given[id] ?? "") ? (given[id] ?? "").split(",") : [given[id] ?? ""])
          expect(texts).toContain(name.trim());
    expect(readProject(writeProject(put.project)).ok).toBe(true);
  });
});

describe("names", () => {
  it("are the usual ones, with a number where they are taken, and are asked for where they are empty or taken", () => {
    const begun = app("s", { stacks: { s: "home settings" }, screens: { settings: { name: "Settings" } } });
    expect(usualNames(begun, named("settings"))).toMatchObject({ settings: "Settings 2", about: "About" });
    const twice = putIn(putIn(begun, "settings", "home"), "settings", "home");
    expect(twice.screens.map(({ name }) => name)).toEqual(["home", "Settings", "Settings 2", "About", "Settings 3", "About 2"]);
    const wrong = putPattern(begun, named("settings"), "home", { settings: "settings ", about: " " });
    expect(wrong).toEqual({
      ok: false,
      problems: new Map([
        ["settings", "There is a “settings” already; another name is expected."],
        ["about", "A name is expected."],
      ]),
    });
    expect(putPattern(begun, named("steps"), "home", { steps: "One, one" })).toMatchObject({ ok: false });
  });

  it("of rows may be those of a record type that is there", () => {
    const { types, screens } = putIn(putIn(emptyProject("App"), "list", "home", { rows: "Plot" }), "pick", "home", { rows: "plot" });
    expect(types.map(({ id, samples }) => [id, samples.length])).toEqual([["plot", 3]]);
    expect(screens.flatMap(({ elements }) => elements.flatMap(({ of }) => of ?? []))).toEqual(["plot", "plot"]);
  });
});

describe("what is there already", () => {
  it("is used: an element that leads nowhere yet, and the fact that says who is a member", () => {
    const begun = app("s", { stacks: { s: "home" }, screens: { home: { elements: [{ id: "find", kind: "icon", label: "Search", at: "bar" }] } } });
    const { screens } = putIn(begun, "search", "home");
    expect(screens.find(({ id }) => id === "home")?.elements.map(({ id }) => id)).toEqual(["find"]);
    const two = app("s", { stacks: { s: "home a b" }, legs: ["toA home push a", "toB home push b", "on a push b"] });
    expect(putIn(putIn(two, "members", "a"), "members", "b").facts.map(({ id }) => id)).toEqual(["member"]);
    // Who is behind a gate already would never meet another one with the same fact.
    const behind = app("s", { stacks: { s: "home a b" }, legs: ["toA home push a", "on a push b"] });
    expect(putIn(putIn(behind, "members", "a"), "members", "b").facts.map(({ id }) => id)).toEqual(["member", "member2"]);
  });

  it("keeps the arguments of the screen where a way leads back to it", () => {
    const begun = app("s", {
      stacks: { s: "home plot" },
      screens: { plot: { params: [{ name: "plotId", type: "text", required: true }] } },
      legs: ["go home push plot pass.plotId='7'"],
    });
    for (const id of ["steps", "members", "send", "confirm"]) {
      const after = putIn(begun, id, "plot");
      expect(since(found(begun), found(after)).came.map(({ code, subjects }) => `${id} ${code} ${subjects.join(" ")}`)).toEqual([]);
    }
  });

  it("goes along with a screen into its lane where nothing else leads to it", () => {
    const begun = app("s", {
      stacks: { s: "home plot log help" },
      legs: ["a home push plot", "b plot push log", "c log return home", "d home push help", "e help push log"],
    });
    const tabs = putIn(begun, "tabs", "plot");
    expect(tabs.containers.filter(({ members }) => members.includes("plot")).map(({ members }) => members)).toEqual([["plot"]]);
    const home = putIn({ ...begun, legs: begun.legs.filter(({ id }) => id !== "e") }, "tabs", "home");
    expect(home.containers.find(({ members }) => members.includes("home"))?.members).toEqual(["home", "plot", "log", "help"]);
    expect(since(found(begun), found(home)).came.filter(({ severity }) => severity === "blocker")).toEqual([]);
  });

  it("goes into the lanes of a screen that is shown in another's place", () => {
    const begun = app("s", { stacks: { s: "home sent" }, legs: ["go home replace sent", "again sent reset home"] });
    const tabs = putIn(begun, "tabs", "sent");
    expect(since(found(begun), found(tabs)).came.filter(({ severity }) => severity === "blocker")).toEqual([]);
    const round = app("s", { stacks: { s: "home sent" }, legs: ["go home replace sent", "again sent replace home"] });
    expect(named("tabs").where(round, "sent")).toBeUndefined();
  });
});

/** All places of Hollowcomb and Tidewatch where ETAPE_EVERYWHERE is set (minutes); else one in many, another for each pattern. */
const EVERY = process.env.ETAPE_EVERYWHERE ? 1 : amount(40, 200);

describe("at the places where they are offered, patterns bring no new blocker", () => {
  const tried = (documents: ReadonlyArray<readonly [string, Project]>, every: number) => {
    const wrong: string[] = [];
    let count = 0;
    for (const [name, project] of documents) {
      const before = found(project);
      const offers = PATTERNS.flatMap((pattern) =>
        [...lookup(project).places.keys()].flatMap((place) => (pattern.where(project, place) ? [{ pattern, place }] : [])),
      );
      for (const [i, { pattern, place }] of offers.entries()) {
        if ((i * 7 + pattern.id.length) % every !== 0) continue;
        const put = putPattern(project, pattern, place);
        if (!put.ok) throw new Error(`${name} ${pattern.id} ${place}: ${[...put.problems.values()].join(" ")}`);
        count += 1;
        const came = since(before, found(put.project)).came.filter(({ severity }) => severity === "blocker");
        wrong.push(...came.map(({ code, subjects }) => `${name}: ${pattern.id} at ${nameOf(project, place)}: ${code} ${subjects.join(" ")}`));
      }
    }
    return { wrong, count };
  };

  it("into the demos", () => {
    // Without the rules of its own: that a change would break one is what it is told, and no fault of the pattern.
    const { rules: _, ...hollowcomb } = demo("hollowcomb");
    const { wrong, count } = tried([["hollowcomb", hollowcomb] as const, ["tidewatch", demo("tidewatch")] as const], EVERY);
    expect(wrong).toEqual([]);
    expect(count).toBeGreaterThan(amount(20, 4));
  });

  it("into made-up apps", () => {
    const { wrong, count } = tried(
      Array.from({ length: amount(10, 4) }, (_, seed) => [`app ${seed}`, builtApp(6 + seed * 3, seed)] as const),
      30,
    );
    expect(wrong).toEqual([]);
    expect(count).toBeGreaterThan(amount(100, 20));
  });
});

it("docs/patterns.md tells what the patterns make, with its pictures (npm run docs)", () => {
  const { text, pictures } = patternsDoc();
  expect(readFileSync("docs/patterns.md", "utf8")).toContain(text);
  // The style sheet is put in by the bundler alone.
  const drawn = (svg: string) => svg.replace(/<style>[\s\S]*?<\/style>\s*/g, "");
  for (const [name, svg] of pictures) expect(existsSync(`docs/${name}`) && drawn(readFileSync(`docs/${name}`, "utf8")), name).toBe(drawn(svg));
});
