import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { build } from "esbuild";
import { root } from "./setup.mjs";

/** Bundles the command line into one file that Node runs. */
export function bundleCommandLine(outfile) {
  return bundle("src/cli/main.ts", outfile);
}

/** Bundles the server into one file that Node runs. */
export function bundleServer(outfile) {
  return bundle("src/server/main.ts", outfile);
}

/** Bundles the core as a library: one file that needs neither Node nor a browser. */
export function bundleLibrary(outfile) {
  return build({
    entryPoints: [join(root, "src/core/index.ts")],
    outfile,
    bundle: true,
    platform: "browser",
    format: "esm",
    target: "es2022",
    logLevel: "warning",
    plugins: [raw],
  });
}

/** Bundles the service worker, with the list of files that it keeps. */
export function bundleServiceWorker(outfile, files) {
  return build({
    entryPoints: [join(root, "src/app/offline/serviceWorker.ts")],
    outfile,
    bundle: true,
    minify: true,
    platform: "browser",
    format: "iife",
    target: "es2022",
    logLevel: "warning",
    define: { FILES: JSON.stringify(files), "process.env.NODE_ENV": '"production"' },
  });
}

/** Bundles a program and what it imports into one file that Node runs. */
export function bundle(entry, outfile) {
  return build({
    entryPoints: [join(root, entry)],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "warning",
    plugins: [raw],
    banner: { js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);" },
  });
}

/** A file as text where it is imported with `?raw`, as Vite has it. */
const raw = {
  name: "raw",
  setup(context) {
    context.onResolve({ filter: /\?raw$/ }, ({ path, importer }) => ({ path: join(dirname(importer), path.replace(/\?raw$/, "")), namespace: "raw" }));
    context.onLoad({ filter: /./, namespace: "raw" }, ({ path }) => ({ contents: readFileSync(path, "utf8"), loader: "text", watchFiles: [path] }));
  },
};
