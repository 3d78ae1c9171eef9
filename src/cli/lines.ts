import { lostInLines, toLines } from "../core/lines/tell.ts";
import { readDesign, writeOut } from "./files.ts";

/** `etape lines`: the project as quick lines; what they cannot tell is listed on standard error. */
export async function linesCommand(file: string, options: { out: string }): Promise<number> {
  const { project } = await readDesign(file);
  await writeOut(options.out, toLines(project));
  for (const what of lostInLines(project)) process.stderr.write(`${file}: not told: ${what}\n`);
  return 0;
}
