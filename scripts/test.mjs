// npm test: types, lint, unit tests, and the real interface in Chromium; installs what is missing first.
import { createServer } from "node:net";
import { join } from "node:path";
import { ensureChromium, ensurePackages, ensureReaders, ensureScreen, root, runTool } from "./setup.mjs";

ensurePackages();
const chromium = ensureChromium();
ensureReaders();
ensureScreen();
const steps = [
  ["types", () => runTool("tsc", ["--noEmit", "-p", "."])],
  ["lint", () => runTool("biome", ["ci", "--error-on-warnings", "."])],
  ["command line", bundle],
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

/** The bundler is loaded only here, when the packages are there. */
async function bundle() {
  const { bundleCommandLine } = await import("./bundle.mjs");
  await bundleCommandLine(join(root, "dist", "cli", "etape.mjs"));
  return 0;
}

async function build() {
  const { buildApplication } = await import("./build.mjs");
  buildApplication();
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
