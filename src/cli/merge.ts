import { mergeProjects } from "../core/compare/merge.ts";
import { readProject } from "../core/model/read.ts";
import type { Project } from "../core/model/schema.ts";
import { writeProject } from "../core/model/write.ts";
import { asLine } from "../core/text/line.ts";
import { readDocument, readText, writeOut } from "./files.ts";

/** `etape merge`: what two documents make that began as the same one; 0 merged, 1 where both changed something differently. */
export async function mergeCommand(base: string, ours: string, theirs: string, options: { out: string }): Promise<number> {
  const [{ project: our }, { project: their }] = [await readDocument(ours), await readDocument(theirs)];
  const { project, conflicts } = mergeProjects(await began(base, our), our, their);
  await writeOut(options.out, writeProject(project));
  for (const { where, field, says } of conflicts) process.stderr.write(`conflict: ${asLine(`${where}${field === "" ? "" : `, ${field}`}: ${says}`)}\n`);
  return conflicts.length > 0 ? 1 : 0;
}

/** The document that both began as. Where both sides added the file, there is none: everything is new then. */
async function began(file: string, ours: Project): Promise<Project> {
  const text = await readText(file);
  if (text.trim() !== "") return (await readDocument(file)).project;
  const nothing = readProject(JSON.stringify({ format: ours.format, name: ours.name, root: ours.root }));
  return nothing.ok ? nothing.project : { ...ours, facts: [], types: [], containers: [], screens: [], legs: [], entrances: [], walks: [] };
}
