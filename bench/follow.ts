import { readFileSync } from "node:fs";
import { LogReader } from "../src/core/following/read.ts";
import { Tally } from "../src/core/following/tally.ts";
import { appOf } from "../src/core/insight/app.ts";
import { readProject } from "../src/core/model/read.ts";
import type { Project } from "../src/core/model/schema.ts";
import { planOf } from "../src/core/plan/planOf.ts";
import { stateLine } from "../src/core/semantics/line.ts";
import { currentScreen } from "../src/core/semantics/state.ts";
import { launch, step } from "../src/core/semantics/step.ts";
import { walkEvents } from "./engine.ts";

const LINES = 100_000;
/** Events after which another run begins. */
const RUN = 60;

/** The lines of an app that follows its design: all that generated code tells, and screens alone. */
function logs(project: Project): { full: string[]; screens: string[] } {
  const events = walkEvents(project, 6_000);
  const [full, screens]: [string[], string[]] = [[], []];
  let state = launch(appOf(project));
  for (let i = 0; i < LINES; i++) {
    const begins = i % RUN === 0;
    const event = begins ? ({ do: "launch" } as const) : (events[i % events.length] ?? { do: "back" });
    state = begins ? launch(appOf(project)) : step(appOf(project), state, event).state;
    const { at: shows, args } = currentScreen(state);
    const run = `r${Math.floor(i / RUN)}`;
    full.push(JSON.stringify({ run, event, shows, args, line: stateLine(planOf(project), state), ...(begins ? { facts: state.facts } : {}) }));
    screens.push(JSON.stringify({ run, shows }));
  }
  return { full, screens };
}

/** Seconds of CPU. */
function cpu(run: () => void): number {
  const began = process.cpuUsage();
  run();
  const { user, system } = process.cpuUsage(began);
  return (user + system) / 1e6;
}

/** How many lines of a log are followed in a second of CPU, and how that compares with merely parsing them as JSON. */
export function followBench() {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo can be read");
  const { full, screens } = logs(read.project);
  const measure = (name: string, lines: readonly string[]) => {
    const parse = cpu(() => {
      for (const line of lines) JSON.parse(line);
    });
    let departed = 0;
    const follow = cpu(() => {
      const tally = new Tally(read.project);
      const reader = new LogReader();
      lines.forEach((line, row) => {
        const entries = reader.read(line);
        if ("entries" in entries) for (const entry of entries.entries) tally.take({ entry, row });
      });
      departed = tally.report.departed;
    });
    console.log(
      `follow, ${name}: ${Math.round(lines.length / follow)} lines/s of CPU, ${(follow / parse).toFixed(1)} times JSON.parse (${lines.length} lines, ${departed} departures)`,
    );
  };
  measure("events, screens, arguments, lines", full);
  measure("screens alone", screens.slice(0, 3_000));
}
