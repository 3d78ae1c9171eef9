import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { changeLeg, changeScreen } from "../../../src/core/model/edits/change.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { once, onceFor } from "../../../src/core/model/once.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { type Plan, planFrom } from "../../../src/core/plan/plan.ts";
import { planData, planHash, planOf } from "../../../src/core/plan/planOf.ts";
import { plainApp } from "../../../src/core/semantics/app.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

describe("moves as stack operations", () => {
  const project = (legs: string[]) => app("t", { tabs: { t: "s u" }, stacks: { s: "a b", u: "x y" }, drawers: { d: "p q" }, modals: { m: "z" }, legs });
  const program = (leg: string) => planData(project([`go a ${leg}`])).legs.go?.move;

  it.each([
    [
      "push b",
      [
        { op: "stack", of: "nearest" },
        { op: "push", make: "b" },
      ],
    ],
    [
      "push b in=beneath",
      [
        { op: "stack", of: "beneath" },
        { op: "push", make: "b" },
      ],
    ],
    [
      "push x in=u tidy=source",
      [
        { op: "tidy", away: "one" },
        { op: "bring", up: "u" },
        { op: "push", make: "x" },
      ],
    ],
    [
      "push b repeat=stay",
      [
        { op: "stack", of: "nearest" },
        { op: "stay", on: "b", make: "b" },
        { op: "push", make: "b" },
      ],
    ],
    [
      "push b repeat=rewind",
      [
        { op: "stack", of: "nearest" },
        { op: "pop", to: "b", by: "is", quiet: true },
        { op: "push", make: "b" },
      ],
    ],
    [
      "push u",
      [
        { op: "stack", of: "nearest" },
        { op: "push", make: { stack: "u", items: ["x"] }, holds: ["u"] },
      ],
    ],
    ["replace b", [{ op: "replace", make: "b" }]],
    [
      "reset b",
      [
        { op: "stack", of: "nearest", otherwise: [{ op: "replace", make: "b" }] },
        { op: "fill", make: ["b"] },
      ],
    ],
    [
      "return b orElse=nothing",
      [
        { op: "unless", shows: "b" },
        { op: "pop", to: "b", by: "shows", beneath: "outwards" },
      ],
    ],
    ["open m", [{ op: "open", modal: "m", make: "z" }]],
    ["close m", [{ op: "close", modal: "m" }]],
    [
      "select u",
      [
        { op: "bring", up: "t" },
        { op: "select", lane: "u", quiet: true },
      ],
    ],
    ["menu d action=open", [{ op: "menu", drawer: "d", open: true }]],
    ["back", [{ op: "back" }]],
    ["push nowhere", [{ op: "refuse", why: "no-place" }]],
    ["select a", [{ op: "refuse", why: "no-place" }]],
    ["push b in=t", [{ op: "refuse", why: "no-place" }]],
  ])("%s", (leg, operations) => {
    expect(program(leg)).toEqual(operations);
  });

  it("Up goes back to its target, else brings the owner up, else builds the way to it", () => {
    expect(planData(project([])).screens.b?.up).toEqual([
      { op: "pop", to: "a", by: "shows", beneath: "nearest" },
      { op: "drop" },
      { op: "bring", up: "s", otherwise: [{ op: "rebuild", route: { base: { lanes: "t", kind: "tabs", active: "s", shows: { stack: "s", items: ["a"] } } } }] },
      { op: "pop", to: "a", by: "shows" },
      { op: "fill", make: ["a"] },
    ]);
    expect(planData(project([])).screens.a?.up).toBeUndefined();
  });

  it("starts that lead round, and places that are not there, become empty screens", () => {
    const round = app("one", { stacks: { one: ["x", { start: "two" }], two: ["y", { start: "one" }] } });
    expect(planData(round).launch).toEqual({ stack: "one", items: [{ stack: "two", items: ["one"] }] });
    expect(planData(app("s", { stacks: { s: ["", { start: "ghost" }] } })).launch).toEqual({ stack: "s", items: ["ghost"] });
  });
});

describe("a plan", () => {
  it("is plain data: read back from JSON it moves alike", () => {
    for (let seed = 0; seed < 60; seed++) {
      const project = wholeDocument(seed);
      const data = planData(project);
      expect(JSON.parse(JSON.stringify(data))).toEqual(data);
      const [ours, theirs] = [plainApp(planOf(project)), plainApp(planFrom(JSON.parse(JSON.stringify(data))))];
      let [a, b] = [launch(ours), launch(theirs)];
      for (const event of randomWalk(project, wholeEvents(project), seed, 20)) {
        [a, b] = [step(ours, a, event).state, step(theirs, b, event).state];
        expect(b).toEqual(a);
      }
    }
  });

  it("is made once for a project, and has another hash where it says something else", () => {
    expect(planOf(demo)).toBe(planOf(demo));
    const named = { ...demo, name: "Another" };
    expect(planHash(named)).toBe(planHash(demo));
    const [leg] = demo.legs;
    if (!leg) throw new Error("the demo has legs");
    expect(planHash(applyEdit(demo, changeLeg(demo, leg, { move: { kind: "back" } })))).not.toBe(planHash(demo));
  });

  it("after any edit is what it would be made from the start", () => {
    let project = demo;
    planOf(project);
    const edits: Array<(p: Project) => Project> = [
      (p) => applyEdit(p, changeScreen(p, "hive", { params: [] })),
      (p) => ({ ...p, facts: p.facts.slice(1) }),
      (p) => ({ ...p, screens: p.screens.map((s) => ({ ...s, elements: s.elements.slice(1) })) }),
      (p) => ({ ...p, screens: p.screens.slice(0, -4) }),
      (p) => ({ ...p, types: p.types.map((t) => ({ ...t, fields: t.fields.slice(0, 2) })) }),
      (p) => ({ ...p, containers: p.containers.map((c) => ({ ...c, members: [...c.members].reverse() })) }),
      (p) => ({ ...p, legs: p.legs.map((l) => ({ ...l, on: p.legs[0]?.on ?? l.on, from: p.legs[0]?.from ?? l.from })) }),
    ];
    for (const edit of edits) {
      project = edit(project);
      const afresh = structuredClone(project);
      expect(planData(project)).toEqual(planData(afresh));
      const linked = ({ legs }: Plan) => [...legs.values()].map(({ earlier, ...leg }) => ({ ...leg, earlier: earlier.map(({ id }) => id) }));
      expect(JSON.stringify(linked(planOf(project)))).toBe(JSON.stringify(linked(planOf(afresh))));
    }
  });
});

describe("what is worked out once", () => {
  it("is kept with its owner, and for each way of making it", () => {
    let made = 0;
    const count = (owner: { n: number }) => {
      made += 1;
      return owner.n + made;
    };
    const one = { n: 10 };
    expect([once(one, count), once(one, count), once({ n: 10 }, count)]).toEqual([11, 11, 12]);
  });

  it("is made again where what it rests on is another object", () => {
    const owner = {};
    const [a, b] = [{}, {}];
    let made = 0;
    const next = () => ++made;
    const asked = (within: object, ...rests: object[]) => onceFor(owner, [within], () => rests, next);
    expect([asked(a, a), asked(a, b), asked(b, a), asked(b, b), asked(a, b), asked(b, b, a)]).toEqual([1, 1, 1, 1, 2, 3]);
  });
});
