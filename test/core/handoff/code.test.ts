import { describe, expect, it } from "vitest";
import { codeEntrances, codeLegs, uniqueNames, usableLegs, viewNames } from "../../../src/core/handoff/code/plan.ts";
import { chunks, type Language, written } from "../../../src/core/handoff/code/written.ts";
import { kotlin } from "../../../src/core/handoff/kotlin/plan.ts";
import { expressionCode } from "../../../src/core/handoff/typescript/expression.ts";
import { literal } from "../../../src/core/handoff/typescript/plan.ts";
import { compile } from "../../../src/core/model/expression.ts";
import { app } from "../../vectors/app.ts";

const scope = {
  names: { fact: { fields: { f: "boolean", g: "text" } }, param: { fields: { id: "text", n: "integer" } }, width: { type: "text" } },
  records: {},
} as const;
function tree(source: string) {
  const compiled = compile(source, scope as never);
  if (!compiled.ok) throw new Error(compiled.error.message);
  return compiled.ast;
}
const words: Language = {
  literal: (value) => JSON.stringify(value),
  fact: (id) => `F(${id})`,
  bag: (name) => name,
  width: "W",
  member: (value, name) => `${value}.${name}`,
  isThere: (value) => `there(${value})`,
  later: (value) => `<${value}>`,
};

describe("expressions as code", () => {
  it("are plain operators in TypeScript where all values are there for certain", () => {
    expect(expressionCode(tree("fact.f && fact.g != 'x' || width == 'wide'"))).toBe('(v) => ((v.fact.f && (v.fact.g !== "x")) || (v.width === "wide"))');
    expect(expressionCode(tree("!fact.f ? 'a' : 'b'"))).toBe('(v) => (!v.fact.f ? "a" : "b")');
    expect(expressionCode(tree("'plain'"))).toBe('() => "plain"');
  });

  it("go through the runtime where a value may not be there", () => {
    expect(expressionCode(tree("has(param.id) && param.n + 1 > 2"))).toBe(
      '(v) => and((member(v.param, "id") !== undefined), () => ordered(">", plus(member(v.param, "n"), 1), 2))',
    );
    expect(expressionCode(tree("!(param.id == 'x')"))).toBe('(v) => not(equal(member(v.param, "id"), "x"))');
  });

  it("are calls in other languages, what may not be needed put off", () => {
    expect(written(tree("fact.f || param.n <= -3"), words)).toBe('or(F(f), <ordered("<=", param.n, minus(3))>)');
    expect(written(tree("has(param.id) ? param.id : width"), words)).toBe("either(there(param.id), <param.id>, <W>)");
    expect(written(tree("param.id != 'x'"), words)).toBe('not(equal(param.id, "x"))');
  });
});

describe("names in code", () => {
  it("are unique even for who reads capitals alike, and keep clear of what is taken", () => {
    const names = uniqueNames(["hive", "hIVE", "state"], (id) => id.charAt(0).toUpperCase() + id.slice(1), ["State"]);
    expect([...names.values()]).toEqual(["Hive", "HIVE2", "State2"]);
    const project = app("s", { stacks: { s: "a b c" }, screens: { a: { code: "Home" }, b: { code: "home" } } });
    expect([...viewNames(project)]).toEqual([
      ["a", "Home"],
      ["b", "home2"],
      ["c", "c"],
    ]);
  });

  it("and values are text that ends nothing and begins nothing", () => {
    expect(literal({ a: "</script>\u2028", b: [1, null], "x-y": true, gone: undefined })).not.toContain("</script>");
    expect(literal({ "x-y": true })).toBe('{ "x-y": true }');
    expect(kotlin('a "$b" \\ \f')).toBe('"a \\"\\$b\\" \\\\ \\u000c"');
    expect(kotlin({ n: 1, list: [true, null] })).toBe('mapOf<String, Any?>("n" to 1.0, "list" to listOf<Any?>(true, null))');
    expect(kotlin(0.5)).toBe("0.5");
  });

  it("chunks keep the order and leave nothing out", () => {
    expect(chunks([1, 2, 3, 4, 5], 2)).toEqual([[1, 2], [3, 4], [5]]);
    expect(chunks([], 2)).toEqual([]);
  });
});

describe("the plan that all languages share", () => {
  const need = (required: boolean, more = {}) => ({ params: [{ name: "id", type: "text", required, ...more }] });
  const project = app("s", {
    stacks: { s: "a b c d" },
    screens: { b: need(true), c: need(true, { default: "x" }), d: need(false) },
    legs: [
      "toB a push b pass.id='x'",
      "toC a push c",
      "toD a push d",
      "bad a push b pass.id=1",
      "soon a:after(500) push c",
      "in d:arrive replace a",
      "set a set set.nothing=true",
    ],
    entrances: [{ id: "e", name: "E", kind: "link", pattern: "/x/{id}", to: "b", when: "fact.gone", warm: "rebuild" }],
  });

  it("leaves out what is ill-typed, and never lets it happen", () => {
    const legs = new Map(codeLegs(project).map((leg) => [leg.leg.id, leg]));
    expect(legs.get("toB")).toMatchObject({ never: false, on: "user", passes: true, pass: [{ name: "id", required: true }] });
    expect(legs.get("bad")?.never).toBe(true);
    expect(legs.get("set")?.never).toBe(true);
    expect(legs.get("soon")?.on).toBe("after");
    expect(codeEntrances(project)[0]).toMatchObject({ when: "never", variables: ["id"] });
  });

  it("gives a function to what the app uses, and asks for nothing where nothing has to be given", () => {
    const usable = usableLegs(project);
    expect(usable.map((leg) => leg.leg.id)).not.toContain("in");
    expect(Object.fromEntries(usable.map((leg) => [leg.leg.id, leg.mayGiveNothing]))).toMatchObject({ toB: false, toC: true, toD: true, soon: true });
    expect(usable[0]?.says).toMatch(/^a: .*b/);
  });
});
