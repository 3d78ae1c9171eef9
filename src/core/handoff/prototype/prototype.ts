import { pictureFiles } from "../../model/pictures.ts";
import type { Project } from "../../model/schema.ts";
import { writeProject } from "../../model/write.ts";
import { escaped } from "../../text/xml.ts";

/**
 * The walk with a project in it as one page that opens from disk. `frame` is the page built without
 * a project: it has the places {{title}} and {{project}} once each, in this order, the second within a script of data. `pictures` are data
 * addresses by the files of pictures; they come in a script of data after that of the project.
 */
export function prototypeHtml(project: Project, frame: string, pictures: Readonly<Record<string, string>> = {}): string {
  const [before, ...rest] = frame.split("{{title}}");
  const [between, ...after] = rest.join("{{title}}").split("{{project}}");
  if (before === undefined || between === undefined || after.length === 0) throw new Error("prototypeHtml: the frame needs {{title}} and {{project}}");
  return `${before}${escaped(project.name)}${between}${data(project)}${picturesOf(project, pictures)}${after.join("{{project}}")}`;
}

/** The pictures that the project names, where there are any. */
function picturesOf(project: Project, pictures: Readonly<Record<string, string>>): string {
  const named = pictureFiles(project).flatMap((file) => {
    const address = Object.hasOwn(pictures, file) ? pictures[file] : undefined;
    return address === undefined ? [] : [[file, address] as const];
  });
  if (named.length === 0) return "";
  return `</script>\n<script type="application/json" id="pictures">${JSON.stringify(Object.fromEntries(named)).replaceAll("<", "\\u003c")}`;
}

/** The document as JSON that can not end the script around it, nor begin a comment in it. */
function data(project: Project): string {
  return JSON.stringify(JSON.parse(writeProject(project))).replaceAll("<", "\\u003c");
}
