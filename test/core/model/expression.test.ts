import { describe, expect, it } from "vitest";
import { evaluate } from "../../../src/core/insight/evaluate.ts";
import { compile, type Scope } from "../../../src/core/model/expression.ts";
import { patternVariables, templateParts } from "../../../src/core/model/template.ts";

const scope: Scope = {
  records: { hive: { id: "text", frames: "integer" } },
  names: {
    fact: { fields: { member: "boolean", season: "text" } },
    param: { fields: { n: "integer", weight: "number", hive: "record:hive" } },
    item: { type: "record:hive", fields: { id: "text", frames: "integer" } },
    width: { type: "text" },
  },
};
const values = { fact: { member: true, season: "summer" }, param: { n: 2, weight: 1.5, hive: { id: "larkfoot", frames: 9 } }, width: "wide" } as const;
const run = (source: string) => {
  const compiled = compile(source, scope);
  return compiled.ok ? { type: compiled.type, value: evaluate(compiled, values) } : compiled.error.message;
};

describe("expressions", () => {
  it.each([
    ["fact.member && fact.season == 'summer'", "boolean", true],
    ['!fact.member || width != "wide"', "boolean", false],
    ["param.n + 1", "integer", 3],
    ["param.n + param.weight", "number", 3.5],
    ["'a' + param.hive.id", "text", "alarkfoot"],
    ["param.n > 1 ? 'many' : 'one'", "text", "many"],
    ["has(param.hive.frames)", "boolean", true],
    ["-param.n <= -2", "boolean", true],
    ["param.hive", "record:hive", { id: "larkfoot", frames: 9 }],
  ])("%s is of type %s", (source, type, value) => {
    expect(run(source)).toEqual({ type, value });
  });

  it("what is not there has no value; and, or, has and the sides that decide make up for it", () => {
    expect(run("item.id")).toEqual({ type: "text", value: undefined });
    expect(run("has(item.id)")).toEqual({ type: "boolean", value: false });
    expect(run("item.id == 'x' || fact.member")).toEqual({ type: "boolean", value: true });
    expect(run("item.id == 'x' && fact.member")).toEqual({ type: "boolean", value: undefined });
  });

  it.each([
    ["fact.nobody", /no "nobody"/],
    ["link.id", /no "link"/],
    ["param.n && true", /condition is expected/],
    ["param.n == 'two'", /can not be compared/],
    ["fact.member + 1", /can not be added/],
    ["size(width)", /only call is has/],
    ["param", /not a value by itself/],
    ["true ? 1 : 'x'", /one type/],
    ["fact.member &&", /./],
    ["[1, 2]", /not part of expressions/],
  ])("%s is refused with a sentence", (source, message) => {
    expect(run(source)).toMatch(message);
  });

  it("an error says where", () => {
    const compiled = compile("fact.member && param.oops", scope);
    expect(compiled.ok ? undefined : [compiled.error.start, compiled.error.end]).toEqual([15, 25]);
  });
});

describe("templates and patterns", () => {
  it("holes are expressions; an open brace is text; braces in quotes do not end a hole", () => {
    expect(templateParts("{param.name}, {'}'} and {")).toEqual([{ hole: "param.name" }, { text: ", " }, { hole: "'}'" }, { text: " and {" }]);
  });

  it("the variables of a pattern, the rest of a path among them", () => {
    expect(patternVariables("/hives/{hiveId}/files/{+rest}")).toEqual(["hiveId", "rest"]);
  });
});
