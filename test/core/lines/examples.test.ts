import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { toLines } from "../../../src/core/lines/tell.ts";

const FOLDER = "examples/lines";
const files = readdirSync(FOLDER).filter((file) => file.endsWith(".lines"));

describe("the examples in quick lines", () => {
  it.each(files)("%s: the checker has nothing to say, its rules hold, and it comes back as it was told", (file) => {
    const read = fromLines(readFileSync(`${FOLDER}/${file}`, "utf8"));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const result = check(read.project);
    expect(result.findings.map(({ message }) => message)).toEqual([]);
    expect(result.proof.complete).toBe(true);
    for (const { standing } of result.proof.rules ?? []) expect(standing).toBe("proved");
    const told = toLines(read.project);
    const again = fromLines(told);
    expect(again.ok && again.project).toEqual(read.project);
  });

  it("are all told of in their README, and nothing else is", () => {
    const told = [...readFileSync(`${FOLDER}/README.md`, "utf8").matchAll(/^\| \[([\w-]+\.lines)\]/gm)].map(([, name]) => name as string);
    expect(told.sort()).toEqual([...files].sort());
    expect(files.length).toBeGreaterThan(5);
  });
});
