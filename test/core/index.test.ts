import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import * as core from "../../src/core/index.ts";

const page = readFileSync("src/core/README.md", "utf8");
/** The examples of the front page, in order: each goes on where the one before it ended. */
const examples = [...page.matchAll(/```ts\n([\s\S]*?)```/g)].map((match) => match[1] ?? "");

/** What a line of an example says that its expression comes to. */
const CLAIM = /^(.*?);? \/\/ => (.*)$/gm;

it("the examples on the front page of the core come to what they say", () => {
  const code = examples
    .join("\n")
    .replace(CLAIM, (_, expression: string, value: string) => `claims.push([${JSON.stringify(expression)}, ${expression}, ${value}]);`);
  const claims: Array<[says: string, found: unknown, expected: unknown]> = [];
  new Function(...Object.keys(core), "claims", code)(...Object.values(core), claims);
  expect(claims.length).toBe([...examples.join("\n").matchAll(CLAIM)].length);
  expect(claims.length).toBeGreaterThan(10);
  for (const [says, found, expected] of claims) expect(found, says).toEqual(expected);
});

it("a target that there is not is refused with those that there are", () => {
  expect(() => core.generate(core.emptyProject("x"), "fortran")).toThrow(/no target "fortran"; expected one of .*typescript/);
});

it("the front page names everything that the core gives, and nothing else", () => {
  const exported = [...readFileSync("src/core/index.ts", "utf8").matchAll(/^export (?:type )?\{([^}]*)\}/gm)].flatMap(([, names = ""]) =>
    names.split(",").map((name) => name.replace(/\btype\b/, "").trim()),
  );
  const tables = page
    .split("## Where things are")[0]
    ?.match(/^\| `.*$/gm)
    ?.map((row) => row.split(" | "))
    .flatMap(([first, says = ""]) => [first ?? "", ...(says.match(/\(`[^)]*\)/g) ?? [])]);
  const named = new Set([...(tables ?? []).join("\n").matchAll(/`(\w+)(?:\([^`]*\))?`/g)].map(([, name]) => name));
  expect(exported.filter((name) => !named.has(name))).toEqual([]);
  expect([...named].filter((name) => !exported.includes(name ?? ""))).toEqual([]);
});
