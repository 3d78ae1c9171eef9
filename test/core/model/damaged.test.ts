import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { fromScxml } from "../../../src/core/handoff/in/scxml.ts";
import { fromSitemap } from "../../../src/core/handoff/in/sitemap.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { compile } from "../../../src/core/model/expression.ts";
import { readProject, SIZE_LIMIT } from "../../../src/core/model/read.ts";
import { decodeUtf8 } from "../../../src/core/model/utf8.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { pick, type Random, seeded } from "../../random/documents.ts";

const DEMOS = ["hollowcomb", "oddglove", "tidewatch"].map((name) => readFileSync(`demo/${name}.etape.json`, "utf8"));

type Node = Record<string, unknown> | unknown[];
/** All objects and lists in a value, with the keys that they have. */
function nodesOf(value: unknown, out: Node[] = []): Node[] {
  if (typeof value !== "object" || value === null) return out;
  out.push(value as Node);
  for (const inner of Object.values(value)) nodesOf(inner, out);
  return out;
}

const ODD: readonly unknown[] = [null, 7, -1, 1.5, true, "", "x", [], {}, [[]], "\u0000", "a".repeat(3_000), { kind: "jump" }, [null], 1e308];

/** Ways in which a document can be damaged; each gives text. */
const DAMAGE: Record<string, (random: Random, text: string) => string> = {
  truncated: (random, text) => text.slice(0, Math.floor(random() * text.length)),
  "with a piece missing": (random, text) => {
    const at = Math.floor(random() * text.length);
    return text.slice(0, at) + text.slice(at + 1 + Math.floor(random() * 40));
  },
  "with a value of another type": (random, text) =>
    changed(text, random, (node, key) => {
      (node as Record<string, unknown>)[key] = pick(random, ODD);
    }),
  "with a key renamed": (random, text) =>
    changed(text, random, (node, key) => {
      if (Array.isArray(node)) return;
      const name = pick(random, ["__proto__", "constructor", "toString", `${key}x`, key.toUpperCase(), "", "hasOwnProperty"]);
      Object.defineProperty(node, name, { value: node[key], enumerable: true, configurable: true, writable: true });
      delete node[key];
    }),
  "with an entry twice": (random, text) =>
    changed(text, random, (node) => {
      if (Array.isArray(node) && node.length > 0) node.push(pick(random, node));
    }),
  "with an id of something else": (random, text) => {
    const ids = [...text.matchAll(/"id": "(\w+)"/g)].map(([, id]) => id ?? "");
    return text.replaceAll(`"id": "${pick(random, ids)}"`, `"id": "${pick(random, ids)}"`);
  },
  "nested deep": (random, text) =>
    changed(text, random, (node, key) => {
      const deep = JSON.parse(`${"[".repeat(3_000)}${"]".repeat(3_000)}`);
      (node as Record<string, unknown>)[key] = deep;
    }),
  "with characters changed": (random, text) => {
    const at = Math.floor(random() * text.length);
    return `${text.slice(0, at)}${pick(random, ["{", "}", '"', "\\", "\u0000", "\ud800", ",", "1"])}${text.slice(at + 1)}`;
  },
};

function changed(text: string, random: Random, change: (node: Node, key: string) => void): string {
  const data = JSON.parse(text);
  const node = pick(random, nodesOf(data));
  const key = pick(random, Object.keys(node));
  if (key !== undefined) change(node, key);
  return JSON.stringify(data);
}

describe("damaged documents", () => {
  it("each gives errors that name where, or reads and is written again as it is: 1,200 of eight kinds of damage", () => {
    const refused: Record<string, number> = {};
    for (const [what, damage] of Object.entries(DAMAGE))
      for (let i = 0; i < 150; i++) {
        const text = damage(seeded(i * 31 + what.length), DEMOS[i % DEMOS.length] ?? "");
        const read = readProject(text);
        if (read.ok) {
          const again = readProject(writeProject(read.project));
          expect(again.ok && again.project, `${what} ${i}`).toEqual(read.project);
          continue;
        }
        refused[what] = (refused[what] ?? 0) + 1;
        expect(read.problems.length).toBeGreaterThan(0);
        for (const { path, found, expected } of read.problems) {
          expect(`${found}${expected}`.length, `${what} ${i}`).toBeGreaterThan(4);
          expect(found.length, `${what} ${i}: ${path}`).toBeLessThan(1_000);
        }
      }
    for (const what of Object.keys(DAMAGE)) expect(refused[what], what).toBeGreaterThan(20);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });

  it("in quick lines, a state chart or a sitemap, nested without end, are refused or read, and never fail", () => {
    const lines = fromLines(Array.from({ length: 3_000 }, (_, i) => `${" ".repeat(i)}S${i}`).join("\n"));
    expect(lines.ok ? [] : lines.problems).toEqual([{ line: 61, column: 61, message: "stands in 60 containers; at most 60 lie in one another" }]);
    expect(fromScxml(`<scxml>${"<state>".repeat(20_000)}${"</state>".repeat(20_000)}</scxml>`, "x").ok).toBeTypeOf("boolean");
    expect(fromSitemap(`<urlset>${"<url>".repeat(50_000)}`, "x").ok).toBe(false);
  });

  it("hold no expression that fails or hangs: deep in parentheses, negations, sums, choices, members and lists", () => {
    const scope = { names: { fact: { fields: { f: "boolean" as const } } }, records: {} };
    const deep = {
      parentheses: `${"(".repeat(999)}true${")".repeat(999)}`,
      negations: `${"!".repeat(1_990)}true`,
      sums: `1${"+1".repeat(990)}==1`,
      conditionals: `${"true?".repeat(390)}1${":1".repeat(390)}`,
      members: `a${".b".repeat(990)}`,
      lists: `${"[".repeat(990)}${"]".repeat(990)}`,
    };
    for (const [what, source] of Object.entries(deep)) expect(compile(source, scope).ok, what).toBeTypeOf("boolean");
  });

  it("are refused by size before anything is parsed, and as bytes where they are no UTF-8", () => {
    const huge = readProject(" ".repeat(SIZE_LIMIT + 1));
    expect(huge.ok ? [] : huge.problems).toEqual([{ path: "", found: `a file of ${SIZE_LIMIT + 1} characters`, expected: `at most ${SIZE_LIMIT} (20 MiB)` }]);
    for (const encoding of ["utf16le", "latin1"] as const) {
      const bytes = Buffer.from(`{"name": "Bücher"}`, encoding);
      const decoded = decodeUtf8(encoding === "utf16le" ? Buffer.concat([Buffer.from([0xff, 0xfe]), bytes]) : bytes);
      expect(decoded.ok, encoding).toBe(false);
    }
  });
});
