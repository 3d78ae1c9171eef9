import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { AstBuilder, GherkinClassicTokenMatcher, Parser } from "@cucumber/gherkin";
import { IdGenerator } from "@cucumber/messages";
import { transformSync } from "esbuild";
import Papa from "papaparse";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { compareProjects } from "../../../src/core/compare/compare.ts";
import { urlPattern } from "../../../src/core/handoff/addresses/addresses.ts";
import type { Checked, HandedFile } from "../../../src/core/handoff/handed.ts";
import { fromAddresses, fromSomeAddresses } from "../../../src/core/handoff/in/addresses.ts";
import { fromSitemap } from "../../../src/core/handoff/in/sitemap.ts";
import { TARGETS } from "../../../src/core/handoff/target.ts";
import { coveringWalks } from "../../../src/core/handoff/tests/cover.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { readProject, readProjectData } from "../../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { arrive, beginning, launch, step } from "../../../src/core/semantics/step.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;
const checked: Checked = { findings: [{ severity: "note", code: "far", message: "Far." }], proof: "Proved.", frame: "<title>{{title}}</title>{{project}}" };
/** Names full of what other languages read as their own. */
const nasty = app("end", {
  stacks: { end: "graph subgraph" },
  screens: {
    graph: { name: `</text><script>alert("x")</script> & "quotes" \\ | # ; : [*] -->`, elements: [{ id: "state", kind: "button", label: `"]; drop | <b>` }] },
    subgraph: { name: "line\nbreak\r\nFeature: no" },
  },
  legs: ["note graph:on(state) push subgraph"],
});
const files = (project: Project, id: string): HandedFile[] => TARGETS.find((t) => t.id === id)?.files(project, checked) ?? [];
const text = (project: Project, id: string, name: string) => files(project, id).find((f) => f.name === name)?.text ?? "";

/** The names of the elements of an XML text, which has to be well formed. */
function tags(xml: string): string[] {
  const out: string[] = [];
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", (tag) => {
    out.push(tag.name);
  });
  parser.write(xml).close();
  return out;
}

function gherkin(source: string) {
  const parser = new Parser(new AstBuilder(IdGenerator.incrementing()), new GherkinClassicTokenMatcher());
  return parser.parse(source);
}

describe("every hand-off", () => {
  it("is the same each time, for the demo, for nasty names and for random documents", () => {
    const documents = [nasty, ...Array.from({ length: amount(12, 4) }, (_, seed) => randomDocument(seed, { screens: 6, legs: 8 }))];
    for (const project of documents)
      for (const target of TARGETS) {
        const again = JSON.parse(JSON.stringify(project)) as Project;
        expect(target.files(again, checked), target.id).toEqual(target.files(project, checked));
      }
  });

  it("has a file of its own name for each format", () => {
    const names = TARGETS.flatMap((target) => target.files(nasty, checked).map((f) => f.name));
    expect(new Set(names).size).toBe(names.length);
  });
});

describe("diagrams", () => {
  it("GraphML is well formed, and has every screen once and every leg that leads to one", () => {
    for (const project of [demo, nasty]) {
      const found = tags(text(project, "graphml", "map.graphml"));
      expect(found.filter((t) => t === "node")).toHaveLength(project.screens.length + project.containers.length);
      expect(found.filter((t) => t === "edge").length).toBeGreaterThan(0);
    }
    const ids = [...text(demo, "graphml", "map.graphml").matchAll(/<edge id="(\w+)"/g)].map((m) => m[1]);
    expect(ids).toContain("toNotes");
  });

  it("DOT closes every brace and quote, whatever the names", () => {
    for (const project of [demo, nasty]) {
      const bare = text(project, "dot", "map.dot").replace(/"(\\.|[^"\\])*"/g, "");
      expect(bare).not.toContain('"');
      expect(bare.split("{").length).toBe(bare.split("}").length);
    }
  });

  it("Mermaid has one line for each arrow, and no text that it would read as its own", () => {
    const lines = text(nasty, "mermaid", "map.mmd").split("\n");
    const arrows = lines.filter((line) => line.includes(" --> "));
    expect(arrows[0]).toBe("  [*] --> p_graph");
    expect(arrows[1]).toMatch(/^ {2}p_graph --> p_subgraph : [^<>"]*#60;b#62;, push$/);
    expect(arrows).toHaveLength(2);
    expect(lines.filter((line) => /^\s+state "/.test(line)).every((line) => /^\s+state "[^"]*" as p_\w+( \{)?$/.test(line))).toBe(true);
  });
});

describe("the specification", () => {
  it("says of every screen what it needs and where it leads, in Markdown and in HTML", () => {
    const [markdown, html] = [text(demo, "spec", "specification.md"), text(demo, "spec", "specification.html")];
    for (const screen of demo.screens) {
      expect(markdown).toContain(`### ${screen.name.replace(/[\\`*_[\]<>#]/g, (c) => `\\${c}`)}`);
      expect(html).toContain(`<h3 id="screen-${screen.id}">`);
    }
    expect(markdown).toContain("Proved.");
    expect(html).toContain("note: Far. (far)");
  });

  it("says of every container what Back, choosing again and closing do, and of every screen what Back was found to do", () => {
    const markdown = text(demo, "spec", "specification.md");
    for (const says of [
      "Choosing the tab that is chosen goes back to its first screen.",
      "It is closed by a tap outside, a swipe, its ×, Back.",
      "Back, as found: to “Apiaries”; or to “Apiary”.",
      "asks first: “Unsaved note”",
      "tab “Rota” of “Yard”",
      "hiveId = item.id, by",
      "| id: text, the key | name: text | route: integer |",
    ])
      expect(markdown).toContain(says);
  });

  it("every link in it leads to something in it or to a file that is written with it", () => {
    const names = files(demo, "spec").map(({ name }) => name);
    const markdown = text(demo, "spec", "specification.md");
    const links = [...markdown.matchAll(/\]\(([^)]+)\)/g)].map(([, to = ""]) => to);
    expect(links.length).toBeGreaterThan(demo.screens.length + demo.containers.length);
    for (const to of links) expect(to.startsWith("#") ? markdown.includes(`<a id="${to.slice(1)}"></a>`) : names.includes(to), to).toBe(true);
    const html = text(demo, "spec", "specification.html");
    for (const [, id] of html.matchAll(/href="#([^"]+)"/g)) expect(html).toContain(`id="${id}"`);
  });

  it("holds no markup of the document's own, and lets no script run", () => {
    const html = text(nasty, "spec", "specification.html");
    expect(html).not.toContain("<script");
    expect(html).toContain("default-src 'none'");
    expect(text(nasty, "spec", "specification.md")).not.toMatch(/(?<!\\)<script/);
    expect(() => tags(html.replace("<!doctype html>", "").replace(/<meta([^>]*)>/g, "<meta$1/>"))).not.toThrow();
  });
});

describe("addresses", () => {
  it("are a table by RFC 4180 that reads back, with every address of the demo", () => {
    const csv = text(demo, "addresses", "addresses.csv");
    expect(csv.endsWith("\r\n")).toBe(true);
    const { data, errors } = Papa.parse<Record<string, string>>(csv.trimEnd(), { header: true });
    expect(errors).toEqual([]);
    expect(data.map((row) => row.pattern)).toEqual([...demo.screens.flatMap((s) => s.path ?? []), ...demo.entrances.flatMap((e) => e.pattern ?? [])]);
    expect(JSON.parse(text(demo, "addresses", "addresses.json"))).toHaveLength(data.length);
  });

  it.each([
    ["/hives/{hiveId}", "/hives/:hiveId"],
    ["/files/{+rest}", "/files/:rest(.+)"],
    ["app://x/(a)/b*", "app://x/\\(a\\)/b\\*"],
  ])("%s as a URL pattern is %s", (pattern, url) => {
    expect(urlPattern(pattern)).toBe(url);
  });
});

describe("walks that use every leg", () => {
  /** The legs that fire when walks are replayed. */
  function used(project: Project, walks: NavEvent[][]): Set<string> {
    const fired = new Set<string>();
    for (const walk of walks) {
      const launched = arrive(appOf(project), undefined, beginning(appOf(project)));
      for (const leg of launched.log.fired) fired.add(leg);
      let { state } = launched;
      for (const event of walk) {
        const result = step(appOf(project), state, event);
        expect(["moved", "left"]).toContain(result.outcome);
        for (const leg of result.log.fired) fired.add(leg);
        state = result.state;
      }
    }
    return fired;
  }

  it("use, replayed, exactly the legs that are not named as unused: of Hollowcomb every one, each in a walk of its own", () => {
    const { walks, unused } = coveringWalks(demo);
    expect(unused).toEqual([]);
    expect(walks.map(({ leg }) => leg)).toEqual(demo.legs.map(({ id }) => id));
    for (const { leg, events } of walks) expect([...used(demo, [events])], leg).toContain(leg);
  });

  it("are walked by the program that is handed off with them, by the generated module; and it says where that goes another way", () => {
    const folder = mkdtempSync(join(tmpdir(), "etape-walks-"));
    for (const file of files(demo, "tests")) writeFileSync(join(folder, file.name), file.text);
    const run = (project: Project) => {
      writeFileSync(join(folder, "navigation.mjs"), transformSync(text(project, "typescript", "navigation.ts"), { loader: "ts" }).code);
      return spawnSync(process.execPath, ["run-walks.mjs", "navigation.mjs"], { cwd: folder, encoding: "utf8" });
    };
    const right = run(demo);
    expect([right.status, right.stderr]).toEqual([0, ""]);
    expect(right.stdout).toContain(`${demo.legs.length + demo.walks.length} walks, 0 failed`);
    const wrong = run({ ...demo, legs: demo.legs.map((leg) => (leg.id === "toHive" ? { ...leg, move: { kind: "back" } } : leg)) });
    expect(wrong.status).toBe(1);
    expect(wrong.stdout).toMatch(/✗ .*Hive.*\n {2}.*expected .*apiary,hive/);
  });

  it("look for values that satisfy conditions: of addresses, rows and what is typed", () => {
    const project = app("s", {
      stacks: { s: "a b" },
      types: [
        {
          id: "row",
          fields: [
            { name: "id", type: "text" },
            { name: "rank", type: "integer" },
          ],
          samples: [
            { id: "x", rank: 1 },
            { id: "y", rank: 7 },
          ],
        },
      ],
      screens: {
        a: {
          elements: [
            { id: "rows", kind: "list", label: "Rows", of: "row" },
            { id: "code", kind: "field", label: "Code" },
          ],
        },
        b: { params: [{ name: "level", type: "integer", required: false, default: 0 }] },
      },
      legs: ["high a:on(rows) push b if=item.rank>5", "known a:submit(go) push b if=field.code=='open'", "treat b back if=param.level>=3"],
      entrances: [{ id: "e", name: "e", kind: "link", pattern: "/b/{level}", to: "b", warm: "rebuild" }],
    });
    expect(coveringWalks(project).unused).toEqual([]);
  });

  it("on random documents too", () => {
    for (let seed = 0; seed < amount(25, 6); seed++) {
      const project = randomDocument(seed, { screens: 6, legs: 9 });
      const { walks, unused } = coveringWalks(project);
      const fired = used(
        project,
        walks.map(({ events }) => events),
      );
      expect(
        project.legs.filter((leg) => !fired.has(leg.id)).map((leg) => leg.id),
        `seed ${seed}`,
      ).toEqual(unused);
    }
  });

  it("are Gherkin that its own parser reads, and events that step takes", () => {
    for (const project of [nasty]) {
      for (const file of files(project, "tests").filter((f) => f.name.endsWith(".feature"))) {
        const { feature } = gherkin(file.text);
        expect(feature?.children.length).toBeGreaterThan(0);
      }
      const walks = JSON.parse(text(project, "tests", "walks.json"));
      for (const walk of walks.walks) {
        let state = launch(appOf(project));
        expect(walk.starts).toBe(stateLine(planOf(project), state));
        for (const { event, shows } of walk.steps) {
          state = step(appOf(project), state, event).state;
          expect(stateLine(planOf(project), state)).toBe(shows);
        }
      }
    }
  });
});

describe("what comes in", () => {
  const valid = (project: Project) => expect(readProjectData(JSON.parse(writeProject(project)))).toMatchObject({ ok: true });

  it("addresses in both styles become screens with parameters, parents and links, without blockers", () => {
    const made = fromAddresses("# the app\n/\n/hives\n/hives/:id\n/hives/{id}/notes/{noteId}?tab=1\nhttps://x.test/about\n/hives\n");
    if (!made.ok) throw new Error("it can be read");
    valid(made.project);
    expect(made.project.screens.map((s) => [s.path, s.params.map((p) => p.name)])).toEqual([
      ["/", []],
      ["/hives", []],
      ["/about", []],
      ["/hives/{id}", ["id"]],
      ["/hives/{id}/notes/{noteId}", ["id", "noteId"]],
    ]);
    expect(made.lost).toEqual(["line 5: the part after ? or # of /hives/{id}/notes/{noteId}?tab=1", "line 7: /hives, which is there already"]);
    expect(check(made.project).findings.filter((f) => f.severity === "blocker")).toEqual([]);
  });

  it("a hundred ordinary addresses, in each of the styles that routers use, come in without a blocker and with few notes", () => {
    const nouns = "orders customers products invoices companies boxes teams projects tickets reports".split(" ");
    const each = ["", "/new", "/:id", "/:id/edit", "/:id/history", "/:id/comments", "/:id/comments/:commentId", "/archive", "/search"];
    const list = ["/", "/login", "/settings", "/settings/profile", "/about", "/help/*topic", ...nouns.flatMap((noun) => each.map((path) => `/${noun}${path}`))];
    const styles: Array<(variable: string) => string> = [(v) => `:${v}`, (v) => `{${v}}`, (v) => `[${v}]`, (v) => `$${v}`, (v) => `<int:${v}>`];
    for (const style of styles) {
      const made = fromAddresses(list.map((path) => path.replace(/:(\w+)/g, (_, name: string) => style(name))).join("\n"));
      if (!made.ok) throw new Error(made.problems[0]?.message);
      valid(made.project);
      const { findings } = check(made.project, { fixes: false });
      expect([made.project.screens.length, findings.filter(({ severity }) => severity === "blocker").length]).toEqual([list.length, 0]);
      expect(findings.length).toBeLessThanOrEqual(10);
      const names = made.project.screens.map((screen) => screen.name);
      expect(names).toEqual(expect.arrayContaining(["Orders", "Order", "Orders: new", "Order: edit", "Company: history", "Box: comments", "Order: comment"]));
      expect(new Set(names).size).toBe(names.length);
    }
  });

  it("a form of variable that is not known is named with its line, and not taken for text", () => {
    expect(fromAddresses("/a\n/a/(group)/b\n/a/[[id]]")).toMatchObject({ ok: false, problems: [{ line: 2 }, { line: 3 }] });
  });

  it("lines that are no address are all named with their numbers, and nothing is made", () => {
    const made = fromAddresses("/ok\nnot one\n/a/{b\n");
    expect(made).toEqual({
      ok: false,
      problems: [
        { line: 2, message: expect.stringContaining("“not one”") },
        { line: 3, message: expect.stringContaining("/a/{b") },
      ],
    });
  });

  it("a sitemap becomes a project, and says what it left out", () => {
    const xml = `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>https://x.test/</loc><priority>1</priority></url><url><loc>https://x.test/a&amp;b/c</loc></url></urlset>`;
    const made = fromSitemap(xml);
    if (!made.ok) throw new Error("it can be read");
    valid(made.project);
    expect(made.project.screens.map((s) => s.path)).toEqual(["/", "/a&b/c"]);
    expect(made.lost).toEqual(["<priority> of every address"]);
  });

  const sitemap = (...paths: string[]) => `<urlset>${paths.map((path) => `<url><loc>https://x.test${path}</loc></url>`).join("")}</urlset>`;
  const read = (...paths: string[]) => {
    const made = fromSitemap(sitemap(...paths));
    if (!made.ok) throw new Error(made.problems[0]?.message);
    valid(made.project);
    return { paths: made.project.screens.map(({ path }) => path).sort(), lost: made.lost, project: made.project };
  };

  it("siblings of a sitemap that differ in one part become one screen with a variable, and that is said", () => {
    const shoes = read("/", "/about", "/contact", "/terms", "/shoes", "/shoes/red", "/shoes/blue-suede", "/shoes/green");
    expect(shoes.paths).toEqual(["/", "/about", "/contact", "/shoes", "/shoes/{shoe}", "/terms"]);
    expect(shoes.lost).toEqual(["3 addresses such as /shoes/red, each by itself: they became one screen, /shoes/{shoe}"]);
    expect(shoes.project.legs.find(({ move }) => move && "to" in move && move.to === "shoe")?.move).toMatchObject({ pass: { shoe: '"red"' } });
    expect(check(shoes.project, { fixes: false }).findings.filter(({ severity }) => severity === "blocker")).toEqual([]);
  });

  it("pages that come again below each of several are no values, dates and keys are", () => {
    const pages = ["menu", "about", "hours"];
    const shops = ["oslo", "bergen", "molde", "bodo"];
    expect(read(...shops.flatMap((shop) => [`/shops/${shop}`, ...pages.map((page) => `/shops/${shop}/${page}`)])).paths).toEqual(
      ["/shops/{shop}", ...pages.map((page) => `/shops/{shop}/${page}`)].sort(),
    );
    expect(read(...["oslo", "bergen"].flatMap((shop) => pages.map((page) => `/shops/${shop}/${page}`))).paths).toHaveLength(6);
    const days = ["2024", "2025", "2026"].flatMap((year) => ["01", "02", "03"].map((month) => `/news/${year}/${month}`));
    expect(read(...days).paths).toEqual(["/news/{news}/{news2}"]);
  });

  it("a sitemap of 20,000 pages comes in as the few kinds that they are of", () => {
    const pages = Array.from({ length: 20_000 }, (_, i) => `/shop/area-${i % 40}/thing-${i}`);
    const { paths, lost } = read("/", "/shop", ...Array.from({ length: 40 }, (_, i) => `/shop/area-${i}`), ...pages);
    expect(paths).toHaveLength(4);
    expect(lost.join("\n")).toContain("20000 addresses such as /shop/");
  });

  it("in the page, lines that are no address are left out and named", () => {
    const made = fromSomeAddresses("/ok\nnot one\n/ok/{id}\n");
    if (!made.ok) throw new Error("some can be read");
    expect(made.project.screens.map(({ path }) => path)).toEqual(["/ok", "/ok/{id}"]);
    expect(made.lost).toEqual([expect.stringContaining("line 2: “not one” is no address")]);
    expect(fromSomeAddresses("not one\nnor this")).toMatchObject({ ok: false, problems: [{ line: 1 }, { line: 2 }] });
  });

  it.each([
    ["entities from elsewhere", '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><urlset><url><loc>&e;</loc></url></urlset>', "a document type"],
    [
      "entities that grow",
      `<!DOCTYPE x [<!ENTITY a "aaaa">${Array.from({ length: 20 }, (_, i) => `<!ENTITY b${i} "&a;&a;">`).join("")}]><urlset/>`,
      "a document type",
    ],
    ["an entity that nothing defines", "<urlset><url><loc>&lol;</loc></url></urlset>", "entity"],
    ["what is not well formed", "<urlset><url>", "unclosed"],
    ["another kind of file", "<html/>", "<urlset> is expected"],
    ["a sitemap without addresses", "<urlset/>", "no address"],
  ])("%s: refused with a sentence", (_, xml, says) => {
    const made = fromSitemap(xml);
    expect(made.ok).toBe(false);
    expect(made.ok ? "" : (made.problems[0]?.message ?? "")).toContain(says);
  });

  it("a file of more than 20 MiB is refused", () => {
    expect(fromSitemap("x".repeat(20 * 1024 * 1024 + 1))).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("20 MiB") }] });
  });
});

describe("what changed between two documents", () => {
  it("is nothing for the same, and names what came, went and changed by place and leg", () => {
    expect(compareProjects(demo, JSON.parse(JSON.stringify(demo)) as Project)).toEqual([]);
    const newer: Project = {
      ...demo,
      screens: demo.screens.filter((s) => s.id !== "queen").map((s) => (s.id === "hive" ? { ...s, name: "The hive" } : s)),
      legs: [...demo.legs.filter((l) => l.id !== "toQueen"), { id: "more", from: "hive", on: { kind: "tap", element: "photo" }, move: { kind: "back" } }],
    };
    expect(compareProjects(demo, newer).map((c) => `${c.what} ${c.kind} ${c.id}`)).toEqual([
      "changed screen hive",
      "removed screen queen",
      "added leg more",
      "removed leg toQueen",
    ]);
    expect(compareProjects(demo, newer)[0]?.fields).toEqual([{ field: "name", from: "Hive", to: "The hive" }]);
  });
});
