import { readProjectData } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import type { Rule } from "../oracle/pushdown.ts";
import { pick, seeded } from "./documents.ts";

/** What lies beneath the lowest screen. */
export const BOTTOM = "_";

/** A leg of such an app: `when` the control fact has a value, a move that sets it. */
export interface RandomLeg {
  id: string;
  from: string;
  when: string | undefined;
  sets: string | undefined;
  move: { kind: "push" | "replace" | "reset"; to: string } | { kind: "back" };
}

/** An app that is one stack and one fact, so that it is a pushdown system as the textbook has them, and its rules. */
export interface RandomSystem {
  project: Project;
  controls: string[];
  screens: string[];
  legs: RandomLeg[];
  rules: Rule[];
}

export function randomSystem(seed: number): RandomSystem {
  const random = seeded(seed);
  const screens = ["a", "b", "c", "d", "e", "f", "g", "h"].slice(0, 2 + Math.floor(random() * 6));
  const controls = ["p", "q", "r", "s"].slice(0, 1 + Math.floor(random() * 4));
  const count = screens.length + Math.floor(random() * screens.length * 1.5);
  const legs = Array.from({ length: count }, (_, i): RandomLeg => {
    const kind = pick(random, ["push", "push", "push", "replace", "replace", "back", "reset"] as const);
    return {
      id: `leg${i}`,
      from: pick(random, screens),
      when: random() < 0.5 ? pick(random, controls) : undefined,
      sets: random() < 0.5 ? pick(random, controls) : undefined,
      move: kind === "back" ? { kind } : { kind, to: pick(random, screens) },
    };
  });
  return { project: projectOf(screens, controls, legs, () => random() < 0.5), controls, screens, legs, rules: rulesOf(screens, controls, legs) };
}

function projectOf(screens: string[], controls: string[], legs: RandomLeg[], maybe: () => boolean): Project {
  const read = readProjectData({
    format: "etape/1",
    name: "system",
    root: "s",
    facts: controls.length < 2 ? [] : [{ id: "control", type: "choice", values: controls, initial: "p", source: "app" }],
    types: [],
    containers: [{ kind: "stack", id: "s", name: "s", start: "a", members: screens }],
    screens: screens.map((id) => ({
      id,
      name: id,
      params: [],
      up: "none",
      bar: { show: true, lead: "none" },
      elements: legs.flatMap((leg) => (leg.from === id ? [{ id: `on${leg.id}`, kind: "button", label: leg.id }] : [])),
      mayRepeat: maybe(),
    })),
    legs: legs.map(({ id, from, when, sets, move }) => ({
      id,
      from,
      on: { kind: "tap", element: `on${id}` },
      move,
      ...(controls.length > 1 && when ? { when: `fact.control == "${when}"` } : {}),
      ...(controls.length > 1 && sets ? { set: { control: `"${sets}"` } } : {}),
    })),
    entrances: [],
    walks: [],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.project;
}

/** Back takes off what is on top; a reset takes off one screen after another, and ends in the one that it leads to. */
function rulesOf(screens: string[], controls: string[], legs: RandomLeg[]): Rule[] {
  const back = controls.flatMap((control) => screens.map((top): Rule => ({ from: control, top, to: control, push: [] })));
  return [
    ...back,
    ...legs.flatMap((leg) =>
      controls
        .filter((from) => controls.length < 2 || leg.when === undefined || leg.when === from)
        .flatMap((from): Rule[] => {
          const to = leg.sets ?? from;
          const { move, from: top } = leg;
          if (move.kind === "back") return [{ from, top, to, push: [] }];
          if (move.kind === "push") return [{ from, top, to, push: [move.to, top] }];
          if (move.kind === "replace") return [{ from, top, to, push: [move.to] }];
          const resetting = `${to} resets ${leg.id}`;
          return [
            ...[...screens].flatMap((symbol): Rule[] => [{ from: resetting, top: symbol, to: resetting, push: [] }]),
            { from, top, to: resetting, push: [] },
            { from: resetting, top: BOTTOM, to, push: [move.to, BOTTOM] },
          ];
        }),
    ),
  ];
}
