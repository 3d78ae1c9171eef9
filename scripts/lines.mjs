// npm run lines: code lines and the share of tests among them.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { root } from "./setup.mjs";

const files = execFileSync("git", ["ls-files", "src", "bin", "scripts", "test"], { cwd: root, encoding: "utf8" })
  .split("\n")
  .filter((file) => /\.(ts|tsx|mjs)$/.test(file));
const count = (list) =>
  list.reduce(
    (sum, file) =>
      sum +
      readFileSync(`${root}/${file}`, "utf8")
        .split("\n")
        .filter((line) => line.trim() !== "").length,
    0,
  );
const tests = count(files.filter((file) => file.startsWith("test/")));
const code = count(files.filter((file) => !file.startsWith("test/")));
process.stdout.write(`code ${code}, tests ${tests}: tests are ${Math.round((100 * tests) / (code + tests))} % of all\n`);
for (const file of files) {
  const lines = readFileSync(`${root}/${file}`, "utf8").split("\n").length;
  if (lines > 300) process.stdout.write(`long: ${file} (${lines})\n`);
}
