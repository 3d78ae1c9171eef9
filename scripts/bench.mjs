// npm run bench: what things cost, as ratios where that can be. Nothing here passes or fails.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { buildApplication } from "./build.mjs";
import { ensureChromium, ensurePackages, root } from "./setup.mjs";

ensurePackages();
process.chdir(root);
// Name the parts to measure to leave out the others: engine, follow, map, check, page, pictures.
const wanted = process.argv.slice(2);
const measures = (part) => wanted.length === 0 || wanted.includes(part);
const { bundle, bundleServer } = await import("./bundle.mjs");
const file = join(root, "dist", "bench", "main.mjs");
await bundle("bench/main.ts", file);
const once = join(root, "dist", "bench", "once.mjs");
await bundle("bench/once.ts", once);
const { bench } = await import(pathToFileURL(file).href);
bench(measures, once);
if (measures("page") || measures("pictures")) {
  const executablePath = ensureChromium();
  await buildApplication();
  const server = join(root, "dist", "server", "main.mjs");
  await bundleServer(server);
  const { start } = await import(pathToFileURL(server).href);
  const served = await start(join(root, "dist", "app"), 0);
  const { chromium } = await import("@playwright/test");
  for (const part of ["page", "pictures"].filter(measures)) {
    const made = join(root, "dist", "bench", `${part}.mjs`);
    await bundle(`bench/${part}.ts`, made);
    await (await import(pathToFileURL(made).href))[`${part}Bench`](chromium, served.address, executablePath);
  }
  served.close();
}
