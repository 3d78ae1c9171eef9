// npm run mutate: changes the code in one small place after another and runs the tests that should notice. Says how many of the changes
// they noticed, and names those they did not. Each change is given half a minute of tests, with --whole all that import what was changed.
//   npm run mutate -- --count 240 --seed 1 --only core/semantics
//   npm run mutate -- --again FILE --whole     those that an earlier run, whose output the file has, left unnoticed
// Texts are not changed: what they say is held by tests that read them, and most of them may say it otherwise.
import { execFileSync, spawn } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, dirname, join, normalize, relative } from "node:path";
import { parseAst } from "vite";
import { ensurePackages, root } from "./setup.mjs";

/** What is changed, and the folders of tests that should notice; of these, those that import what was changed are run. */
const PARTS = {
  "core/semantics": ["test/core/semantics", "test/core/plan", "test/core/insight", "test/core/check", "test/core/following", "test/core/handoff"],
  "core/check": ["test/core/check"],
  "core/model": ["model", "compare", "lines", "patterns", "insight", "data", "check", "pictures"].map((name) => `test/core/${name}`),
  "app/session": ["test/app", "test/server"],
};

/** Seconds of tests that are run together, those that notice soonest first; with --whole all the rest comes last. */
const BATCHES = process.argv.includes("--whole") ? [6, 30, Number.POSITIVE_INFINITY] : [6, 30];
/** Seconds that it takes to load a test. */
const LOADING = 0.4;

ensurePackages();
const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at === -1 ? otherwise : process.argv[at + 1];
};
const count = Number(option("count", 240));
const random = seeded(Number(option("seed", 1)));
const parts = Object.entries(PARTS).filter(([part]) => option("only", part) === part);

const again = option("again") && new Set([...readFileSync(option("again"), "utf8").matchAll(/SURVIVED (.*)$/gm)].map(([, says]) => says));
const tests = [...new Set(Object.values(PARTS).flat())].flatMap((folder) => filesBelow(join(root, folder)).filter((file) => /\.test\.tsx?$/.test(file)));
const imports = new Map([...new Set(tests)].map((test) => [test, reachedFrom([test])]));
const chosen = parts.flatMap(([part, folders]) => {
  const noticing = [...imports.keys()].filter((test) => folders.some((folder) => test.startsWith(`${join(root, folder)}/`)));
  // A file that no unit test imports is tested in the browser, which this does not run.
  const files = filesBelow(join(root, "src", part)).filter((file) => noticing.some((test) => imports.get(test).has(file)));
  const all = files.flatMap((file) => changesIn(file).map((change) => ({ ...change, tests: noticing.filter((test) => imports.get(test).has(file)) })));
  process.stdout.write(`${part}: ${all.length} places in ${files.length} files\n`);
  return again ? all.filter((change) => again.has(saysOf(change))) : shuffled(all).slice(0, Math.ceil(count / parts.length));
});

const queue = shuffled(chosen);
const copies = [copyOfAll(), copyOfAll()];
const seconds = await secondsOf([...new Set(chosen.flatMap((change) => change.tests))]);

const survived = [];
let done = 0;
await Promise.all(
  copies.map(async (copy) => {
    for (let change = queue.shift(); change; change = queue.shift()) {
      const noticed = await notices(copy, change);
      done += 1;
      const says = saysOf(change);
      if (!noticed) survived.push(says);
      process.stdout.write(`${done}/${chosen.length} ${noticed ? "noticed " : "SURVIVED"} ${says}\n`);
    }
  }),
);
process.stdout.write(
  `\n${chosen.length - survived.length} of ${chosen.length} changes were noticed (${((100 * (chosen.length - survived.length)) / chosen.length).toFixed(1)} %).\n`,
);
for (const one of survived.sort()) process.stdout.write(`survived: ${one}\n`);

/** A change, told in one line. */
function saysOf({ file, line, from, to }) {
  return `${file.slice(root.length + 1)}:${line} ${from.replace(/\s+/g, " ").slice(0, 70)} → ${to.slice(0, 40)}`;
}

/** Whether a test fails, or does not end, with a change in a copy. */
async function notices(copy, { file, start, end, to, tests }) {
  const there = join(copy, file.slice(root.length));
  const text = readFileSync(file, "utf8");
  writeFileSync(there, text.slice(0, start) + to + text.slice(end));
  try {
    for (const batch of batchesOf(tests, file)) if (!(await passes(copy, batch))) return true;
    return false;
  } finally {
    writeFileSync(there, text);
  }
}

/** The tests in batches: first those beside which a file's own tests stand, and of these the quick ones. */
function batchesOf(tests, file) {
  const own = dirname(file).replace(join(root, "src"), join(root, "test"));
  const named = (test) => own.split("/").includes(basename(test).split(".")[0]) || basename(test).split(".")[0] === basename(file, ".ts");
  const apart = (test) => (named(test) ? -30 : own.startsWith(dirname(test)) ? 0 : 20);
  const left = [...tests].sort((a, b) => apart(a) + seconds.get(a) - apart(b) - seconds.get(b));
  const batches = [];
  for (const most of BATCHES) {
    const batch = [];
    for (let sum = 0; left.length > 0 && (batch.length === 0 || sum + seconds.get(left[0]) + LOADING <= most); ) {
      sum += seconds.get(left[0]) + LOADING;
      batch.push(left.shift());
    }
    if (batch.length > 0) batches.push(batch);
  }
  return batches;
}

function passes(folder, tests) {
  const limit = Math.ceil(tests.reduce((sum, test) => sum + seconds.get(test), 0) * 4_000 + 30_000);
  return new Promise((resolve) => {
    const child = vitest(folder, ["--bail=1", "--maxWorkers=1", "--reporter=dot", `--testTimeout=${limit}`, ...tests.map((test) => relative(root, test))]);
    const late = setTimeout(() => process.kill(-child.pid, "SIGKILL"), limit);
    child.on("close", (code) => {
      clearTimeout(late);
      resolve(code === 0);
    });
  });
}

/** How long each test file takes with the code as it is, when all of them pass; they are run once for it. */
async function secondsOf(tests) {
  const report = join(copies[0], "seconds.json");
  const status = await new Promise((resolve) => {
    vitest(copies[0], ["--maxWorkers=2", "--reporter=json", `--outputFile=${report}`, ...tests.map((test) => relative(root, test))]).on("close", resolve);
  });
  if (status !== 0) throw new Error("Some test fails with the code as it is.");
  const results = JSON.parse(readFileSync(report, "utf8")).testResults;
  return new Map(
    results.map(({ name, assertionResults }) => [
      join(root, relative(copies[0], name)),
      assertionResults.reduce((sum, { duration }) => sum + (duration ?? 0), 0) / 1000,
    ]),
  );
}

function vitest(folder, args) {
  return spawn(join(folder, "node_modules/.bin/vitest"), ["run", "--no-isolate", "--experimental.fsModuleCache", ...args], {
    cwd: folder,
    stdio: "ignore",
    detached: true,
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
