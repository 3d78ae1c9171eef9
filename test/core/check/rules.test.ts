import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { widthClasses } from "../../../src/core/check/system/widths.ts";
import { brokenAlong, launched } from "../../../src/core/insight/rules/watch.ts";
import type { NavEvent, Project, Width } from "../../../src/core/model/schema.ts";
import { World } from "../../oracle/rules.ts";
import { amount } from "../../random/amount.ts";
import { allEvents, randomDocument } from "../../random/documents.ts";
import { randomRules } from "../../random/rules.ts";
import { wholeDocument, wholeEvents, withoutArguments } from "../../random/whole.ts";

/** After how many events of a walk a rule is broken first. */
function firstBroken(project: Project, walk: NavEvent[], rule: string): number | undefined {
  const broken = brokenAlong(project, launched(project).state, walk, true);
  return [...broken].find(([, rules]) => rules.some(({ id }) => id === rule))?.[0];
}

const DOCUMENTS = Number(process.env.RULES_DOCUMENTS ?? amount(1000, 40));
const FROM = Number(process.env.RULES_FROM ?? 0);

/** Every other document is one in which everything of the model occurs. */
function* documents(): Generator<{ seed: number; project: Project; events: NavEvent[] }> {
  for (let seed = FROM; ; seed++) {
    const whole = seed % 2 === 1;
    const made = whole
      ? withoutArguments(wholeDocument(seed))
      : randomDocument(seed, { guarded: seed % 3 === 0, broken: seed % 5 === 0, screens: 5, legs: 8, containers: 2 });
    const project = { ...made, rules: randomRules(made, seed) };
    yield { seed, project, events: whole ? wholeEvents(project) : allEvents(project) };
  }
}

it(`on ${DOCUMENTS} random documents with random rules, the checker and the plain search agree`, { timeout: 900_000 }, () => {
  const wrong: string[] = [];
  const counts = { documents: 0, holds: 0, empty: 0, broken: 0, possible: 0, longest: 0 };
  for (const { seed, project, events } of documents()) {
    if (counts.documents >= DOCUMENTS) break;
    // A condition may ask for the width where nothing else does.
    const asks = project.rules?.some((rule) => rule.kind === "only" && rule.while.includes("width"));
    const classes: Width[][] = asks ? [["narrow"], ["middle"], ["wide"]] : widthClasses(project);
    const worlds = classes.map((widths) => new World(project, widths[0] ?? "narrow", 300, 5, events));
    if (worlds.some(({ whole }) => !whole)) continue;
    counts.documents += 1;
    const { findings, proof } = check(project, { fixes: false });
    for (const rule of project.rules ?? []) {
      const told = `seed ${seed} ${JSON.stringify(rule)}`;
      const found = findings.find(({ code, subjects }) => code === "broken-rule" && subjects[0] === rule.id);
      const empty = findings.some(({ code, subjects }) => code === "empty-rule" && subjects[0] === rule.id);
      const standing = proof.rules?.find((one) => one.rule === rule.id)?.standing;
      if (found?.certainty === "possible") counts.possible += 1;
      const plain = worlds.map((world) => world.judge(rule));
      classes.forEach((widths, i) => {
        const expected = plain[i] as (typeof plain)[number];
        const here = found !== undefined && (found.widths === undefined || widths.some((width) => found.widths?.includes(width)));
        if ((expected.is === "broken") !== here) wrong.push(`${told} ${widths}: expected ${expected.is}, found ${found ? JSON.stringify(found) : standing}`);
      });
      const [narrow] = plain;
      if (found?.certainty === "shown" && narrow?.is === "broken" && found.walk?.every((event) => event.do !== "width")) {
        counts.longest = Math.max(counts.longest, found.walk.length);
        if (found.walk.length !== narrow.after || !narrow.screens.has(found.subjects[1] ?? ""))
          wrong.push(`${told}: the walk ends after ${found.walk.length} on ${found.subjects[1]}, the shortest after ${narrow.after} on ${[...narrow.screens]}`);
        if (rule.kind !== "within" && firstBroken(project, found.walk, rule.id) !== found.walk.length) wrong.push(`${told}: the walk does not break it`);
      }
      const all = plain.every(({ is }) => is === "empty") ? "empty" : plain.some(({ is }) => is === "broken") ? "broken" : "holds";
      counts[all] += 1;
      if ((all === "empty") !== empty) wrong.push(`${told}: expected ${all}, found ${standing}`);
      if (all === "holds" && standing !== "proved") wrong.push(`${told}: it holds, and is ${standing}`);
    }
  }
  process.stdout.write(`rules on random documents: ${JSON.stringify(counts)}\n`);
  expect(wrong.slice(0, 12)).toEqual([]);
  for (const one of [counts.holds, counts.empty, counts.broken]) expect(one).toBeGreaterThan(DOCUMENTS / 10);
});

const ENDLESS = Number(process.env.RULES_ENDLESS ?? amount(150, 10));

it(`on ${ENDLESS} random documents whose stacks have no end, no rule is said to hold that a bounded search breaks, and every walk breaks its rule`, {
  timeout: 900_000,
}, () => {
  const wrong: string[] = [];
  const counts = { documents: 0, proved: 0, broken: 0, empty: 0, unsettled: 0, checked: 0 };
  for (let seed = FROM; counts.documents < ENDLESS; seed++) {
    const made = randomDocument(seed, { guarded: seed % 3 === 0, screens: 5, legs: 9, containers: seed % 2 });
    const project = { ...made, rules: randomRules(made, seed) };
    const [[first = "narrow"] = [], ...others] = widthClasses(project);
    const world = new World(project, first, 1200, 4, allEvents(project));
    if (others.length > 0 || world.whole) continue;
    counts.documents += 1;
    const { findings, proof } = check(project, { fixes: false });
    for (const rule of project.rules ?? []) {
      const told = `seed ${seed} ${JSON.stringify(rule)}`;
      const standing = proof.rules?.find((one) => one.rule === rule.id)?.standing ?? "checked";
      counts[standing] += 1;
      const plain = world.judge(rule);
      if (plain.is === "broken" && standing !== "broken") wrong.push(`${told}: the bounded search breaks it after ${plain.after}, and it is ${standing}`);
      if (plain.is === "holds" && standing === "empty") wrong.push(`${told}: it speaks of what happens, and is said to say nothing`);
      const walk = standing === "broken" ? findings.find(({ code, subjects }) => code === "broken-rule" && subjects[0] === rule.id)?.walk : undefined;
      if (standing === "broken" && !walk) wrong.push(`${told}: broken without a walk`);
      if (walk && rule.kind !== "within" && firstBroken(project, walk, rule.id) !== walk.length) wrong.push(`${told}: the walk does not break it`);
      if (walk && rule.kind === "within" && world.isAway(walk, rule) === false) wrong.push(`${told}: the walk ends where so few taps are enough`);
      if (walk && plain.is === "broken" && walk.length > plain.after) wrong.push(`${told}: the walk has ${walk.length} events, the shortest ${plain.after}`);
    }
  }
  process.stdout.write(`rules on endless documents: ${JSON.stringify(counts)}\n`);
  expect(wrong.slice(0, 12)).toEqual([]);
  expect(counts.unsettled / (4 * counts.documents)).toBeLessThanOrEqual(0.01);
});
