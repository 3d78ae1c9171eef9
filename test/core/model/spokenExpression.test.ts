import { describe, expect, it } from "vitest";
import { compile, plainNames, type Scope } from "../../../src/core/model/expression.ts";
import { compileCondition } from "../../../src/core/model/scope.ts";
import { factsNamed, fromPlainWords, unknownWords } from "../../../src/core/model/spokenExpression.ts";
import { pick, seeded } from "../../random/documents.ts";

const scope: Scope = {
  records: { plot: { id: "text", free: "boolean" } },
  names: {
    fact: { fields: { member: "boolean", paid: "boolean", order: "text" } },
    param: { fields: { plotId: "text", note: "text" } },
    item: { type: "record:plot", fields: { id: "text", free: "boolean" } },
    width: { type: "text" },
  },
  choices: { order: ["none", "on its way", "member", "isn't"] },
};
const names = plainNames(scope);

describe("conditions in plain words", () => {
  it.each([
    ["member", "fact.member"],
    ["not member", "!fact.member"],
    ["member and not paid", "fact.member && !fact.paid"],
    ["member or paid and order = none", "fact.member || fact.paid && fact.order == 'none'"],
    ["order is none", "fact.order == 'none'"],
    ["order is not none", "fact.order != 'none'"],
    ["none == order", "'none' == fact.order"],
    ["fact.order = none", "fact.order == 'none'"],
    ["order = member", "fact.order == 'member'"],
    ["not order = none", "!(fact.order == 'none')"],
    ["not (member and paid) or paid", "!(fact.member && fact.paid) || fact.paid"],
    ["(not order = none) and paid", "(!(fact.order == 'none')) && fact.paid"],
    ["plotId = 'and or not is'", "param.plotId == 'and or not is'"],
    ['note = "it\'s"', 'param.note == "it\'s"'],
    ["item.free and width = 'wide'", "item.free && width == 'wide'"],
    ["has(param.note) and member", "has(param.note) && fact.member"],
  ])("%s is %s", (words, source) => {
    expect(fromPlainWords(words, names)).toBe(source);
    expect(compileCondition(source, scope).ok).toBe(true);
  });

  it("a value of a choice needs no quotes, with spaces or without, where it is for that choice", () => {
    expect(fromPlainWords("on its way", names, "order")).toBe("'on its way'");
    expect(fromPlainWords("isn't", names, "order")).toBe("'isn\\'t'");
    expect(fromPlainWords("member", names, "order")).toBe("'member'");
    expect(fromPlainWords("member", names, "paid")).toBe("fact.member");
    expect(fromPlainWords("param.note", names, "order")).toBe("param.note");
  });

  it("what is an expression already stays as it is", () => {
    const random = seeded(7);
    const one = (depth: number): string => {
      const leaf = ["fact.member", "fact.order == 'none'", 'width != "narrow"', "has(item.id)", "item.free", "param.plotId == 'is not'", "true"];
      if (depth === 0) return pick(random, leaf);
      const [a, b] = [one(depth - 1), one(depth - 1)];
      return [`${a} && ${b}`, `(${a}) || ${b}`, `!(${a})`, `${a} ? ${b} : false`, a][Math.floor(random() * 5)] ?? "";
    };
    let conditions = 0;
    for (let i = 0; i < 400; i++) {
      const source = one(Math.floor(random() * 4));
      conditions += compile(source, scope).ok ? 1 : 0;
      expect(fromPlainWords(source, names)).toBe(source);
      expect(unknownWords(source, names)).toEqual([]);
    }
    expect(conditions).toBeGreaterThan(300);
  });

  it("what is longer than a document can hold is left as it is", () => {
    const long = `${"not member and ".repeat(20_000)}paid`;
    expect(fromPlainWords(long, names)).toBe(long);
    expect([unknownWords(long, names), factsNamed(long)]).toEqual([[], []]);
  });

  it("names what stands for nothing, and the facts that are asked for", () => {
    expect(unknownWords("fact.member && ordered == 'x' || offered", names)).toEqual(["ordered", "offered"]);
    expect(factsNamed("!fact.member && fact.order != 'x' && 'y' == fact.other && item.fact.no")).toEqual([
      { id: "member", compared: false },
      { id: "order", compared: true },
      { id: "other", compared: true },
    ]);
  });
});

describe("an expression that is none", () => {
  const message = (source: string) => {
    const compiled = compileCondition(source, scope);
    return compiled.ok ? "" : `${compiled.error.message}: ${source.slice(compiled.error.start, compiled.error.end)}`;
  };
  it.each([
    ["fact.member = true", 'write == for "=": ='],
    ["fact.member and fact.paid", 'write && for "and": and'],
    ["not fact.member", 'write ! for "not": not'],
    ["fact.order is 'none'", 'write == for "is": is'],
    ["member", 'there is no "member" here; write fact.member: member'],
    ["plotId == 'a'", 'there is no "plotId" here; write param.plotId: plotId'],
    ["fact.order == none", "there is no \"none\" here; text stands in quotes: 'none': none"],
    ["fact.order == nowhere", 'there is no "nowhere" here; there are fact, param, item, width, and text stands in quotes: nowhere'],
  ])("%s says what to write", (source, says) => {
    expect(message(source)).toBe(says);
  });
});
