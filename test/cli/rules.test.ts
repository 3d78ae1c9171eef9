import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import { main } from "../../src/cli/main.ts";
import { fromLines } from "../../src/core/lines/build.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { printing } from "./printing.ts";

const made = fromLines(`app Shop
fact member
Shop
  Goods (hub): Cart > Form, Join > nothing (set member = true)
  Form: Send > Sent
  Sent: Shop on > Goods (reset)
rule No form again (warning): never Form after Sent until "Cart" on Goods
rule Form first: first Form before Sent
rule Guests: only Goods, Form, Sent while !fact.member
rule Near: reach Goods within 2 taps
`);
if (!made.ok) throw new Error(JSON.stringify(made.problems));
const printed = printing();
let file: string;
beforeEach(() => {
  file = join(mkdtempSync(join(tmpdir(), "etape-rules-")), "shop.etape.json");
  writeFileSync(file, writeProject(made.project));
});
const run = async (...args: string[]) => {
  printed.out = "";
  const status = await main(args);
  return { status, out: printed.out };
};

it("how many taps are too far is said on the command line; what is no number of taps is refused", async () => {
  const far = async (...args: string[]) => {
    const { findings } = JSON.parse((await run("check", file, "--format", "json", ...args)).out) as { findings: Array<{ code: string; subjects: string[] }> };
    return findings.flatMap(({ code, subjects }) => (code === "far" ? subjects : []));
  };
  expect(await far()).toEqual([]);
  expect(await far("--far", "1")).toEqual(["sent"]);
  for (const typed of ["none", "0", "-1", "2.5"]) expect((await run("check", file, `--far=${typed}`)).status).toBe(2);
});

describe("rules on the command line", () => {
  it("as text: how each stands, and the walk that breaks one; the status goes by the severity of the rule", async () => {
    const { status, out } = await run("check", file);
    expect(status).toBe(0);
    expect(out).toContain("warning broken-rule noFormAgain form");
    expect(out).toContain('The rule "No form again" is broken: "Form" shows after "Sent".');
    expect(out).toContain("Walk: launch > tap Cart > tap Send > Back");
    expect(out).toContain('rule formFirst proved: Nobody sees "Sent" before "Form".');
    expect(out).toContain("3 of 4 rules hold");
    expect((await run("check", file, "--fail-on", "warning")).status).toBe(1);
  });

  it("as JSON, SARIF and JUnit: a standing, a result at the rule's line with the walk, a test case a rule", async () => {
    const json = JSON.parse((await run("check", file, "--format", "json")).out);
    expect(json.proof.rules.map(({ rule, standing }: { rule: string; standing: string }) => [rule, standing])).toEqual([
      ["noFormAgain", "broken"],
      ["formFirst", "proved"],
      ["guests", "proved"],
      ["near", "proved"],
    ]);
    const sarif = JSON.parse((await run("check", file, "--format", "sarif")).out);
    const [result] = sarif.runs[0].results.filter(({ ruleId }: { ruleId: string }) => ruleId === "broken-rule");
    const line = readFileSync(file, "utf8")
      .split("\n")
      .findIndex((text) => text.includes('"id": "noFormAgain"'));
    expect(result.locations[0].physicalLocation.region.startLine).toBe(line);
    expect(result.codeFlows[0].threadFlows[0].locations).toHaveLength(4);
    const junit = (await run("check", file, "--format", "junit")).out;
    expect(junit).toContain('<testcase classname="broken-rule" name="broken-rule noFormAgain form"');
    expect(junit.match(/<testcase classname="rule"/g)).toHaveLength(3);
    expect(junit).toContain('failures="1"');
  });

  it("a log that breaks a rule is told, with its line; one that does not follows", async () => {
    const entries = (shows: string[]) =>
      `${[{ run: "a", event: { do: "launch" } }, ...shows.map((screen) => ({ run: "a", shows: screen }))].map((one) => JSON.stringify(one)).join("\n")}\n`;
    const log = join(file, "..", "log.jsonl");
    writeFileSync(log, entries(["goods", "form", "sent", "form"]));
    const { status, out } = await run("follow", file, "--log", log);
    expect(status).toBe(1);
    expect(out).toMatch(/log\.jsonl:5: run a: the rule “No form again” is broken: After "Sent", nobody sees "Form" until "Cart" on "Goods"\./);
    expect(out).toContain("the app follows the design");
    expect(JSON.parse((await run("follow", file, "--log", log, "--format", "json")).out).rules).toMatchObject([
      { rule: "noFormAgain", row: 5, count: 1, unsure: false },
    ]);
    expect((await run("follow", file, "--log", log, "--format", "junit")).out).toMatch(/<testcase classname="rule" name="No form again" time="0"><failure/);
    writeFileSync(log, entries(["goods", "form", "sent", "goods", "form"]));
    const good = await run("follow", file, "--log", log);
    expect([good.status, good.out.includes("the rule")]).toEqual([0, false]);
  });

  it("the specification tells each rule with how it stands", async () => {
    const out = join(file, "..", "spec");
    expect((await run("gen", file, "--to", "spec", "--out", out)).status).toBe(0);
    const text = readFileSync(join(out, "specification.md"), "utf8");
    expect(text).toContain("## Rules");
    expect(text).toMatch(/\| Form first \| Nobody sees "Sent" before "Form"\. \| Proved for any depth of stack\. \|/);
    expect(text).toMatch(/\| No form again \| .* \| The rule "No form again" is broken/);
  });
});
