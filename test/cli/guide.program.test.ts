import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { beforeAll, describe, expect, it, vi } from "vitest";

const guide = readFileSync("docs/code.md", "utf8");
const blocks = (language: string) => [...guide.matchAll(new RegExp(`^\`\`\`${language}\\n([\\s\\S]*?)^\`\`\``, "gm"))].map((m) => m[1] ?? "");
const folder = mkdtempSync(join(tmpdir(), "etape-guide-"));

/** A command of the guide, in a folder of its own in which the demos are. */
function run(command: string) {
  const args = command.split(/\s+/).slice(2);
  return spawnSync(process.execPath, [resolve("bin/etape.mjs"), ...args], { cwd: folder, encoding: "utf8" });
}

function write(source: string): string {
  const name = /^\/\/ (\S+)/.exec(source)?.[1] ?? "";
  mkdirSync(dirname(join(folder, name)), { recursive: true });
  writeFileSync(join(folder, name), source);
  return name;
}

function compile(): string {
  const settings = {
    compilerOptions: {
      strict: true,
      noEmit: true,
      target: "es2022",
      lib: ["es2023", "dom"],
      module: "esnext",
      moduleResolution: "bundler",
      allowImportingTsExtensions: true,
      types: [],
    },
    include: ["app"],
  };
  writeFileSync(join(folder, "tsconfig.json"), JSON.stringify(settings));
  return spawnSync(process.execPath, [resolve("node_modules/typescript/bin/tsc"), "-p", folder, "--pretty", "false"], { encoding: "utf8" }).stdout;
}

describe("docs/code.md", () => {
  beforeAll(() => {
    symlinkSync(resolve("demo"), join(folder, "demo"));
    symlinkSync(resolve("examples"), join(folder, "examples"));
  });

  it("gives commands that run as it says, and files where it says", { timeout: 300_000 }, () => {
    const commands = blocks("sh").flatMap((block) => block.trim().split("\n"));
    expect(commands.length).toBeGreaterThan(8);
    for (const command of commands) {
      const { status, stderr } = run(command);
      expect(status, `${command}\n${stderr}`).toBe(0);
    }
    expect(blocks("tsx").map((block) => block.trim())).toEqual([readFileSync("examples/bandstand/src/main.tsx", "utf8").trim()]);
    for (const [, file] of guide.matchAll(/`((?:app|tests|preview)\/[\w.-]+)`/g)) expect(existsSync(join(folder, file ?? "")), file).toBe(true);
  });

  it("gives code that compiles, refuses what it says is refused, and prints what it says it prints", { timeout: 120_000 }, async () => {
    run("npx etape gen demo/hollowcomb.etape.json --to typescript --out app");
    const names = blocks("ts").map(write);
    expect(names).toEqual(["app/views.ts", "app/main.ts"]);
    expect(compile()).toBe("");

    const outfile = join(folder, "main.mjs");
    await build({ entryPoints: [join(folder, "app/main.ts")], outfile, bundle: true, format: "esm", logLevel: "error" });
    const said: string[] = [];
    const log = vi.spyOn(console, "log").mockImplementation((...words: unknown[]) => said.push(words.join(" ")));
    await import(pathToFileURL(outfile).href);
    log.mockRestore();
    expect(`${said.join("\n")}\n`).toBe(blocks("text")[0]);

    const main = readFileSync(join(folder, "app/main.ts"), "utf8");
    const refused = /`(nav\.legs\.toApiary\(.*?\))` does not compile/.exec(guide)?.[1] ?? "";
    writeFileSync(join(folder, "app/main.ts"), `${main}\n${refused};\n`);
    expect(compile()).toContain("Property 'id' is missing");
    writeFileSync(join(folder, "app/main.ts"), main);
    const views = readFileSync(join(folder, "app/views.ts"), "utf8");
    writeFileSync(join(folder, "app/views.ts"), views.replace(/hive: \(.*?\),/, ""));
    expect(compile()).toContain("'hive' is missing");
  });

  it("has an example that compiles under strict settings with what is generated for it", { timeout: 120_000 }, () => {
    const home = mkdtempSync(join(tmpdir(), "etape-example-"));
    cpSync("examples/bandstand", home, { recursive: true });
    symlinkSync(resolve("node_modules"), join(home, "node_modules"));
    const { status, stderr } = spawnSync(
      process.execPath,
      [resolve("bin/etape.mjs"), "gen", "bandstand.etape.json", "--to", "typescript", "--react", "--out", "src"],
      { cwd: home, encoding: "utf8" },
    );
    expect(status, stderr).toBe(0);
    const settings = {
      strict: true,
      noEmit: true,
      target: "es2022",
      lib: ["es2022", "dom", "dom.iterable"],
      module: "esnext",
      moduleResolution: "bundler",
      jsx: "react-jsx",
      noUnusedLocals: true,
      exactOptionalPropertyTypes: true,
      types: ["vite/client"],
    };
    writeFileSync(join(home, "tsconfig.json"), JSON.stringify({ compilerOptions: settings, include: ["src"] }));
    const compiled = () =>
      spawnSync(process.execPath, [resolve("node_modules/typescript/bin/tsc"), "-p", home, "--pretty", "false"], { encoding: "utf8" }).stdout;
    expect(compiled()).toBe("");
    const views = readFileSync(join(home, "src/views.tsx"), "utf8");
    writeFileSync(join(home, "src/views.tsx"), views.replace("events.toGig(gig)", "events.toGig({ key: gig.id })"));
    expect(compiled()).toContain("'key' does not exist");
    writeFileSync(join(home, "src/views.tsx"), views.replace('"known" : "not known"', '"known" : "unknown"'));
    expect(compiled()).toContain('"unknown"');
  });
});
