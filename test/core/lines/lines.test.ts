import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { lostInLines, toLines } from "../../../src/core/lines/tell.ts";
import { lookup, nameOf } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { randomDocument } from "../../random/documents.ts";
import { wholeDocument } from "../../random/whole.ts";

const demo = (name: string): Project => {
  const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  return read.project;
};
const built = (text: string): Project => {
  const made = fromLines(text);
  if (!made.ok) throw new Error(made.problems.map(({ line, column, message }) => `${line}:${column} ${message}`).join("\n"));
  return made.project;
};
const wrong = (text: string) => {
  const made = fromLines(text);
  return made.ok ? [] : made.problems.map(({ line, column, message }) => `${line}:${column} ${message}`);
};
const legs = (project: Project) =>
  project.legs.map((leg) => {
    const to = leg.move && "to" in leg.move ? nameOf(project, leg.move.to) : "";
    return `${nameOf(project, leg.from)} ${leg.move?.kind ?? "sets"} ${to}`.trim();
  });

describe("lines read", () => {
  it("a screen, what is on it and where it leads; places that are missing are made", () => {
    const project = built("Plots: Plot list > Plot, New plot > New plot sheet (modal), Settings icon > Settings");
    expect(project.screens.map(({ name }) => name).sort()).toEqual(["New plot sheet", "Plot", "Plots", "Settings"]);
    expect(
      lookup(project)
        .screens.get("plots")
        ?.elements.map(({ kind, label }) => [kind, label]),
    ).toEqual([
      ["list", "Plot list"],
      ["button", "New plot"],
      ["icon", "Settings"],
    ]);
    expect(legs(project)).toEqual(["Plots push Plot", "Plots open New plot sheet", "Plots push Settings"]);
    expect(project.containers.map(({ kind, members }) => [kind, members])).toEqual([
      ["stack", ["plots", "plot", "settings"]],
      ["modal", [expect.any(String)]],
    ]);
  });

  it("containers by indentation, with the first as start unless another says so; a tab that leads on becomes a stack", () => {
    const project = built(
      "Yard (tabs)\n  Hives: Hive list > Hive(hiveId = item.id)\n  Rota (start)\nrows hive(id, name): a, Oak | b, Elm\n".replace(
        "Hive list >",
        "Hive list (of hive) >",
      ),
    );
    const tabs = project.containers.find(({ kind }) => kind === "tabs");
    expect([project.root, tabs?.start, tabs?.members.length]).toEqual(["yard", "rota", 2]);
    expect(project.containers.filter(({ kind }) => kind === "stack").map(({ members }) => members)).toEqual([["hives", "hive"]]);
    expect(project.types[0]?.samples).toEqual([
      { id: "a", name: "Oak" },
      { id: "b", name: "Elm" },
    ]);
  });

  it("parameters, arguments that are known without saying, conditions, facts, outcomes, ways in, planned", () => {
    const project = built(
      [
        "app Tea",
        "fact member (persists)",
        'fact season "the season" = spring | "true" | autumn (outside)',
        "rows tea(id, name): a, Assam",
        "in /teas/{teaId} > Tea (waits, if fact.member, else Shelf)",
        'in "Water boils" > Tea(teaId = "a") (notification)',
        'Shelf: Tea list (of tea) > Tea, Join > "yes": Tea(teaId = "a") (submit, set member = true) | "no": nothing (submit)',
        "Tea(teaId, size: number = 2, note?) (planned, path /tea/{teaId})",
        "  - after 2 s > back",
        "  - on leaving > Sure? (dialog, if !fact.member)",
      ].join("\n"),
    );
    expect(project.facts.map(({ id, type, initial, source }) => [id, type, initial, source])).toEqual([
      ["member", "boolean", false, "app"],
      ["season", "choice", "spring", "outside"],
    ]);
    expect(lookup(project).screens.get("tea")).toMatchObject({
      planned: true,
      params: [{ required: true }, { type: "number", default: 2 }, { required: false }],
    });
    const [row, yes, no, later, leaving] = project.legs;
    expect(row?.move).toEqual({ kind: "push", to: "tea", pass: { teaId: "item.id" } });
    expect([yes?.on, yes?.set, no?.move]).toEqual([{ kind: "submit", element: "join", outcome: "yes" }, { member: "true" }, undefined]);
    expect([later?.on, later?.move, leaving?.when]).toEqual([{ kind: "after", ms: 2000 }, { kind: "back" }, "!fact.member"]);
    expect(project.entrances.map(({ kind, pattern, resume, otherwise, pass }) => [kind, pattern, resume, otherwise, pass])).toEqual([
      ["link", "/teas/{teaId}", true, "shelf", undefined],
      ["notification", undefined, undefined, undefined, { teaId: '"a"' }],
    ]);
  });

  it("a way is tried, not guessed: what a modal covers is come back to by closing it", () => {
    const project = built("Home: New > New note\nNew note (sheet): Done > Home, Cancel > close\n");
    expect(legs(project)).toEqual(["Home open New note", "New note close", "New note close"]);
    expect(legs(built("Home: New > New note\nNew note (sheet): Done > Home (reset)"))).toContain("New note reset Home");
  });

  it("says where and what is wrong, all of it at once", () => {
    expect(wrong("")).toEqual(["1:1 there is no screen in it; expected one a line, such as Home: Plots > Plots"]);
    expect(wrong("Home: > Plot\nPlot (hub, shiny)\nfact 2big\nin plot > Plot")).toEqual([
      "1:7 found “> Plot”, expected what is tapped before >",
      "2:12 found “shiny”, expected hub, once, planned, no bar, path /plots or title …",
      "3:6 found “2big”, expected a fact such as member, online = true or season = spring | summer",
      "4:4 found “plot”, expected an address that begins with /, or a name in quotes",
    ]);
    expect(wrong(": Save\n- Help")).toEqual([
      "1:1 found “: Save”, expected the name of a screen or container",
      "2:3 found elements, expected a screen above them",
    ]);
    expect(wrong("Home: Go > Yard/Nowhere")).toEqual(["1:12 there is no place “Yard/Nowhere”; expected the name of a screen or container of these lines"]);
    expect(wrong("rows tea(id, name): a")).toContain("1:6 row 1 has 1 values, expected 2: id, name");
    expect(wrong("Home: Go > Plot(size)\nPlot(si ze)")).toEqual([
      "1:17 found “size”, expected an argument such as plotId = item.id",
      "2:6 found “si ze”, expected a parameter such as plotId, tab: number, filter? or size = 1",
    ]);
  });
});

describe("lines told", () => {
  it.each(["hollowcomb", "hollowcomb-first-draft", "tidewatch", "oddglove"])("%s comes back as the same lines, and loses only what is listed", (name) => {
    const project = demo(name);
    const text = toLines(project);
    const again = built(text);
    expect(toLines(again)).toBe(text);
    expect(readFileSync(`demo/${name}.lines`, "utf8"), "npm run docs").toBe(text);
    expect([again.screens.length, again.legs.length, again.containers.length, again.entrances.length, again.facts.length]).toEqual([
      project.screens.length,
      project.legs.length,
      project.containers.length,
      project.entrances.length,
      project.facts.length,
    ]);
    expect(lostInLines(again)).toEqual([]);
    // What is lost changes nothing that the checker would find.
    const codes = (of: Project) => check(of, { fixes: false }).findings.filter(({ severity }) => severity !== "note").length;
    if (name !== "hollowcomb-first-draft") expect(codes(again)).toBe(codes(project));
  });

  it("a drawer has its menu button, steps in a modal have a stack, and switching goes to the tab, as people expect who write nothing of it", () => {
    const written = [
      `app Office
Office (drawer, pinned when wide)
  Rooms
    Rooms (hub): Free rooms > Free rooms
    Free rooms
  People (hub)
  Settings (hub): Sign out > leave`,
      `app Orders
Main
  Orders (hub): New order > What
New order (full screen)
  What: Next > Where, Cancel > close
  Where: Next > Check
  Check: Place the order > Placed (reset), Change it > What (pop to)
  Placed (no up): Close > close`,
      `app Trips
rows trip(id, name): north, North shore
Home (tabs)
  Trips
    Trips (hub): Trip list (of trip) > Trip(tripId = item.id)
    Trip(tripId) (title {param.tripId})
  Me (hub): Trips of mine > Trips (switch)`,
    ].map(built);
    for (const project of written) {
      expect(check(project).findings.map(({ message }) => message)).toEqual([]);
      expect(toLines(built(toLines(project)))).toBe(toLines(project));
    }
    const [office, orders] = written;
    expect(office?.screens.filter(({ bar }) => bar?.lead === "menu").map(({ name }) => name)).toEqual(["Rooms", "People", "Settings"]);
    expect(orders?.containers.map(({ kind, name, members }) => [kind, name, members.length])).toEqual([
      ["stack", "Main", 1],
      ["modal", "New order", 1],
      ["stack", "New order steps", 4],
    ]);
    // Unless they say otherwise: a bar of its own, a control that opens the menu, screens side by side.
    const own = built("Office (drawer)\n  Rooms (bar)\n  People: Menu > menu\n  Desk (no bar)");
    expect(own.screens.map(({ bar }) => bar?.lead)).toEqual(["auto", undefined, "auto"]);
    const beside = built("Home: Ask > One\nAsk (dialog, no stack)\n  One: Other > Two\n  Two");
    expect(beside.containers.map(({ kind }) => kind)).toEqual(["modal"]);
    expect(toLines(beside)).toContain("Ask (dialog, no stack)");
  });

  it("random documents come back as the same lines", () => {
    let [compared, broken] = [0, 0];
    const odd: string[] = [];
    for (let seed = 0; seed < 160; seed++) {
      const project = seed % 2 === 0 ? wholeDocument(seed) : randomDocument(seed, { guarded: true, unknown: seed % 3 === 0, screens: 6, legs: 10 });
      // What leads nowhere cannot be told; without it, the lines stay as they are.
      const told = toLines(project);
      const mended = lostInLines(project).some((lost) => /: (there is no such place|it is none of its members|it leads nowhere)$/.test(lost));
      broken += mended ? 1 : 0;
      const text = mended ? toLines(built(told)) : told;
      const again = fromLines(text);
      if (!again.ok)
        odd.push(
          `seed ${seed}: ${again.problems[0]?.line}:${again.problems[0]?.column} ${again.problems[0]?.message}\n${text.split("\n")[(again.problems[0]?.line ?? 1) - 1]}`,
        );
      else if (toLines(again.project) !== text) {
        const [a, b] = [text.split("\n"), toLines(again.project).split("\n")];
        const i = a.findIndex((line, at) => line !== b[at]);
        odd.push(`seed ${seed}:\n- ${a[i]}\n+ ${b[i]}`);
      } else compared += 1;
    }
    expect(odd.slice(0, 12)).toEqual([]);
    expect(compared).toBe(160);
    expect(broken).toBeLessThan(80);
  });

  it("names that look like something else are quoted", () => {
    const odd = [
      "back",
      "close it",
      "a, b",
      "Tour: hives",
      "in town",
      "Settings icon",
      "Plot list",
      "on arriving",
      "leave home:x",
      'say "x"',
      "x > y",
      "(y)",
      "a/b",
      "Don't",
      "#1",
    ];
    const project = built(
      `app Odd\n${odd.map((name) => `"${name.replace(/"/g, '\\"')}": "${name.replace(/"/g, '\\"')}" > "${name.replace(/"/g, '\\"')}" (push)`).join("\n")}`,
    );
    expect(project.screens.map(({ name }) => name)).toEqual(odd);
    expect(project.screens.map(({ elements }) => elements.map(({ kind, label }) => `${kind} ${label}`).join())).toEqual(odd.map((name) => `button ${name}`));
    expect(project.legs.every((leg) => leg.move && "to" in leg.move && leg.move.to === leg.from)).toBe(true);
    const text = toLines(project);
    expect(toLines(built(text))).toBe(text);
  });
});

it("the example of the documentation is an app with which nothing is wrong", () => {
  const text = /```\n(app Allotment[\s\S]*?)```/.exec(readFileSync("docs/lines.md", "utf8"))?.[1] ?? "";
  const project = built(text);
  expect(text.split("\n").filter((line) => line !== "").length).toBe(12);
  expect(check(project, { fixes: false }).findings).toEqual([]);
});

describe("nothing that lines say is left out silently", () => {
  it("what is said of a way that is left open holds for the way that is found", () => {
    const [leg] = built("Home: Go > Plot (this goes)\nPlot").legs;
    expect(leg?.move).toEqual({ kind: "push", to: "plot", tidy: "source" });
    expect(built("Main\n  Home: Go > Plot (in Main)\n  Plot").legs[0]?.move).toEqual({ kind: "push", to: "plot", in: "main" });
  });

  it("what cannot hold, or names no place, is wrong where it stands", () => {
    expect(wrong("Home: Go > Plot (reset, this goes)\nPlot")).toEqual(["1:25 “this goes” says nothing of this way; expected it with push or switch"]);
    expect(wrong("Home: Go > back (instead)")).toEqual(["1:18 “instead” says nothing of this way; expected it with open"]);
    expect(wrong("Home: Go > Plot (push, in Nowhere)\nPlot")).toEqual(["1:24 found “in Nowhere”, expected in and the name of a stack"]);
    expect(wrong("Home: Go > Sheet (open, showing Nothing)\nSheet (sheet)")).toEqual([
      "1:25 found “showing Nothing”, expected showing and the name of a screen",
    ]);
    expect(wrong("Home (pages plots)")).toEqual(["1:7 found “pages plots”, expected pages plot by plotId, and along a field to order them"]);
    expect(wrong("Home (tabs)\n  A (at the top)")).toEqual(["2:6 found “at the top”, expected hub, once, planned, no bar, path /plots or title …"]);
    expect(wrong("Side (drawer, at the top)\n  A")).toEqual(["1:15 “at the top” says nothing of a drawer"]);
  });
});

describe("what people write before they know the words", () => {
  const conditions = (text: string) =>
    built(text).legs.map(({ when, set }) => when ?? Object.entries(set ?? {}).map(([fact, value]) => `${fact} = ${value}`)[0]);

  it("conditions in plain words, and choices without quotes", () => {
    const text = (options: string) => `fact member\nfact order = none | on its way\nHome(plotId): Go > Plot (${options})\nPlot`;
    const one = (options: string) => conditions(text(options))[0];
    expect(one("if member")).toBe("fact.member");
    expect(one("if not member and order = none")).toBe("!fact.member && fact.order == 'none'");
    expect(one("if plotId is not 'a, b'")).toBe("param.plotId != 'a, b'");
    expect(one("set order = on its way")).toBe("order = 'on its way'");
    expect(one("set fact.order = none")).toBe("order = 'none'");
    const way = built(
      "fact member\nHome(plotId): Name field (as name), Go (shown if not member) > Plot(plotId = plotId, name = field.name) (reset)\nPlot(plotId, name)",
    );
    expect(way.screens[0]?.elements[1]?.shown).toBe("!fact.member");
    expect(way.legs[0]?.move).toMatchObject({ pass: { plotId: "param.plotId", name: "field.name" } });
    const inn = built("fact member\nHome\nin /a > Home (if member)\nrule Mine: only Home while not member");
    expect([inn.entrances[0]?.when, inn.rules?.[0]]).toMatchObject(["fact.member", { while: "!fact.member" }]);
  });

  it("facts that are only set or asked for are made; what stands for nothing is wrong where it stands", () => {
    expect(built("Home: In > nothing (set member = true), Plot > Plot (if member and fact.paid)\nPlot").facts).toMatchObject([
      { id: "member", type: "boolean", initial: false },
      { id: "paid", type: "boolean", initial: false },
    ]);
    expect(wrong("Home: Go > Plot (if membr)\nPlot")).toEqual([
      "1:18 in “membr”, “membr” is no fact and no parameter here; expected one such as fact.member, or text in quotes: 'membr'",
    ]);
    expect(wrong("Home: Go > Plot (if fact.order == 'none')\nPlot")).toEqual([
      "1:18 there is no fact “order”; expected a line such as fact order = one | other",
    ]);
    expect(wrong("Home: Go > Plot(id = one)\nPlot(id)")).toEqual([
      "1:12 in “one”, “one” is no fact and no parameter here; expected one such as fact.member, or text in quotes: 'one'",
    ]);
  });

  it("what happens on a tap may stand behind the control, and a control that is said again after a condition is the same", () => {
    expect(built("Home: Mark (set done = true), Go (if fact.done, hold) > Plot\nPlot").legs).toMatchObject([
      { set: { done: "true" }, on: { kind: "tap" } },
      { when: "fact.done", on: { kind: "hold" }, move: { to: "plot" } },
    ]);
    const twice = built("fact paid\nHome: Play > Player (if paid), Play > Offer\nPlayer\nOffer");
    expect(twice.screens[0]?.elements.map(({ label }) => label)).toEqual(["Play"]);
    expect(twice.legs).toMatchObject([{ when: "fact.paid", move: { to: "player" } }, { move: { to: "offer" } }]);
    expect(toLines(twice)).toContain("Play > Player (if fact.paid) | Offer");
    const two = built("Home: Play > Player, Play (in bar) > Offer\nPlayer\nOffer");
    expect(two.screens[0]?.elements.map(({ id }) => id)).toEqual(["play", "play2"]);
    const apart = built("fact paid\nHome: Play > Player (if paid), Play (as other) > Offer\nPlayer\nOffer");
    expect(apart.screens[0]?.elements.map(({ id }) => id)).toEqual(["play", "other"]);
    expect(toLines(built(toLines(apart)))).toBe(toLines(apart));
  });

  it("a reset clears the stack that holds its target, and what a modal goes back to is on the page beneath", () => {
    const app = built(
      [
        "Welcome: Sign in > Feed (reset)",
        "Yard (tabs)",
        "  Feed: Post > Post, Sign out > Welcome (reset), Ask > Ask",
        "  Mine",
        "    Profile: Edit > Edit, Again > Feed (reset)",
        "    Edit: Done > Profile (reset), Gone > Welcome (reset, in the stack around it)",
        "Ask (dialog): Out > Welcome (reset), Stay > Post (pop to), Open > Post (push)",
      ].join("\n"),
    );
    const move = (id: string) => app.legs.find((leg) => leg.id === id)?.move;
    expect(move("signInFeed")).toEqual({ kind: "reset", to: "yard" });
    expect(move("signOutWelcome")).toEqual({ kind: "reset", to: "welcome", in: "app" });
    expect(move("doneProfile")).toEqual({ kind: "reset", to: "profile" });
    expect(move("goneWelcome")).toEqual({ kind: "reset", to: "welcome" });
    expect(move("outWelcome")).toEqual({ kind: "reset", to: "welcome", in: "app" });
    expect(move("stayPost")).toEqual({ kind: "push", to: "post", in: "beneath", repeat: "rewind" });
    expect(move("openPost")).toEqual({ kind: "push", to: "post", in: "beneath" });
    expect(toLines(built(toLines(app)))).toBe(toLines(app));
    expect(
      check(app, { fixes: false })
        .findings.filter(({ severity }) => severity === "blocker")
        .map(({ code }) => code),
    ).toEqual(["refused-move"]);
  });

  it("a modal is opened by what goes on by itself, in place of one that is up", () => {
    const app = built(
      "Home: Play > Player\nPlayer (full screen): after 3 s > Done\nDone (full screen): on arriving > Home (if fact.never)\nHome 2: after 1 s > Done",
    );
    expect(app.legs[1]?.move).toEqual({ kind: "open", to: "done", instead: true });
    expect(app.legs.at(-1)?.move).toEqual({ kind: "open", to: "done" });
    expect(built("A (sheet): Go > B (instead)\nB (sheet)\nHome: A > A").legs[0]?.move).toEqual({ kind: "open", to: "b", instead: true });
  });

  it("a modal over another that has no stack leads to a page that is certainly there", () => {
    const app = built("Home: Scan > Scan (full screen), In > Log in\nLog in\nScan (full screen): Old > Old (dialog)\nOld (dialog): Again > Log in");
    expect(app.legs.at(-1)?.move).toEqual({ kind: "push", to: "logIn", in: "app" });
    expect(check(app, { fixes: false }).findings.filter(({ severity }) => severity === "blocker")).toEqual([]);
  });

  it("a hub does not lead up to what is gone through once", () => {
    const app = built("Welcome (once): In > Home (reset)\nHome (hub): Settings > Settings\nSettings");
    expect(app.screens.map(({ up }) => up)).toEqual(["auto", "none", "auto"]);
    expect(check(app, { fixes: false }).findings).toEqual([]);
    expect(toLines({ ...app, screens: app.screens.map((screen) => ({ ...screen, up: "auto" })) })).toContain("Home (hub, up Welcome)");
  });
});

describe("lines that are long and senseless", () => {
  const long = 60_000;
  it.each([
    ["spaces", `a${" ".repeat(long)}b: x > y`],
    ["spaces before a parenthesis", `a${" ".repeat(long)}(`],
    ["spaces within one", `Home (tabs${" ".repeat(long)}: a`],
    ["parentheses", "(".repeat(long)],
    ["words", `${"a ".repeat(long)}1`],
    ["headings", "## a\n- b > c\n".repeat(2_000)],
  ])("are read at once: %s", (_, text) => {
    // Read in steps that grow with the square of its length, one of them would take minutes.
    expect(() => fromLines(text)).not.toThrow();
  });
});

describe("what people write by habit", () => {
  /** The lines as they are told, without the name of the app and of its stack. */
  const told = (text: string) =>
    toLines(built(text))
      .split("\n")
      .filter((line) => line !== "" && !/^app |^App( \(stack\))?$/.test(line))
      .map((line) => line.trim())
      .join(" / ");

  it.each([
    ["Home -> Settings", "Home: Settings > Settings / Settings"],
    ["Home → Settings\nSettings => Help", "Home: Settings > Settings / Settings: Help > Help / Help"],
    ['Home: "A -> B" --> Help', 'Home: "A -> B" > Help / Help'],
    ["Home > List > Detail (modal)", 'Home: "List" > List / List: Detail > Detail / Detail (sheet)'],
    ["Home > Plot list", 'Home: "Plot list" > Plot list / Plot list'],
    ["* Home\n• Help", "Home / Help"],
    ["1. Home\n2) Help", "Home / Help"],
    ["- Home\n- Help", "Home / Help"],
    ["screen Home\nScreenshots", "Home / Screenshots"],
    ["Home, Help (hub)", "Home / Help (hub)"],
    ["Home:\n  Photo image\n  Help > Help\nHelp", "Home: Photo image, Help > Help / Help"],
    ["Home:\n  Feed\n    List > Help", "Home / Feed / List: Help > Help / Help"],
    ["Home (tab)\nHelp\nSearch (tab): Go > Help", "Tabs (tabs) / Home / Search: Go > Help / Help"],
    ["Tabs: Home, Search", "Tabs (tabs) / Home / Search"],
    ["Tab bar:\n  Home: Go > Help\n  Search\nHelp", "Tab bar (tabs) / Home: Go > Help / Search / Help"],
    ["Side menu\n  Home\n  Search", "Side menu (drawer) / Home (lead menu) / Search (lead menu)"],
    ["Tabs: Next > Home", '"Tabs": Next > Home / Home'],
    ["Yard (tabs)\n  Home (tab)\n  Search (tab)", "Yard (tabs) / Home / Search"],
    ["Yard (Tab bar): Home, Search (hub)", "Yard (tabs) / Home / Search (hub)"],
    ["Main tabs: Home, Search", "Main tabs (tabs) / Home / Search"],
    [
      "Tabs: Feed, You\nFeed: list > Story\nYou: list > Story\nStory: Help > Help",
      "Tabs (tabs) / Feed / Feed: list > Story / Story: Help > Help / Help / You / You: list > Story (push)",
    ],
    [
      "Tabs: Feed\nFeed: Go > Story\nIn: Go > Feed\nStory: Out > In (reset)",
      "Tabs (tabs) / Feed / Feed: Go > Story / Story: Out > In (reset, in App) / In: Go > Feed (push)",
    ],
    ['Tabs\n  "Feed"\nFeed: Go > Story', 'Tabs (tabs) / "Feed" / Feed: Go > Story / Story'],
    [
      "Home: Pay > Pay (sheet)\nPay: Card > Card\nCard: Done > Home (close)",
      "Home: Pay > Pay / Pay (sheet) / Pay steps / Pay: Card > Card / Card: Done > Home (push, beneath, rewind to it)",
    ],
    ["## Main (tabs)\n- Feed\n- You: list > Story\n## Rest\n- Story", "Main (tabs) / Feed / You / You: list > Story / Story"],
    ["## Home\n- Name field\n- Play > Game\n\n## Game\n- Quit > Home", "Home: Name field, Play > Game / Game: Quit > Home"],
    ["Home: Ask > Ask\n\nDialogs:\n- Ask: Yes > close", "Home: Ask > Ask / Ask (dialog): Yes > close"],
    ["Screen: Home\n- Go > Help\nModal: Help\n- Close button > close", "Home: Go > Help / Help (sheet): Close > close"],
    ["[Home]\n- Go > Help\n[Help]", "Home: Go > Help / Help"],
    ["Home\n  Play > Game\n  Scores > Scores\nGame", "Home: Play > Game, Scores > Scores / Game / Scores"],
    ["Main\n  Home > Game\n  Game > Home\nHelp", "Main / Home: Game > Game / Game: Home > Home / Help"],
    ["Home\n- buttons: Play, Quit\nHelp", "Home / buttons: Play, Quit / Help"],
    ["Home > Game: tap play\nGame > Home: back", "Home: play > Game / Game: Back > back"],
    ["graph TD\nHome -->|start| Game", "Home: start > Game / Game"],
    ["Home: Go > Game\nHome: Help > Help", "Home: Go > Game, Help > Help / Game / Help"],
    ['Home: Go > Game\n"Home": Help > Help', 'Home: Go > Game / "Home": Help > Help / Game / Help'],
    ["Start: Game\nHome: Go > Game\nGame: Out > Home", "Game: Out > Home / Home: Go > Game"],
    ["Home: Go > Game; Help > Help", "Home: Go > Game, Help > Help / Game / Help"],
    ["Home: Keep > back, Yes, cancel it > Help", 'Home: Keep > back, "Yes, cancel it" > Help / Help'],
    ["Home\tPlot list\tPlot\n\tNew\tNew plot\tmodal\n".replace("\tPlot\n", "\tPlot\t\n"), "Home: Plot list > Plot, New > New plot / Plot / New plot (sheet)"],
    [
      "| Screen | Element | Goes to |\n|---|---|---|\n| Home | Plot list | Plot |\n| Plot | Back icon | back |\n| Plot | Size, in m | |",
      'Home: Plot list > Plot / Plot: Back icon > back, "Size, in m"',
    ],
    ["From | To | Action\nHome | Help | Ask\nHelp | Home | Done", "Home: Ask > Help / Help: Done > Home"],
    ["Home (tabs: Feed, You)\nFeed: Go > Story", "Home (tabs) / Feed / Feed: Go > Story / Story / You"],
    ["Splash -> (2 sec) -> Home", "Splash: after 2000 ms > Home (replace) / Home"],
    ['Home > Lessons (tap "Start"), Help', "Home: Start > Lessons, Help > Help / Lessons / Help"],
    ["Home: [Log in] > Yard, [Help]", "Home: Log in > Yard, Help / Yard"],
    ["Home: after 2 seconds > Help", "Home: after 2000 ms > Help (replace) / Help"],
    ["Home: Sales chart, Mute toggle, Like, Sales chart button", "Home: Sales chart image, Mute toggle switch, Like, Sales chart button"],
    ["Help: Back, Back button", "Help: Back > back, Back button (as back2)"],
    ["In: Go > Yard\nYard (tabs)\n  You: Log out > In", "In: Go > Yard / Yard (tabs) / You: Log out > In (reset)"],
    ["Home: Photo > Photo (full modal)", "Home: Photo > Photo / Photo (full screen)"],
    ["Home: Share > Share (bottom sheet), Drop > Drop (alert)", "Home: Share > Share, Drop > Drop / Share (sheet) / Drop (dialog)"],
    ["Home: Filter > Filter (sheet)\nFilter: Done > close", "Home: Filter > Filter / Filter (sheet): Done > close"],
    ["Home: Help (push), Filter (modal)", "Home: Help > Help, Filter > Filter / Help / Filter (sheet)"],
    [
      "Home: Buy > https://shop.example.org/a, Write > mailto:a@example.org",
      "Home: Buy > leave https://shop.example.org/a, Write > leave mailto:a@example.org",
    ],
    ["Home: More > help, Back > HOME\nHelp", "Home: More > Help, Back > Home / Help"],
    ["fact member\nHome: In > Yard if not member\nYard", "fact member / Home: In > Yard (if !fact.member) / Yard"],
    [
      "Home: In > Yard if member, Ask > Ask (alert) if member\nYard: Out (set member = false)",
      "fact member / Home: In > Yard (if fact.member), Ask > Ask (if fact.member) / Yard: Out > nothing (set member = false) / Ask (dialog)",
    ],
    ["Home: Go > What if, Or > Ask if unsure", "Home: Go > What if, Or > Ask if unsure / What if / Ask if unsure"],
    ["Home(id: string, n: int, on: bool)", "Home(id, n: integer, on: boolean)"],
    [
      "rows User(id): a\nHome: All list (of User) > One(user = item)\nOne(user: User)",
      "rows user(id): a / Home: All list (of user) > One(user = item) / One(user: user)",
    ],
    ["fact Signed in = true\nHome: Out (set signedIn = false)", 'fact signedIn "Signed in" = true / Home: Out > nothing (set signedIn = false)'],
    ["Home: Dark switch > nothing (set dark = !dark)", "fact dark / Home: Dark switch > nothing (set dark = !fact.dark)"],
    [
      "App: Fernwalk\nScreens:\n- Login -> Home\n- Home → Trail, Profile, New trail (sheet)\n- Trail → Map, Back",
      "Login: Home > Home / Home: Trail > Trail, Profile > Profile, New trail > New trail / Trail: Map > Map, Back > back / Profile / Map / New trail (sheet)",
    ],
    ["Home > Plots, New > New plot\nNew plot: No > Go back", "Home: Plots > Plots, New > New plot / New plot: No > back / Plots"],
    ["Home\n  Feed\n    Post\n  Search", "Home: Feed > Feed, Search > Search / Feed: Post > Post / Post / Search"],
    ["App\n├── Home\n│   └── Detail\n└── `Help`", "App: Home > Home, Help > Help / Home: Detail > Detail / Detail / Help"],
    ["Yard (tabs)\n  Plots\n    Plot\n  Rota", "Yard (tabs) / Plots / Plots: Plot > Plot / Plot / Rota"],
    ["Main (stack)\n  Home\n  Help", "Main (stack) / Home / Help"],
    ["**Home**: **Go on** > Help", "Home: Go on > Help / Help"],
    [
      "Yard (tabs)\n  Plots: Plot list > Plot(plotId = item.id)\n  Plot(plotId): Note > Note(noteId = plotId)\n  Note(noteId)\n  Rota",
      "rows plot(id): plot1 | plot2 | plot3 / Yard (tabs) / Plots / Plots: Plot list (of plot) > Plot(plotId = item.id) / Plot(plotId): Note > Note(noteId = param.plotId) / Note(noteId) / Rota",
    ],
    [
      "Yard (drawer)\n  Rota\n    Days: Day > Day\n  Day(day) (tab)\n  Week(week)",
      "Yard (drawer) / Rota / Days (lead menu): Day > Day (switch) / Day(day) (tab, lead menu) / Week(week) (tab, lead menu)",
    ],
    [
      "rows plot(id, bed): a, b\nPlots: Plot list (of plot) > Plot(plotId = id) (if bed = 'b')\nPlot(plotId)",
      "rows plot(id, bed): a, b / Plots: Plot list (of plot) > Plot(plotId = item.id) (if item.bed == 'b') / Plot(plotId)",
    ],
  ])("%s", (text, lines) => {
    expect(told(text)).toBe(lines);
    expect(told(toLines(built(text)))).toBe(lines);
  });

  it("what cannot be meant so is wrong where it stands", () => {
    expect(wrong("Home: Menu > Menu (drawer)")).toEqual([
      "1:20 “drawer” says what a place holds; expected a line such as Main (drawer) with its screens further in, and a control opens it with > menu",
    ]);
    expect(wrong("Yard (drawer)\n  Rota: Day > Day(day = 'x')\n  Day(day) (tab)")).toEqual([
      "2:15 going over to a tab or an entry of a menu passes nothing to a place; expected it without day, or a way that does, such as push",
    ]);
    expect(wrong("Home: Menu >")).toEqual([
      "1:13 found nothing after >, expected where it leads: the name of a place, or back, up, close, menu, leave, go on, nothing",
    ]);
    expect(wrong("Home: Menu > A > B")).toEqual([
      "1:14 found “A > B”, expected where it leads: the name of a place, or back, up, close, menu, leave, go on, nothing",
    ]);
  });

  it("names that look like a habit are quoted when they are told", () => {
    const names = [
      "1. Start",
      "* Star",
      "**Bold**",
      "a `b` c",
      "├ x",
      "• Dot",
      "screen One",
      "A → B",
      "Go if fact.on",
      "https://a.example",
      "mailto:a",
      "app X",
      "Tabs",
      "Settings",
      "Back",
      "Dismiss",
      "Go back",
      "Screens",
      "Menu",
    ];
    const text = names.map((name, i) => `${JSON.stringify(name)}: Next > ${JSON.stringify(names[(i + 1) % names.length])}`).join("\n");
    const project = built(text);
    expect(project.screens.map(({ name }) => name)).toEqual(names);
    expect(built(toLines(project)).screens.map(({ name }) => name)).toEqual(names);
    expect(toLines(built(toLines(project)))).toBe(toLines(project));
  });
});
