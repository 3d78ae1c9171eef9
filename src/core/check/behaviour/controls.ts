import { leadOf } from "../../engine/bar.ts";
import { type CompiledElement, type CompiledLeg, compiled } from "../../engine/compiled.ts";
import { openDrawers } from "../../engine/reach.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../../engine/state.ts";
import { valuesFor } from "../../engine/values.ts";
import { elementIdOf } from "../../model/lookup.ts";
import type { Element } from "../../model/schema.ts";
import { isImposed } from "../chooser.ts";
import type { Exploration } from "../exploration.ts";
import { type Candidate, type Graph, note } from "../graph.ts";

const ANSWERING = ["button", "icon", "link", "list"];

/** By screen the elements that answer and whose legs all have conditions. */
function conditionalElements({ abstract }: Exploration) {
  const { from } = compiled(abstract.project);
  const out = new Map<string, Array<{ element: Element; conditions: CompiledElement; legs: CompiledLeg[] }>>();
  for (const screen of abstract.original.screens) {
    const found = screen.elements.flatMap((element) => {
      const legs = ANSWERING.includes(element.kind) ? (from.get(screen.id)?.events ?? []).filter(({ leg }) => elementIdOf(leg) === element.id) : [];
      const conditions = legs[0]?.element;
      const all = legs.length > 0 && legs.every(({ leg }) => leg.when !== undefined) && conditions !== "missing" && conditions !== undefined;
      return all ? [{ element, conditions, legs }] : [];
    });
    if (found.length > 0) out.set(screen.id, found);
  }
  return out;
}

/** Usable elements whose legs all have conditions, none of which holds in some state: tapping does nothing. */
export function silent({ exploration, nodes, name }: Graph): Candidate[] {
  const { abstract } = exploration;
  const mayIdle = conditionalElements(exploration);
  const found = new Map<string, Candidate>();
  nodes.forEach(({ state, screen, portal }, node) => {
    const elements = mayIdle.get(screen);
    if (portal || !elements) return;
    const path = visiblePath(branchNode(state, topBranch(state)));
    if (openDrawers(path).length > 0) return;
    for (const { element, conditions, legs } of elements) {
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
