import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { check } from "../../../src/core/check/check.ts";
import { suggestedRules } from "../../../src/core/insight/rules/suggest.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { readProjectData } from "../../../src/core/model/read.ts";
import { ruleSentence } from "../../../src/core/model/ruleWords.ts";

const made = fromLines(`app Club
fact member (persists)
Main
  Welcome (once): Sign in > Home (reset, set member = true)
  Home (hub): Book > Form, Help > Help
  Form: Send > Sent (submit, replace)
  Sent: Done > Home (pop to)
  Help
`);
if (!made.ok) throw new Error(JSON.stringify(made.problems));

it("a design gives reason for rules: what is once, forms, facts that open things, what is looked for", () => {
  expect(suggestedRules(made.project).map(({ rule }) => ruleSentence(made.project, rule))).toEqual([
    'After "Home", nobody sees "Welcome".',
    'After "Sent", nobody sees "Form" until "Book" on "Home".',
    'Nobody sees "Sent" before "Form".',
    'While "member" is no, people see only "Welcome".',
    '"Home" is within 3 taps of everywhere.',
    '"Help" is within 3 taps of everywhere.',
  ]);
});

it("what is there already is not suggested again", () => {
  const [first] = suggestedRules(made.project);
  if (!first) return;
  const project = { ...made.project, rules: [{ ...first.rule, id: "mine", name: "Mine", about: "ours" }] };
  expect(suggestedRules(project).map(({ why }) => why)).not.toContain(first.why);
});

it("suggestions are rules that read, and can be held against the app", () => {
  for (const project of [made.project, builtApp(40), JSON.parse(readFileSync("demo/hollowcomb.etape.json", "utf8"))]) {
    const rules = suggestedRules({ ...project, rules: [] }).map(({ rule }, i) => ({ ...rule, id: `r${i}` }));
    expect(rules.length).toBeGreaterThan(0);
    expect(readProjectData({ ...project, rules }).ok).toBe(true);
    expect(check({ ...project, rules }, { fixes: false }).proof.rules?.every(({ standing }) => standing !== "unsettled")).toBe(true);
  }
});
