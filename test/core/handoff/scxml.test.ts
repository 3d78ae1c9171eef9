import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Statechart } from "@scion-scxml/core";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromScxml } from "../../../src/core/handoff/in/scxml.ts";
import { eventName, scxml } from "../../../src/core/handoff/scxml/chart.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { readProject, readProjectData } from "../../../src/core/model/read.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { VECTORS } from "../../vectors/all.ts";
import { app } from "../../vectors/app.ts";
import { eventOf } from "../../vectors/vector.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;
const QSCXMLC = "/usr/lib/qt5/bin/qscxmlc";
if (!existsSync(QSCXMLC))
  process.stderr.write("qscxmlc is not installed: no other reader of state charts looks at the generated one. (apt-get install libqt5scxml5-bin)\n");

interface Model {
  initial?: string;
  states: Array<{ id: string; line: string; transitions: Array<{ event: string; target: string }> }>;
}

/** The chart as an interpreter takes it; nothing is added to what the file says. */
function modelOf(xml: string): Model {
  const model: Model = { states: [] };
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name, attributes }) => {
    const given = attributes as Record<string, string>;
    if (name === "scxml") model.initial = given.initial;
    if (name === "state") model.states.push({ id: given.id ?? "", line: given["etape:line"] ?? "", transitions: [] });
    if (name === "transition") model.states.at(-1)?.transitions.push({ event: given.event ?? "", target: given.target ?? "" });
  });
  parser.write(xml).close();
  return model;
}

describe("the state chart", () => {
  it("moves as the engine does on every vector, by an interpreter that others wrote", () => {
    let compared = 0;
    let beyond = 0;
    for (const { app, steps, says, launch: first } of Object.values(VECTORS).flat()) {
      const { initial, states } = modelOf(scxml(app));
      const lineOf = new Map(states.map(({ id, line }) => [id, line]));
      const chart = new Statechart({ states: [{ id: "all", initial, states: states.map(({ id, transitions }) => ({ id, transitions })) }] } as never);
      chart.start();
      const now = () => lineOf.get(chart.getConfiguration()[0] ?? "");
      expect(now(), says).toBe(first);
      let state = launch(appOf(app));
      for (const [short] of steps) {
        const event = eventOf(short);
        const before = chart.getConfiguration()[0];
        const result = step(appOf(app), state, event);
        chart.gen(eventName(event));
        const known = states.find(({ id }) => id === before)?.transitions.some((t) => t.event === eventName(event));
        if (result.outcome === "moved" && !known) {
          // Arguments that a chart's events do not carry, or a state beyond it.
          beyond += 1;
          break;
        }
        state = result.state;
        expect(now(), `${says}: ${eventName(event)}`).toBe(stateLine(planOf(app), state));
        compared += 1;
      }
    }
    expect(compared).toBeGreaterThan(380);
    expect(beyond / compared).toBeLessThan(0.05);
  });

  it("has one state for those that differ in nothing that is read, and names that a person reads", () => {
    const plain = app("s", {
      stacks: { s: "list item" },
      types: [{ id: "row", fields: [{ name: "id", type: "text" }], samples: [{ id: "x" }, { id: "y" }] }],
      screens: {
        list: { elements: [{ id: "rows", kind: "list", label: "Rows", of: "row" }] },
        item: { params: [{ name: "id", type: "text", required: true }] },
      },
      facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
      legs: ["open list:on(rows) push item pass.id=item.id"],
    });
    expect(modelOf(scxml(plain)).states.map(({ id, line }) => [id, line])).toEqual([
      ["list", "s[list]"],
      ["item", "s[list,item]"],
    ]);
    // Once something reads the row and the fact, they tell states apart.
    const read = {
      ...plain,
      legs: [
        ...plain.legs,
        ...app("s", {
          stacks: { s: "item" },
          screens: { item: { params: [{ name: "id", type: "text", required: true }] } },
          facts: plain.facts,
          legs: ["more item push item if=param.id=='x'&&fact.online"],
        }).legs,
      ],
    };
    const { states } = modelOf(
      scxml({
        ...read,
        screens: read.screens.map((one) => (one.id === "item" ? { ...one, elements: [{ id: "more", kind: "button" as const, label: "More" }] } : one)),
      }),
    );
    expect(states.map(({ id }) => id).slice(0, 3)).toEqual(["list", "item", "item-2"]);
    expect(states.length).toBeGreaterThan(5);
  });

  it("says at its head how much it leaves out", () => {
    const text = scxml(demo);
    expect(text).toMatch(/has the 400 states nearest to launch, and \d+ steps that lead beyond them are left out/);
    expect(modelOf(text).states).toHaveLength(400);
  });

  it.skipIf(!existsSync(QSCXMLC))("is accepted by another compiler of state charts", () => {
    const folder = mkdtempSync(join(tmpdir(), "etape-scxml-"));
    writeFileSync(join(folder, "chart.scxml"), scxml(demo));
    const { status, stderr, stdout } = spawnSync(QSCXMLC, ["chart.scxml"], { cwd: folder, encoding: "utf8" });
    expect(`${stdout}${stderr}`).toBe("");
    expect(status).toBe(0);
    writeFileSync(join(folder, "broken.scxml"), scxml(demo).replace('target="tourHives"', 'target="nowhere"'));
    expect(spawnSync(QSCXMLC, ["broken.scxml"], { cwd: folder }).status).not.toBe(0);
  });
});

/** A chart of a lending desk, as another program would write it. */
const FOREIGN = `<?xml version="1.0"?>
<scxml xmlns="http://www.w3.org/2005/07/scxml" version="1.0" initial="shelf" name="Lending desk">
  <datamodel><data id="count" expr="0"/></datamodel>
  <state id="shelf"><transition event="book.pick" target="loan"/><onentry><log expr="'x'"/></onentry></state>
  <state id="loan" initial="card">
    <transition event="cancel" target="shelf"/>
    <state id="card"><transition event="scan" cond="count &gt; 0" target="due date"/></state>
    <state id="due"><transition target="shelf"/></state>
  </state>
  <parallel id="rooms"><state id="red"/><state id="blue"/></parallel>
  <final id="done"/>
</scxml>`;

describe("reading a state chart", () => {
  it("takes screens, stacks, tabs and legs from one that others wrote, and says what it leaves out", () => {
    const made = fromScxml(FOREIGN, "x");
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    const { project, lost } = made;
    expect(readProjectData(JSON.parse(JSON.stringify(project))).ok).toBe(true);
    expect(project.name).toBe("Lending desk");
    expect(project.containers.map((c) => [c.kind, c.id, c.start, c.members])).toEqual([
      ["stack", "main", "shelf", ["shelf", "loan", "rooms", "done"]],
      ["stack", "loan", "card", ["card", "due"]],
      ["tabs", "rooms", "red", ["red", "blue"]],
    ]);
    expect(project.legs.map((leg) => [leg.from, leg.on.kind, leg.move && "to" in leg.move ? leg.move.to : ""])).toEqual([
      ["shelf", "tap", "loan"],
      ["loan", "tap", "shelf"],
      ["card", "tap", "due"],
      ["due", "arrive", "shelf"],
    ]);
    expect(lost.join("\n")).toContain("<datamodel>");
    expect(lost.join("\n")).toContain("further targets date");
    expect(lost.join("\n")).toContain("count > 0");
    expect(check(project).findings.filter((f) => f.code === "broken-target" || f.code === "no-owner")).toEqual([]);
  });

  it("reads its own charts back: a screen for each state, a leg for each transition, and nothing lost", () => {
    for (const { app: project, says } of Object.values(VECTORS).flat()) {
      const text = scxml(project);
      const { states } = modelOf(text);
      const made = fromScxml(text);
      if (!made.ok) throw new Error(says);
      expect(made.lost, says).toEqual([]);
      expect(
        made.project.screens.map(({ name }) => name),
        says,
      ).toEqual(states.map(({ line }) => line));
      expect(made.project.legs, says).toHaveLength(states.flatMap(({ transitions }) => transitions).length);
      expect(made.project.name).toBe(project.name);
    }
  });

  it("refuses entities that grow, entities from elsewhere, other files and files too large, and says where", () => {
    const laughs = `<?xml version="1.0"?>\n<!DOCTYPE lolz [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;">]>\n<scxml xmlns="http://www.w3.org/2005/07/scxml"><state id="&b;"/></scxml>`;
    expect(fromScxml(laughs)).toMatchObject({ ok: false, problems: [{ line: 2, message: expect.stringContaining("document type") }] });
    const outside = `<!DOCTYPE scxml SYSTEM "http://elsewhere.test/x.dtd">\n<scxml/>`;
    expect(fromScxml(outside)).toMatchObject({ ok: false });
    expect(fromScxml("<urlset/>")).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("<scxml> is expected") }] });
    expect(fromScxml("<scxml><state></scxml>")).toMatchObject({ ok: false, problems: [{ line: 1 }] });
    expect(fromScxml("<scxml/>")).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("at least one <state>") }] });
    expect(fromScxml(" ".repeat(20 * 2 ** 20 + 1))).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining("20 MiB") }] });
  });
});
