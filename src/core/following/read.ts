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

/**
 * Reads one line of a log: a JSON object in the form of an entry, or OTLP/JSON log records, of which those that are not about screens
 * are passed over. An empty line is no entry.
 */
export function readEntry(line: string): { entries: Entry[] } | { problem: string } {
  if (line.trim() === "") return { entries: [] };
  let data: unknown;
  try {
    data = JSON.parse(line);
  } catch {
    return { problem: `found ${JSON.stringify(line.slice(0, 60))}; expected one JSON object` };
  }
  if (isTelemetry(data)) return telemetryEntries(data);
  const parsed = EntrySchema.safeParse(data);
  if (parsed.success) return { entries: [parsed.data] };
  return { problem: parsed.error.issues.flatMap((issue) => problemsOf(issue, data).map(problemLine)).join("; ") };
}

/** Reads a whole log, and names each line that cannot be read. */
export function readLog(text: string): { log: Logged[]; problems: Array<{ row: number; problem: string }> } {
  const log: Logged[] = [];
  const problems: Array<{ row: number; problem: string }> = [];
  text.split("\n").forEach((line, i) => {
    const read = readEntry(line);
    if ("problem" in read) problems.push({ row: i + 1, problem: read.problem });
    else for (const entry of read.entries) log.push({ entry, row: i + 1 });
  });
  return { log, problems };
}
