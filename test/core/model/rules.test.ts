import { describe, expect, it } from "vitest";
import { fromLines } from "../../../src/core/lines/build.ts";
import { applyEdit, invertEdit } from "../../../src/core/model/edits/kinds.ts";
import { removeElement, removeEntrance, removeLegs, removePlaces } from "../../../src/core/model/edits/remove.ts";
import { renameId } from "../../../src/core/model/edits/rename.ts";
import { addRule, changeRule, freshRuleId, removeRule } from "../../../src/core/model/edits/rules.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project, Rule } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";

const made = fromLines('fact member\nin "Offer" /offers > Goods\nShop\n  Goods: Order > Form\n  Form: Send > Sent (reset)\n  Sent\n');
if (!made.ok) throw new Error("the lines do not read");
const RULES: Rule[] = [
  {
    id: "final",
    name: "Final",
    about: "Promised.",
    severity: "warning",
    kind: "never",
    see: { places: ["form", "goods"] },
    after: { legs: ["sendSent"] },
    until: { entrances: ["offer"] },
  },
  { id: "formFirst", name: "Form first", kind: "first", needs: { places: ["form"] }, before: { places: ["sent"] } },
  { id: "guests", name: "Guests", kind: "only", while: "!fact.member", see: ["goods", "form"] },
  { id: "near", name: "Near", kind: "within", taps: 2, to: ["goods"], from: ["sent"] },
];
const project: Project = { ...made.project, rules: RULES };
const problems = (rules: unknown) => {
  const read = readProject(JSON.stringify({ ...made.project, rules }));
  return read.ok ? [] : read.problems.map(({ path, found, expected }) => `${path}: found ${found}; expected ${expected}`);
};

describe("rules in a document", () => {
  it("are written as they are read, in the order of their keys", () => {
    const text = writeProject(project);
    const read = readProject(text);
    expect(read.ok && writeProject(read.project)).toBe(text);
    expect(read.ok && Object.keys(read.project)).toEqual([
      "format",
      "name",
      "root",
      "facts",
      "types",
      "containers",
      "screens",
      "legs",
      "entrances",
      "walks",
      "rules",
    ]);
  });

  it("are refused where something is wrong, with the place and what is expected", () => {
    const [never, , only, within] = RULES;
    expect(problems([{ ...never, see: {} }])).toEqual(["rules[0].see: found an object; expected at least one place, leg or way in"]);
    expect(problems([{ ...never, kind: "always" }])[0]).toMatch(/rules\[0\].kind: found "always"; expected one of "never", "first", "only", "within"/);
    expect(problems([{ ...within, taps: 21 }])).toEqual(["rules[0].taps: found 21; expected at most 20"]);
    expect(problems([{ ...within, taps: 0 }])).toEqual(["rules[0].taps: found 0; expected at least 1"]);
    expect(problems([{ ...only, see: [] }])).toEqual(["rules[0].see: found a list of 0; expected at least 1"]);
    expect(problems([never, { ...only, id: "final" }])).toEqual([
      'rules[1].id: found "final", which rules[0] has already; expected an id that no other of the rules has',
    ]);
    expect(problems([{ ...never, extra: 1 }])).toEqual(['rules[0].extra: found the unknown key "extra"; expected no such key']);
  });

  it("follow an id that changes: of a place, a leg, a way in, a fact, and their own", () => {
    const renamed = [
      renameId({ kind: "place", id: "form" }, "order"),
      renameId({ kind: "leg", id: "sendSent" }, "send"),
      renameId({ kind: "entrance", id: "offer" }, "deal"),
      renameId({ kind: "fact", id: "member" }, "joined"),
      renameId({ kind: "rule", id: "near" }, "close"),
    ].reduce(applyEdit, { ...project, accepted: [{ code: "broken-rule", subjects: ["near", "form"], reason: "later" }] });
    expect(renamed.rules?.map(({ id }) => id)).toEqual(["final", "formFirst", "guests", "close"]);
    expect(renamed.rules?.[0]).toMatchObject({ see: { places: ["order", "goods"] }, after: { legs: ["send"] }, until: { entrances: ["deal"] } });
    expect(renamed.rules?.[2]).toMatchObject({ while: "!fact.joined", see: ["goods", "order"] });
    expect(renamed.accepted?.[0]?.subjects).toEqual(["close", "order"]);
  });

  it("are added, changed and deleted, each taken back by one step", () => {
    const [first] = RULES;
    if (!first) return;
    const none = made.project;
    const edits = [addRule(first), changeRule({ ...first, name: "Other" }), removeRule(project, first.id)];
    let now = none;
    for (const edit of edits) {
      const next = applyEdit(now, edit);
      expect(applyEdit(next, invertEdit(now, edit)), edit.name).toEqual(now);
      now = next;
    }
    expect(edits.map(({ name }) => name)).toEqual(['Add the rule "Final"', 'Change the rule "Other"', 'Delete the rule "Final"']);
    expect(now).toEqual(none);
    expect([freshRuleId(project, "Near"), freshRuleId(project, "Far")]).toEqual(["near2", "far"]);
  });

  it("lose what is deleted, but for the last thing that a part speaks of", () => {
    const after = applyEdit(project, removePlaces(project, ["form"]));
    expect(after.rules).toMatchObject([
      { see: { places: ["goods"] }, after: { legs: ["sendSent"] } },
      { needs: { places: ["form"] }, before: { places: ["sent"] } },
      { see: ["goods"] },
      { to: ["goods"], from: ["sent"] },
    ]);
    const others = [removeLegs(project, ["orderForm"]), removeElement(project, "goods", "order"), removeEntrance(project, "offer")].reduce(applyEdit, project);
    expect(others.rules?.[0]).toEqual(project.rules?.[0]);
    const both: Project = { ...project, rules: [{ id: "r", name: "R", kind: "never", see: { legs: ["sendSent", "orderForm"], entrances: ["offer"] } }] };
    expect([removeLegs(both, ["sendSent"]), removeEntrance(both, "offer")].reduce(applyEdit, both).rules?.[0]).toMatchObject({ see: { legs: ["orderForm"] } });
  });
});
