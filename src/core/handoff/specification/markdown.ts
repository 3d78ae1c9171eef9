import type { Project } from "../../model/schema.ts";
import { asLine } from "../../text/line.ts";
import type { Checked } from "../handed.ts";
import { type Part, specification } from "./content.ts";

/** The specification in Markdown; the map is the file specification-map.svg beside it. */
export function specificationMarkdown(project: Project, checked: Checked): string {
  return `<!-- Made from the project document; do not edit. -->\n\n${specification(project, checked).map(written).join("\n\n")}\n`;
}

function written(part: Part): string {
  switch (part.kind) {
    case "heading":
      return `${part.id === undefined ? "" : `<a id="${part.id}"></a>\n\n`}${"#".repeat(part.level)} ${plain(part.text)}`;
    case "contents":
      return part.entries.map(({ level, text, id }) => `${"  ".repeat(level - 2)}- [${plain(text)}](#${id})`).join("\n");
    case "text":
      return plain(part.text);
    case "list":
      return part.items.map((item) => `- ${plain(item)}`).join("\n");
    case "table":
      return [part.head, part.head.map(() => "---"), ...part.rows].map((row) => `| ${row.map(cell).join(" | ")} |`).join("\n");
    case "picture":
      return `Picture: ${plain(part.file)}`;
    case "map":
      return "![Map](specification-map.svg)";
  }
}

/** Text in which nothing is read as Markdown or markup. */
function plain(text: string): string {
  return asLine(text).replace(/[\\`*_[\]<>#]/g, (c) => `\\${c}`);
}
const cell = (text: string) => plain(text).replaceAll("|", "\\|");
