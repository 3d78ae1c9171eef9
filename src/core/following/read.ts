import * as z from "zod";
import { problemLine, problemsOf } from "../model/read.ts";
import { EventSchema } from "../model/schema.ts";
import type { Entry, Logged } from "./entry.ts";
import { isTelemetry, telemetryEntries } from "./telemetry.ts";

const values = z.record(z.string(), z.json());
const EntrySchema = z
  .object({
    run: z.union([z.string(), z.number()]).transform(String).default(""),
    at: z.string().optional(),
    event: EventSchema.optional(),
    used: z.string().optional(),
    shows: z.string().optional(),
    args: values.optional(),
    line: z.string().optional(),
    facts: values.optional(),
    restored: z.boolean().optional(),
  })
  .refine(({ event, used, shows, line }) => (event ?? used ?? shows ?? line) !== undefined, {
    message: 'one of "event", "used", "shows" and "line"',
  });

/** Shapes of lines that are remembered, at most. */
const MOST_SHAPES = 2_000;

/**
 * Reads a log line by line. A line of the same shape as one that the schema took need not be held against it again: a log has few
 * shapes, and a million lines.
 */
export class LogReader {
  private readonly accepted = new Set<string>();

  /**
   * One line: a JSON object in the form of an entry, or OTLP/JSON log records, of which those that are not about screens are passed
   * over. An empty line is no entry.
   */
  read(line: string): { entries: Entry[] } | { problem: string } {
    if (line.trim() === "") return { entries: [] };
    let data: unknown;
    try {
      data = JSON.parse(line);
    } catch {
      return { problem: `found ${JSON.stringify(line.slice(0, 60))}; expected one JSON object` };
    }
    if (isTelemetry(data)) return telemetryEntries(data);
    const shape = shapeOf(data);
    if (shape !== undefined && this.accepted.has(shape)) return { entries: [data as Entry] };
    const parsed = EntrySchema.safeParse(data);
    if (!parsed.success) return { problem: parsed.error.issues.flatMap((issue) => problemsOf(issue, data).map(problemLine)).join("; ") };
    if (shape !== undefined && this.accepted.size < MOST_SHAPES) this.accepted.add(shape);
    return { entries: [parsed.data] };
  }
}

/** All that the schema goes by: which keys there are, of what kind their values are, and the words that an event may have. Undefined where it changes what it reads. */
function shapeOf(data: unknown): string | undefined {
  if (typeof data !== "object" || data === null || Array.isArray(data)) return undefined;
  const { run, event } = data as { run?: unknown; event?: unknown };
  if (typeof run !== "string") return undefined;
  const kinds = kindsOf(data);
  if (typeof event !== "object" || event === null || Array.isArray(event)) return kinds;
  const { do: kind, via, to } = event as Record<string, unknown>;
  return `${kinds} ${String(kind)} ${String(via)} ${kind === "width" ? String(to) : ""} ${kindsOf(event)}`;
}

function kindsOf(data: object): string {
  let out = "";
  for (const [key, value] of Object.entries(data)) out += `${key}:${Array.isArray(value) ? "list" : value === null ? "null" : typeof value},`;
  return out;
}

/** Reads a whole log, and names each line that cannot be read. */
export function readLog(text: string): { log: Logged[]; problems: Array<{ row: number; problem: string }> } {
  const log: Logged[] = [];
  const problems: Array<{ row: number; problem: string }> = [];
  const reader = new LogReader();
  text.split("\n").forEach((line, i) => {
    const read = reader.read(line);
    if ("problem" in read) problems.push({ row: i + 1, problem: read.problem });
    else for (const entry of read.entries) log.push({ entry, row: i + 1 });
  });
  return { log, problems };
}
