import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { toLines } from "../../../src/core/lines/tell.ts";

const FOLDER = "test/core/lines/written";

/** Apps as somebody writes them who has seen one example. Comments at the top name what is wrong with their design; nothing else is. */
describe("apps as people write them", () => {
  it.each(readdirSync(FOLDER))("%s builds, and only its own faults are found", (file) => {
    const text = readFileSync(`${FOLDER}/${file}`, "utf8");
    const known = [...text.matchAll(/^# ([a-z-]+ .*)$/gm)].map(([, said]) => said);
    const made = fromLines(text);
    if (!made.ok) throw new Error(made.problems.map(({ line, column, message }) => `${line}:${column} ${message}`).join("\n"));
    const { findings, proof } = check(made.project, { fixes: false });
    const said = findings.filter(({ severity }) => severity !== "note").map(({ code, subjects }) => `${code} ${subjects.join(" ")}`);
    expect(said.sort()).toEqual(known);
    expect(proof).toMatchObject({ complete: true, depth: "any" });
    const told = toLines(made.project);
    const again = fromLines(told);
    expect(again.ok && toLines(again.project)).toBe(told);
  });
});
