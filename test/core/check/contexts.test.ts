import { describe, expect, it } from "vitest";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { coarse } from "../../../src/core/check/system/precision.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const searched = (project: Project, facts: string[] = []) => explore(abstractionOf(project, coarse(new Set(facts))), "narrow");
const contents = (project: Project, context: string) =>
  (searched(project).contexts.get(context) ?? []).map((node) => (node.kind === "stack" ? node.items.map(({ at }) => at).join(" ") : node.at)).sort();

const endless = app("s", {
  stacks: { s: "list item" },
  screens: { list: { hub: true }, item: { mayRepeat: true } },
  legs: ["open list push item", "similar item push item", "home item return list"],
});

describe("contexts", () => {
  it("stand for a stack of any depth by holding themselves", () => {
    expect(contents(endless, "s.item")).toEqual(["^s.item item", "list"]);
    const { nodes, complete } = searched(endless);
    expect(complete).toBe(true);
    expect(new Set(nodes.filter(({ pending }) => !pending).map(({ line }) => line))).toEqual(new Set(["s[list]", "s[^s.item,item]"]));
  });

  it("are named after what lies on them, so that a screen led to from anywhere is one state", () => {
    const lists = ["a", "b", "c"];
    const project = app("s", { stacks: { s: "home a b c x" }, legs: lists.flatMap((id) => [`to${id} home push ${id}`, `from${id} ${id} push x`]) });
    const { nodes } = searched(project);
    expect(contents(project, "s.x")).toEqual(["^s.a a", "^s.b b", "^s.c c"]);
    expect(nodes.filter(({ screen, pending }) => screen === "x" && !pending)).toHaveLength(1);
  });

  it("stay where they are when another screen takes the place of the one on them", () => {
    const project = app("s", { stacks: { s: "list form done" }, legs: ["new list push form", "save form replace done"] });
    expect(contents(project, "s.form")).toEqual(["list"]);
    expect(contents(project, "s.done")).toEqual(["list"]);
    expect(searched(project).nodes.map(({ line }) => line)).toContain("s[^s.done,done]");
  });

  it("of a cut hold what the cut can come to, and grow as the one that is cut from grows", () => {
    expect(contents(endless, "s.item/shows list")).toEqual(["list"]);
  });

  it("of a lane that is brought up for a push need not be known", () => {
    const project = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b", u: "x y" },
      legs: ["on x push y", "call a push y in=u", "go a push b"],
    });
    const { nodes } = searched(project);
    expect(nodes.map(({ line }) => line)).toContain("t{~s,*u[^u,y]}");
    expect(contents(project, "u")).toEqual(["^u y", "^u.y y", "x"]);
  });

  it("tell apart what is without a place that a push went back to where it was", () => {
    const project = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b", u: "x y z" },
      legs: ["on x push y", "more y push z", "call a push y in=u repeat=rewind"],
    });
    expect(contents(project, "u/no is y")).toEqual(["x"]);
  });

  it("are known by their place, so that facts do not multiply them", () => {
    const facts = ["f", "g", "h"].map((id) => ({ id, type: "boolean", initial: false, source: "app" }));
    const project = app("s", {
      stacks: { s: "a b c" },
      facts,
      legs: ["go a push b", "on b push c", ...facts.map(({ id }) => `set${id} a set set.${id}=!fact.${id}`)],
    });
    const followed = searched(project, ["f", "g", "h"]);
    expect(followed.nodes.filter(({ pending }) => !pending)).toHaveLength(3 * 8);
    expect([...followed.contexts.keys()].sort()).toEqual(["s.b", "s.c"]);
  });
});
