import { describe, expect, it } from "vitest";
import { fromLines } from "../../../src/core/lines/build.ts";
import { linesInto } from "../../../src/core/lines/into.ts";
import { lostInLines, toLines } from "../../../src/core/lines/tell.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { ruleSentence } from "../../../src/core/model/ruleWords.ts";
import type { Project } from "../../../src/core/model/schema.ts";

const APP = `app Shop
fact member
in "Offer" /offers > Goods
Shop
  Goods (hub): Order > Form, Help > Help
  Form: Send > Sent (reset)
  Sent: Shop on > Goods (reset)
  Help
`;
const RULES = `rule Sent is final (warning): never Form after "Send" on Form until "Shop on" on Sent
rule Form first: first Form, way in "Offer" before Sent
rule Guests: only Goods, Help while !fact.member
rule Help is near: reach Help within 2 taps of Goods, Form
rule Never: never Sent
`;
const built = (text: string): Project => {
  const made = fromLines(text);
  if (!made.ok) throw new Error(made.problems.map(({ line, column, message }) => `${line}:${column} ${message}`).join("\n"));
  return made.project;
};
const wrong = (text: string) => {
  const made = fromLines(text);
  return made.ok ? [] : made.problems.map(({ line, column, message }) => `${line}:${column} ${message}`);
};

describe("rules in quick lines", () => {
  it("are read, all four kinds", () => {
    const project = built(APP + RULES);
    expect(project.rules?.map((rule) => [rule.id, rule.severity, ruleSentence(project, rule)])).toEqual([
      ["sentIsFinal", "warning", 'After "Send" on "Form", nobody sees "Form" until "Shop on" on "Sent".'],
      ["formFirst", undefined, 'Nobody sees "Sent" before "Form" or "Offer".'],
      ["guests", undefined, 'While "member" is no, people see only "Goods" or "Help".'],
      ["helpIsNear", undefined, '"Help" is within 2 taps of "Goods" or "Form".'],
      ["never", undefined, 'Nobody ever sees "Sent".'],
    ]);
  });

  it("are told as they are read", () => {
    const text = toLines(built(APP + RULES));
    expect(text).toContain(RULES);
    expect(toLines(built(text))).toBe(text);
  });

  it("name what can not be told: a leg that is one of several of its element, and a place that is not there", () => {
    const project = built(`${APP.replace("Send > Sent (reset)", 'Send > "taken": Sent (reset) | "refused": Help')}rule Never: never Sent\n`);
    const [leg] = project.legs.filter(({ from }) => from === "form");
    const rules: Project["rules"] = [
      { id: "a", name: "A", kind: "never", see: { legs: [leg?.id ?? ""] } },
      { id: "b", name: "B", kind: "never", see: { places: ["gone"] } },
    ];
    expect(lostInLines({ ...project, rules })).toEqual([
      "the rule “A”: it names what lines cannot express",
      "the rule “B”: it names what lines cannot express",
    ]);
    expect(toLines({ ...project, rules })).not.toContain("rule ");
  });

  it("say where something is wrong, and what is expected", () => {
    expect(wrong(`${APP}rule Odd: sometimes Form\n`)[0]).toMatch(/^9:6 found “Odd: sometimes Form”, expected a rule such as /);
    expect(wrong(`${APP}rule Odd: never Nowhere\n`)).toEqual(["9:17 there is no place “Nowhere”; expected the name of a screen or container"]);
    expect(wrong(`${APP}rule Odd: never "Buy" on Form\n`)).toEqual(["9:17 nothing leads on from “Buy” on “Form”"]);
    expect(wrong(`${APP}rule Odd: never way in "Gone"\n`)).toEqual(["9:17 there is no way in “Gone”"]);
    expect(wrong(`${APP}rule Odd: reach Help within 30 taps\n`)).toEqual(["9:6 expected within and a number of taps from 1 to 20, such as within 3 taps"]);
    expect(wrong(`${APP}rule Odd: only Help\n`)[0]).toMatch(/found no condition/);
    expect(wrong(`${APP}rule Odd: never Form while fact.member\n`)[0]).toMatch(/found “while”, expected after or until/);
    expect(wrong(`${APP}rule Odd (dire): never Form\n`)[0]).toMatch(/found “dire”, expected blocker, warning or note/);
  });

  it("go into a project that is there, about places that the line does not make", () => {
    const project = built(APP);
    const made = linesInto(project, 'rule Sent is final: never Form after "Send" on Form until Goods');
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    const next = applyEdit(project, made.edit);
    expect(next.screens).toEqual(project.screens);
    expect(next.rules?.map((rule) => ruleSentence(next, rule))).toEqual(['After "Send" on "Form", nobody sees "Form" until "Goods".']);
    const wrongly = linesInto(project, "rule Odd: never Nowhere");
    expect(wrongly.ok ? [] : wrongly.problems).toEqual([
      { line: 1, column: 17, message: "there is no place “Nowhere”; expected the name of a screen or container" },
    ]);
  });

  it("quote names in which a word of a rule stands", () => {
    const text = toLines({ ...built(APP.replaceAll("Help", "Day after")), rules: [{ id: "r", name: "R", kind: "never", see: { places: ["dayAfter"] } }] });
    expect(text).toContain('rule R: never "Day after"');
    expect(toLines(built(text))).toBe(text);
  });
});
