import { toLines } from "../lines/tell.ts";
import { mapSvg } from "../map/svg.ts";
import { emptyProject } from "../model/edits/add.ts";
import type { Project } from "../model/schema.ts";
import type { Ask, Pattern } from "./pattern.ts";
import { putPattern } from "./put.ts";
import { PATTERNS } from "./table.ts";

/** The patterns as a Markdown list, and the picture of each: what it makes of an empty project. By file name, beside the page. */
export function patternsDoc(): { text: string; pictures: ReadonlyMap<string, string> } {
  const pictures = new Map<string, string>();
  const parts = PATTERNS.map((pattern) => {
    const { project } = example(pattern);
    const picture = `patterns/${pattern.id}.svg`;
    pictures.set(picture, mapSvg(project, { drawing: "rows" }));
    return [
      `### ${pattern.name}`,
      pattern.says,
      `Asks for: ${pattern.asks.map(asked).join("; ")}.`,
      `![${pattern.name}](${picture})`,
      `\`\`\`\n${toLines(project)}\`\`\``,
    ].join("\n\n");
  });
  return { text: `${parts.join("\n\n")}\n`, pictures };
}

/** What a pattern makes of an empty project. Throws where it cannot go there. */
export function example(pattern: Pattern): { before: Project; project: Project } {
  const before = emptyProject("App");
  const put = putPattern(before, pattern, before.root);
  if (!put.ok || pattern.where(before, before.root) === undefined) throw new Error(`patterns: “${pattern.name}” does not go into an empty project.`);
  return { before, project: put.project };
}

function asked({ label, usual }: Ask): string {
  return `${label.toLowerCase()} (*${usual}*)`;
}
