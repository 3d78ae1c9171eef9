import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { type Automaton, addEdge, difference, only, postStar, preStar, type Rule } from "../../oracle/pushdown.ts";
import { amount } from "../../random/amount.ts";
import { BOTTOM, type RandomLeg, type RandomSystem, randomSystem } from "../../random/pushdown.ts";

const DOCUMENTS = Number(process.env.PUSHDOWN_DOCUMENTS ?? amount(2000, 150));
const FROM = Number(process.env.PUSHDOWN_FROM ?? 0);

const ANY = { start: "", next: (_: string, symbol: string) => symbol, ends: () => true };

describe("the reference", () => {
  // The example of Schwoon's thesis, figure 2.1.
  const rules: Rule[] = [
    { from: "p0", top: "g0", to: "p1", push: ["g1", "g0"] },
    { from: "p1", top: "g1", to: "p2", push: ["g2", "g0"] },
    { from: "p2", top: "g2", to: "p0", push: ["g1"] },
    { from: "p0", top: "g1", to: "p0", push: [] },
  ];

  it("reaches forwards and backwards what the textbook says", () => {
    const reached = postStar(rules, only("p0", ["g0", "g0"]));
    const is = (stack: string[]) => ({
      start: 0,
      next: (i: number, symbol: string) => (i >= 0 && stack[i] === symbol ? i + 1 : -1),
      ends: (i: number) => i === stack.length,
    });
    for (const stack of [
      ["g0", "g0"],
      ["g0", "g0", "g0"],
      ["g1", "g0", "g0", "g0"],
    ])
      expect(difference("p0", reached, undefined, is(stack))).toEqual(stack);
    expect(difference("p1", reached, undefined, is(["g1", "g0", "g0", "g0"]))).toBeDefined();
    expect(difference("p2", reached, undefined, is(["g2", "g0", "g0", "g0"]))).toBeDefined();
    for (const stack of [["g0"], ["g1", "g0", "g0"], ["g2", "g0"], []]) expect(difference("p0", reached, undefined, is(stack))).toBeUndefined();
    const back = preStar(rules, only("p0", ["g0", "g0"]));
    expect(difference("p0", back, undefined, is(["g0", "g0"]))).toBeDefined();
    expect(difference("p0", back, undefined, is(["g1", "g1", "g0", "g0"]))).toBeDefined();
    expect(difference("p1", back, undefined, is(["g1", "g0"]))).toBeDefined();
    expect(difference("p1", back, undefined, is(["g1", "g0", "g0"]))).toBeUndefined();
    expect(difference("p0", reached, back, ANY)).toBeDefined();
    expect(difference("p0", only("p0", ["g0", "g0"]), back, ANY)).toBeUndefined();
  });
});

it(`${DOCUMENTS} random apps of one stack and one fact: what the textbook's saturation says of them, and nothing else`, () => {
  const wrong: string[] = [];
  const counts = { documents: DOCUMENTS, findings: 0, possible: 0, lost: 0 };
  for (let seed = FROM; seed < FROM + DOCUMENTS; seed++) {
    const system = randomSystem(seed);
    const { findings, proof } = check(system.project);
    if (proof.depth !== "any") wrong.push(`${seed}: only ${proof.depth} deep`);
    const found = new Set(
      findings.flatMap(({ code, subjects }) =>
        code === "trap"
          ? subjects.map((id) => `lost ${id}`)
          : code === "dead-end"
            ? [...(subjects[0] === "a" ? [] : [`lost ${subjects[0]}`]), `dead-end ${subjects[0]}`]
            : JUDGED.includes(code)
              ? [`${code} ${subjects.join(" ")}`]
              : [],
      ),
    );
    const expected = expectedOf(system);
    const missed = [...expected].filter((one) => !found.has(one));
    const tooMuch = [...found].filter((one) => !expected.has(one));
    if (missed.length + tooMuch.length > 0) wrong.push(`${seed}: missed ${missed.join("; ") || "nothing"}, too much ${tooMuch.join("; ") || "nothing"}`);
    counts.findings += expected.size;
    counts.lost += [...expected].some((one) => one.startsWith("lost")) ? 1 : 0;
    const possible = findings.filter(({ certainty }) => certainty === "possible");
    counts.possible += possible.length;
    if (possible.length > 0) wrong.push(`${seed}: possible ${possible.map(({ code, subjects }) => `${code} ${subjects}`).join("; ")}`);
  }
  process.stdout.write(`apps as pushdown systems: ${JSON.stringify(counts)}\n`);
  expect(wrong).toEqual([]);
  expect(counts.lost).toBeGreaterThan(DOCUMENTS / 20);
});

const JUDGED = ["unreachable", "dead-end", "back-only", "piled-copies", "silent", "leaves-by-surprise"];

/** What the definitions of the findings come to, worked out from the two automata alone. The hub is the screen shown at launch. */
function expectedOf({ controls, screens, legs, rules, project }: RandomSystem): Set<string> {
  const out = new Set<string>();
  const reached = postStar(rules, only("p", ["a", BOTTOM]));
  const home = preStar(rules, onTop("a", controls, screens));
  const some = (control: string, wanted: (stack: Seen) => boolean, not?: Automaton) => difference(control, reached, not, seenWhere(wanted)) !== undefined;
  for (const screen of screens) {
    const heads = controls.filter((control) => some(control, ({ top }) => top === screen));
    const alone = (control: string) => some(control, ({ top, next }) => top === screen && next === BOTTOM);
    const onOthers = (control: string) => some(control, ({ top, next }) => top === screen && next !== BOTTOM);
    if (heads.length === 0) out.add(`unreachable ${screen}`);
    if (controls.some((control) => some(control, ({ top }) => top === screen, home))) out.add(`lost ${screen}`);
    if (heads.some((control) => alone(control) && stays(screen, control, legs, controls, true))) out.add(`dead-end ${screen}`);
    if (screen !== "a" && heads.some((control) => onOthers(control) && stays(screen, control, legs, controls, false))) out.add(`back-only ${screen}`);
    if (screen !== "a" && heads.some(alone)) out.add(`leaves-by-surprise ${screen}`);
    for (const leg of legs.filter((one) => one.from === screen)) {
      const fires = heads.filter((control) => isFired(leg, control, controls));
      if (fires.length < heads.length) out.add(`silent ${screen} on${leg.id}`);
      const { move } = leg;
      if (move.kind !== "push" || project.screens.find(({ id }) => id === move.to)?.mayRepeat) continue;
      if (fires.some((control) => some(control, ({ top, has }) => top === screen && has.includes(move.to)))) out.add(`piled-copies ${leg.id} ${move.to}`);
    }
  }
  return out;
}

/** Whether no leg leads from a screen to another state line, in any number of steps: all that can change is the fact. */
function stays(screen: string, control: string, legs: readonly RandomLeg[], controls: readonly string[], alone: boolean): boolean {
  const known = new Set([control]);
  for (const now of known)
    for (const leg of legs.filter((one) => one.from === screen && isFired(one, now, controls))) {
      const { move } = leg;
      if (move.kind === "back" && alone) continue;
      if (move.kind === "back" || move.kind === "push" || move.to !== screen || (move.kind === "reset" && !alone)) return false;
      known.add(leg.sets ?? now);
    }
  return true;
}

const isFired = ({ when }: RandomLeg, control: string, controls: readonly string[]) => controls.length < 2 || when === undefined || when === control;

/** What is seen of a stack, read from the top. */
interface Seen {
  top: string | undefined;
  next: string | undefined;
  has: string[];
}

function seenWhere(wanted: (stack: Seen) => boolean) {
  const next = ({ top, next: second, has }: Seen, symbol: string): Seen => ({
    top: top ?? symbol,
    next: top === undefined ? undefined : (second ?? symbol),
    has: [...new Set([...has, symbol])].sort(),
  });
  return { start: { top: undefined, next: undefined, has: [] }, next, ends: (stack: Seen) => stack.top !== BOTTOM && wanted(stack) };
}

/** The automaton that takes all stacks with a screen on top. */
function onTop(screen: string, controls: readonly string[], screens: readonly string[]): Automaton {
  const automaton: Automaton = { edges: new Map(), final: new Set(["met"]) };
  for (const control of controls) addEdge(automaton, control, screen, "met");
  for (const symbol of [...screens, BOTTOM]) addEdge(automaton, "met", symbol, "met");
  return automaton;
}
