import { execFileSync, spawn, spawnSync } from "node:child_process";
import { chmodSync, cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";

const NOBODY = 65534;
/** Whether a command can be run without a network and as another user: as root, where the system lets one. */
const apart = process.getuid?.() === 0 && spawnSync("unshare", ["-n", "setpriv", `--reuid=${NOBODY}`, "true"]).status === 0;

const folder = mkdtempSync(join(tmpdir(), "etape-package-"));
const elsewhere = join(folder, "out");
const installed = join(folder, "app", "node_modules", "etape");
const demo = join(installed, "demo", "hollowcomb.etape.json");

/** Runs a program of Node in the folder of the app, with no network and as nobody where that can be. */
function node(...args: string[]): { status: number | null; out: string; err: string } {
  const [program, before] = apart
    ? ["unshare", ["-n", "setpriv", `--reuid=${NOBODY}`, `--regid=${NOBODY}`, "--clear-groups", process.execPath]]
    : [process.execPath, []];
  const { status, stdout, stderr } = spawnSync(program, [...before, ...args], {
    cwd: join(folder, "app"),
    encoding: "utf8",
    env: { PATH: process.env.PATH, HOME: "/nonexistent" },
  });
  return { status, out: stdout, err: stderr };
}
const etape = (...args: string[]) => node(join("node_modules", ".bin", "etape"), ...args);

/** A command that goes on until it is ended, as nobody. */
function serving(...args: string[]) {
  return spawn(process.execPath, [join(installed, "bin", "etape.mjs"), ...args], {
    cwd: elsewhere,
    ...(process.getuid?.() === 0 ? { uid: NOBODY, gid: NOBODY } : {}),
    stdio: ["ignore", "pipe", "inherit"],
  });
}

/** The first address that it prints. */
function addressOf(server: ReturnType<typeof serving>): Promise<string> {
  return new Promise((found, failed) => {
    server.stdout.on("data", (data: Buffer) => found(/http:\S+/.exec(data.toString())?.[0] ?? ""));
    server.on("exit", (status) => failed(new Error(`ended with ${status}`)));
  });
}

/** All files below a folder, with their sizes and times. */
const filesIn = (path: string): string[] =>
  readdirSync(path, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .map((file) => `${file} ${statSync(file).size} ${statSync(file).mtimeMs}`)
    .sort();

describe("the package, installed from its file into another repository", () => {
  let before: string[] = [];
  beforeAll(() => {
    const said = execFileSync(process.execPath, ["scripts/package.mjs"], { encoding: "utf8", stdio: ["ignore", "pipe", "ignore"] });
    process.stdout.write(`${said.trim()}${apart ? "" : " (run with a network, as the same user)"}\n`);
    const file = said.slice(0, said.indexOf(": "));
    mkdirSync(join(folder, "app"));
    mkdirSync(elsewhere, { mode: 0o777 });
    chmodSync(elsewhere, 0o777);
    chmodSync(folder, 0o755);
    writeFileSync(join(folder, "app", "package.json"), '{"name": "other", "version": "1.0.0", "private": true, "type": "module"}');
    execFileSync("npm", ["install", "--offline", "--no-audit", "--no-fund", "--ignore-scripts", file], { cwd: join(folder, "app"), stdio: "ignore" });
    cpSync(demo, join(elsewhere, "hollowcomb.etape.json"));
    spawnSync("chmod", ["-R", "a-w,a+rX", join(folder, "app")]);
    before = filesIn(join(folder, "app"));
  });

  it("is one package, with nothing that it needs beside it", () => {
    expect(readdirSync(join(folder, "app", "node_modules")).filter((name) => !name.startsWith("."))).toEqual(["etape"]);
    // Built for use, whatever the shell that packed it says of itself.
    expect(readdirSync(join(installed, "dist", "app", "assets")).filter((name) => name.includes("dev"))).toEqual([]);
    const { dependencies } = JSON.parse(readFileSync(join(installed, "package.json"), "utf8"));
    expect(dependencies).toBeUndefined();
  });

  it("checks, steps, draws, tells as lines and hands off to everything, and writes nothing where it lies", () => {
    const checked = etape("check", demo, "--format", "json");
    expect([checked.status, checked.err]).toEqual([0, ""]);
    expect(JSON.parse(checked.out).proof.complete).toBe(true);
    writeFileSync(join(elsewhere, "events.json"), '[{"do": "leg", "leg": "skip"}]');
    expect(JSON.parse(etape("step", demo, "--events", join(elsewhere, "events.json")).out).steps).toHaveLength(1);
    expect(etape("draw", demo, "--as", "names", "--lens", "reach", "--out", "-").out).toContain("<svg");
    expect(etape("lines", demo).out).toBe(readFileSync("demo/hollowcomb.lines", "utf8"));
    const handed = etape("gen", demo, "--to", "all", "--out", elsewhere);
    expect([handed.status, handed.err.replace(/^.*\.\.\.?$/gm, "")]).toEqual([0, expect.not.stringContaining("rror")]);
    expect(readdirSync(elsewhere)).toEqual(
      expect.arrayContaining(["navigation.ts", "Navigation.kt", "Navigation.swift", "prototype.html", "specification.md", "chart.scxml"]),
    );
    expect(etape("check", "no-such-file.json")).toMatchObject({ status: 2, err: expect.stringContaining("no-such-file.json") });
    expect(filesIn(join(folder, "app"))).toEqual(before);
  });

  it("is a library with types that name no other package", () => {
    const use = readFileSync("test/package/use.ts", "utf8");
    writeFileSync(join(elsewhere, "use.ts"), use);
    writeFileSync(
      join(elsewhere, "tsconfig.json"),
      JSON.stringify({
        compilerOptions: {
          strict: true,
          target: "es2022",
          lib: ["es2024", "dom"],
          module: "esnext",
          moduleResolution: "bundler",
          resolveJsonModule: true,
          skipLibCheck: false,
          types: [],
          outDir: "js",
          paths: { etape: [join(installed, "dist/lib/types/index.d.ts")], "etape/schema": [join(installed, "schema/etape-1.schema.json")] },
        },
        files: ["use.ts"],
      }),
    );
    const compiled = spawnSync(process.execPath, [resolve("node_modules/typescript/bin/tsc"), "-p", elsewhere, "--pretty", "false"], { encoding: "utf8" });
    expect(compiled.stdout).toBe("");
    const script = `import { check, readProject } from "etape"; import { readFileSync } from "node:fs";
      const read = readProject(readFileSync(${JSON.stringify(demo)}, "utf8")); console.log(read.ok && check(read.project).proof.complete);`;
    expect(node("--input-type=module", "--eval", script)).toMatchObject({ status: 0, out: "true\n" });
  });

  it("serves the application", async () => {
    const server = serving("serve", "--port", "0");
    try {
      const address = await addressOf(server);
      const page = await (await fetch(address)).text();
      const script = /src="(\/assets\/[^"]+)"/.exec(page)?.[1] ?? "";
      expect((await fetch(new URL(script, address))).status).toBe(200);
    } finally {
      server.kill();
    }
    expect(filesIn(join(folder, "app"))).toEqual(before);
  });

  it.skipIf(spawnSync("git", ["--version"]).error !== undefined)(
    "keeps a repository in step: documents committed in their form, merged by ids, and the code and a recorded evening held against them",
    () => {
      const repository = join(folder, "bandstand");
      cpSync("examples/bandstand", repository, { recursive: true, filter: (path) => !/dist|navigation(-react)?\.tsx?$/.test(path) });
      symlinkSync(join(folder, "app", "node_modules"), join(repository, "node_modules"));
      writeFileSync(join(repository, ".gitignore"), "node_modules\n");
      const who = { GIT_AUTHOR_NAME: "A", GIT_AUTHOR_EMAIL: "a@x.test", GIT_COMMITTER_NAME: "A", GIT_COMMITTER_EMAIL: "a@x.test" };
      const env = { ...process.env, ...who, GIT_CONFIG_GLOBAL: "/dev/null", GIT_CONFIG_SYSTEM: "/dev/null", GIT_EDITOR: "true" };
      const run = (command: string) => {
        const { status, stdout, stderr } = spawnSync("sh", ["-c", command], { cwd: repository, encoding: "utf8", env });
        return { status, out: `${stdout}${stderr}` };
      };
      const design = join(repository, "bandstand.etape.json");
      const change = (from: string, to: string) => writeFileSync(design, readFileSync(design, "utf8").replace(from, to));
      expect(run("git init -q -b main && npm run --silent setup && npx etape gen bandstand.etape.json --to typescript --react --out src")).toMatchObject({
        status: 0,
      });
      expect(run("git add . && git commit -qm Begin && npm run --silent check")).toMatchObject({
        status: 0,
        out: expect.stringContaining("the app follows the design"),
      });
      // Not in its form: not committed.
      writeFileSync(design, JSON.stringify(JSON.parse(readFileSync(design, "utf8"))));
      expect(run("git commit -qam Squeezed").status).not.toBe(0);
      expect(run("npx etape format bandstand.etape.json && git diff --quiet").status).toBe(0);
      // Two branches, merged by ids.
      change('"name": "Town"', '"name": "Which town"');
      expect(run("git checkout -q -b other && git commit -qam Other && git checkout -q main").status).toBe(0);
      change('"label": "Book a seat"', '"label": "Book one seat"');
      expect(run("git commit -qam Ours && git merge -q other -m Merge && npx etape check bandstand.etape.json").status).toBe(0);
      for (const part of ['"name": "Which town"', '"label": "Book one seat"']) expect(readFileSync(design, "utf8")).toContain(part);
      // The design goes another way than the code, and than the evening.
      change('"to": "towns"', '"to": "door"');
      const out = run("npx etape format bandstand.etape.json; npx etape gen bandstand.etape.json --to typescript --react --out src --check");
      expect([out.status, out.out]).toEqual([1, expect.stringContaining("navigation.ts")]);
      const departed = run("npx etape follow bandstand.etape.json --log logs/evening.jsonl");
      expect([departed.status, departed.out]).toEqual([1, expect.stringContaining("the app departs from the design")]);
    },
  );

  it("opens a file that is written by the page alone, and nothing beside it", async () => {
    const file = join(elsewhere, "hollowcomb.etape.json");
    spawnSync("chmod", ["a+rw", file]);
    const server = serving("open", file, "--port", "0");
    try {
      const address = await addressOf(server);
      const opened = await fetch(address, { redirect: "manual" });
      const cookie = opened.headers.get("set-cookie")?.split(";")[0] ?? "";
      const read = (await (await fetch(new URL("/live/file", address), { headers: { cookie } })).json()) as { text: string; tag: string };
      const body = read.text.replace('"Hollowcomb"', '"Hollowcomb, written"');
      const put = await fetch(new URL("/live/file", address), { method: "PUT", body, headers: { cookie, "if-match": read.tag } });
      expect([put.status, readFileSync(file, "utf8")]).toEqual([200, body]);
    } finally {
      server.kill();
    }
    expect(filesIn(join(folder, "app"))).toEqual(before);
  });
});
