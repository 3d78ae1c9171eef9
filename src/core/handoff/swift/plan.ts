import type { Project } from "../../model/schema.ts";
import { planData } from "../../plan/planOf.ts";
import { planLines } from "../code/planLines.ts";

/** The plan of a project as JSON that the runtime reads. */
export function swiftPlan(project: Project): string[] {
  const [first = "{", ...rest] = planLines(project);
  // JSON objects have no order in Swift, and which leg comes first is asked of them.
  const ways = Object.keys(planData(project).entrances);
  const order = `{"order":${JSON.stringify(project.legs.map((leg) => leg.id))},"ways":${JSON.stringify(ways)},${first.slice(1)}`;
  return ["/// The design as data.", "public static let plan = Part(json: [", ...[order, ...rest].map((line) => `    ${text(line)},`), "])"];
}

/** Text as Swift: a backslash before a bracket begins nothing, for it is doubled. */
export function text(given: string): string {
  return JSON.stringify(given).replace(/\\(?:u([0-9a-f]{4})|([bf]))/g, (_, code: string | undefined, short: string | undefined) =>
    code !== undefined ? `\\u{${code}}` : short === "b" ? "\\u{8}" : "\\u{c}",
  );
}
