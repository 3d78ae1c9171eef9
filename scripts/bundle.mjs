import { join } from "node:path";
import { build } from "esbuild";
import { root } from "./setup.mjs";

/** Bundles the command line into one file that Node runs. */
export async function bundleCommandLine(outfile) {
  await build({
    entryPoints: [join(root, "src/cli/main.ts")],
    outfile,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "warning",
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
  });
}
