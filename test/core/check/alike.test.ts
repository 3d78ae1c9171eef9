import { describe, expect, it } from "vitest";
import { abstractProject } from "../../../src/core/check/abstract.ts";
import { check } from "../../../src/core/check/check.ts";
import { explore } from "../../../src/core/check/explore.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const lines = (project: Project) => check(project).findings.map((f) => [f.code, ...f.subjects].join(" "));

/** The screens that an event leads to from any state that shows a screen. */
function leadsTo(project: Project, screen: string, event: string): string[] {
  const { nodes } = explore(abstractProject(project), "narrow");
  const shown = (at: number): string[] => {
    const node = nodes[at];
    if (!node) return [];
    return node.portal ? node.edges.flatMap((edge) => shown(edge.to)) : [`${node.screen}${node.line.endsWith("!") ? " with a drawer open" : ""}`];
  };
  const from = nodes.filter((node) => node.screen === screen && !node.portal);
  return [
    ...new Set(from.flatMap(({ edges }) => edges.flatMap((edge) => (edge.event?.do === event && edge.outcome === "moved" ? shown(edge.to) : [])))),
  ].sort();
}

describe("steps that are worked out once for many states", () => {
  it("go back by the lead of a screen's own bar, and open the menu by that of another on the same rest", () => {
    const project = app("d", {
      stacks: { s: "list item other" },
      drawers: { d: ["s", { bar: { show: true, lead: "menu" } }] },
      screens: { item: { bar: { show: true, lead: "auto" } } },
      legs: ["toItem list push item", "toOther list push other"],
    });
    expect(leadsTo(project, "item", "lead")).toEqual(["list"]);
    expect(leadsTo(project, "other", "lead")).toEqual(["other with a drawer open"]);
    expect(leadsTo(project, "item", "back")).toEqual(["list"]);
  });

  it("are apart where a leg on arriving looks into the tab that was left", () => {
    const project = app("t", {
      tabs: { t: "a b" },
      stacks: { a: "a1 a2", b: "b1" },
      facts: [{ id: "sent", type: "boolean", initial: false, source: "app" }],
      legs: ["go a1 push a2", "put b1:arrive push a2 in=a set.sent=true if=!fact.sent"],
    });
    // From a[a1,a2] a second copy is put there, from a[a1] none is.
    const edges = explore(abstractProject(project), "narrow").nodes.flatMap((node) => node.edges);
    expect(edges.flatMap((edge) => edge.refusals)).toEqual([]);
    expect(new Set(edges.filter((edge) => edge.fired.includes("put")).map((edge) => edge.copies.length))).toEqual(new Set([0, 1]));
    expect(lines(project)).toContain("piled-copies put a2");
  });

  it("are apart where a leg on departing is asked", () => {
    const project = app("t", {
      tabs: { t: "a b" },
      stacks: { a: "a1 a2", b: "b1", f: "ask" },
      modals: { m: "f" },
      legs: ["go a1 push a2", "sure a2:depart open m"],
    });
    expect(leadsTo(project, "a1", "tab")).toEqual(["b1"]);
    expect(leadsTo(project, "a2", "tab")).toEqual(["ask"]);
    expect(lines(project).filter((line) => line.startsWith("unreachable"))).toEqual([]);
  });

  it("note what each tab held that was left", () => {
    const project = app("t", {
      tabs: { t: "a b" },
      stacks: { a: "a1 a2 a3", b: "b1" },
      legs: ["two a1 push a2", "three a1 push a3"],
    });
    expect(leadsTo(project, "b1", "tab")).toEqual(["a1", "a2", "a3"]);
  });
});
