// npm start: installs what is missing, builds what has changed, serves the application and prints its address.
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensurePackages, newest, root, runTool } from "./setup.mjs";

ensurePackages();
const page = join(root, "dist", "app", "index.html");
if (!existsSync(page) || statSync(page).mtimeMs < newest(["src", "demo"])) {
  process.stderr.write("Building…\n");
  const status = runTool("vite", ["build", "--logLevel", "warn"]);
  if (status !== 0) process.exit(status);
}
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
