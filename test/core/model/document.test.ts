import { readFileSync } from "node:fs";
import Ajv2020 from "ajv/dist/2020.js";
import { describe, expect, it } from "vitest";
import { positions } from "../../../src/core/model/positions.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { projectJsonSchema, writeProject } from "../../../src/core/model/write.ts";

const demo = readFileSync("demo/hollowcomb.etape.json", "utf8");
const changed = (change: (data: Record<string, never>) => void): string => {
  const data = JSON.parse(demo);
  change(data);
  return JSON.stringify(data);
};
const problems = (text: string) => {
  const result = readProject(text);
  return result.ok ? [] : result.problems;
};
const paths = (text: string) => problems(text).map((p) => p.path);

describe("reading and writing", () => {
  it("reading the demo and writing it changes no byte", () => {
    const read = readProject(demo);
    expect(read.ok && writeProject(read.project)).toBe(demo);
  });

  it("keys in another order are written in that of the format", () => {
    const data = JSON.parse(demo);
    const turned = Object.fromEntries(Object.entries(data).reverse());
    const read = readProject(JSON.stringify(turned));
    expect(read.ok && writeProject(read.project)).toBe(demo);
  });

  it("a document may name its schema, and keeps it", () => {
    const read = readProject(changed((d) => Object.assign(d, { $schema: "x.json" })));
    expect(read.ok && Object.keys(JSON.parse(writeProject(read.project)))[0]).toBe("$schema");
  });
});

describe("errors name where, what was found and what is expected", () => {
  it("all errors of a file at once, of shape and of ids", () => {
    const text = changed((d: Record<string, unknown>) => {
      const screens = d.screens as Array<Record<string, unknown>>;
      (screens[1] as { params: unknown }).params = [{ name: "x", type: "text", required: "yes" }];
      (screens[2] as { id: unknown }).id = "welcome";
      (d.legs as Array<Record<string, unknown>>)[0] = { ...(d.legs as Array<Record<string, unknown>>)[0], on: { kind: "jump" } };
      d.colour = 1;
    });
    expect(paths(text)).toEqual(expect.arrayContaining(["screens[1].params[0].required", "screens[2].id", "legs[0].on.kind", "colour"]));
  });

  it("what was found and what is expected are in words", () => {
    const [problem] = problems(changed((d: Record<string, unknown>) => Object.assign((d.facts as object[])[0] as object, { source: "moon" })));
    expect(problem).toEqual({ path: "facts[0].source", found: '"moon"', expected: 'one of "app", "outside"' });
  });

  it("text that is not JSON is told with its line", () => {
    expect(problems('{\n  "format": etape }')[0]?.found).toMatch(/not JSON/);
  });

  it("a newer format is refused with a sentence that says so, and nothing else", () => {
    const found = problems(changed((d: Record<string, unknown>) => Object.assign(d, { format: "etape/2", screens: 7 })));
    expect(found).toHaveLength(1);
    expect(found[0]?.expected).toMatch(/newer Etape/);
  });

  it("a container that contains itself, and legs that must start from screens", () => {
    const text = changed((d: Record<string, unknown>) => {
      const containers = d.containers as Array<{ id: string; members: string[] }>;
      containers.find((c) => c.id === "hivesTab")?.members.push("yard");
      Object.assign((d.legs as object[])[0] as object, { from: "yard" });
    });
    expect(paths(text)).toEqual(expect.arrayContaining(["legs[0].from", "containers[2].members", "containers[3].members"]));
  });

  it("ids, names, defaults and fact values of the wrong kind", () => {
    const text = changed((d: Record<string, unknown>) => {
      (d.facts as Array<Record<string, unknown>>).push({ id: "Bad id", type: "choice", initial: "x", source: "app" });
      const hive = (d.screens as Array<{ id: string; params: unknown[] }>).find((s) => s.id === "hive");
      hive?.params.push({ name: "n", type: "integer", required: false, default: 1.5 });
    });
    expect(paths(text)).toEqual(expect.arrayContaining(["facts[5].id", "facts[5].values", "screens[8].params[1].default"]));
  });

  it("text of 2,000 characters is read, one more is not; a letter beyond the basic plane counts once", () => {
    const named = (name: string) => problems(changed((d: Record<string, unknown>) => Object.assign(d, { name })));
    expect(named("x".repeat(2000))).toEqual([]);
    expect(named("🐝".repeat(2000))).toEqual([]);
    expect(named("x".repeat(2001)).map((p) => p.path)).toEqual(["name"]);
  });

  it("anything that is no object is refused", () => {
    for (const text of ["[]", "null", "7", '"x"', ""]) expect(problems(text)).toHaveLength(1);
  });
});

describe("the JSON Schema", () => {
  const shipped = JSON.parse(readFileSync("schema/etape-1.schema.json", "utf8"));

  it("the one that is shipped is the one that is made", () => {
    expect(shipped).toEqual(projectJsonSchema());
  });

  it("an independent reader accepts the demo by it and refuses what it should", () => {
    const validate = new Ajv2020({ strict: false }).compile(shipped);
    expect(validate(JSON.parse(demo))).toBe(true);
    expect(validate(JSON.parse(changed((d) => Object.assign(d, { colour: "red" }))))).toBe(false);
    expect(
      validate(JSON.parse(changed((d: Record<string, unknown>) => Object.assign((d.legs as object[])[0] as object, { move: { kind: "fly", to: "moon" } })))),
    ).toBe(false);
  });
});

it("positions finds the line and column of any value", () => {
  const at = positions('{\n  "a": [\n    {"b": "x\\"y"},\n    7\n  ]\n}');
  expect(at.get("a[0].b")).toEqual({ line: 3, column: 11 });
  expect(at.get("a[1]")).toEqual({ line: 4, column: 5 });
});
