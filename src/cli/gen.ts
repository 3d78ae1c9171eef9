import { mkdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { CheckResult } from "../core/check/finding.ts";
import { meaningless } from "../core/check/meaningless.ts";
import { proofText } from "../core/check/proof.ts";
import type { Checked } from "../core/handoff/handed.ts";
import { TARGETS, targetOf } from "../core/handoff/target.ts";
import { checked } from "./checked.ts";
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
  let result: CheckResult | undefined;
  const found = () => {
    result ??= checked(project);
    return result;
  };
  const given: Checked = {
    get findings() {
      return found().findings;
    },
    get proof() {
      return proofText(found().proof);
    },
    frame: targets.some(({ id }) => id === "prototype") ? await prototypeFrame() : "",
  };
  for (const target of targets)
    for (const made of target.files(project, given)) {
      await writeOut(join(options.out, made.name), made.text);
      process.stderr.write(`${join(options.out, made.name)}\n`);
    }
  return 0;
}

/** The page of a prototype, which is built before the command line is started. */
async function prototypeFrame(): Promise<string> {
  const file = process.env.ETAPE_PROTOTYPE ?? join("dist", "prototype", "prototype.html");
  return readFile(file, "utf8").catch(() => {
    throw new Unusable(`etape: ${file}: is not there; expected the page of a prototype, which bin/etape.mjs builds`);
  });
}
