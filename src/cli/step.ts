import { appOf } from "../core/insight/app.ts";
import { explain } from "../core/insight/explain.ts";
import { problemLine, problemsOf } from "../core/model/read.ts";
import { EventSchema, type NavEvent, type Project } from "../core/model/schema.ts";
import { planOf } from "../core/plan/planOf.ts";
import { stateLine } from "../core/semantics/line.ts";
import { currentScreen } from "../core/semantics/state.ts";
import { launch, step } from "../core/semantics/step.ts";
import type { State } from "../core/semantics/types.ts";
import { readDesign, readText, Unusable } from "./files.ts";

/** `etape step`: replays events from launch and tells what each does. */
export async function stepCommand(file: string, options: { events: string; format: "json" | "lines" }): Promise<number> {
  if (file === "-" && options.events === "-") throw new Unusable("etape step: FILE and --events can not both be standard input");
  const { project } = await readDesign(file);
  const events = readEvents(options.events, await readText(options.events));
  let state = launch(appOf(project));
  const first = shown(project, state);
  const steps = events.map((event) => {
    const before = state;
    const result = step(appOf(project), state, event);
    state = result.state;
    const why = "why" in result ? { why: result.why } : {};
    return { event, outcome: result.outcome, ...why, ...shown(project, state), sentence: explain(project, before, event, result) };
  });
  if (options.format === "json") process.stdout.write(`${JSON.stringify({ launch: first, steps: steps.map(({ sentence: _, ...rest }) => rest) }, null, 2)}\n`);
  else for (const one of steps) process.stdout.write(`${one.outcome}${"why" in one ? ` (${String(one.why)}: ${one.sentence})` : ""} ${one.line}\n`);
  return 0;
}

function shown(project: Project, state: State) {
  const screen = currentScreen(state);
  return { line: stateLine(planOf(project), state), screen: screen.at, args: screen.args };
}

/** Events from a JSON list, an object with a list "events", or one JSON object a line. All errors are named. */
export function readEvents(file: string, text: string): NavEvent[] {
  const list = parseEvents(file, text);
  const problems: string[] = [];
  const events = list.flatMap((data, i) => {
    const parsed = EventSchema.safeParse(data);
    if (parsed.success) return [parsed.data];
    for (const issue of parsed.error.issues)
      for (const problem of problemsOf(issue, data))
        problems.push(`${file}: ${problemLine({ ...problem, path: `[${i}]${problem.path === "" ? "" : `.${problem.path}`}` })}\n`);
    return [];
  });
  if (problems.length > 0) throw new Unusable(problems.join(""));
  return events;
}

function parseEvents(file: string, text: string): unknown[] {
  const expected = 'expected a JSON list of events, an object with a list "events", or one JSON object a line';
  const whole = tryParse(text);
  if (Array.isArray(whole)) return whole;
  if (typeof whole === "object" && whole !== null && "events" in whole && Array.isArray(whole.events)) return whole.events;
  const lines = text.split("\n").filter((line) => line.trim() !== "");
  const parsed = lines.map(tryParse);
  const bad = parsed.findIndex((value) => typeof value !== "object" || value === null);
  if (bad < 0) return parsed;
  throw new Unusable(`${file}: line ${bad + 1}: found ${JSON.stringify((lines[bad] ?? "").slice(0, 60))}; ${expected}`);
}

function tryParse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
