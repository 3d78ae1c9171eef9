// npm run docs: writes the tables of docs/findings.md anew from the checker's list of findings.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
const { bundle } = await import("./bundle.mjs");
const module = join(root, "dist", "docs", "table.mjs");
await bundle("src/core/check/report/table.ts", module);
const { findingsTable } = await import(pathToFileURL(module).href);
const file = join(root, "docs", "findings.md");
const [before, rest] = readFileSync(file, "utf8").split("<!-- findings -->\n");
const [, after] = rest.split("<!-- /findings -->\n");
writeFileSync(file, `${before}<!-- findings -->\n${findingsTable()}\n<!-- /findings -->\n${after}`);
