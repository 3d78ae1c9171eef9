// npm run package: builds everything that a package has in it, and packs it into dist/. With --build it only builds, as npm pack asks before it packs.
import { spawnSync } from "node:child_process";
import { mkdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { ensurePackages, root } from "./setup.mjs";

ensurePackages();
const { buildApplication, buildCommandLine, buildPrototype } = await import("./build.mjs");
const { bundleLibrary } = await import("./bundle.mjs");
const { writeTypes } = await import("./types.mjs");
await buildApplication();
buildPrototype();
await buildCommandLine();
await bundleLibrary(join(root, "dist", "lib", "index.mjs"));
writeTypes(join(root, "dist", "lib", "types"));

if (!process.argv.includes("--build")) {
  const folder = join(root, "dist", "package");
  mkdirSync(folder, { recursive: true });
  const packed = spawnSync("npm", ["pack", "--ignore-scripts", "--json", "--pack-destination", folder], {
    cwd: root,
    encoding: "utf8",
    stdio: ["ignore", "pipe", 2],
  });
  if (packed.status !== 0) process.exit(packed.status ?? 1);
  const [{ filename, size, unpackedSize, entryCount }] = JSON.parse(packed.stdout);
  const file = join(folder, filename);
  statSync(file);
  process.stdout.write(`${file}: ${megabytes(size)} MB packed, ${megabytes(unpackedSize)} MB in ${entryCount} files\n`);
}

function megabytes(bytes) {
  return (bytes / 1e6).toFixed(1);
}
