import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { z } from "zod";
import { readProject } from "../../src/core/model/read.ts";
import { PARTS, ProjectSchema } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";

const text = readFileSync("docs/format.md", "utf8");

/** The keys that a schema of an object has, of all its kinds. */
function keysOf(schema: z.ZodType): string[] {
  if (schema instanceof z.ZodObject) return Object.keys(schema.shape);
  if (schema instanceof z.ZodDiscriminatedUnion) return [...new Set(schema.options.flatMap((option) => keysOf(option as z.ZodType)))];
  throw new Error("neither an object nor one that comes in kinds");
}

/** What the page says of a part: from its heading to the next of its level. */
function section(name: string): string {
  const [, after] = text.split(`\n## ${name}\n`);
  if (after === undefined) throw new Error(`docs/format.md has no section ${name}`);
  return after.split("\n## ")[0] ?? "";
}

describe("docs/format.md", () => {
  it("tells every key of every part of a document, in the part's own section", () => {
    const parts: Record<string, z.ZodType> = { ...PARTS, Project: ProjectSchema };
    const missing = Object.entries(parts).flatMap(([name, schema]) =>
      keysOf(schema).flatMap((key) => (new RegExp(`[\`"]${key.replace("$", "\\$")}[\`"]`).test(section(name)) ? [] : [`${name}.${key}`])),
    );
    expect(missing).toEqual([]);
  });

  it("has an example that reads, in which keys stand in the order of the format", () => {
    const [, example = ""] = /```json\n([\s\S]*?)```/.exec(text) ?? [];
    const read = readProject(example);
    expect(read.ok ? [] : read.problems).toEqual([]);
    if (read.ok) expect(JSON.stringify(JSON.parse(writeProject(read.project)))).toBe(JSON.stringify(JSON.parse(example)));
  });
});
