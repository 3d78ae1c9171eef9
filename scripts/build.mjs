import { createHash } from "node:crypto";
import { existsSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { newest, root, runTool } from "./setup.mjs";

const page = join(root, "dist", "app", "index.html");
const frame = join(root, "dist", "prototype", "prototype.html");

/** Bundles the command line where something has changed since it was bundled last. The bundler is loaded only then. */
export async function buildCommandLine() {
  const bundle = join(root, "dist", "cli", "etape.mjs");
  if (existsSync(bundle) && statSync(bundle).mtimeMs >= newest(["src/core", "src/cli", "src/server"])) return;
  const { bundleCommandLine } = await import("./bundle.mjs");
  await bundleCommandLine(bundle);
}

/** Builds the application with Vite where something has changed since it was built last. */
export function buildApplication() {
  if (existsSync(page) && existsSync(frame) && Math.min(statSync(page).mtimeMs, statSync(frame).mtimeMs) >= newest(["src", "demo", "scripts"])) return;
  process.stderr.write("Building…\n");
  run(["build", "--logLevel", "warn"]);
  buildPrototype();
  // The page makes prototypes too; it asks for the same frame.
  writeFileSync(join(root, "dist", "app", "prototype.html"), readFileSync(frame));
}

/** The page of a prototype with everything in it but the project: one script, one style sheet, both named by their hashes in its policy. */
export function buildPrototype() {
  if (existsSync(frame) && statSync(frame).mtimeMs >= newest(["src", "scripts"])) return;
  run(["build", "-c", "vite.prototype.config.ts", "--logLevel", "warn"]);
  const read = (name) => readFileSync(join(root, "dist", "prototype", name), "utf8");
  const script = read("prototype.js").replaceAll("</script", "<\\/script");
  const style = read("prototype.css");
  const hash = (text) => `'sha256-${createHash("sha256").update(text).digest("base64")}'`;
  const policy = `default-src 'none'; script-src ${hash(script)}; style-src ${hash(style)}; img-src data:; base-uri 'none'; form-action 'none'`;
  writeFileSync(
    frame,
    [
      "<!doctype html>",
      '<html lang="en">',
      "<head>",
      '<meta charset="utf-8">',
      `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
      '<meta name="viewport" content="width=device-width, initial-scale=1">',
      '<meta name="color-scheme" content="light dark">',
      "<title>{{title}}</title>",
      `<style>${style}</style>`,
      "</head>",
      "<body>",
      '<div id="root"></div>',
      '<script type="application/json" id="project">{{project}}</script>',
      `<script type="module">${script}</script>`,
      "</body>",
      "</html>",
      "",
    ].join("\n"),
  );
}

function run(args) {
  // Whoever builds, a test too, builds what is used: without this React would come with all that helps in developing.
  const status = runTool("vite", args, { NODE_ENV: "production" });
  if (status !== 0) process.exit(status);
}
