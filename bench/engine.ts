import { readFileSync } from "node:fs";
import { appOf } from "../src/core/insight/app.ts";
import { available } from "../src/core/insight/available.ts";
import { readProject } from "../src/core/model/read.ts";
import type { NavEvent, Project } from "../src/core/model/schema.ts";
import { launch, step } from "../src/core/semantics/step.ts";
import { bigProject } from "./big.ts";

/** Events of a random walk that goes wherever it can, so that what is measured is not being ignored. */
function walkEvents(project: Project, count: number): NavEvent[] {
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

export function engineBench() {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  const small = eventsPerSecond(read.project);
  const large = eventsPerSecond(bigProject(1000));
  process.stdout.write(
    `engine: ${Math.round(small).toLocaleString("en")} events/s on Hollowcomb (aim 200,000), ${Math.round(large).toLocaleString("en")} on 1,000 screens\n`,
  );
  process.stdout.write(`engine: an event costs ${(small / large).toFixed(2)} times as much on 1,000 screens (aim at most 2)\n`);
}
