#!/usr/bin/env node
// The command line. In a package everything is built already; in a checkout src/cli is bundled when it has changed since the last time.
import { existsSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const bundle = join(root, "dist", "cli", "etape.mjs");

/** Builds what a command needs, where this is a checkout. */
async function build(args) {
  const { ensurePackages } = await import("../scripts/setup.mjs");
  ensurePackages();
  const { buildApplication, buildCommandLine, buildPrototype } = await import("../scripts/build.mjs");
  await buildCommandLine();
  if (args[0] === "serve" || args[0] === "open") await buildApplication();
  if (args[0] === "gen" && args.some((arg) => /^(--to=)?(prototype|all)$/.test(arg))) buildPrototype();
}

try {
  const args = process.argv.slice(2);
  if (existsSync(join(root, "src", "cli"))) await build(args);
  process.env.ETAPE_APPLICATION ??= join(root, "dist", "app");
  process.env.ETAPE_PROTOTYPE ??= join(root, "dist", "prototype", "prototype.html");
  const { main } = await import(pathToFileURL(bundle).href);
  process.exitCode = await main(args);
} catch (error) {
  process.stderr.write(`etape: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 2;
}
