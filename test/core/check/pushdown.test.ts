import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import type { Finding } from "../../../src/core/check/finding.ts";
import { type Automaton, addEdge, only, postStar, preStar, type Rule, takes, tops } from "../../oracle/pushdown.ts";
import { amount } from "../../random/amount.ts";
import { BOTTOM, back, effectOf, isFired, outside, type RandomSystem, randomSystem, START, type StackSymbol } from "../../random/pushdown.ts";

const DOCUMENTS = Number(process.env.PUSHDOWN_DOCUMENTS ?? amount(2000, 100));
const FROM = Number(process.env.PUSHDOWN_FROM ?? 0);
/** Apps of which something was once said that is not so, or not said, or not shown. */
const ONCE_WRONG = [1056, 3425, 5137, 6540, 8116, 8581, 8001348, 41001584, 41002119];

describe("the reference", () => {
  // The example of Schwoon's thesis, figure 2.1.
  const rules: Rule[] = [
    { from: "p0", top: "g0", to: "p1", push: ["g1", "g0"] },
    { from: "p1", top: "g1", to: "p2", push: ["g2", "g0"] },
    { from: "p2", top: "g2", to: "p0", push: ["g1"] },
    { from: "p0", top: "g1", to: "p0", push: [] },
  ];

  it("reaches forwards what the textbook says", () => {
    const reached = postStar(rules, only("p0", ["g0", "g0"]));
    for (const stack of ["g0 g0", "g0 g0 g0", "g1 g0 g0 g0", "g1 g0 g0 g0 g0"]) expect(takes(reached, "p0", stack.split(" ")), stack).toBe(true);
    for (const stack of ["g0", "g1 g0 g0", "g2 g0", ""]) expect(takes(reached, "p0", stack.split(" ")), stack).toBe(false);
    expect(takes(reached, "p1", ["g1", "g0", "g0"])).toBe(true);
    expect(takes(reached, "p2", ["g2", "g0", "g0", "g0"])).toBe(true);
    expect(tops("p0", [reached])).toEqual(new Set(["g0", "g1"]));
  });

  it("reaches backwards what the textbook says, and tells two sets of stacks apart", () => {
    const before = preStar(rules, only("p0", ["g0", "g0"]));
    expect(takes(before, "p0", ["g1", "g1", "g0", "g0"])).toBe(true);
    expect(takes(before, "p1", ["g1", "g0"])).toBe(true);
    expect(takes(before, "p1", ["g1", "g0", "g0"])).toBe(false);
    const reached = postStar(rules, only("p0", ["g0", "g0"]));
    expect(tops("p0", [reached], [before])).toEqual(new Set(["g0", "g1"]));
    expect(tops("p0", [only("p0", ["g0", "g0"])], [before])).toEqual(new Set());
  });
});

it(`${DOCUMENTS} random apps of stacks, modals and one fact: all that textbook saturation says of them is found and shown, and nothing else`, () => {
  const wrong: string[] = [];
  const counts = { documents: DOCUMENTS, symbols: 0, findings: 0, lost: 0, stuck: 0 };
  for (const seed of [...ONCE_WRONG, ...Array.from({ length: DOCUMENTS }, (_, i) => FROM + i)]) {
    const system = randomSystem(seed);
    const { findings, proof } = check(system.project);
    if (proof.depth !== "any") wrong.push(`${seed}: only ${proof.depth} deep`);
    const found = toldOf(findings);
    const expected = expectedOf(system);
    for (const one of expected) if (!found.has(one)) wrong.push(`${seed}: missed ${one}`);
    for (const one of found) if (!expected.has(one)) wrong.push(`${seed}: too much ${one}`);
    for (const { code, subjects, certainty } of findings) if (certainty === "possible") wrong.push(`${seed}: not shown ${code} ${subjects.join(" ")}`);
    counts.symbols += system.symbols.size;
    counts.findings += expected.size;
    counts.lost += [...expected].some((one) => one.startsWith("lost")) ? 1 : 0;
    counts.stuck += [...expected].some((one) => one.startsWith("stuck")) ? 1 : 0;
  }
  process.stdout.write(`apps as pushdown systems: ${JSON.stringify(counts)}\n`);
  expect(wrong).toEqual([]);
  expect(counts.lost).toBeGreaterThan(DOCUMENTS / 20);
  expect(counts.stuck).toBeGreaterThan(DOCUMENTS / 20);
});

const JUDGED = ["unreachable", "dead-end", "back-only", "stuck-modal", "piled-copies", "silent", "leaves-by-surprise"];

/** What is found, each once; a trap is told by its screens, and who is at a dead end is lost as well, except on the hub. */
function toldOf(findings: readonly Finding[]): Set<string> {
  return new Set(
    findings.flatMap(({ code, subjects }) => [
      ...(JUDGED.includes(code) ? [`${code} ${subjects.join(" ")}`] : []),
      ...(code === "trap" || (code === "dead-end" && subjects[0] !== "a") ? subjects.map((id) => `lost ${id}`) : []),
    ]),
  );
}

/** What the definitions of the findings come to, worked out from automata alone. The hub is the screen shown at launch. */
function expectedOf(system: RandomSystem): Set<string> {
  const { controls, screens, modals, legs, rules, symbols, project } = system;
  const out = new Set<string>();
  const where = (is: (symbol: StackSymbol) => boolean) => preStar(rules, onTop(system, is));
  const symbolsOf = (names: Iterable<string>) => [...names].flatMap((name) => symbols.get(name) ?? []);
  const reached = postStar(rules, only("p", [START, BOTTOM]));
  const home = where(({ screen }) => screen === "a");
  const free = modals.map(({ id }) => where((symbol) => !symbol.modals.includes(id)));
  const shown = new Set<string>();
  for (const control of controls) {
    const heads = symbolsOf(tops(control, [reached]));
    modals.forEach(({ id }, i) => {
      for (const _ of tops(control, [reached], free.slice(i, i + 1))) out.add(`stuck-modal ${id}`);
    });
    for (const { screen } of symbolsOf(tops(control, [reached, ...free], [home]))) out.add(`lost ${screen}`);
    for (const symbol of symbolsOf(tops(control, [reached, ...free]))) {
      if (!stays(system, symbol, control)) continue;
      if (!back(symbol, modals)) out.add(`dead-end ${symbol.screen}`);
      else if (symbol.screen !== "a") out.add(`back-only ${symbol.screen}`);
    }
    for (const symbol of heads) {
      const { screen, beneath } = symbol;
      for (const id of [screen, ...symbol.modals]) shown.add(id);
      if (screen !== "a" && symbol.modals.length + beneath.length === 0) out.add(`leaves-by-surprise ${screen}`);
      for (const leg of legs.filter(({ from }) => from === screen)) {
        const fires = isFired(leg, control);
        const effect = effectOf(leg, symbol, modals);
        if (!fires) out.add(`silent ${screen} on${leg.id}`);
        const { move } = leg;
        const mayRepeat = "to" in move && project.screens.find(({ id }) => id === move.to)?.mayRepeat;
        if (fires && move.kind === "push" && effect && "push" in effect && !mayRepeat && [screen, ...beneath].includes(move.to))
          out.add(`piled-copies ${leg.id} ${move.to}`);
      }
    }
  }
  const never = modals.filter(({ id }) => !shown.has(id));
  for (const { id } of never) out.add(`unreachable ${id}`);
  for (const id of screens) if (!shown.has(id) && !never.some(({ members }) => members.includes(id))) out.add(`unreachable ${id}`);
  return out;
}

/** Whether nothing but Back leads from a symbol on top to another state line, in any number of steps: all that can change is the fact. */
function stays({ legs, modals }: RandomSystem, symbol: StackSymbol, control: string): boolean {
  if (outside(symbol, modals)) return false;
  const known = new Set([control]);
  for (const now of known)
    for (const leg of legs.filter((one) => one.from === symbol.screen && isFired(one, now))) {
      const effect = effectOf(leg, symbol, modals);
      if (!effect) continue;
      if (!("push" in effect) || effect.push.length !== 1 || effect.push[0]?.screen !== symbol.screen) return false;
      known.add(leg.sets ?? now);
    }
  return true;
}

/** The automaton that takes all stacks with some symbols on top. */
function onTop({ controls, symbols }: RandomSystem, is: (symbol: StackSymbol) => boolean): Automaton {
  const automaton: Automaton = { edges: new Map(), final: new Set(["met"]) };
  for (const [name, symbol] of symbols) {
    addEdge(automaton, "met", name, "met");
    for (const control of is(symbol) ? controls : []) addEdge(automaton, control, name, "met");
  }
  addEdge(automaton, "met", BOTTOM, "met");
  return automaton;
}
