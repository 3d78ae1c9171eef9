import { leadOf } from "../../engine/bar.ts";
import { compiled } from "../../engine/compiled.ts";
import { openDrawers } from "../../engine/reach.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../../engine/state.ts";
import { valuesFor } from "../../engine/values.ts";
import { elementIdOf, lookup } from "../../model/lookup.ts";
import { isImposed } from "../chooser.ts";
import { type Candidate, type Graph, note } from "../graph.ts";

const ANSWERING = ["button", "icon", "link", "list"];

/** Usable elements whose legs all have conditions, none of which holds in some state: tapping does nothing. */
export function silent({ project, exploration, nodes, name }: Graph): Candidate[] {
  const { abstract } = exploration;
  const table = compiled(abstract.project);
  const original = lookup(project);
  const found = new Map<string, Candidate>();
  nodes.forEach(({ state, screen, portal }, node) => {
    if (portal) return;
    const path = visiblePath(branchNode(state, topBranch(state)));
    if (openDrawers(path).length > 0) return;
    for (const element of original.screens.get(screen)?.elements ?? []) {
      if (!ANSWERING.includes(element.kind)) continue;
      const legs = (table.from.get(screen)?.events ?? []).filter(({ leg }) => elementIdOf(leg) === element.id);
      if (legs.length === 0 || legs.some(({ leg }) => leg.when === undefined)) continue;
      const conditions = legs[0]?.element;
      if (conditions === "missing" || conditions === undefined) continue;
      const values = valuesFor(abstract.project, state, currentScreen(state));
      abstract.assigned = new Map();
      const ways = abstract.chooser.each(
        () =>
          (conditions.shown?.run(values) ?? true) === true &&
          (conditions.enabled?.run(values) ?? true) === true &&
          legs.every((entry) => !entry.wellTyped || entry.when?.run(values) !== true),
      );
      const idle = ways.filter(({ result }) => result);
      if (idle.length === 0) continue;
      const sure = idle.some(({ choices }) => !choices.some((choice) => isImposed(choice)));
      note(
        found,
        [screen, element.id],
        { node },
        () => `Tapping "${element.label}" on ${name(screen)} does nothing in some states: none of its conditions holds.`,
        !sure,
      );
    }
  });
  return [...found.values()];
}

/** Screens whose bar shows an Up or a menu that does nothing. */
export function idleLead({ exploration, nodes, name }: Graph): Candidate[] {
  const found = new Map<string, Candidate>();
  nodes.forEach(({ state, screen, portal }, node) => {
    if (portal) return;
    if (leadOf(exploration.abstract.project, state, topBranch(state)) !== "idle") return;
    note(found, [screen], { node }, () => `The bar of ${name(screen)} shows a control that does nothing in some states.`);
  });
  return [...found.values()];
}
