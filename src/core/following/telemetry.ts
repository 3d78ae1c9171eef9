import * as z from "zod";
import { problemLine, problemsOf } from "../model/read.ts";
import type { Json } from "../model/schema.ts";
import type { Entry } from "./entry.ts";

/**
 * Log records of the OpenTelemetry protocol in JSON (OTLP 1.x, opentelemetry.io/docs/specs/otlp; attributes after its semantic
 * conventions for apps). Numbers of 64 bits may come as text.
 */
interface AnyValue {
  stringValue?: string | undefined;
  boolValue?: boolean | undefined;
  intValue?: string | number | undefined;
  doubleValue?: number | undefined;
  arrayValue?: { values?: AnyValue[] | undefined } | undefined;
  kvlistValue?: { values?: Attribute[] | undefined } | undefined;
}
interface Attribute {
  key: string;
  value?: AnyValue | undefined;
}

const AnyValueSchema: z.ZodType<AnyValue> = z.lazy(() =>
  z.object({
    stringValue: z.string().optional(),
    boolValue: z.boolean().optional(),
    intValue: z.union([z.string(), z.number()]).optional(),
    doubleValue: z.number().optional(),
    arrayValue: z.object({ values: z.array(AnyValueSchema).optional() }).optional(),
    kvlistValue: z.object({ values: z.array(AttributeSchema).optional() }).optional(),
  }),
);
const AttributeSchema: z.ZodType<Attribute> = z.lazy(() => z.object({ key: z.string(), value: AnyValueSchema.optional() }));
const attributes = z.array(AttributeSchema).optional();
const LogsSchema = z.object({
  resourceLogs: z.array(
    z.object({
      resource: z.object({ attributes }).optional(),
      scopeLogs: z
        .array(
          z.object({
            logRecords: z
              .array(
                z.object({
                  timeUnixNano: z.union([z.string(), z.number()]).optional(),
                  observedTimeUnixNano: z.union([z.string(), z.number()]).optional(),
                  attributes,
                }),
              )
              .optional(),
          }),
        )
        .optional(),
    }),
  ),
});

/** Whether a JSON value is a request or a line of OTLP/JSON logs. */
export function isTelemetry(data: unknown): boolean {
  return typeof data === "object" && data !== null && "resourceLogs" in data;
}

/** The entries in OTLP/JSON logs: records that name a control that was used, and records that name the screen that shows. */
export function telemetryEntries(data: unknown): { entries: Entry[] } | { problem: string } {
  const parsed = LogsSchema.safeParse(data);
  if (!parsed.success) return { problem: parsed.error.issues.flatMap((issue) => problemsOf(issue, data).map(problemLine)).join("; ") };
  const entries = parsed.data.resourceLogs.flatMap(({ resource, scopeLogs }) =>
    (scopeLogs ?? []).flatMap(({ logRecords }) =>
      (logRecords ?? []).flatMap((record) => {
        const found = { ...valuesOf(resource?.attributes), ...valuesOf(record.attributes) };
        return entryOf(found, timeOf(record.timeUnixNano ?? record.observedTimeUnixNano));
      }),
    ),
  );
  return { entries };
}

function entryOf(found: Record<string, Json>, at: string | undefined): Entry[] {
  const text = (...names: string[]) => names.map((name) => found[name]).find((value) => typeof value === "string" && value !== "") as string | undefined;
  const used = text("app.widget.id", "app.widget.name");
  const shows = text("app.screen.id", "app.screen.name");
  const run = text("session.id", "service.instance.id") ?? "";
  const common = { run, ...(at === undefined ? {} : { at }) };
  if (used !== undefined) return [{ ...common, used }];
  return shows === undefined ? [] : [{ ...common, shows }];
}

function valuesOf(list: readonly Attribute[] | undefined): Record<string, Json> {
  return Object.fromEntries((list ?? []).map(({ key, value }) => [key, jsonOf(value)]));
}

function jsonOf(value: AnyValue | undefined): Json {
  if (!value) return null;
  if (value.arrayValue) return (value.arrayValue.values ?? []).map(jsonOf);
  if (value.kvlistValue) return valuesOf(value.kvlistValue.values);
  if (value.intValue !== undefined) return Number(value.intValue);
  return value.stringValue ?? value.boolValue ?? value.doubleValue ?? null;
}

/** Nanoseconds since 1970 as ISO 8601; undefined where there is none, or none that a date can hold. */
function timeOf(nanoseconds: string | number | undefined): string | undefined {
  const ms = nanoseconds === undefined ? Number.NaN : Number(nanoseconds) / 1e6;
  return ms > 0 && ms < 8.64e15 ? new Date(ms).toISOString() : undefined;
}
