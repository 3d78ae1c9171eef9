import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { expect, it } from "vitest";

const script = /```sh\n([\s\S]*?)```/.exec(readFileSync("docs/ci.md", "utf8"))?.[1] ?? "";
const folder = mkdtempSync(join(tmpdir(), "etape-ci-"));
const design = join(folder, "app.etape.json");
const report = (name: string) => readFileSync(join(folder, "reports", name), "utf8");
const env = {
  ...process.env,
  PATH: `${join(folder, "bin")}:${process.env.PATH}`,
  GIT_CONFIG_GLOBAL: "/dev/null",
  GIT_CONFIG_SYSTEM: "/dev/null",
  GIT_AUTHOR_NAME: "A",
  GIT_AUTHOR_EMAIL: "a@x.test",
  GIT_COMMITTER_NAME: "A",
  GIT_COMMITTER_EMAIL: "a@x.test",
};
const run = (...command: string[]) => spawnSync(command[0] ?? "", command.slice(1), { cwd: folder, encoding: "utf8", env, stdio: ["ignore", "pipe", "pipe"] });

it.skipIf(spawnSync("git", ["--version"]).error !== undefined)("the script of docs/ci.md passes what is right, and fails for what it says it fails for", () => {
  // The command line of this checkout stands for the installed one.
  mkdirSync(join(folder, "bin"));
  writeFileSync(join(folder, "bin", "npx"), `#!/bin/sh\nshift\nexec '${process.execPath}' '${resolve("bin/etape.mjs")}' "$@"\n`);
  chmodSync(join(folder, "bin", "npx"), 0o755);
  writeFileSync(join(folder, "ci.sh"), script);
  writeFileSync(design, readFileSync("examples/bandstand/bandstand.etape.json"));
  expect(run("npx", "etape", "gen", design, "--to", "typescript", "--out", "src").status).toBe(0);
  for (const command of [
    ["init", "-q", "-b", "main"],
    ["add", "app.etape.json"],
    ["commit", "-qm", "Begin"],
  ])
    expect(run("git", ...command).status).toBe(0);
  const ci = () => run("sh", "ci.sh", "app.etape.json", "src", "main");

  const right = ci();
  expect([right.status, right.stderr]).toEqual([0, ""]);
  expect(JSON.parse(report("etape.sarif")).runs[0].results.length).toBeGreaterThan(0);
  expect(report("etape.xml")).toContain("<testsuite");
  expect(report("etape-walks.xml")).toContain('failures="0"');
  expect(report("etape-changes.md")).toBe("");

  const text = readFileSync(design, "utf8");
  // A screen that nothing leads out of, and the code is one of another design.
  const broken = JSON.parse(text);
  broken.screens.push({ id: "pit", name: "Pit", params: [], up: "none", coversTabs: true, elements: [] });
  broken.containers.find(({ members }: { members: string[] }) => members.includes("gigs")).members.push("pit");
  broken.legs.push({ id: "fall", from: "gigs", on: { kind: "swipe", to: "left" }, move: { kind: "reset", to: "pit" } });
  writeFileSync(design, `${JSON.stringify(broken, null, 2)}\n`);
  expect(run("npx", "etape", "format", design).status).toBe(0);
  const wrong = ci();
  expect(wrong.status).toBe(1);
  const [first] = JSON.parse(report("etape.sarif")).runs[0].results;
  expect([first.level, Object.keys(first.partialFingerprints).length > 0, first.codeFlows.length]).toEqual(["error", true, 1]);
  expect(report("etape-changes.md")).toContain("added leg");

  writeFileSync(design, text.replace(/\n/g, "\n\n"));
  const spread = ci();
  expect([spread.status, spread.stdout + spread.stderr]).toEqual([1, expect.stringContaining("canonical")]);
});
