import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, normalize } from "node:path";
import { root, runTool } from "./setup.mjs";

const work = join(root, "dist", "types");
/** A type that is any JSON value, which the schema's library would declare. */
const JSON_TYPE = "export type JSONType = string | number | boolean | null | JSONType[] | { [key: string]: JSONType };\n";

/** Writes the types of the core as a library, which name no other package: those that are inferred from the schema are written out. */
export function writeTypes(folder) {
  rmSync(work, { recursive: true, force: true });
  mkdirSync(work, { recursive: true });
  emit();
  const declarations = new Map();
  const todo = ["core/index.d.ts"];
  for (let file = todo.pop(); file; file = todo.pop()) {
    if (declarations.has(file)) continue;
    const text = file === "core/model/schema.d.ts" ? schemaTypes() : withoutPackages(readFileSync(join(work, "out", "src", file), "utf8"));
    declarations.set(file, text);
    for (const [, named] of text.matchAll(/(?:from |import\()"(\.[^"]+)\.ts"/g)) todo.push(`${normalize(join(dirname(file), named))}.d.ts`);
  }
  rmSync(folder, { recursive: true, force: true });
  for (const [file, text] of declarations) {
    const target = join(folder, file.slice("core/".length));
    mkdirSync(dirname(target), { recursive: true });
    writeFileSync(target, text.replace(/((?:from |import\()"\.[^"]+)\.ts"/g, '$1.js"'));
  }
}

/** Has the compiler declare the core, and a value of each type that the schema gives: a copy of a value is declared in full. */
function emit() {
  const schema = readFileSync(join(root, "src", "core", "model", "schema.ts"), "utf8");
  const names = [...schema.matchAll(/^export type (\w+) = z\.infer</gm)].map(([, name]) => name).filter((name) => name !== "Json");
  const source = [
    `import type { ${names.map((name) => `${name} as Of${name}`).join(", ")} } from "../../src/core/model/schema.ts";`,
    ...names.map((name) => `declare const of${name}: Of${name};\nexport const ${name} = ${name === "Way" ? `[of${name}]` : `{ ...of${name} }`};`),
  ].join("\n");
  writeFileSync(join(work, "written.ts"), `${source}\n`);
  const settings = {
    extends: "../../tsconfig.json",
    compilerOptions: { noEmit: false, declaration: true, emitDeclarationOnly: true, outDir: "out", rootDir: "../..", noErrorTruncation: true },
    include: [],
    files: ["../../src/core/index.ts", "written.ts", "../../node_modules/vite/client.d.ts"],
  };
  writeFileSync(join(work, "tsconfig.json"), JSON.stringify(settings));
  if (runTool("tsc", ["-p", join(work, "tsconfig.json")]) !== 0) throw new Error("The types of the library could not be declared.");
}

/** The types that are inferred from the schema, each written out. */
function schemaTypes() {
  const written = readFileSync(join(work, "out", "dist", "types", "written.d.ts"), "utf8");
  const types = [...written.matchAll(/^export declare const (\w+): ([\s\S]*?);\n(?=export |import |declare |$)/gm)].map(([, name, type]) =>
    name === "Way" ? `export type Way = (${type})[number];` : `export type ${name} = ${type};`,
  );
  const others = withoutPackages(readFileSync(join(work, "out", "src", "core", "model", "schema.d.ts"), "utf8"));
  const text = [others, ...types, "export type Json = JSONType;", JSON_TYPE].join("\n");
  return text.replaceAll('import("zod").JSONType', "JSONType");
}

/** Declarations without those that speak of the schema's library: how an edit is declared is no part of the public core. */
function withoutPackages(text) {
  const parts = [];
  for (const part of text.split(/\n(?=(?:\/\*\*|export |declare |type |interface |import ))/)) {
    // A comment belongs to what follows it.
    const above = /^\/\*\*[\s\S]*\*\/\s*$/.test(parts.at(-1) ?? "") ? `${parts.pop()}\n` : "";
    parts.push(above + part);
  }
  return `${parts.filter((part) => !/\bz\.|"zod"|EditKind\b|\bIssue\b/.test(part)).join("\n")}\n`;
}
