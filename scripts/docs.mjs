// npm run docs: writes what docs/findings.md and docs/patterns.md list anew, from the lists in the code, and the demos as lines.
import { execFileSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
const { bundle } = await import("./bundle.mjs");

async function load(source) {
  const module = join(root, "dist", "docs", source.replaceAll("/", "-").replace(/\.ts$/, ".mjs"));
  await bundle(source, module);
  return import(pathToFileURL(module).href);
}

function rewrite(name, mark, text) {
  const file = join(root, "docs", name);
  const [before, rest] = readFileSync(file, "utf8").split(`<!-- ${mark} -->\n`);
  const [, after] = rest.split(`<!-- /${mark} -->\n`);
  writeFileSync(file, `${before}<!-- ${mark} -->\n${text}\n<!-- /${mark} -->\n${after}`);
}

const { dependenciesDoc } = await import("./dependencies.mjs");
writeFileSync(join(root, "docs", "dependencies.md"), dependenciesDoc());

const { findingsTable } = await load("src/core/check/report/table.ts");
rewrite("findings.md", "findings", findingsTable());

const { patternsDoc } = await load("src/core/patterns/docs.ts");
const { text, pictures } = patternsDoc();
rewrite("patterns.md", "patterns", text);
rmSync(join(root, "docs", "patterns"), { recursive: true, force: true });
mkdirSync(join(root, "docs", "patterns"));
for (const [name, svg] of pictures) writeFileSync(join(root, "docs", name), svg);

for (const name of ["hollowcomb", "hollowcomb-first-draft", "tidewatch"]) {
  const demo = join(root, "demo", name);
  execFileSync(process.execPath, [join(root, "bin", "etape.mjs"), "lines", `${demo}.etape.json`, "--out", `${demo}.lines`], {
    stdio: ["ignore", "ignore", "inherit"],
  });
}
