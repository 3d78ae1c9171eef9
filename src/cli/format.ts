import { writeFile } from "node:fs/promises";
import { writeProject } from "../core/model/write.ts";
import { readDocument } from "./files.ts";

/** `etape format`: writes the canonical form in place (or to standard output), or says whether a file has it. */
export async function formatCommand(file: string, options: { check?: boolean }): Promise<number> {
  const { project, text } = await readDocument(file);
  const canonical = writeProject(project);
  if (options.check) {
    if (canonical === text) return 0;
    process.stderr.write(`${file}: not in canonical form; etape format ${file} writes it so\n`);
    return 1;
  }
  if (file === "-") process.stdout.write(canonical);
  else if (canonical !== text) await writeFile(file, canonical);
  return 0;
}
