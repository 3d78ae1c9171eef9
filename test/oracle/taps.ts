import { appOf } from "../../src/core/insight/app.ts";
import { candidateEvents } from "../../src/core/insight/available.ts";
import type { NavEvent, Project } from "../../src/core/model/schema.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import type { State } from "../../src/core/semantics/types.ts";

/**
 * By screen the fewest taps from launch, by going through the states of a document one by one, those of the fewest taps first; ends
 * after so many states, and says then up to how many taps it is whole.
 */
export function fewestTaps(project: Project, most: number): { taps: ReadonlyMap<string, number>; whole: number } {
  const app = appOf(project);
  const waits = new Set(project.legs.filter(({ on }) => on.kind === "after").map(({ id }) => id));
  const isTap = (event: NavEvent) => !["back", "fact", "launch"].includes(event.do) && !(event.do === "leg" && waits.has(event.leg));
  const taps = new Map<string, number>();
  const seen = new Map<string, number>();
  const waiting: State[][] = [];
  const enter = (state: State, count: number) => {
    const key = JSON.stringify(state);
    if ((seen.get(key) ?? Number.POSITIVE_INFINITY) <= count) return;
    seen.set(key, count);
    waiting[count] ??= [];
    waiting[count]?.push(state);
  };
  enter(launch(app), 0);
  for (let count = 0; count < waiting.length; count++)
    for (const state of waiting[count] ?? []) {
      if ((seen.get(JSON.stringify(state)) ?? 0) < count) continue;
      if (seen.size > most) return { taps, whole: count - 1 };
      const screen = currentScreen(state).at;
      if (!taps.has(screen)) taps.set(screen, count);
      for (const event of [...candidateEvents(project, state), ...outsideEvents(project)]) {
        if (event.do === "enter" || event.do === "width") continue;
        const { outcome, state: next } = step(app, state, event);
        if (outcome === "moved") enter(next, count + (isTap(event) ? 1 : 0));
      }
    }
  return { taps, whole: Number.POSITIVE_INFINITY };
}

function outsideEvents(project: Project): NavEvent[] {
  return project.facts
    .filter(({ source }) => source === "outside")
    .flatMap((fact): NavEvent[] => [true, false].map((value) => ({ do: "fact", fact: fact.id, value })));
}
