import { readFileSync } from "node:fs";
import { appOf } from "../src/core/insight/app.ts";
import { available } from "../src/core/insight/available.ts";
import { readProject } from "../src/core/model/read.ts";
import type { NavEvent, Project } from "../src/core/model/schema.ts";
import { planOf } from "../src/core/plan/planOf.ts";
import { launch, step } from "../src/core/semantics/step.ts";
import { bigProject } from "./big.ts";

/** Events of a random walk that goes wherever it can, so that what is measured is not being ignored. */
export function walkEvents(project: Project, count: number): NavEvent[] {
  let seed = 7;
  const random = () => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return seed / 2147483648;
  };
  let state = launch(appOf(project));
  const events: NavEvent[] = [];
  while (events.length < count) {
    const possible = available(project, state).filter((event) => event.do !== "launch" && event.do !== "width");
    const event = possible[Math.floor(random() * possible.length)] ?? { do: "launch" };
    events.push(event);
    state = step(appOf(project), state, event).state;
  }
  return events;
}

function eventsPerSecond(project: Project): number {
  const events = walkEvents(project, 2000);
  const once = () => {
    let state = launch(appOf(project));
    for (const event of events) state = step(appOf(project), state, event).state;
  };
  for (let i = 0; i < 20; i++) once();
  const rounds = 100;
  const started = process.cpuUsage();
  for (let i = 0; i < rounds; i++) once();
  const used = process.cpuUsage(started);
  return (rounds * events.length) / ((used.user + used.system) / 1e6);
}

/** Milliseconds that it takes to make the plan of a project whose legs are all new, and after edits of one leg or screen; medians. */
function planTimes(project: Project): { made: number; edited: number } {
  const time = (run: () => void) => {
    const began = performance.now();
    run();
    return performance.now() - began;
  };
  const median = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;
  const made = Array.from({ length: 40 }, () => {
    const fresh = { ...project, legs: project.legs.map((leg) => ({ ...leg })) };
    return time(() => planOf(fresh));
  });
  let at = project;
  planOf(at);
  const edited = Array.from({ length: 80 }, (_, i) => {
    const name = `edit ${i}`;
    at =
      i % 2 === 0
        ? { ...at, legs: at.legs.map((leg, n) => (n === 17 * i ? { ...leg, note: name } : leg)) }
        : { ...at, screens: at.screens.map((screen, n) => (n === 7 * i ? { ...screen, name } : screen)) };
    return time(() => planOf(at));
  });
  return { made: median(made.slice(20)), edited: median(edited.slice(40)) };
}

export function engineBench() {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  const small = eventsPerSecond(read.project);
  const large = eventsPerSecond(bigProject(1000));
  const { made, edited } = planTimes(bigProject(1000));
  process.stdout.write(
    `engine: ${Math.round(small).toLocaleString("en")} events/s on Hollowcomb (aim 290,000), ${Math.round(large).toLocaleString("en")} on 1,000 screens\n`,
  );
  process.stdout.write(`engine: an event costs ${(small / large).toFixed(2)} times as much on 1,000 screens (aim at most 1.6)\n`);
  process.stdout.write(`engine: a plan of 1,000 screens is made in ${made.toFixed(1)} ms (aim 50), after an edit in ${edited.toFixed(1)} ms (aim 10)\n`);
}
