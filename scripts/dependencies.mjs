// The packages that run wherever Etape does, with their licences: those that src/ imports, and what they need themselves.
// `npm run docs` writes docs/dependencies.md from it; `npm run licences` prints it, and fails where a licence is not known to be fine.
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));

/** What each package that we name ourselves is for. */
const FOR = {
  "@fontsource-variable/archivo": "the typeface of headings",
  "@fontsource-variable/hanken-grotesk": "the typeface of texts",
  "@fontsource-variable/jetbrains-mono": "the typeface of code",
  "@hono/node-server": "the server on Node",
  "@marcbachmann/cel-js": "expressions: parsing, types, values",
  "@tanstack/react-virtual": "long tables of rows",
  "chart.js": "the chart of a lens",
  cmdk: "the palette, and lists that are typed into",
  commander: "the command line",
  "d3-selection": "what d3-zoom needs",
  "d3-zoom": "zooming and panning the map",
  dexie: "what the browser keeps",
  "dexie-react-hooks": "the page follows what the browser keeps",
  "fake-indexeddb": "memory instead, where the browser keeps nothing",
  fflate: "zip files",
  "highlight.js": "the grammars of highlighted code",
  hono: "the server",
  lowlight: "highlighting what is handed off",
  "lucide-react": "icons",
  papaparse: "tables: pasted rows, CSV",
  "radix-ui": "dialogs, menus and tabs that work with every input",
  react: "the page",
  "react-dom": "the page",
  "react-router": "the page's addresses",
  saxes: "reading XML",
  swr: "what the page asks for once",
  tailwindcss: "the page's style sheet, at build time",
  tinykeys: "keys",
  "workbox-precaching": "working without the server",
  "workbox-routing": "working without the server",
  "workbox-window": "telling of a new version",
  zod: "reading what comes from outside",
  zustand: "the state of an open project",
};

/** Licences under which everything may be used, changed and given away, with a notice at most. */
const FINE = /^(MIT|ISC|0BSD|Apache-2\.0|BSD-[23]-Clause|OFL-1\.1|Unlicense|CC0-1\.0|BlueOak-1\.0\.0|\(MPL-2\.0 OR Apache-2\.0\)|\(MIT OR [^)]+\))$/;

/** Packages that src/ names. */
function named() {
  const found = new Set();
  for (const entry of readdirSync(join(root, "src"), { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !/\.(tsx?|css)$/.test(entry.name)) continue;
    const text = readFileSync(join(entry.parentPath, entry.name), "utf8");
    for (const [, name] of text.matchAll(/(?:from|import)\s*\(?\s*"((?:@[a-z0-9-]+\/)?[a-z][a-z0-9.-]*)[^"]*"/g)) found.add(name);
  }
  return [...found].filter((name) => !name.startsWith("node:") && name !== "node").sort();
}

/** What runs: name, version, licence, what it is for or who needs it, and whether its authors gave it up. */
export function dependencies() {
  const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8")).packages;
  const found = new Map();
  const add = (name, by, from) => {
    // As Node looks for it: beside who needs it first.
    const places = [
      ...from.split("/node_modules/").map((_, i, all) => `${all.slice(0, all.length - i).join("/node_modules/")}/node_modules/${name}`),
      `node_modules/${name}`,
    ];
    const path = places.find((place) => lock[place]) ?? `node_modules/${name}`;
    const known = found.get(path);
    if (known) {
      if (by) known.by.add(by);
      else known.own = true;
      return;
    }
    const entry = lock[path];
    if (!entry) throw new Error(`${name}, which ${by ?? "src"} needs, is not in package-lock.json`);
    const there = join(root, path, "package.json");
    const { license = entry.license, dependencies: needs = {} } = existsSync(there) ? JSON.parse(readFileSync(there, "utf8")) : entry;
    found.set(path, {
      path,
      name,
      version: entry.version,
      licence: String(license),
      by: new Set(by ? [by] : []),
      own: by === undefined,
      deprecated: entry.deprecated,
    });
    for (const need of Object.keys(needs)) add(need, name, path);
  };
  for (const name of named()) add(name, undefined, "");
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}

/** What is wrong with them, a sentence each. */
export function problems(all = dependencies()) {
  return all
    .flatMap(({ name, licence, own, deprecated }) => [
      ...(FINE.test(licence) ? [] : [`${name} has the licence ${licence}, which is not known to be fine`]),
      ...(deprecated ? [`${name} was given up: ${deprecated}`] : []),
      ...(own && !FOR[name] ? [`${name} is imported, and scripts/dependencies.mjs does not say what for`] : []),
    ])
    .concat(
      Object.keys(FOR)
        .filter((name) => !all.some((one) => one.own && one.name === name))
        .map((name) => `${name} is not imported any more`),
    );
}

export function dependenciesDoc() {
  const all = dependencies();
  const mine = all.filter(({ own }) => own);
  const theirs = all.filter(({ own }) => !own);
  const licences = [...new Set(all.map(({ licence }) => licence))].sort().map((one) => `${one} (${all.filter(({ licence }) => licence === one).length})`);
  return `# What runs with Etape

Made by \`npm run docs\` from package-lock.json and what \`src/\` imports; \`npm run licences\` fails where a licence is not one of these, where authors gave a package up, or where
nobody says what one is for. Everything is bundled: who installs Etape installs nothing else.

${all.length} packages: ${licences.join(", ")}.

| Package | Version | Licence | What for |
| --- | --- | --- | --- |
${mine.map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} | ${FOR[name] ?? ""} |`).join("\n")}

What these need themselves:

| Package | Version | Licence | Needed by |
| --- | --- | --- | --- |
${theirs.map(({ name, version, licence, by }) => `| ${name} | ${version} | ${licence} | ${[...by].slice(0, 3).join(", ")}${by.size > 3 ? ` and ${by.size - 3} more` : ""} |`).join("\n")}
`;
}

/** Their licences word for word, as these ask for it wherever copies go. */
export function licenceTexts() {
  const each = dependencies().map(({ path, name, version, licence }) => {
    const file = readdirSync(join(root, path)).find((one) => /^(licen[cs]e|copying)/i.test(one));
    return `${name} ${version} (${licence})\n\n${file ? readFileSync(join(root, path, file), "utf8").trim() : "Its package has no text of it."}\n`;
  });
  return `Etape has these packages in it. Each has its authors and its licence.\n\n${each.join(`\n${"-".repeat(80)}\n\n`)}`;
}

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  process.stdout.write(dependenciesDoc());
  const wrong = problems();
  for (const one of wrong) process.stderr.write(`${one}\n`);
  process.exit(wrong.length === 0 ? 0 : 1);
}
