import { mkdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import type { CheckResult } from "../core/check/finding.ts";
import { meaningless } from "../core/check/handOffBlockers.ts";
import { proofText } from "../core/check/proof.ts";
import { standings } from "../core/check/standingText.ts";
import type { Checked, HandedFile } from "../core/handoff/handed.ts";
import { TARGETS, targetOf } from "../core/handoff/target.ts";
import { checked } from "./checked.ts";
import { readDesign, Unusable, writeOut } from "./files.ts";
import { addressesOf, picturesBeside } from "./pictures.ts";

interface GenOptions {
  to: string;
  out: string;
  /** Says whether what lies there is of this design, and writes nothing. */
  check?: boolean;
  /** Adds the file for React apps to TypeScript. */
  react?: boolean;
  /** The package of Kotlin, or the namespace of Swift. */
  package?: string;
}

/**
 * `etape gen`: writes a hand-off into a folder; 1 where blockers make it meaningless, named on standard error. With `check` it writes
 * nothing, names the files that are not what it would write, and is 1 if there is one.
 */
export async function genCommand(file: string, options: GenOptions): Promise<number> {
  const { project } = await readDesign(file);
  const targets = options.to === "all" ? TARGETS : TARGETS.filter((target) => target === targetOf(options.to));
  const blockers = meaningless(project);
  if (blockers.length > 0) {
    process.stderr.write(blockers.map((f) => `${file}: ${f.code} ${f.subjects.join(" ")}: ${f.message}\n`).join(""));
    return 1;
  }
  if (options.react && !targets.some(({ id }) => id === "typescript"))
    throw new Unusable(`etape: --react adds a file to the target typescript, and "${options.to}" is another; expected --to typescript`);
  if (options.package !== undefined && !/^[A-Za-z_]\w*(\.[A-Za-z_]\w*)*$/.test(options.package))
    throw new Unusable(`etape: --package "${options.package}" is no name of a package; expected one such as park.bandstand`);
  if (!options.check)
    await mkdir(options.out, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
      throw new Unusable(`etape: ${options.out}: can not be made (${error.code ?? String(error)}); expected a folder`);
    });
  let result: CheckResult | undefined;
  const found = () => {
    result ??= checked(project);
    return result;
  };
  const pictures = addressesOf((await picturesBeside(file, project)) ?? new Map());
  const given: Checked = {
    pictures,
    get findings() {
      return found().findings;
    },
    get proof() {
      return proofText(found().proof);
    },
    get rules() {
      return standings(found().proof);
    },
    ...(options.react ? { react: true } : {}),
    ...(options.package === undefined ? {} : { packageName: options.package }),
    frame: targets.some(({ id }) => id === "prototype") ? await prototypeFrame() : "",
  };
  const files = targets.flatMap((target) => target.files(project, given));
  if (options.check) return others(files, options.out);
  for (const made of files) {
    await writeOut(join(options.out, made.name), made.text);
    const many = made.name === "prototype.html" ? Object.keys(pictures).length : 0;
    const size = many > 0 ? ` (${(made.text.length / 1e6).toFixed(1)} MB with ${many} pictures as they are; smaller pictures make it smaller)` : "";
    process.stderr.write(`${join(options.out, made.name)}${size}\n`);
  }
  return 0;
}

/** 1 if some files are not what lies in a folder, and names them. */
async function others(files: readonly HandedFile[], folder: string): Promise<number> {
  let status = 0;
  for (const { name, text } of files) {
    const path = join(folder, name);
    const found = await readFile(path, "utf8").catch(() => undefined);
    if (found === text) continue;
    status = 1;
    process.stdout.write(`${path}: ${found === undefined ? "is not there" : "is of another design, or was changed by hand"}; run etape gen again\n`);
  }
  return status;
}

/** The page of a prototype, which is built before the command line is started. */
async function prototypeFrame(): Promise<string> {
  const file = process.env.ETAPE_PROTOTYPE ?? join("dist", "prototype", "prototype.html");
  return readFile(file, "utf8").catch(() => {
    throw new Unusable(`etape: ${file}: is not there; expected the page of a prototype, which bin/etape.mjs builds`);
  });
}
