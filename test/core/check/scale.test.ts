import { describe, expect, it } from "vitest";
import { bigProject } from "../../../bench/big.ts";
import { check } from "../../../src/core/check/check.ts";
import { proofText } from "../../../src/core/check/proof.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const flags = (count: number) => Array.from({ length: count }, (_, i) => ({ id: `g${i}`, type: "boolean", initial: false, source: "app" }));
const states = (project: Project) => check(project).proof.states;
const lines = (project: Project) => check(project).findings.map((f) => [f.code, ...f.subjects].join(" "));

/** Tabs of stacks six deep, each screen leading to the next. */
function lanes(count: number): Project {
  const lane = (t: number) => Array.from({ length: 6 }, (_, i) => `t${t}s${i}`);
  const all = Array.from({ length: count }, (_, t) => lane(t));
  return app("tabs", {
    tabs: { tabs: all.map((_, t) => `lane${t}`).join(" ") },
    stacks: Object.fromEntries(all.map((screens, t) => [`lane${t}`, screens.join(" ")])),
    legs: all.flatMap((screens) => screens.slice(1).map((to, i) => `to${to} ${screens[i]} push ${to}`)),
  });
}

/** Pages in a stack that each open each of some modals of two steps. */
function sheets(pages: number, modals: number): Project {
  const page = Array.from({ length: pages }, (_, i) => `p${i}`);
  const modal = Array.from({ length: modals }, (_, i) => i);
  return app("s", {
    stacks: { s: page.join(" "), ...Object.fromEntries(modal.map((i) => [`f${i}`, `m${i}a m${i}b`])) },
    modals: Object.fromEntries(modal.map((i) => [`m${i}`, `f${i}`])),
    legs: [
      ...page.slice(1).map((to) => `to${to} p0 push ${to}`),
      ...page.flatMap((from) => modal.map((i) => `open${from}m${i} ${from} open m${i}`)),
      ...modal.map((i) => `next${i} m${i}a push m${i}b`),
    ],
  });
}

/** Tabs of stacks two deep whose Back goes to the tab visited before. */
function visited(count: number): Project {
  const all = Array.from({ length: count }, (_, t) => t);
  return app("tabs", {
    tabs: { tabs: [all.map((t) => `lane${t}`).join(" "), { onBack: "previous" }] },
    stacks: Object.fromEntries(all.map((t) => [`lane${t}`, `a${t} b${t}`])),
    legs: all.map((t) => `to${t} a${t} push b${t}`),
  });
}

/** Pages behind a sign-in, with links to some of them that wait for it. */
function linked(links: number): Project {
  const pages = Array.from({ length: 20 }, (_, i) => `p${i}`);
  return app("s", {
    stacks: { s: `signIn home ${pages.join(" ")}` },
    facts: [{ id: "in", type: "boolean", initial: false, source: "app" }],
    legs: ["enter signIn reset home set.in=true resumes", ...pages.map((to) => `to${to} home push ${to}`), "out home reset signIn set.in=false"],
    entrances: pages.slice(0, links).map((to) => ({
      id: `link${to}`,
      name: to,
      kind: "link",
      pattern: `/${to}`,
      to,
      when: "fact.in",
      otherwise: "signIn",
      resume: true,
      warm: "rebuild",
    })),
  });
}

describe("what the search costs in states", () => {
  it("does not grow with the orders in which tabs were visited, which Back follows", () => {
    const [three, six] = [states(visited(3)), states(visited(6))];
    expect(six / three).toBeLessThan(4);
  });

  it("does not grow with the links that may wait for a sign-in", () => {
    const [one, twenty] = [states(linked(1)), states(linked(20))];
    expect(twenty / one).toBeLessThan(2);
  });

  it("grows with the screens of lanes, and not with the product of their depths", () => {
    const [two, eight] = [states(lanes(2)), states(lanes(8))];
    expect(eight / two).toBeLessThan(4.5);
  });

  it("follows a modal once, and not once for each page that opens it", () => {
    const few = states(sheets(5, 5));
    expect(states(sheets(10, 10)) / few).toBeLessThan(2.5);
  });

  it("does not grow with facts that decide nothing", () => {
    const legs = ["go a push b", "mark b push c set.g0=true", "more c push d if=fact.g1||!fact.g1"];
    const parts = { stacks: { s: "a b c d" }, legs };
    const [with2, with8] = [app("s", { ...parts, facts: flags(2) }), app("s", { ...parts, facts: flags(8) })];
    expect(states(with8)).toBe(states(with2));
    expect(check(with8).proof).toMatchObject({ complete: true, depth: "any", factCombinations: 256 });
  });

  it("is small enough that 250 screens with eight facts are proved whole", () => {
    const { proof } = check(bigProject(250));
    expect(proofText(proof)).toContain("Proved for any depth of stack");
    expect(proof.states).toBeLessThan(6 * proof.screens);
  });
});

describe("a search that is coarse at first", () => {
  it("follows a fact that a screen is kept behind", () => {
    const parts = { stacks: { s: "a b c" }, facts: flags(3) };
    expect(lines(app("s", { ...parts, legs: ["go a push b if=fact.g0", "on b push c"] }))).toEqual(expect.arrayContaining(["unreachable b", "unreachable c"]));
    const opened = app("s", { ...parts, legs: ["set a set set.g0=true", "go a push b if=fact.g0", "on b push c"] });
    expect(lines(opened).filter((line) => line.startsWith("unreachable"))).toEqual([]);
  });

  it("finds a dead end that only one value of a fact makes, and none where the other is never left", () => {
    const dead = { stacks: { s: "a b" }, screens: { b: { up: "none", bar: { show: false, lead: "none" } } }, facts: flags(3) };
    const legs = ["go a reset b", "out b reset a if=!fact.g0"];
    expect(lines(app("s", { ...dead, legs }))).not.toContain("dead-end b");
    expect(lines(app("s", { ...dead, legs: [...legs, "lock a reset b set.g0=true"] }))).toContain("dead-end b");
  });

  it("counts taps by ways that there are", () => {
    const chain = ["b", "c", "d", "e", "f"].map((to, i) => `to${to} ${"abcde"[i]} push ${to}`);
    const project = app("s", { stacks: { s: "a b c d e f z" }, facts: flags(2), legs: [...chain, "end f push z set.g0=true", "jump a push z if=fact.g0"] });
    expect(check(project).findings.find((f) => f.code === "far")).toMatchObject({ subjects: ["z"], certainty: "shown" });
  });

  it("goes on beneath a modal as the page was", () => {
    const project = app("s", {
      stacks: { s: "a b c", f: "x" },
      modals: { m: "f" },
      legs: ["go a push b", "ask b open m", "done x push c in=beneath", "shut x close"],
    });
    expect(lines(project).filter((line) => line.startsWith("unreachable") || line.startsWith("refused"))).toEqual([]);
    const bare = app("t", {
      tabs: { t: "a s" },
      stacks: { s: "b", f: "x" },
      modals: { m: "f" },
      screens: { c: {} },
      legs: ["ask a open m", "done x push c in=beneath"],
    });
    expect(check(bare).findings.find((f) => f.code === "refused-move")).toMatchObject({ subjects: ["done"], certainty: "shown" });
  });
});

it("a search that is stopped claims no fault in what it did not look at", () => {
  const whole = new Set(lines(bigProject(60)));
  const { findings, proof } = check(bigProject(60), { states: 40 });
  expect(proof.complete).toBe(false);
  const blockers = findings.filter((f) => f.severity === "blocker" && f.certainty !== "possible");
  expect(blockers.filter((f) => !whole.has([f.code, ...f.subjects].join(" ")))).toEqual([]);
});
