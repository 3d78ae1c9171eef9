import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { gzipSync } from "node:zlib";
import { licenceTexts } from "./dependencies.mjs";
import { newest, root, runTool } from "./setup.mjs";

const page = join(root, "dist", "app", "index.html");
const frame = join(root, "dist", "prototype", "prototype.html");

/** Bundles the command line where something has changed since it was bundled last. The bundler is loaded only then. */
export async function buildCommandLine() {
  const bundle = join(root, "dist", "cli", "etape.mjs");
  if (existsSync(bundle) && statSync(bundle).mtimeMs >= newest(["src/core", "src/cli", "src/server", "package.json"])) return;
  const { bundleCommandLine } = await import("./bundle.mjs");
  await bundleCommandLine(bundle);
}

/** Builds the application with Vite where something has changed since it was built last. */
export async function buildApplication() {
  if (
    existsSync(page) &&
    existsSync(frame) &&
    Math.min(statSync(page).mtimeMs, statSync(frame).mtimeMs) >= newest(["src", "demo", "scripts", "vite.config.ts", "package-lock.json"])
  )
    return;
  process.stderr.write("Building…\n");
  run(["build", "--logLevel", "warn"]);
  buildPrototype();
  // The page makes prototypes too; it asks for the same frame.
  writeFileSync(join(root, "dist", "app", "prototype.html"), readFileSync(frame));
  guardPage();
  writeFileSync(join(root, "dist", "app", "licences.txt"), licenceTexts());
  await buildServiceWorker();
  compressAssets();
}

/** What never changes under its name is compressed once and not each time that it is asked for. */
function compressAssets() {
  const folder = join(root, "dist", "app", "assets");
  for (const name of readdirSync(folder).filter((file) => /\.(?:js|css|svg)$/.test(file)))
    writeFileSync(join(folder, `${name}.gz`), gzipSync(readFileSync(join(folder, name)), { level: 9 }));
}

/**
 * What the page may load: files of its own server, pictures that it made itself, and the one script of prototypes, which runs in a frame
 * that has the page's policy. Styles may stand in the text (parts of the page and drawings have them), scripts may not.
 */
function guardPage() {
  const script = /script-src ('sha256-[^']+')/.exec(readFileSync(frame, "utf8"))?.[1];
  if (script === undefined) throw new Error("The prototype's page has no policy that names its script.");
  const policy = [
    "default-src 'none'",
    `script-src 'self' ${script}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "frame-src 'self'",
    "base-uri 'none'",
    "form-action 'none'",
  ].join("; ");
  const text = readFileSync(page, "utf8");
  writeFileSync(page, text.replace('<meta charset="utf-8" />', `$&\n    <meta http-equiv="Content-Security-Policy" content="${policy}" />`));
}

/** The service worker with the list of all files: a file whose name has its hash never changes, another is told apart by its own. */
async function buildServiceWorker() {
  const folder = join(root, "dist", "app");
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(folder, join(entry.parentPath, entry.name)).replaceAll("\\", "/"))
    .filter((name) => !name.startsWith(".vite/") && name !== "service-worker.js" && name !== "licences.txt")
    .sort()
    .map((name) => ({
      url: `/${name}`,
      revision: name.startsWith("assets/")
        ? null
        : createHash("sha256")
            .update(readFileSync(join(folder, name)))
            .digest("hex")
            .slice(0, 16),
    }));
  const { bundleServiceWorker } = await import("./bundle.mjs");
  await bundleServiceWorker(join(folder, "service-worker.js"), files);
}

/** The page of a prototype with everything in it but the project: one script, one style sheet, both named by their hashes in its policy. */
export function buildPrototype() {
  if (existsSync(frame) && statSync(frame).mtimeMs >= newest(["src", "scripts", "vite.prototype.config.ts", "package-lock.json"])) return;
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
