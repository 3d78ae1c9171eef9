#!/usr/bin/env node
// The command line. Bundles src/cli when it has changed since the last time, then runs it.
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, newest, root } from "../scripts/setup.mjs";

try {
  ensurePackages();
  const bundle = join(root, "dist", "cli", "etape.mjs");
  if (!existsSync(bundle) || statSync(bundle).mtimeMs < newest(["src/core", "src/cli", "src/server"])) {
    const { bundleCommandLine } = await import("../scripts/bundle.mjs");
    await bundleCommandLine(bundle);
  }
  const args = process.argv.slice(2);
  const { buildApplication, buildPrototype } = await import("../scripts/build.mjs");
  if (args[0] === "serve") buildApplication();
  if (args[0] === "gen" && args.some((arg) => /^(--to=)?(prototype|all)$/.test(arg))) buildPrototype();
  process.env.ETAPE_APPLICATION ??= join(root, "dist", "app");
  process.env.ETAPE_PROTOTYPE ??= join(root, "dist", "prototype", "prototype.html");
  const { main } = await import(pathToFileURL(bundle).href);
  process.exitCode = await main(args);
} catch (error) {
  process.stderr.write(`etape: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 2;
}
