// npm run bench: what things cost, as ratios where that can be. Nothing here passes or fails.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
process.chdir(root);
const { bundle } = await import("./bundle.mjs");
const file = join(root, "dist", "bench", "main.mjs");
await bundle("bench/main.ts", file);
await import(pathToFileURL(file).href);
