import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

it("what runs with Etape has licences that are fine, is kept by its authors, and stands in docs/dependencies.md (npm run docs)", () => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["scripts/dependencies.mjs"], { encoding: "utf8" });
  expect(stderr).toBe("");
  expect(status).toBe(0);
  expect(readFileSync("docs/dependencies.md", "utf8")).toBe(stdout);
});
