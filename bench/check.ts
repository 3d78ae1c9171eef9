import { readFileSync } from "node:fs";
import { check } from "../src/core/check/check.ts";
import { proofText } from "../src/core/check/proof.ts";
import { readProject } from "../src/core/model/read.ts";
import type { Project } from "../src/core/model/schema.ts";
import { bigProject } from "./big.ts";

function measured(project: Project): { ms: number; says: string } {
  const started = process.cpuUsage();
  const { proof } = check(project);
  const used = process.cpuUsage(started);
  return { ms: (used.user + used.system) / 1000, says: `${proof.states} states; ${proofText(proof)}` };
}

export function checkBench() {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  const demo = measured(read.project);
  process.stdout.write(`check: Hollowcomb ${demo.ms.toFixed(0)} ms CPU; ${demo.says}\n`);
  const sizes = [125, 250, 500, 1000];
  const costs = sizes.map((size) => {
    const one = measured(bigProject(size));
    process.stdout.write(`check: ${size} screens ${one.ms.toFixed(0)} ms CPU; ${one.says}\n`);
    return one.ms;
  });
  const exponent = Math.log((costs.at(-1) ?? 1) / (costs[0] ?? 1)) / Math.log(8);
  process.stdout.write(`check: cost grows with size to the power of ${exponent.toFixed(2)} (aim at most 1)\n`);
}
