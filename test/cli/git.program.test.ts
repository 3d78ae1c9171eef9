import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { expect, it } from "vitest";
import { addElement } from "../../src/core/model/edits/add.ts";
import { changeScreen } from "../../src/core/model/edits/change.ts";
import { applyEdit } from "../../src/core/model/edits/kinds.ts";
import { readProject } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";

const page = readFileSync("docs/git.md", "utf8");
const folder = mkdtempSync(join(tmpdir(), "etape-git-"));
const file = join(folder, "app.etape.json");
const who = { GIT_AUTHOR_NAME: "A", GIT_AUTHOR_EMAIL: "a@x.test", GIT_COMMITTER_NAME: "A", GIT_COMMITTER_EMAIL: "a@x.test" };
/** Without what somebody's own configuration says. */
const env = { ...process.env, ...who, GIT_CONFIG_GLOBAL: "/dev/null", GIT_CONFIG_SYSTEM: "/dev/null", GIT_EDITOR: "true", GIT_TERMINAL_PROMPT: "0" };

function git(...args: string[]) {
  return spawnSync("git", args, { cwd: folder, encoding: "utf8", env, stdio: ["ignore", "pipe", "pipe"] });
}

function read(): Project {
  const made = readProject(readFileSync(file, "utf8"));
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.project;
}

function commit(project: Project, says: string) {
  writeFileSync(file, writeProject(project));
  expect(git("commit", "-qam", says).status).toBe(0);
}

it.skipIf(spawnSync("git", ["--version"]).error !== undefined)("two branches merge as docs/git.md says, and what both changed differently is named", () => {
  expect(git("init", "-q", "-b", "main").status).toBe(0);
  const lines = /```sh\n([\s\S]*?)```/.exec(page)?.[1] ?? "";
  expect(lines.trim().split("\n")).toHaveLength(4);
  // The command line of this checkout stands for the installed one.
  execFileSync("sh", ["-ec", lines.replace("npx etape", `'${process.execPath}' '${resolve("bin/etape.mjs")}'`)], { cwd: folder, env, stdio: "ignore" });
  writeFileSync(file, readFileSync("demo/hollowcomb.etape.json"));
  expect(git("add", ".").status).toBe(0);
  expect(git("commit", "-qm", "Begin").status).toBe(0);
  const begun = read();
  const screens = begun.screens.map(({ id }) => id);
  const edits = (side: string, from: number, same: string) =>
    Array.from({ length: 19 }, (_, i) =>
      addElement(screens[(from + i) % screens.length] ?? "", { id: `${side}${i}`, kind: "text", label: `${side} ${i}` }),
    ).reduce(applyEdit, applyEdit(begun, changeScreen(begun, "hive", { name: same })));
  git("checkout", "-q", "-b", "other");
  commit(edits("theirs", 10, "Beehive"), "Theirs");
  git("checkout", "-q", "main");
  commit(edits("ours", 0, "Colony"), "Ours");
  const merged = git("merge", "--no-edit", "other");
  expect(merged.status).toBe(1);
  const said = `${merged.stdout}${merged.stderr}`;
  expect(said).toContain('conflict: screen “Colony” (hive), name: was "Hive", ours is "Colony", theirs "Beehive"; ours stays');
  expect(said.match(/^conflict: /gm)).toHaveLength(1);
  const labels = read().screens.flatMap(({ elements }) => elements.map(({ label }) => label));
  for (const side of ["ours", "theirs"]) for (let i = 0; i < 19; i++) expect(labels).toContain(`${side} ${i}`);
  expect(read().screens.find(({ id }) => id === "hive")?.name).toBe("Colony");
  expect(git("commit", "-qam", "Merge").status).toBe(0);
  // What does not touch merges without a word.
  git("checkout", "-q", "-b", "third", "main");
  commit(applyEdit(read(), changeScreen(read(), "swap", { hub: true })), "Third");
  git("checkout", "-q", "-b", "fourth", "main");
  commit(applyEdit(read(), changeScreen(read(), "swap", { title: "Swap" })), "Fourth");
  expect(git("merge", "--no-edit", "third").status).toBe(0);
  expect(read().screens.find(({ id }) => id === "swap")).toMatchObject({ hub: true, title: "Swap" });
});
