import { readProjectData } from "../src/core/model/read.ts";
import type { Project } from "../src/core/model/schema.ts";
import { pick, seeded } from "../test/random/documents.ts";

/** Five tabs of stacks, and from each screen four legs of random kinds to random screens, a quarter of them on one of four facts. */
export function randomLegs(count: number, seed = 1): Project {
  const random = seeded(seed);
  const screens = Array.from({ length: count }, (_, i) => `s${i}`);
  const lanes = ["a", "b", "c", "d", "e"];
  const laneOf = (screen: string) => lanes[Number(screen.slice(1)) % lanes.length] as string;
  const facts = ["f", "g", "h", "k"];
  const move = (to: string) => {
    const kind = pick(random, ["push", "push", "push", "push", "replace", "return", "back", "reset", "into", "rewind"]);
    if (kind === "back") return { kind };
    if (kind === "into") return { kind: "push", to, in: laneOf(to) };
    return kind === "rewind" ? { kind: "push", to, repeat: "rewind" } : { kind, to };
  };
  const legs = screens.flatMap((from) =>
    [0, 1, 2, 3].map((n) => ({
      id: `${from}leg${n}`,
      from,
      on: { kind: "tap", element: `e${n}` },
      move: move(pick(random, screens)),
      ...(random() < 0.25 ? { when: `${random() < 0.5 ? "" : "!"}fact.${pick(random, facts)}` } : {}),
      ...(random() < 0.2 ? { set: { [pick(random, facts)]: random() < 0.5 ? "true" : "false" } } : {}),
    })),
  );
  const data = {
    format: "etape/1",
    name: `Random legs ${count}`,
    root: "tabs",
    facts: facts.map((id) => ({ id, type: "boolean", initial: false, source: "app" })),
    types: [],
    containers: [
      { kind: "tabs", id: "tabs", name: "tabs", start: "a", members: lanes, edge: "bottom", onBack: "start", chosenAgain: "root", keeps: true },
      ...lanes.map((id) => {
        const members = screens.filter((screen) => laneOf(screen) === id);
        return { kind: "stack", id, name: id, start: members[0] ?? "", members };
      }),
    ],
    screens: screens.map((id) => ({
      id,
      name: id,
      params: [],
      up: "auto",
      elements: [0, 1, 2, 3].map((n) => ({ id: `e${n}`, kind: "button", label: `e${n}` })),
      mayRepeat: random() < 0.5,
    })),
    legs,
    entrances: [],
    walks: [],
  };
  const read = readProjectData(data);
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  return read.project;
}
