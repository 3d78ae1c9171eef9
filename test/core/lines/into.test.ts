import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { linesInto } from "../../../src/core/lines/into.ts";
import { isLines } from "../../../src/core/lines/isLines.ts";
import { emptyProject } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { lookup, nameOf, passOf } from "../../../src/core/model/lookup.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const into = (project: Project, text: string, beside?: string) => {
  const made = linesInto(project, text, beside);
  if (!made.ok) throw new Error(made.problems.map(({ message }) => message).join("; "));
  return { project: applyEdit(project, made.edit), makes: made.makes, last: made.last };
};
const moves = (project: Project) =>
  project.legs.map(({ from, move }) => `${nameOf(project, from)} ${move?.kind} ${move && "to" in move ? nameOf(project, move.to) : ""}`.trim());

describe("lines into a project", () => {
  it("are told from names", () => {
    for (const text of [
      "Plots: New > New plot",
      "Yard (tabs)",
      "Plots > Plot",
      "Plots → Plot",
      "- Plots",
      "1. Plots",
      "Plots (hub)",
      "Plots (Tab)",
      "Ask (alert, no bar)",
    ])
      expect(isLines(text), text).toBe(true);
    for (const text of ["Plots", "Plots, Plot", "Order (old)", "Round 2 (of 3)", "1 May", "Screenshots", '"Tour: hives"'])
      expect(isLines(text), text).toBe(false);
  });

  it("put what a page leads to into the stack of that page, line after line", () => {
    const begun = into(emptyProject("Mine"), "Main (tabs)\n  Home\n    Home\n  You\n    You").project;
    const built = [
      "You: Settings icon > Settings, Sign out > Sign in\nSettings: Delete > Delete account (dialog)\nDelete account: Delete > Sign in, Keep > close",
      "Home: New > New post (sheet)\nNew post: Photo > Pick photo, Post > close\nPick photo: Photo list > back",
      "## Help\n- Topic list > Topic\n- Chat > Support\n\nHome: Help > Help",
    ].reduce((project, text) => into(project, text).project, begun);
    const inside = built.containers
      .filter(({ kind }) => kind !== "modal")
      .map(({ name, members }) => `${name}: ${members.map((id) => nameOf(built, id)).join(", ")}`);
    expect(inside).toEqual(["Main: Home, You", "Home: Home, Help, Topic, Support", "You: You, Settings, Sign in", "New post steps: New post, Pick photo"]);
    expect(check(built, { fixes: false }).findings.filter(({ severity }) => severity !== "note")).toEqual([]);
  });

  it("make all of one in which nothing was built, and keep its name unless they name it", () => {
    const empty = emptyProject("Mine");
    expect(into(empty, "Plots: New > New plot").project).toMatchObject({ name: "Mine" });
    expect(into(empty, "app Other\nPlots").project).toMatchObject({ name: "Other", root: "plots" });
    expect(into(empty, "Plots").project.screens.map(({ name }) => name)).toEqual(["Plots"]);
  });

  it("find what is there by name, add what is not, and double nothing", () => {
    const shop = app("s", { stacks: { s: "home cart" }, modals: { help: "faq" } });
    const named = { ...shop, screens: shop.screens.map((one) => ({ ...one, name: one.id === "home" ? "Home page" : one.name })) };
    const { project, makes } = into(named, "Home page: Cart icon > cart, Help > help, Offers list > Offers(id = item.id)\nOffers(id): Buy > cart");
    expect(project.screens.map(({ name }) => name)).toEqual(["Home page", "cart", "faq", "Offers"]);
    expect(moves(project)).toEqual(["Home page push cart", "Home page open help", "Home page push Offers", "Offers push cart"]);
    expect(lookup(project).owners.get("offers")?.id).toBe("s");
    expect(makes).toEqual(["screens “Offers”", "4 elements", "4 legs"]);
    const again = into(project, "Home page: Cart icon > cart");
    expect([again.makes, again.project.legs.length]).toEqual([[], 4]);
  });

  it("try the way where the element is met, unless they name it", () => {
    const note = app("s", { stacks: { s: "home" }, modals: { m: "note" }, legs: ["new home open m"] });
    expect(moves(into(note, "note: Done > home").project)).toContain("note close");
    expect(moves(into(note, "note: Done > home (reset)").project)).toContain("note reset home");
  });

  it("read plain words by the facts, parameters and stacks of the project", () => {
    const begun = into(
      app("s", { stacks: { s: "welcome feed" }, facts: [{ id: "tier", type: "choice", values: ["guest", "paying"], initial: "guest", source: "app" }] }),
      "feed(postId)",
    );
    const { project, makes } = into(
      begun.project,
      "Ask (dialog): Out > welcome (reset, set signedIn = false)\nfeed: More > welcome (if tier = paying and postId is 'a')",
    );
    expect(project.legs).toMatchObject([
      { move: { kind: "reset", to: "welcome", in: "s" }, set: { signedIn: "false" } },
      { when: "fact.tier == 'paying' && param.postId == 'a'" },
    ]);
    expect(makes).toContain("fact “signedIn”");
    expect(linesInto(project, "feed: Less > welcome (if tier = paid)")).toMatchObject({ ok: false, problems: [{ line: 1, column: 23 }] });
    const later = into(into(begun.project, "welcome (once)").project, "feed (hub)").project;
    expect(later.screens.map(({ up }) => up)).toEqual(["auto", "none"]);
  });

  it("make containers in a project that is begun, and go into those that are there", () => {
    const begun = app("s", { stacks: { s: "a b" }, legs: ["ab a push b"] });
    const { project } = into(begun, "Yard (tabs)\n  One\n    First: More > Second\n    Second\n  Two\na: Yard > Yard");
    const tree = (id: string): unknown =>
      lookup(project)
        .containers.get(id)
        ?.members.map((one) => [one, tree(one) ?? "screen"]);
    expect(tree("s")).toEqual([
      ["a", "screen"],
      ["b", "screen"],
      ["yard", [["one", [["first", "screen"], ["second", "screen"]]], ["two", "screen"]]], // biome-ignore format: the tree as it is read
    ]);
    expect(moves(project)).toEqual(["a push b", "First push Second", "a push Yard"]);
    const more = into(project, "Yard (tabs)\n  One\n    Third\n  Three (hub)").project;
    expect(lookup(more).containers.get("one")?.members).toEqual(["first", "second", "third"]);
    expect(lookup(more).containers.get("yard")?.members).toEqual(["one", "two", "three"]);
  });

  it("add facts, rows and ways in, and keep those that are there", () => {
    const begun = app("s", { stacks: { s: "a b" }, legs: ["ab a push b"] });
    const text = 'fact member (persists)\nrows plot(id, name): p1, Oak\na: Plots list (of plot) > c(id = item.id)\nc(id)\nin "Frost" > b (notification)';
    const { project } = into(begun, text);
    expect(project).toMatchObject({ facts: [{ id: "member" }], types: [{ id: "plot", samples: [{ id: "p1" }] }], entrances: [{ name: "Frost", to: "b" }] });
    const again = into(project, "fact member = true\na: Plots list > c").project;
    expect(again.facts).toEqual(project.facts);
  });

  it("tell more of a screen that is there: parameters, and what is special of it", () => {
    const begun = app("s", { stacks: { s: "a b" }, screens: { a: { params: [{ name: "id", type: "text", required: true }], title: "Old" } } });
    const { project } = into(begun, "a(id: number, size?) (hub, path /a/{id})\nb (up a)");
    expect(project.screens).toMatchObject([
      {
        id: "a",
        hub: true,
        path: "/a/{id}",
        title: "Old",
        params: [
          { name: "id", type: "text" },
          { name: "size", required: false },
        ],
      },
      { id: "b", up: "a" },
    ]);
    expect(into(project, "a: Go > b").project.screens[0]).toMatchObject({ hub: true, title: "Old" });
  });

  it("make a new sheet with its screen", () => {
    const { project } = into(app("s", { stacks: { s: "a b" } }), "a: New plot > New plot (sheet)");
    expect(lookup(project).containers.get("newPlot")?.members).toEqual(["newPlot2"]);
    expect(moves(project)).toEqual(["a open New plot"]);
    // A new screen goes beside the one that leads there, and not into a sheet that the same line makes.
    const both = into(project, "b: Log link > Log, Photo image > Photo (full screen)").project;
    expect([both.containers.find(({ id }) => id === "s")?.members, both.containers.find(({ id }) => id === "photo")?.members]).toEqual([
      ["a", "b", "log"],
      ["photo2"],
    ]);
    expect(both.containers.find(({ id }) => id === "photo")).toMatchObject({ closeOn: ["swipe", "button", "back"] });
  });

  it("give a list rows of what it hands on, and a screen that is only named the parameters that it is passed", () => {
    const empty = emptyProject("App");
    for (const [lines, type] of [
      ["Plots: Plot rows > Plot(plotId = item.id)", "plot"],
      ["Days: Rehearsals list > Day(plotId = item.id, size = 2, on = true)", "rehearsal"],
    ] as const) {
      const { types, screens, legs } = into(empty, lines).project;
      expect(types).toMatchObject([{ id: type, fields: [{ name: "id", type: "text" }], samples: [{ id: `${type}1` }, {}, {}] }]);
      expect(screens[0]?.elements[0]?.of).toBe(type);
      expect(screens[1]?.params.map((param) => param.name)).toEqual(Object.keys(passOf(legs[0]) ?? {}));
      expect(check(into(empty, lines).project, { fixes: false }).findings.filter(({ severity }) => severity !== "note")).toEqual([]);
    }
    // Also where the list and the screen are there already.
    const begun = into(into(empty, "Plots: Plot list > Plot").project, "Plots: Plot list > Plot(plotId = item.id)").project;
    expect(begun.screens).toMatchObject([{ elements: [{ of: "plot" }] }, { params: [{ name: "plotId" }] }]);
    expect(begun.legs).toMatchObject([{ move: { pass: { plotId: "item.id" } } }]);
    // Rows that the lines name themselves are the list's, too.
    expect(into(empty, "rows plot(id, name): a, Oak\nPlots: Plot list > Plot(plotId = item.id)").project.types).toMatchObject([{ samples: [{ name: "Oak" }] }]);
  });

  it("pass what they name, also where the way is open", () => {
    const { project } = into(app("s", { stacks: { s: "a b" } }), 'a: Show > c(size = "2", id = "x")\nc(id, size)');
    expect(project.legs).toMatchObject([{ move: { kind: "push", pass: { id: '"x"', size: '"2"' } } }]);
  });

  it("find places by their paths, as they are told", () => {
    const yard = app("yard", { stacks: { one: "a list", two: "b other" }, tabs: { yard: "one two" } } as Parameters<typeof app>[1]);
    const twice = { ...yard, screens: yard.screens.map((one) => ({ ...one, name: one.id === "other" ? "list" : one.name })) };
    const { project } = into(twice, "a: Here > list, There > two/list, Over > yard/two\ntwo/list: Back > a (push)\nin /there > two/list");
    expect(project.legs.map(({ from, move }) => [from, move && "to" in move ? move.to : ""])).toEqual([
      ["a", "list"],
      ["a", "other"],
      ["a", "two"],
      ["other", "a"],
    ]);
    expect([project.screens.length, project.entrances[0]?.to]).toEqual([4, "other"]);
    expect(into(twice, "in /there > two/list").project.entrances).toMatchObject([{ to: "other" }]);
    const wrong = linesInto(twice, "a: There > three/list");
    expect(wrong).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("there is no place “three/list”") }] });
  });

  it("say where a place stands already that they put elsewhere", () => {
    const made = linesInto(app("s", { stacks: { s: "a b" } }), "c\nYard (tabs)\n  a\n  c2");
    expect(made).toMatchObject({ ok: false, problems: [{ line: 3, message: expect.stringContaining("“a” is in “s” already") }] });
  });
});
