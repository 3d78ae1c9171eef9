// npm test: types, lint, unit tests, and the real interface in Chromium; installs what is missing first.
import { createServer } from "node:net";
import { ensureChromium, ensurePackages, ensureReaders, ensureScreen, runTool } from "./setup.mjs";

ensurePackages();
const chromium = ensureChromium();
ensureReaders();
ensureScreen();
const steps = [
  ["types", () => runTool("tsc", ["--noEmit", "-p", "."])],
  ["lint", () => runTool("biome", ["ci", "--error-on-warnings", "."])],
  ["command line", commandLine],
  ["build", build],
  ["unit tests", () => runTool("vitest", ["run"])],
  ["interface", async () => runTool("playwright", ["test"], { CHROMIUM_PATH: chromium, ETAPE_TEST_PORT: String(await freePort()) })],
];
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

async function commandLine() {
  const { buildCommandLine } = await import("./build.mjs");
  await buildCommandLine();
  return 0;
}

async function build() {
  const { buildApplication } = await import("./build.mjs");
  await buildApplication();
  return 0;
}

for (const [name, run] of steps) {
  process.stdout.write(`\n== ${name}\n`);
  const status = await run();
  if (status) {
    process.stdout.write(`\n${name} failed\n`);
    process.exit(status);
  }
}
process.stdout.write(`\n${steps.length} passed, 0 failed\n`);
