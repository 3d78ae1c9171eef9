import type { Project } from "../../model/schema.ts";
import { writeProject } from "../../model/write.ts";
import { escaped } from "../../text/xml.ts";

/**
 * The walk with a project in it as one page that opens from disk. `frame` is the page built without
 * a project: it has the places {{title}} and {{project}} once each, in this order, the second within a script of data.
 */
export function prototypeHtml(project: Project, frame: string): string {
  const [before, ...rest] = frame.split("{{title}}");
  const [between, ...after] = rest.join("{{title}}").split("{{project}}");
  if (before === undefined || between === undefined || after.length === 0) throw new Error("prototypeHtml: the frame needs {{title}} and {{project}}");
  return `${before}${escaped(project.name)}${between}${data(project)}${after.join("{{project}}")}`;
}

/** The document as JSON that can not end the script around it, nor begin a comment in it. */
function data(project: Project): string {
  return JSON.stringify(JSON.parse(writeProject(project))).replaceAll("<", "\\u003c");
}
