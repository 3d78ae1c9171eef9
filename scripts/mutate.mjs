// npm run mutate: changes the code in one small place after another and runs the tests that should notice. Says how many of the changes
// they noticed, and names those they did not. Takes long: about 20 seconds a change on two cores.
//   npm run mutate -- --count 240 --seed 1 --only core/semantics
// Texts are not changed: what they say is held by tests that read them, and most of them may say it otherwise.
import { execFileSync, spawn } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, normalize } from "node:path";
import { parseAst } from "vite";
import { ensurePackages, root } from "./setup.mjs";

/** What is changed, and the tests that should notice, the quick ones first. */
const PARTS = {
  "core/semantics": [
    ["test/core/semantics", "test/core/plan"],
    ["test/core/check/codes.test.ts", "test/core/following", "test/core/handoff/typescript.test.ts", "test/core/check/oracle.test.ts"],
  ],
  "core/check": [
    ["codes", "evidence", "contexts", "fixes", "choices", "openEnds", "endless", "built"].map((name) => `test/core/check/${name}.test.ts`),
    ["oracle", "whole", "rules", "assembled", "endlessRandom", "demo", "fixAll", "scale"].map((name) => `test/core/check/${name}.test.ts`),
  ],
  "core/model": [
    ["test/core/model", "test/core/index.test.ts"],
    ["test/core/compare", "test/core/lines", "test/core/patterns", "test/core/insight", "test/core/data", "test/core/check/fixes.test.ts", "test/app"],
  ],
  "app/session": [["test/app"], ["test/server"]],
};

ensurePackages();
const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at === -1 ? otherwise : process.argv[at + 1];
};
const count = Number(option("count", 240));
const random = seeded(Number(option("seed", 1)));
const parts = Object.entries(PARTS).filter(([part]) => option("only", part) === part);

const reached = reachedFrom(filesBelow(join(root, "test/app")).concat(filesBelow(join(root, "test/server"))));
const chosen = parts.flatMap(([part, stages]) => {
  const files = filesBelow(join(root, "src", part)).filter((file) => part !== "app/session" || reached.has(file));
  const all = files.flatMap((file) => changesIn(file).map((change) => ({ ...change, part, stages })));
  process.stdout.write(`${part}: ${all.length} places in ${files.length} files\n`);
  return shuffled(all).slice(0, Math.ceil(count / parts.length));
});

const queue = shuffled(chosen);
const copies = [copyOfAll(), copyOfAll()];
const usual = new Map();
// With --trusting the tests are taken to pass as the code is, which saves some minutes.
for (const [part, stages] of process.argv.includes("--trusting") ? [] : parts)
  for (const tests of stages) {
    const began = Date.now();
    if ((await passes(copies[0], tests, 3_600_000)) !== "passed") throw new Error(`The tests of ${part} fail as the code is: ${tests.join(" ")}`);
    usual.set(tests, Date.now() - began);
    process.stdout.write(`${part}: ${tests.length} tests or folders take ${Math.round((Date.now() - began) / 1000)} s\n`);
  }

const survived = [];
let done = 0;
await Promise.all(
  copies.map(async (copy) => {
    for (let change = queue.shift(); change; change = queue.shift()) {
      const noticed = await notices(copy, change);
      done += 1;
      const says = `${change.file.slice(root.length + 1)}:${change.line} ${change.from.replace(/\s+/g, " ").slice(0, 70)} → ${change.to.slice(0, 40)}`;
      if (!noticed) survived.push(says);
      process.stdout.write(`${done}/${chosen.length} ${noticed ? "noticed " : "SURVIVED"} ${says}\n`);
    }
  }),
);
process.stdout.write(
  `\n${chosen.length - survived.length} of ${chosen.length} changes were noticed (${((100 * (chosen.length - survived.length)) / chosen.length).toFixed(1)} %).\n`,
);
for (const one of survived.sort()) process.stdout.write(`survived: ${one}\n`);

/** Whether a test fails, or does not end, with a change in a copy. */
async function notices(copy, { file, start, end, to, stages }) {
  const there = join(copy, file.slice(root.length));
  const text = readFileSync(file, "utf8");
  writeFileSync(there, text.slice(0, start) + to + text.slice(end));
  try {
    for (const tests of stages) if ((await passes(copy, tests, 3 * (usual.get(tests) ?? 30_000) + 20_000)) !== "passed") return true;
    return false;
  } finally {
    writeFileSync(there, text);
  }
}

function passes(folder, tests, limit) {
  return new Promise((resolve) => {
    const args = ["run", "--bail=1", "--maxWorkers=1", "--no-isolate", "--reporter=dot", `--testTimeout=${limit}`, ...tests];
    const child = spawn(join(folder, "node_modules/.bin/vitest"), args, {
      cwd: folder,
      stdio: "ignore",
      detached: true,
    });
    const late = setTimeout(() => process.kill(-child.pid, "SIGKILL"), limit);
    child.on("close", (code) => {
      clearTimeout(late);
      resolve(code === 0 ? "passed" : "failed");
    });
  });
}

/** A copy of all files of the repository, with its packages. */
function copyOfAll() {
  const folder = mkdtempSync(join(tmpdir(), "etape-mutate-"));
  for (const file of execFileSync("git", ["ls-files", "-z"], { cwd: root, encoding: "utf8" }).split("\0").filter(Boolean)) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    cpSync(join(root, file), join(folder, file));
  }
  symlinkSync(join(root, "node_modules"), join(folder, "node_modules"));
  return folder;
}

/** The small changes that can be made in a file: where, and what stands there instead. */
function changesIn(file) {
  const text = readFileSync(file, "utf8");
  const found = [];
  const change = (node, to) =>
    found.push({ file, start: node.start, end: node.end, from: text.slice(node.start, node.end), to, line: text.slice(0, node.start).split("\n").length });
  const source = (node) => text.slice(node.start, node.end);
  const operator = (node, to) => {
    const at = text.indexOf(node.operator, node.left.end);
    found.push({ file, start: at, end: at + node.operator.length, from: source(node), to, line: text.slice(0, at).split("\n").length });
  };
  const SWAPS = { "===": "!==", "!==": "===", "<": "<=", "<=": "<", ">": ">=", ">=": ">", "-": "+", "*": "/", "&&": "||", "||": "&&", "??": "&&" };
  const isText = (node) => node.type === "TemplateLiteral" || (node.type === "Literal" && typeof node.value === "string");
  visit(parseAst(text, { lang: file.endsWith("x") ? "tsx" : "ts" }), (node) => {
    switch (node.type) {
      case "BinaryExpression":
        if (SWAPS[node.operator]) operator(node, SWAPS[node.operator]);
        else if (node.operator === "+" && !isText(node.left) && !isText(node.right)) operator(node, "-");
        break;
      case "LogicalExpression":
        operator(node, SWAPS[node.operator]);
        break;
      case "UnaryExpression":
        if (node.operator === "!") change(node, source(node.argument));
        break;
      case "IfStatement":
      case "ConditionalExpression":
        change(node.test, "(true as boolean)");
        change(node.test, "(false as boolean)");
        break;
      case "Literal":
        if (typeof node.value === "boolean") change(node, String(!node.value));
        else if (typeof node.value === "number") change(node, String(node.value + 1));
        break;
      case "ExpressionStatement":
        if (node.expression.type === "CallExpression" || node.expression.type === "AssignmentExpression") change(node, ";");
        break;
      case "CallExpression": {
        const method = node.callee.type === "MemberExpression" && !node.callee.computed ? node.callee.property : undefined;
        if (method?.name === "some") change(method, "every");
        else if (method?.name === "every") change(method, "some");
        else if (method?.name === "filter" && node.arguments.length === 1)
          found.push({ file, start: method.start, end: node.end, from: source(node), to: "slice()", line: text.slice(0, method.start).split("\n").length });
        break;
      }
    }
  });
  return found;
}

/** Visits the nodes of a syntax tree that are run. */
function visit(node, see) {
  if (typeof node !== "object" || node === null) return;
  if (Array.isArray(node)) {
    for (const one of node) visit(one, see);
    return;
  }
  if (typeof node.type !== "string" || (/^TS/.test(node.type) && !/^TS(As|NonNull|Satisfies)/.test(node.type)) || node.type === "ImportDeclaration") return;
  see(node);
  for (const [key, held] of Object.entries(node)) if (key !== "typeAnnotation" && key !== "typeParameters") visit(held, see);
}

function filesBelow(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
}

/** All files that some files import, directly or not. */
function reachedFrom(files) {
  const all = new Set();
  const queue = [...files];
  for (let file = queue.pop(); file; file = queue.pop()) {
    if (all.has(file) || !existsSync(file)) continue;
    all.add(file);
    for (const [, path] of readFileSync(file, "utf8").matchAll(/(?:from|import)\s*\(?"(\.[^"?]+\.tsx?)"/g)) queue.push(normalize(join(dirname(file), path)));
  }
  return all;
}

/** Mulberry32: the same numbers between 0 and 1 for the same seed. */
function seeded(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

function shuffled(list) {
  const made = [...list];
  for (let i = made.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [made[i], made[j]] = [made[j], made[i]];
  }
  return made;
}
