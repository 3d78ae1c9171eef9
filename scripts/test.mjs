// npm test: types, lint, unit tests, and the real interface in Chromium; installs what is missing first.
// `unit`, `programs` (tests that run other programs) or `e2e` after it runs that alone; --long takes all random documents (ETAPE_LONG=1 does so too).
import { spawn } from "node:child_process";
import { createServer } from "node:net";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { ensureHeadless, ensurePackages, ensureReaders, ensureScreen, root } from "./setup.mjs";

const only = process.argv.slice(2).find((word) => !word.startsWith("-"));
const long = process.argv.includes("--long") ? { ETAPE_LONG: "1" } : {};
// `npm test` holds the checker against the plain search on 2,000 documents, the unit tests alone on fewer.
const whole = only === undefined ? { ORACLE_DOCUMENTS: "2000" } : {};
const wants = (part) => only === undefined || only === part;

ensurePackages();
const browser = wants("e2e") ? ensureHeadless() : "";
if (wants("programs")) ensureReaders();
if (wants("e2e")) ensureScreen();
const { buildApplication, buildCommandLine } = await import("./build.mjs");
await buildCommandLine();
await buildApplication();

// `npm test` runs both parts at once.
const UNIT_PARTS = { unit: ["--exclude", "**/*.program.test.ts"], programs: [".program.test.ts"] };

/** What runs one after the other, beside the other lane: two cores have enough to do, and the browser waits often. */
const lanes = [
  [
    ...(only === undefined ? [step("types", "tsc", ["--noEmit", "-p", "."]), step("lint", "biome", ["ci", "--error-on-warnings", "."])] : []),
    ...(only === "e2e" ? [] : [step(only ?? "unit", "vitest", ["run", ...(UNIT_PARTS[only ?? ""] ?? [])], { ...whole, ...long })]),
  ],
  wants("e2e") ? [step("e2e", "playwright", ["test"], { ...long, CHROMIUM_HEADLESS: browser, ETAPE_TEST_PORT: String(await freePort()) })] : [],
];
let ended = 0;
const failed = [];
await Promise.all(
  lanes.map(async (steps) => {
    for (const run of steps) {
      const { name, status } = await run();
      ended += 1;
      if (status !== 0) failed.push(name);
    }
  }),
);
for (const name of failed) process.stdout.write(`${name} failed\n`);
process.stdout.write(`\n${ended - failed.length} passed, ${failed.length} failed\n`);
process.exit(failed.length === 0 ? 0 : 1);

/** One program of the project's packages; each line that it prints is told at once, under its name, so that two lanes can be told apart. */
function step(name, tool, args, env = {}) {
  return () =>
    new Promise((resolve) => {
      const began = Date.now();
      const child = spawn(join(root, "node_modules", ".bin", tool), args, { cwd: root, env: { ...process.env, ...env }, stdio: ["ignore", "pipe", "pipe"] });
      for (const stream of [child.stdout, child.stderr])
        createInterface({ input: stream }).on("line", (line) => process.stdout.write(`${name.padEnd(10)} ${line}\n`));
      child.on("close", (code) => {
        process.stdout.write(`${name.padEnd(10)} ended after ${Math.round((Date.now() - began) / 1000)} s: ${code === 0 ? "passed" : "FAILED"}\n`);
        resolve({ name, status: code ?? 1 });
      });
    });
}

/** A port that nothing listens on. */
function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer().on("error", reject);
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}
