import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { check } from "../src/core/check/check.ts";
import { proofText } from "../src/core/check/proof.ts";
import { suggestedRules } from "../src/core/insight/rules/suggest.ts";
import { readProject } from "../src/core/model/read.ts";
import type { Container, Leg, Project } from "../src/core/model/schema.ts";
import { assembledApp } from "../test/random/assembled.ts";
import { randomRules } from "../test/random/rules.ts";
import { builtApp } from "./apps.ts";
import { bigProject } from "./big.ts";
import { randomLegs } from "./legs.ts";

function measured(project: Project): { ms: number; says: string } {
  const started = process.cpuUsage();
  const { proof, findings } = check(project);
  const used = process.cpuUsage(started);
  const memory = process.memoryUsage();
  const possible = findings.filter(({ certainty }) => certainty === "possible").length;
  return {
    ms: (used.user + used.system) / 1000,
    says: `${proof.states} states, ${Math.round(memory.rss / 2 ** 20)} MiB; ${possible} of ${findings.length} findings possible; ${proofText(proof)}`,
  };
}

/** Screens in chains six deep, one chain a tab: each leads to the next and back to the first. */
function chains(tabs: number): Project {
  const base = bigProject(0, tabs);
  const lanes = Array.from({ length: tabs }, (_, t) => Array.from({ length: 6 }, (_, i) => `t${t}s${i}`));
  const screens = lanes.flat().map((id) => ({
    id,
    name: id,
    params: [],
    up: "auto" as const,
    elements: [
      { id: "on", kind: "button" as const, label: "On" },
      { id: "home", kind: "button" as const, label: "Home" },
    ],
  }));
  const legs = lanes.flatMap((lane) =>
    lane.flatMap((from, i): Leg[] => [
      { id: `${from}on`, from, on: { kind: "tap", element: "on" }, move: i < 5 ? { kind: "push", to: lane[i + 1] ?? "" } : { kind: "back" } },
      { id: `${from}home`, from, on: { kind: "tap", element: "home" }, move: { kind: "return", to: lane[0] ?? "" } },
    ]),
  );
  const containers = base.containers
    .filter(({ kind, id }) => kind === "tabs" || /^tab\d$/.test(id))
    .map((c): Container => (c.kind === "stack" ? { ...c, start: `t${c.id.slice(3)}s0`, members: lanes[Number(c.id.slice(3))] ?? [] } : c));
  return { ...base, root: "tabs", facts: [], containers, screens, legs };
}

/** Checks that are measured, after as many to warm up. */
const AGAIN = 30;

/** Milliseconds that a check takes in a process that has checked often, the median. */
function warm(make: () => Project, times = AGAIN): number {
  const all = Array.from({ length: 2 * times }, () => {
    const project = make();
    const began = performance.now();
    check(project);
    return performance.now() - began;
  });
  return all.slice(times).sort((a, b) => a - b)[Math.floor(times / 2)] ?? 0;
}

/** Checks of large projects with rules that are measured. */
const RULED = 3;

/** Milliseconds that a check takes after another leg was given another move each time, the median. */
function afterEdits(first: Project): number {
  let project = first;
  const all = Array.from({ length: 2 * AGAIN }, (_, i) => {
    const at = (i * 37) % project.legs.length;
    project = { ...project, legs: project.legs.map((leg, n) => (n === at ? { ...leg, move: { kind: i % 2 === 0 ? "back" : "up" } } : leg)) };
    const began = performance.now();
    check(project);
    return performance.now() - began;
  });
  return all.slice(AGAIN).sort((a, b) => a - b)[AGAIN / 2] ?? 0;
}

/** Kinds of documents that are measured, and in which sizes. */
const MEASURED: Record<string, { make: (size: number) => Project; sizes: number[] }> = {
  "of five tabs, a drawer, modals and eight facts": { make: (size) => bigProject(size), sizes: [125, 250, 500, 1000] },
  "as people build them": { make: (size) => builtApp(size), sizes: [40, 100, 300, 1000, 5000] },
  "put together at random": { make: (size) => assembledApp(3, size), sizes: [40, 120, 300] },
  "of random legs": { make: (size) => randomLegs(size), sizes: [30, 60, 120] },
};

/** `once` is a program that checks a project of a kind and size in a process of its own. */
export function checkBench(once: string) {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  const demo = measured(read.project);
  process.stdout.write(`check: Hollowcomb ${demo.ms.toFixed(0)} ms CPU; ${demo.says}\n`);
  for (const [kind, { sizes }] of Object.entries(MEASURED)) {
    const costs = sizes.map((size) => {
      const runs = [1, 2, 3].map(() => JSON.parse(execFileSync(process.execPath, [once, kind, String(size)], { encoding: "utf8" })) as Once);
      const [best] = runs.sort((a, b) => a.ms - b.ms);
      if (!best) throw new Error("a check was measured");
      process.stdout.write(`check: ${size} screens ${kind}, the best of three: ${best.ms.toFixed(0)} ms CPU; ${best.says}\n`);
      return best.ms;
    });
    const exponent = Math.log((costs.at(-1) ?? 1) / (costs[0] ?? 1)) / Math.log((sizes.at(-1) ?? 1) / (sizes[0] ?? 1));
    process.stdout.write(`check: cost of documents ${kind} grows with size to the power of ${exponent.toFixed(2)} (aim at most 1)\n`);
  }
  const [two, eight] = [chains(2), chains(8)].map((project) => warm(() => structuredClone(project)) / project.screens.length);
  process.stdout.write(`check: a screen in eight tabs of six-deep stacks costs ${((eight ?? 0) / (two ?? 1)).toFixed(2)} times one in two tabs (aim 1)\n`);
  for (const [kind, make] of [
    ["as people build them", builtApp],
    ["of five tabs, a drawer, modals and eight facts", bigProject],
  ] as const) {
    const project = make(1000);
    for (const [which, rules] of [
      ["that the design suggests", suggestedRules({ ...project, rules: [] }).map(({ rule }, i) => ({ ...rule, id: `r${i}` }))],
      ["made at random", randomRules(project, 5, 10)],
    ] as const) {
      if (rules.length === 0) continue;
      const times = warm(() => ({ ...project, rules: [...rules] }), RULED) / warm(() => ({ ...project }), RULED);
      process.stdout.write(`check: ${rules.length} rules ${which} on 1,000 screens ${kind} cost ${times.toFixed(2)} times the check without (aim at most 2)\n`);
    }
  }
  const ruled = bigProject(200);
  process.stdout.write(
    `check: 200 screens with ten rules made at random, after the edit of a leg, warm: median ${afterEdits({ ...ruled, rules: randomRules(ruled, 5, 10) }).toFixed(0)} ms (aim under 150)\n`,
  );
  process.stdout.write(`check: 200 screens after the edit of a leg, warm: median ${afterEdits(bigProject(200)).toFixed(0)} ms (aim under 100)\n`);
}

/** What one check in a process of its own cost. */
type Once = ReturnType<typeof measured>;

/** Checks a project of a kind and size, and prints what it cost. */
export function checkOnce(kind: string, size: number) {
  const project = MEASURED[kind]?.make(size);
  if (!project) throw new Error(`there are no documents "${kind}" to measure; there are: ${Object.keys(MEASURED).join("; ")}`);
  process.stdout.write(JSON.stringify(measured(project)));
}
