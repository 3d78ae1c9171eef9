/**
 * Choosing another tab, or another member of a drawer, comes to the same from whatever the lane held that is left, but for
 * what is then noted of that lane. So such a step is worked out once, from a state in which
 * something stands for the lane's content, and counts for all states that differ in nothing else.
 */

import { compiled } from "../engine/compiled.ts";
import { controlOf } from "../engine/events.ts";
import { branchNode, type Node, type State, updateBranch, visiblePath } from "../engine/state.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import type { Edge } from "./exploration.ts";

/** What stands for the content of the lane that is left. */
const ASIDE: Node = { kind: "shown", at: "=", args: {} };

export function isAside(node: Node): boolean {
  return node === ASIDE;
}

/** A choice that is worked out once. */
export interface Switch {
  /** The state in which something stands for the lane's content. */
  state: State;
  /** The states for which it counts, and what the lane held in them. */
  nodes: number[];
  contents: Node[];
  /** The marks under which the lane was left. */
  marks: Set<string>;
  edges: Edge[];
  /** Legs fire on arriving, which may look into the lane that was left: each state is to be seen to by itself. */
  apart: boolean;
}

/** A state without what the lane holds that a choice leaves, and that; undefined where it may make a difference to the choice. */
export function setAside(project: Project, state: State, event: NavEvent | undefined): { state: State; content: Node } | undefined {
  if (event?.do !== "tab" && event?.do !== "pick") return undefined;
  const control = controlOf(project, state, event);
  if (!control || control.node.active === event.to) return undefined;
  const { branch, depth, node } = control;
  const content = node.lanes[node.active];
  if (!content || mayAsk(project, state, branch)) return undefined;
  return { state: updateBranch(state, branch, depth, { ...node, lanes: { ...node.lanes, [node.active]: ASIDE } }), content };
}

/** Whether depart legs may be asked on a branch. */
function mayAsk(project: Project, state: State, branch: number): boolean {
  const { hasDepart, from } = compiled(project);
  if (!hasDepart) return false;
  const modal = state.layers[branch - 1];
  return [...visiblePath(branchNode(state, branch)), ...(modal ? [modal] : [])].some(({ at }) => (from.get(at)?.depart.length ?? 0) > 0);
}
