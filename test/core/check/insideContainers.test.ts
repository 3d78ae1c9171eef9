import { describe, expect, it } from "vitest";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { cutTo, mayBeIn } from "../../../src/core/check/system/insideContainers.ts";
import { coarse } from "../../../src/core/check/system/precision.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { shownIn } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Node } from "../../../src/core/semantics/types.ts";
import { amount } from "../../random/amount.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const inside = (container: string, legs: string[], more: object = {}) => [
  ...mayBeIn(planOf(app("s", { stacks: { s: "home t u", own: "list item" }, tabs: { t: "a b", u: "own" }, legs, ...more })), container),
];

describe("the items of stacks that a container may ever be inside of", () => {
  it("are itself and those in whose tree it is", () => {
    expect(inside("t", ["in home push t"])).toEqual(["t"]);
    expect(inside("own", ["in home push u"])).toEqual(["u"]);
  });

  it("so a stack is cut to the one that there is, by its own name and not by that of what is searched for", () => {
    const { key, stop } = cutTo(planOf(app("s", { stacks: { s: "home u", own: "list" }, tabs: { u: "own" }, legs: ["in home push u"] })), "own");
    const tabs: Node = { kind: "tabs", at: "u", active: "own", lanes: {}, visited: ["own"] };
    expect([key, stop(tabs), stop({ kind: "stack", at: "own", items: [] })]).toEqual(["is u", true, false]);
  });

  it("and those that have a stack onto which some move may put it", () => {
    expect(inside("t", ["in list push t"])).toEqual(["t", "u"]);
    expect(inside("t", ["in home push t in=own"])).toEqual(["t", "u"]);
    expect(inside("t", ["far list push item", "in item push t"])).toEqual(["t", "u"]);
    expect(inside("t", ["any u push t"])).toEqual(["t", "u"]);
  });

  it("but not those without a stack, where what is pushed goes onto the one around; what takes a place stays there", () => {
    expect(inside("u", ["in a push u"])).toEqual(["u"]);
    expect(inside("u", ["in a replace u"])).toEqual(["t", "u"]);
  });
});

/** The containers in a node that are items of stacks, each with all containers in it. */
function itemsIn(node: Node): Array<{ item: string; holds: string[] }> {
  if (node.kind === "shown") return [];
  const within = node.kind === "stack" ? node.items : (Object.values(node.lanes) as Node[]);
  const here = node.kind === "stack" ? node.items.filter(({ kind }) => kind !== "shown").map((one) => ({ item: one.at, holds: containersIn(one) })) : [];
  return [...here, ...within.flatMap(itemsIn)];
}

function containersIn(node: Node): string[] {
  if (node.kind === "shown") return [];
  return [node.at, ...(node.kind === "stack" ? node.items : (Object.values(node.lanes) as Node[])).flatMap(containersIn)];
}

const DOCUMENTS = amount(1000, 120);

it(`on ${DOCUMENTS} random documents no walk puts a container where it was said never to be`, () => {
  const wrong: string[] = [];
  let met = 0;
  for (let seed = 0; seed < DOCUMENTS; seed++) {
    const project = wholeDocument(seed);
    // What a way in puts on top of a running app is not among the states that are checked.
    const warm: Project = { ...project, entrances: project.entrances.map((one) => ({ ...one, warm: "rebuild" })) };
    const plan = planOf(warm);
    let state = launch(appOf(warm));
    for (const event of randomWalk(warm, wholeEvents(warm), seed, 40)) {
      state = step(appOf(warm), state, event).state;
      for (const { item, holds } of [state.base, ...state.layers.map(({ content }) => content)].flatMap(itemsIn))
        for (const one of holds) {
          met += 1;
          if (!mayBeIn(plan, one).has(item)) wrong.push(`seed ${seed}: ${one} in ${item}`);
        }
    }
  }
  expect(wrong).toEqual([]);
  expect(met).toBeGreaterThan(DOCUMENTS);
});

it("what lies beneath a modal that blocks is what it was opened over, though a panel that blocks nothing lies between and over other pages too", () => {
  const project = app("s", {
    stacks: { s: "home list item", f: "find" },
    modals: { search: "f", mini: ["song", { blocks: false, dims: false, closeOn: ["swipe"] }] },
    legs: ["play list open mini", "seek home open search", "go home push list", "on list push item", "home2 list return home"],
  });
  const found = explore(abstractionOf(project, coarse(new Set())), "narrow");
  const shownBeneath = (context: string) => [...(found.contexts.get(context) ?? [])].map((node) => shownIn(node).at);
  expect(shownBeneath("search")).toEqual(["home"]);
  expect(shownBeneath("search_mini")).toEqual(["home"]);
  expect([...found.contexts.keys()]).not.toContain("mini");
});
