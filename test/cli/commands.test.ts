import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import { main } from "../../src/cli/main.ts";
import { progress } from "../../src/cli/progress.ts";
import { readProject } from "../../src/core/model/read.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { app } from "../vectors/app.ts";
import { printing } from "./printing.ts";

const small = app("s", {
  stacks: { s: "a b" },
  screens: { b: { path: "/b/{id}", params: [{ name: "id", type: "text", required: true }] } },
  legs: ['go a push b pass.id="1"'],
});
const printed = printing();
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "etape-cli-"));
});

/** A file in the test's own folder. */
function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}
const document = (name = "small.etape.json", project = small) => file(name, writeProject(project));

it("prints the version of the package", async () => {
  expect(await main(["--version"])).toBe(0);
  expect(printed.out).toBe(`${JSON.parse(readFileSync("package.json", "utf8")).version}\n`);
});

describe("etape draw", () => {
  it("writes an SVG, or prints it", async () => {
    const out = join(folder, "map.svg");
    expect(await main(["draw", document(), "--out", out])).toBe(0);
    expect(readFileSync(out, "utf8")).toMatch(/^<svg /);
    expect(await main(["draw", document(), "--out", "-"])).toBe(0);
    expect(printed.out).toMatch(/^<svg /);
  });

  it("says where it can not write", async () => {
    expect(await main(["draw", document(), "--out", join(folder, "nowhere", "map.svg")])).toBe(2);
    expect(printed.err).toContain("can not be written (ENOENT)");
  });
});

describe("etape check", () => {
  const begun = app("s", { stacks: { s: "a b" }, screens: { a: { hub: true }, b: { hub: true } } });

  it("fails for open ends unless they are allowed", async () => {
    const path = document("begun.etape.json", begun);
    expect(await main(["check", path])).toBe(1);
    expect(printed.out).toMatch(/unreachable b \(open end\)/);
    expect(printed.out).toMatch(/blockers.*of them open ends/);
    expect(await main(["check", path, "--allow-open"])).toBe(0);
  });

  it("tells what it looks at, and writes the states as a graph", async () => {
    const dot = join(folder, "states.dot");
    await main(["check", document(), "--trace", "--dot", dot]);
    expect(printed.err).toMatch(/facts none, contexts by place: \d+ states, \d+ findings, 0 unsure/);
    const graph = readFileSync(dot, "utf8");
    expect(graph).toMatch(/^digraph states/);
    expect(graph).toContain('[label="s[a]"]');
    expect(graph).toContain('[label="go"]');
    expect(await main(["check", document(), "--dot", join(folder, "nowhere", "states.dot")])).toBe(2);
    expect(printed.err).toContain("can not be written (ENOENT)");
  });
});

describe("etape gen", () => {
  it("writes each target into a folder that it makes, the same bytes each time", async () => {
    const [one, two] = [join(folder, "one"), join(folder, "two")];
    for (const out of [one, two]) expect(await main(["gen", document(), "--to", "all", "--out", out])).toBe(0);
    const names = readdirSync(one).sort();
    expect(names).toEqual(readdirSync(two).sort());
    expect(names).toEqual(
      expect.arrayContaining([
        "specification.md",
        "specification.html",
        "navigation.ts",
        "Navigation.kt",
        "Navigation.swift",
        "prototype.html",
        "chart.scxml",
        "map.svg",
        "map.dot",
        "map.mmd",
        "map.graphml",
        "every-leg.feature",
        "walks.json",
        "addresses.csv",
        "addresses.json",
      ]),
    );
    for (const name of names) expect(readFileSync(join(one, name), "utf8")).toBe(readFileSync(join(two, name), "utf8"));
  });

  it("refuses a document that names what is not there, with the names, and writes nothing", async () => {
    const broken = { ...small, legs: small.legs.map((leg) => ({ ...leg, move: { kind: "push" as const, to: "gone" } })) };
    const out = join(folder, "out");
    expect(await main(["gen", document("broken.etape.json", broken), "--to", "dot", "--out", out])).toBe(1);
    expect(printed.err).toContain("broken-target go");
    expect(existsSync(out)).toBe(false);
  });

  it("with --check says whether what lies there is of this design, and writes nothing", async () => {
    const out = join(folder, "checked");
    expect(await main(["gen", document(), "--to", "typescript", "--react", "--out", out, "--check"])).toBe(1);
    expect(existsSync(out)).toBe(false);
    expect(await main(["gen", document(), "--to", "typescript", "--react", "--out", out])).toBe(0);
    expect(readdirSync(out).sort()).toEqual(["navigation-react.tsx", "navigation.ts"]);
    printed.out = "";
    expect(await main(["gen", document(), "--to", "typescript", "--react", "--out", out, "--check"])).toBe(0);
    expect(printed.out).toBe("");
    const changed = { ...small, legs: [] };
    expect(await main(["gen", document("changed.etape.json", changed), "--to", "typescript", "--out", out, "--check"])).toBe(1);
    expect(printed.out).toContain(`${join(out, "navigation.ts")}: is of another design`);
    expect(await main(["gen", document(), "--to", "dot", "--react", "--out", out])).toBe(2);
  });

  it("an unknown target is a usage error", async () => {
    expect(await main(["gen", document(), "--to", "cobol", "--out", folder])).toBe(2);
  });
});

describe("the line that tells how far a command is", () => {
  const told = (isTTY: boolean, seconds: number) => {
    let out = "";
    let time = 0;
    const line = progress("Checking", undefined, { isTTY, write: (text: string) => (out += text) }, () => time);
    for (let i = 1; i <= 640; i++) {
      time = (seconds * 1000 * i) / 640;
      expect(line.asked()).toBe(false);
    }
    line.done();
    return out;
  };

  it("is on a terminal alone, after a second, and goes when it is done", () => {
    const long = told(true, 3);
    expect(long).toContain("Checking: 256 steps looked at, 1 s");
    expect(long.endsWith("\r\u001b[2K")).toBe(true);
    expect(told(true, 0.9)).toBe("");
    expect(told(false, 3)).toBe("");
  });
});

describe("etape import", () => {
  it("makes a document that reads, and lists what was not kept", async () => {
    const out = join(folder, "made.etape.json");
    expect(await main(["import", file("list.txt", "/\n/a\n/a/:id?x=1\n"), "--from", "addresses", "--out", out])).toBe(0);
    const read = readProject(readFileSync(out, "utf8"));
    expect(read.ok && read.project.screens.map((s) => s.path)).toEqual(["/", "/a", "/a/{id}"]);
    expect(printed.err).toContain("not kept: line 3");
  });

  it("makes one from a state chart, and refuses one that brings a document type", async () => {
    const out = join(folder, "made.etape.json");
    const chart = '<scxml xmlns="http://www.w3.org/2005/07/scxml"><state id="a"><transition event="go" target="b"/></state><state id="b"/></scxml>';
    expect(await main(["import", file("chart.scxml", chart), "--from", "scxml", "--out", out])).toBe(0);
    const read = readProject(readFileSync(out, "utf8"));
    expect(read.ok && read.project.legs.map((leg) => leg.move)).toEqual([{ kind: "push", to: "b" }]);
    const bad = file("bad.scxml", `<!DOCTYPE scxml [<!ENTITY a "a">]>\n${chart}`);
    expect(await main(["import", bad, "--from", "scxml", "--out", out])).toBe(2);
    expect(printed.err).toContain(`${bad}:1: a document type`);
  });

  it("names all wrong lines with their numbers and writes nothing", async () => {
    const out = join(folder, "made.etape.json");
    const list = file("list.txt", "/\nno\n/{\n");
    expect(await main(["import", list, "--from", "addresses", "--out", out])).toBe(2);
    expect(printed.err).toContain(`${list}:2:`);
    expect(printed.err).toContain(`${list}:3:`);
    expect(existsSync(out)).toBe(false);
  });
});

describe("etape diff", () => {
  const changed = { ...small, screens: small.screens.map((s) => (s.id === "b" ? { ...s, name: "Bee" } : s)), legs: [] };

  it("is silent with 0 for the same, and tells changes and findings with 1 for others", async () => {
    expect(await main(["diff", document("a.json"), document("b.json")])).toBe(0);
    expect(printed.out).toBe("");
    expect(await main(["diff", document("a.json"), document("c.json", changed)])).toBe(1);
    expect(printed.out).toContain("changed screen b (Bee)\n  name: b → Bee");
    expect(printed.out).toContain("removed leg go");
    expect(printed.out).toContain("finding came:");
  });

  it("as JSON and as Markdown", async () => {
    await main(["diff", document("a.json"), document("c.json", changed), "--format", "json"]);
    expect(JSON.parse(printed.out)).toMatchObject({
      changes: [
        { what: "changed", id: "b" },
        { what: "removed", id: "go" },
      ],
      went: [],
    });
    printed.out = "";
    await main(["diff", document("a.json"), document("c.json", changed), "--format", "markdown"]);
    expect(printed.out).toMatch(/^## Changes\n\n- changed screen \*\*Bee\*\* `b`\n {2}- is called “Bee” now\.\n/);
  });

  it("marks what breaks others, tells what lists gain and lose, and escapes what Markdown would read", async () => {
    const before = app("s", {
      stacks: { s: "a b c" },
      screens: { b: { path: "/b/{id}", params: [{ name: "id", type: "text", required: false }] }, c: { path: "/c" } },
      facts: [{ id: "mode", type: "choice", values: ["one", "two"], initial: "one", source: "app", persists: true }],
      legs: ["go a push b"],
      entrances: [{ id: "link", name: "Link", kind: "link", pattern: "/l/{id}", to: "b", warm: "rebuild" }],
    });
    const after = {
      ...before,
      containers: before.containers.map((c) => ({ ...c, members: ["a", "b"] })),
      screens: before.screens
        .filter((s) => s.id !== "c")
        .map((s) =>
          s.id === "b"
            ? {
                ...s,
                name: "*B* <b>",
                params: [
                  { name: "id", type: "integer", required: true },
                  { name: "more", type: "text", required: true },
                ],
              }
            : s,
        ),
      facts: before.facts.map((f) => ({ ...f, values: ["one", "three"] })),
      entrances: before.entrances.map((e) => ({ ...e, pattern: "/links/{id}" })),
    };
    expect(await main(["diff", document("a.json", before), document("c.json", after as never), "--format", "markdown"])).toBe(1);
    for (const says of [
      "## Breaks others",
      "- screen **\\*B\\* \\<b\\>** `b`: id has to be passed now.",
      "more is new and has to be passed.",
      "Links to /c lead nowhere now.",
      "Links to /l/{id} do not lead here any longer; the address is /links/{id} now.",
      "What was stored of it is forgotten: two.",
      "  - loses “c”.",
    ])
      expect(printed.out).toContain(says);
    printed.out = "";
    await main(["diff", document("a.json", before), document("c.json", after as never)]);
    expect(printed.out).toContain("  members: loses “c”.");
    expect(printed.out).toContain("  breaks others: Links to /c lead nowhere now.");
    // What is other in ways that break nobody is no break.
    printed.out = "";
    await main(["diff", document("a.json", before), document("c.json", { ...before, legs: [] } as never), "--format", "markdown"]);
    expect(printed.out).not.toContain("Breaks others");
  });

  it("a file that can not be read is 2", async () => {
    expect(await main(["diff", document("a.json"), join(folder, "none.json")])).toBe(2);
  });
});

describe("quick lines as a file", () => {
  const lines = () => file("tea.lines", "Home (hub): Brew > Brew\nBrew: Wait > Steep\nSteep (no up, no bar)\nSpare");

  it("are checked, with findings at their lines, drawn, walked and handed off like a document", async () => {
    expect(await main(["check", lines(), "--format", "sarif"])).toBe(1);
    const [{ results }] = JSON.parse(printed.out).runs as [{ results: Array<{ ruleId: string; locations: Array<{ physicalLocation: { region: object } }> }> }];
    const at = results.map(({ ruleId, locations }) => [ruleId, locations[0]?.physicalLocation.region]);
    expect(at).toContainEqual(["unreachable", { startLine: 4, startColumn: 1 }]);
    expect(at).toContainEqual(["back-only", { startLine: 3, startColumn: 1 }]);
    expect(await main(["draw", lines(), "--out", "-"])).toBe(0);
    expect(await main(["lines", lines()])).toBe(0);
    expect(printed.out).toContain("Home (hub): Brew > Brew");
    expect(await main(["gen", lines(), "--to", "mermaid", "--out", folder])).not.toBe(2);
  });

  it("say where they are wrong, and are not written into", async () => {
    const path = file("bad.lines", "Home\nHelp (shiny)");
    expect(await main(["check", path])).toBe(2);
    expect(printed.err).toContain("bad.lines:2: column 7: found “shiny”");
    for (const command of [["format"], ["open"], ["merge", path, path]]) {
      expect(await main([...command, lines()])).toBe(2);
      expect(printed.err).toContain("quick lines; expected a project document, which etape import --from lines makes of them");
    }
    expect(readFileSync(lines(), "utf8")).toMatch(/^Home/);
  });
});
