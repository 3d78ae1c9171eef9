import { appOf } from "../../insight/app.ts";
import { namesIn } from "../../model/edits/spelling.ts";
import { elementIdOf, lookup } from "../../model/lookup.ts";
import type { Element, Project } from "../../model/schema.ts";
import type { Expression } from "../../plan/expression.ts";
import type { Leg as PlanLeg } from "../../plan/plan.ts";
import { planOf } from "../../plan/planOf.ts";
import { branchNode, currentScreen, isOpenDrawer, topBranch, visiblePath } from "../../semantics/state.ts";
import type { State } from "../../semantics/types.ts";
import { valuesFor } from "../../semantics/values.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import { type Choice, isImposed, OUTSIDE_QUESTION } from "../system/chooser.ts";
import type { Edge, Exploration, Explored } from "../system/exploration.ts";
import type { FindingKind } from "./kind.ts";
import { ANSWERING, legsOf } from "./parts.ts";

export const silent: FindingKind = {
  code: "silent",
  severity: "warning",
  says: "tapping a control does nothing in some state",
  help: "All legs of the control have conditions, and in some state none of them holds. Say so with enabled, or add a leg for what is left.",
  subjects: "the screen and the element",
  inSearch: find,
  holds: doesNothing,
  asks: (project, [screen = "", elementId]) => {
    const element = lookup(project)
      .screens.get(screen)
      ?.elements.find(({ id }) => id === elementId);
    const legs = legsOf(project, screen, elementId);
    return [element?.shown, element?.enabled, ...legs.map(({ when }) => when)].flatMap((source) => namesIn("fact", source ?? ""));
  },
};

/** Whether tapping an element does nothing in a state of the document itself, as far as that rests on no row and nothing typed. */
function doesNothing(project: Project, state: State, [screen, elementId]: readonly string[]): boolean {
  if (currentScreen(state).at !== screen || visiblePath(branchNode(state, topBranch(state))).some(isOpenDrawer)) return false;
  const declared = legsOf(project, screen, elementId);
  if (declared.some(({ when }) => /\b(item|field)\./.test(when ?? ""))) return true;
  const values = valuesFor(appOf(project), state, currentScreen(state));
  const legs = declared.flatMap(({ id }) => planOf(project).legs.get(id) ?? []);
  const holds = (condition: Expression | undefined) => condition === undefined || condition.run(values) === true;
  return legs.every(({ shown, enabled }) => holds(shown) && holds(enabled)) && legs.every(({ never, when }) => never || !when || !holds(when));
}

/** Whether people may be there with outside facts as they are chosen to be: not where an arrive leg leads on when they are so. */
function isAtRest(edges: readonly Edge[], chosen: readonly Choice[]): boolean {
  const outside = chosen.filter(({ question }) => question.startsWith(OUTSIDE_QUESTION));
  const automatic = edges.filter(({ way }) => way === "automatic");
  const fits = ({ choices }: Edge) => choices.every(({ question, answer }) => outside.every((one) => one.question !== question || one.answer === answer));
  return outside.length === 0 || automatic.length === 0 || automatic.some((edge) => edge.outcome !== "moved" && fits(edge));
}

/** The states that show when a layer above them goes: who is there then has not arrived, though outside facts may be others than before. */
function uncoveredByLayers(nodes: readonly Explored[]): ReadonlySet<number> {
  const out = new Set<number>();
  for (const { state, edges } of nodes)
    for (const { to, outcome } of edges) if (outcome === "moved" && (nodes[to]?.state.layers.length ?? 0) < state.layers.length) out.add(to);
  for (const at of out) for (const { way, to } of nodes[at]?.edges ?? []) if (way === "reveal") out.add(to);
  return out;
}

/** By screen the elements that answer and whose legs all have conditions. */
function conditionalElements({ abstraction }: Exploration) {
  const { from } = abstraction.app.plan;
  const { legs: declared } = lookup(abstraction.original);
  const out = new Map<string, Array<{ element: Element; legs: PlanLeg[] }>>();
  for (const screen of abstraction.original.screens) {
    const found = screen.elements.flatMap((element) => {
      if (!ANSWERING.includes(element.kind)) return [];
      const legs = (from.get(screen.id)?.events ?? []).filter(({ id }) => {
        const leg = declared.get(id);
        return leg && elementIdOf(leg) === element.id;
      });
      return legs.length > 0 && legs.every(({ id }) => declared.get(id)?.when !== undefined) ? [{ element, legs }] : [];
    });
    if (found.length > 0) out.set(screen.id, found);
  }
  return out;
}

/** Usable elements whose legs all have conditions, none of which holds in some state: tapping does nothing. */
function find({ exploration, nodes, name }: Graph): Candidate[] {
  const { abstraction } = exploration;
  const mayIdle = conditionalElements(exploration);
  const uncovered = uncoveredByLayers(nodes);
  const found = new Map<string, Candidate>();
  nodes.forEach(({ state, screen, pending, edges }, node) => {
    const elements = mayIdle.get(screen);
    if (pending || !elements) return;
    const path = visiblePath(branchNode(state, topBranch(state)));
    if (path.some(isOpenDrawer)) return;
    const { evaluator } = abstraction.app;
    for (const { element, legs } of elements) {
      const values = valuesFor(abstraction.app, state, currentScreen(state));
      const holds = (condition: Expression | undefined) => condition === undefined || evaluator.holds(condition, values);
      abstraction.assigned = new Map();
      const ways = abstraction.chooser.each(
        () =>
          legs.every(({ shown, enabled }) => holds(shown) && holds(enabled)) &&
          legs.every((leg) => leg.never || !leg.when || !evaluator.holds(leg.when, values)),
      );
      const idle = ways.filter(({ result, choices }) => result && (uncovered.has(node) || isAtRest(edges, choices)));
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
