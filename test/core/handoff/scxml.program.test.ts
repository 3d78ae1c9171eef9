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

/** A chart of a shop, as somebody would write it by hand. */
const HAND = `<scxml xmlns="http://www.w3.org/2005/07/scxml" version="1.0" initial="splash" datamodel="ecmascript">
  <datamodel>
    <data id="loggedIn" expr="false"/>
    <data id="role" expr="'guest'"/>
    <data id="count" expr="0"/>
    <data id="seen" expr="false"/>
  </datamodel>
  <state id="splash">
    <onentry><assign location="seen" expr="true"/><send event="done" delay="800ms"/></onentry>
    <transition event="done" target="login"/>
  </state>
  <state id="login">
    <transition event="enter" cond="!loggedIn &amp;&amp; (role === 'guest' || seen)" target="shop">
      <assign location="loggedIn" expr="true"/>
    </transition>
    <transition cond="loggedIn == true" target="shop"/>
  </state>
  <state id="shop" initial="shelf">
    <onentry><assign location="role" expr="'clerk'"/></onentry>
    <history id="where" type="deep"><transition target="shelf"/></history>
    <transition event="logout" target="splash"><assign location="loggedIn" expr="false"/></transition>
    <transition event="help" target="help"/>
    <state id="shelf">
      <transition event="pick" target="item"/>
    </state>
    <state id="item">
      <transition event="shelf" target="shelf"/>
      <transition event="buy" target="checkout"/>
    </state>
    <state id="checkout" initial="address">
      <transition event="done.state.checkout" target="shelf"/>
      <state id="address">
        <onentry><log expr="'address'"/></onentry>
        <transition event="pay" target="bought"/>
        <transition event="cancel" target="shop"/>
      </state>
      <final id="bought"><onentry>
        <assign location="count" expr="count + 1"/>
      </onentry></final>
    </state>
  </state>
  <state id="help">
    <transition event="back" target="where"/>
  </state>
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
    expect(lost.join("\n")).toContain("the data count");
    expect(lost.join("\n")).toContain("further targets date");
    expect(lost.join("\n")).toContain("count > 0");
    expect(check(project).findings.filter((f) => f.code === "broken-target" || f.code === "no-owner")).toEqual([]);
  });

  it("takes charts as people write them by hand: data that are facts, what waits, what is done, what is gone back to", () => {
    const made = fromScxml(HAND);
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    const { project, lost } = made;
    expect(lost).toEqual([
      "<log>, wherever it stands",
      "the data count, which is not only yes or no, or one of a few texts",
      "line 38: the assignment of count",
    ]);
    expect(readProjectData(JSON.parse(JSON.stringify(project))).ok).toBe(true);
    expect(project.facts.map(({ id, type, values, initial }) => [id, type, values ?? [], initial])).toEqual([
      ["loggedIn", "boolean", [], false],
      ["role", "choice", ["guest", "clerk"], "guest"],
      ["seen", "boolean", [], true],
    ]);
    const told = project.legs.map(({ from, on, when, set, move }) => [
      from,
      on.kind,
      when ?? "",
      Object.entries(set ?? {}).join(" "),
      move ? `${move.kind} ${"to" in move ? move.to : ""}` : "",
    ]);
    expect(told).toEqual([
      ["splash", "after", "", "", "replace login"],
      ["login", "tap", "!fact.loggedIn && (fact.role == 'guest' || fact.seen)", "loggedIn,true role,'clerk'", "push shop"],
      ["login", "arrive", "fact.loggedIn == true", "role,'clerk'", "replace shop"],
      ["shop", "tap", "", "loggedIn,false seen,true", "return splash"],
      ["shop", "tap", "", "", "push help"],
      ["shelf", "tap", "", "", "push item"],
      ["item", "tap", "", "", "return shelf"],
      ["item", "tap", "", "", "push checkout"],
      ["bought", "arrive", "", "", "return shelf"],
      ["address", "tap", "", "", "push bought"],
      ["address", "tap", "", "role,'clerk'", "return shelf"],
      ["help", "tap", "", "role,'clerk'", "push shop"],
    ]);
    expect(check(project, { fixes: false }).findings.filter(({ severity }) => severity === "blocker")).toEqual([]);
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
