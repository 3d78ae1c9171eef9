import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { AstBuilder, GherkinClassicTokenMatcher, Parser } from "@cucumber/gherkin";
import { IdGenerator } from "@cucumber/messages";
import { transformSync } from "esbuild";
import Papa from "papaparse";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { TARGETS } from "../../../src/core/handoff/target.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { HARMLESS, HOSTILE, withTexts } from "../../random/hostile.ts";
import { wholeDocument } from "../../random/whole.ts";

function demo(path: string): Project {
  const read = readProject(readFileSync(path, "utf8"));
  if (!read.ok) throw new Error(`${path} can be read`);
  return read.project;
}
/** Documents in each of which much of the model occurs, with hostile texts and, to compare with, with harmless ones. */
const PAIRS = [demo("demo/hollowcomb.etape.json"), demo("demo/oddglove.etape.json"), wholeDocument(2), wholeDocument(7)].map((base) => {
  const hostile = withTexts(base, HOSTILE);
  return { hostile: hostile.project, harmless: withTexts(base, HARMLESS).project, fields: hostile.fields };
});

function files(project: Project): Map<string, string> {
  const { findings } = check(project, { fixes: false, states: 2000 });
  const checked = { findings, proof: "Proved.", frame: '<title>{{title}}</title><script type="application/json">{{project}}</script>' };
  return new Map(TARGETS.flatMap((target) => target.files(project, checked)).map(({ name, text }) => [name, text]));
}
const MADE = PAIRS.map(({ hostile, harmless }) => [files(hostile), files(harmless)] as const);
const each = (name: string) => MADE.map(([hostile, harmless]) => [hostile.get(name) ?? "", harmless.get(name) ?? ""] as const);

/** The kinds of elements in an XML text with the names of their attributes; it has to be well formed. */
function shapes(xml: string): Set<string> {
  const found = new Set<string>();
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name, attributes }) => {
    found.add([name, ...Object.keys(attributes).sort()].join(" "));
    for (const [key, value] of Object.entries(attributes)) expect(`${key}=${value}`).not.toMatch(/^((xlink:)?href|src)=\s*(javascript|vbscript):/i);
  });
  parser.write(xml).close();
  return found;
}

/** The same of HTML: what stands between < and >, but for the texts of attributes. */
function htmlShapes(html: string): Set<string> {
  return new Set([...html.matchAll(/<[a-z!/][^>]*>/gi)].map(([tag]) => tag.replace(/"[^"]*"/g, '""')));
}
const brought = (hostile: Set<string>, harmless: Set<string>) => [...hostile].filter((shape) => !harmless.has(shape));

it("hostile texts stand in every kind of field that may have any text", () => {
  const fields = new Set(PAIRS.flatMap((pair) => pair.fields));
  const expected =
    "name about screens.name screens.elements.label containers.name facts.name legs.on.outcome legs.when legs.move.pass.id types.name walks.name entrances.name types.samples.note";
  expect(expected.split(" ").filter((field) => !fields.has(field))).toEqual([]);
});

describe("hostile texts", () => {
  it.each(["map.svg", "map.graphml", "chart.scxml"])("bring no element and no attribute into %s that harmless ones don't", (name) => {
    for (const [hostile, harmless] of each(name)) {
      expect(harmless.length, name).toBeGreaterThan(100);
      expect(brought(shapes(hostile), shapes(harmless))).toEqual([]);
    }
  });

  it.each(["specification.html", "prototype.html"])("bring no tag into %s", (name) => {
    for (const [hostile, harmless] of each(name)) {
      expect(harmless.length, name).toBeGreaterThan(100);
      expect(brought(htmlShapes(hostile), htmlShapes(harmless))).toEqual([]);
    }
  });

  it("bring no tag, no link, no picture, no heading and no column into the specification in Markdown", () => {
    for (const [hostile, harmless] of each("specification.md")) {
      const bare = hostile.replace(/`+[^`]*`+/g, "").replace(/\\./g, "");
      const own = /^<(!-- Made from the project document; do not edit. --|a id="[\w-]+"|\/a)$/;
      expect((bare.match(/<[a-z!/][^>]*/gi) ?? []).filter((tag) => !own.test(tag))).toEqual([]);
      expect(bare.match(/\]\((?!#|specification-map\.svg)[^)]*/g) ?? []).toEqual([]);
      const count = (text: string, pattern: RegExp) => text.match(pattern)?.length ?? 0;
      expect(count(hostile, /^#+ /gm)).toBe(count(harmless, /^#+ /gm));
      const columns = (text: string) =>
        text
          .split("\n")
          .filter((line) => line.startsWith("|"))
          .map((line) => count(line.replace(/\\./g, ""), /\|/g));
      expect(columns(hostile)).toEqual(columns(harmless));
    }
  });

  it("stay in their cells of the table of addresses, and are no formulas", () => {
    for (const [hostile, harmless] of each("addresses.csv")) {
      const rows = (text: string) => Papa.parse<string[]>(text, { skipEmptyLines: true }).data;
      expect(rows(hostile).map((row) => row.length)).toEqual(rows(harmless).map((row) => row.length));
      expect(
        rows(hostile)
          .flat()
          .filter((cell) => /^[=+\-@\t\r]/.test(cell)),
      ).toEqual([]);
    }
  });

  it.skipIf(spawnSync("dot", ["-V"]).error !== undefined)("bring no node and no edge into the graph that Graphviz reads", () => {
    const counted = (text: string) => {
      const { status, stdout, stderr } = spawnSync("dot", ["-Tjson"], { input: text, encoding: "utf8", maxBuffer: 1e8 });
      expect(status, stderr).toBe(0);
      const { objects = [], edges = [] } = JSON.parse(stdout) as { objects?: Array<{ name: string }>; edges?: unknown[] };
      return [objects.map(({ name }) => name).sort(), edges.length, stderr];
    };
    for (const [hostile, harmless] of each("map.dot")) expect(counted(hostile)).toEqual(counted(harmless));
  });

  it("bring no line into the Mermaid diagram, and none of its own signs", () => {
    for (const [hostile, harmless] of each("map.mmd")) {
      const bare = (text: string) => text.split("\n").map((line) => line.replace(/".*"/, '""').replace(/ : .*/, " :"));
      expect(bare(hostile)).toEqual(bare(harmless));
      expect(hostile.match(/<[a-z/!][^>]*>/gi) ?? []).toEqual([]);
    }
  });

  it("bring no scenario into the features", () => {
    const scenarios = (text: string) => {
      const parser = new Parser(new AstBuilder(IdGenerator.incrementing()), new GherkinClassicTokenMatcher());
      return parser.parse(text).feature?.children.length;
    };
    for (const [hostile, harmless] of MADE)
      for (const [name, text] of hostile) if (name.endsWith(".feature")) expect(scenarios(text), name).toBe(scenarios(harmless.get(name) ?? ""));
  });

  it("run nothing when the generated TypeScript is loaded, which has the same names", async () => {
    for (const [hostile] of each("navigation.ts")) {
      const { code } = transformSync(hostile, { loader: "ts", format: "esm" });
      const module = await import(`data:text/javascript;base64,${Buffer.from(code).toString("base64")}`);
      expect(Object.keys(module)).toEqual(expect.arrayContaining(["Navigator"]));
      expect("hit" in globalThis).toBe(false);
    }
  });
});
