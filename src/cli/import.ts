import { basename } from "node:path";
import { fromLog } from "../core/following/draft.ts";
import { fromAddresses } from "../core/handoff/in/addresses.ts";
import type { ImportResult } from "../core/handoff/in/imported.ts";
import { fromScxml } from "../core/handoff/in/scxml.ts";
import { fromSitemap } from "../core/handoff/in/sitemap.ts";
import { fromLines } from "../core/lines/build.ts";
import { SIZE_LIMIT } from "../core/model/read.ts";
import { writeProject } from "../core/model/write.ts";
import { readText, Unusable, writeOut } from "./files.ts";

/** Quick lines, as the other readers are asked. */
function fromQuickLines(text: string, name: string): ImportResult {
  const made = fromLines(text, name);
  if (made.ok) return { ok: true, project: made.project, lost: [] };
  return { ok: false, problems: made.problems.map(({ line, column, message }) => ({ line, message: `column ${column}: ${message}` })) };
}

const READERS = { scxml: fromScxml, addresses: fromAddresses, sitemap: fromSitemap, lines: fromQuickLines, log: fromLog };
export const IMPORTS = Object.keys(READERS);

/** `etape import`: makes a project document; what could not be kept is listed on standard error. */
export async function importCommand(file: string, options: { from: keyof typeof READERS; out: string }): Promise<number> {
  const text = await readText(file);
  if (text.length > SIZE_LIMIT) throw new Unusable(`${file}: ${text.length} characters; expected at most ${SIZE_LIMIT} (20 MiB)`);
  const made = READERS[options.from](text, file === "-" ? "Imported" : basename(file).replace(/\.[^.]*$/, ""));
  if (!made.ok) throw new Unusable(made.problems.map((p) => `${file}${p.line === undefined ? "" : `:${p.line}`}: ${p.message}\n`).join(""));
  await writeOut(options.out, writeProject(made.project));
  for (const what of made.lost) process.stderr.write(`${file}: not kept: ${what}\n`);
  return 0;
}
