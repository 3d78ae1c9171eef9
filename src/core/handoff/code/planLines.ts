import type { Project } from "../../model/schema.ts";
import { planData } from "../../plan/planOf.ts";

/** Characters of one text at most: languages take no endless constants. */
const A_TEXT = 16_000;

/** The plan of a project as JSON, cut into texts that are read one after another: one line a place, a leg, a way in, a fact. */
export function planLines(project: Project): string[] {
  const { launch, ...tables } = planData(project);
  const lines = [`{"launch":${JSON.stringify(launch)}`];
  for (const [name, table] of Object.entries(tables)) {
    lines.push(`,"${name}":{`);
    const entries = Object.entries(table as Record<string, unknown>);
    entries.forEach(([id, entry], i) => {
      lines.push(...pieces(`"${id}":${JSON.stringify(entry)}${i < entries.length - 1 ? "," : ""}`));
    });
    lines.push("}");
  }
  return [...lines, "}"];
}

function pieces(text: string): string[] {
  const out: string[] = [];
  for (let at = 0; at < text.length; at += A_TEXT) out.push(text.slice(at, at + A_TEXT));
  return out;
}
