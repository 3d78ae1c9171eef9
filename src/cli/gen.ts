import { mkdir } from "node:fs/promises";
import { join } from "node:path";
import { check } from "../core/check/check.ts";
import { meaningless } from "../core/check/meaningless.ts";
import { proofText } from "../core/check/proof.ts";
import { TARGETS, targetOf } from "../core/handoff/target.ts";
import { readDocument, Unusable, writeOut } from "./files.ts";

/** `etape gen`: writes a hand-off into a folder; 1 where blockers make it meaningless, named on standard error. */
export async function genCommand(file: string, options: { to: string; out: string }): Promise<number> {
  const { project } = await readDocument(file);
  const targets = options.to === "all" ? TARGETS : TARGETS.filter((target) => target === targetOf(options.to));
  const blockers = meaningless(project);
  if (blockers.length > 0) {
    process.stderr.write(blockers.map((f) => `${file}: ${f.code} ${f.subjects.join(" ")}: ${f.message}\n`).join(""));
    return 1;
  }
  await mkdir(options.out, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw new Unusable(`etape: ${options.out}: can not be made (${error.code ?? String(error)}); expected a folder`);
  });
  const { findings, proof } = check(project);
  for (const target of targets)
    for (const made of target.files(project, { findings, proof: proofText(proof) })) {
      await writeOut(join(options.out, made.name), made.text);
      process.stderr.write(`${join(options.out, made.name)}\n`);
    }
  return 0;
}
