import { describe, expect, it } from "vitest";
import type { Entry } from "../../../src/core/following/entry.ts";
import { Follower } from "../../../src/core/following/follower.ts";
import { followLog } from "../../../src/core/following/tally.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { available } from "../../../src/core/insight/available.ts";
import type { Json, NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { arrive, beginning, step } from "../../../src/core/semantics/step.ts";
import type { State } from "../../../src/core/semantics/types.ts";
import { amount } from "../../random/amount.ts";
import { randomWalk, wholeDocument, wholeEvents, withoutArguments } from "../../random/whole.ts";
import { logOf, type Telling } from "./logs.ts";

const rows = (log: readonly Entry[]) => log.map((entry, i) => ({ entry, row: i + 1 }));

/** Random documents of everything with a walk in each. */
function walks(from: number, count: number, length: number): Array<{ seed: number; project: Project; events: NavEvent[] }> {
  return Array.from({ length: count }, (_, i) => {
    const project = wholeDocument(from + i);
    return { seed: from + i, project, events: randomWalk(project, wholeEvents(project), from + i, length) };
  });
}

describe("an app that does what its design says", () => {
  it.each<[Telling, number, number]>([
    ["everything", amount(300, 60), 40],
    ["events", amount(200, 40), 40],
    ["events and screens", amount(200, 40), 40],
    ["screens and arguments", amount(14, 6), 16],
    ["screens", amount(14, 6), 16],
  ])("never departs, on random walks of random documents, where its log tells %s", (telling, count, length) => {
    const departed = walks(1, count, length).flatMap(({ seed, project, events }) =>
      followLog(project, rows(logOf(project, events, telling).log)).departures.map(({ sentence, row }) => `${seed}, line ${row}: ${sentence}`),
    );
    expect(departed).toEqual([]);
  });

  it("is in one of the states that are kept", () => {
    const missed = walks(430, amount(14, 6), 14).flatMap(({ seed, project, events }) => {
      const { log, states } = logOf(project, events, "screens");
      const follower = new Follower(project);
      return log.flatMap((entry, i) => {
        follower.take(entry);
        const state = states[i] as State;
        return linesOf(project, follower.statesOf("r")).has(lineOf(project, state)) ? [] : [`${seed}, entry ${i + 1}: ${lineOf(project, state)}`];
      });
    });
    expect(missed).toEqual([]);
  });

  it("may be in exactly the states that a plain enumeration finds, where the log tells screens alone", () => {
    const wrong: string[] = [];
    let entries = 0;
    for (const { seed, project: whole, events } of walks(500, amount(25, 8), 8)) {
      const project = withoutArguments(whole);
      const { log } = logOf(project, events, "screens");
      const follower = new Follower(project);
      let plain: State[] = [];
      for (const [i, entry] of log.entries()) {
        if (follower.take(entry).cut) break;
        plain = i === 0 ? starts(project).filter((state) => currentScreen(state).at === entry.shows) : after(project, plain, entry.shows);
        if (plain.length > 90) break;
        entries += 1;
        const [kept, found] = [linesOf(project, follower.statesOf("r")), linesOf(project, plain)];
        if ([...kept].sort().join("\n") !== [...found].sort().join("\n"))
          wrong.push(`${seed}, entry ${i + 1}: too many ${[...kept].filter((one) => !found.has(one))}; missing ${[...found].filter((one) => !kept.has(one))}`);
      }
    }
    expect(wrong).toEqual([]);
    expect(entries).toBeGreaterThan(amount(60, 20));
  });
});

/** A state as far as it makes a difference: facts from outside may become anything, and few designs ask how wide the window is. */
function lineOf(project: Project, state: State): string {
  const wide = /"pinnedFrom":"(middle|wide)"|\bwidth [!=]=/.test(JSON.stringify(project)) ? state.width : "";
  const own = project.facts.filter(({ source }) => source === "app").map(({ id }) => state.facts[id]);
  return `${stateLine(planOf(project), state)} ${own} ${wide} ${JSON.stringify([state.waiting?.entrance, state.held])}`;
}

const linesOf = (project: Project, states: readonly State[]) => new Set(states.map((state) => lineOf(project, state)));

/** Launches with every value of the facts that persist or come from outside, at every width. */
function starts(project: Project): State[] {
  let all: State[] = (["narrow", "middle", "wide"] as const).map((width) => beginning(appOf(project), width));
  for (const fact of project.facts)
    if (fact.persists || fact.source === "outside")
      all = all.flatMap((state) => (fact.values ?? [true, false]).map((value): State => ({ ...state, facts: { ...state.facts, [fact.id]: value } })));
  return all.map((state) => arrive(appOf(project), undefined, state).state);
}

/** What shows the screen without an event, or by one, after any facts from outside have changed. */
function after(project: Project, states: readonly State[], shows: string | undefined): State[] {
  const app = appOf(project);
  const values = project.facts
    .filter(({ source }) => source === "outside")
    .map(({ id, values: all }) => (all ?? [true, false]).map((value) => ({ fact: id, value })));
  const combinations = values.reduce<Array<Array<{ fact: string; value: Json }>>>(
    (all, list) => all.flatMap((some) => list.map((one) => [...some, one])),
    [[]],
  );
  const out = new Map<string, State>();
  for (const state of states) {
    if (currentScreen(state).at === shows) out.set(lineOf(project, state), state);
    for (const combination of combinations) {
      const outside = combination.reduce((at, { fact, value }) => step(app, at, { do: "fact", fact, value }).state, state);
      for (const event of available(project, outside)) {
        const next = step(app, outside, event).state;
        if (currentScreen(next).at === shows && next !== outside) out.set(lineOf(project, next), next);
      }
    }
  }
  return [...out.values()];
}
