// npm start: installs what is missing, builds what has changed, serves the application and prints its address.
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
const { buildApplication } = await import("./build.mjs");
await buildApplication();
const { bundleServer } = await import("./bundle.mjs");
const file = join(root, "dist", "server", "main.mjs");
await bundleServer(file);
const { start } = await import(pathToFileURL(file).href);
const wanted = Number(process.env.PORT ?? 5173);
const served = await start(join(root, "dist", "app"), wanted).catch((error) => {
  if (error.code !== "EADDRINUSE") throw error;
  return start(join(root, "dist", "app"), 0);
});
process.stdout.write(`Etape is at ${served.address}\n`);
