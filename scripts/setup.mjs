// Gets a fresh machine ready: packages from the lock file, and Chromium for the tests that drive the page.
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Installs the packages of the lock file where they are missing or older than it. Output goes to standard error. */
export function ensurePackages() {
  const stamp = join(root, "node_modules", ".etape-installed");
  const lock = readFileSync(join(root, "package-lock.json"), "utf8");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  process.stderr.write("Installing packages…\n");
  const npm = process.platform === "win32" ? "npm.cmd" : "npm";
  const run = spawnSync(npm, ["ci", "--include=dev", "--no-audit", "--no-fund", "--loglevel=error"], {
    cwd: root,
    stdio: ["ignore", 2, 2],
    shell: process.platform === "win32",
  });
  if (run.status !== 0) throw new Error("The packages could not be installed: `npm ci` failed; its messages are above.");
  writeFileSync(stamp, lock);
}

/** The path of Chromium, installed through apt where that is possible; otherwise an error naming the one command to run. */
export function ensureChromium() {
  const found = process.env.CHROMIUM_PATH ?? "/usr/bin/chromium";
  if (existsSync(found)) return found;
  const command = "apt-get update && apt-get install -y --no-install-recommends chromium";
  if (!canInstall()) throw new Error(`The tests drive the interface in Chromium, which is not at ${found}. Run: sudo sh -c '${command}'`);
  process.stderr.write("Installing Chromium…\n");
  execFileSync("sh", ["-c", command], { stdio: ["ignore", 2, 2], env: quietly });
  return found;
}

/**
 * The path of the Chromium in which most browser tests run: Debian's build without windows of its own, in which they take two thirds of
 * the time; Chromium itself where that is not to be had. The tests that click on a browser's own toolbar need the whole one.
 */
export function ensureHeadless() {
  const whole = ensureChromium();
  const found = process.env.CHROMIUM_HEADLESS ?? "/usr/bin/chromium-headless-shell";
  if (existsSync(found)) return found;
  if (process.env.CHROMIUM_PATH || !canInstall()) return whole;
  process.stderr.write("Installing Chromium without windows…\n");
  spawnSync("sh", ["-c", "apt-get update && apt-get install -y --no-install-recommends chromium-headless-shell"], { stdio: ["ignore", 2, 2], env: quietly });
  return existsSync(found) ? found : whole;
}

const quietly = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };

function canInstall() {
  return process.getuid?.() === 0 && existsSync("/usr/bin/apt-get");
}

/**
 * A screen that nobody sees and hands for it: with them the browser's own toolbar is clicked, which no script of a page can do. Installed
 * as the readers are; the tests of the toolbar say that they are left out where they are missing.
 */
export function ensureScreen() {
  const missing = ["/usr/bin/Xvfb", "/usr/bin/xdotool"].filter((path) => !existsSync(path));
  if (missing.length === 0 || process.env.ETAPE_NO_READERS || !canInstall()) return;
  process.stderr.write("Installing Xvfb and xdotool…\n");
  const command = "apt-get update && apt-get install -y --no-install-recommends xvfb xdotool";
  spawnSync("sh", ["-c", command], { stdio: ["ignore", 2, 2], env: quietly });
}

/**
 * The programs that others wrote and that the tests give our files to: Kotlin's compiler, Graphviz, xmllint and a compiler
 * of state charts. Installed through apt where that is possible and ETAPE_NO_READERS is not set; a test
 * whose program is missing says that it is left out.
 */
export function ensureReaders() {
  const missing = ["kotlinc", "dot", "xmllint", "qscxmlc"].filter((name) => spawnSync(name, ["--version"], { stdio: "ignore" }).error !== undefined);
  if (missing.length === 0 || process.env.ETAPE_NO_READERS || !canInstall()) return;
  process.stderr.write("Installing Kotlin, Graphviz, xmllint and qscxmlc…\n");
  const command = "apt-get update && apt-get install -y --no-install-recommends kotlin default-jre-headless graphviz libxml2-utils libqt5scxml5-bin";
  spawnSync("sh", ["-c", command], { stdio: ["ignore", 2, 2], env: quietly });
}

/** Runs a program of the project's own packages; gives its exit status. */
export function runTool(name, args, env = {}) {
  const bin = join(root, "node_modules", ".bin", name);
  const run = spawnSync(bin, args, { cwd: root, stdio: "inherit", env: { ...process.env, ...env } });
  return run.status ?? 1;
}

/** The newest modification time in milliseconds of some files, and of all files below some folders. */
export function newest(paths) {
  const isFile = (path) => statSync(join(root, path)).isFile();
  let time = Math.max(0, ...paths.filter(isFile).map((path) => statSync(join(root, path)).mtimeMs));
  for (const folder of paths.filter((path) => !isFile(path)))
    for (const entry of readdirSync(join(root, folder), { recursive: true, withFileTypes: true }))
      if (entry.isFile()) time = Math.max(time, statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs);
  return time;
}
