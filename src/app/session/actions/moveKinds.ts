import { giveOf, lookup, ownersAround, targetOf } from "../../../core/model/lookup.ts";
import { withGive } from "../../../core/model/moves.ts";
import { inStackMeant, withArguments } from "../../../core/model/propose.ts";
import type { Leg, Move, Project } from "../../../core/model/schema.ts";

/** A way to get to a leg's target, in words. */
export interface Way {
  key: string;
  /** The trade's word for it. */
  label: string;
  /** What it means, in plain words. */
  says?: string;
  move: Move;
}

/** The moves that could lead a leg to its target, the one it has among them. */
function waysTo(project: Project, leg: Leg, to: string): Way[] {
  const element = "element" in leg.on ? leg.on.element : undefined;
  const { containers, owners } = lookup(project);
  const meant = (move: Move): Move => filled(inStackMeant(project, leg.from, move));
  const filled = (move: Move): Move => withArguments(project, leg.from, element, move);
  if (containers.get(to)?.kind === "modal")
    return [
      { key: "open", label: "open", says: "over the page", move: filled({ kind: "open", to }) },
      { key: "close", label: "close", says: "it goes away", move: { kind: "close", modal: to } },
    ];
  const owner = owners.get(to);
  const out: Way[] = [
    { key: "push", label: "push", says: "on top", move: filled({ kind: "push", to }) },
    { key: "rewind", label: "push, or back to it", says: "if it is beneath", move: filled({ kind: "push", to, repeat: "rewind" }) },
    { key: "replace", label: "replace", says: "instead of this", move: filled({ kind: "replace", to }) },
    { key: "reset", label: "reset", says: "clears the history", move: meant({ kind: "reset", to }) },
  ];
  const around = ownersAround(project, leg.from);
  const chosen = chosenWay(project, leg);
  if (around.some((c) => c.kind === "modal") || chosen === "beneath")
    out.push({ key: "beneath", label: "push beneath", says: "closes the modal", move: filled({ kind: "push", to, in: "beneath" }) });
  if (owner?.kind === "stack" && (around.find((c) => c.kind === "stack") !== owner || chosen === "in"))
    out.splice(2, 0, { key: "in", label: `push in ${owner.name || owner.id}`, move: filled({ kind: "push", to, in: owner.id }) });
  if (owner?.kind === "tabs" || owner?.kind === "drawer") out.unshift({ key: "select", label: "switch", says: "to it", move: { kind: "select", to } });
  if (lookup(project).screens.has(to)) out.push({ key: "return", label: "back to it", says: "pop", move: meant({ kind: "return", to }) });
  return out;
}

/** Moves that need no target. */
const TARGETLESS: readonly Way[] = [
  { key: "back", label: "back", says: "as the system does", move: { kind: "back" } },
  { key: "up", label: "up", says: "one level", move: { kind: "up" } },
  { key: "close", label: "close", says: "the modal that is up", move: { kind: "close" } },
  { key: "menu", label: "menu", says: "open or close", move: { kind: "menu" } },
  { key: "proceed", label: "continue", says: "with what was held up", move: { kind: "proceed" } },
  { key: "leave", label: "leave", says: "the app", move: { kind: "leave" } },
];

/** All ways of a leg, in the order of the digits that take them. */
export function waysOf(project: Project, leg: Leg): readonly Way[] {
  const to = targetOf(leg);
  // What is handed back stays with every way that can hand something back.
  return (to === undefined ? TARGETLESS : waysTo(project, leg, to)).map((way) => ({ ...way, move: withGive(way.move, giveOf(leg)) }));
}

/** The key of the way that a move of a leg is, among those above. */
function wayKey(project: Project, leg: Leg & { move: Move }): string {
  const { move } = leg;
  if (move.kind !== "push") return move.kind;
  // What a modal goes back to is on the page beneath it.
  const back: Move = { kind: "return", to: move.to };
  const meant = inStackMeant(project, leg.from, back);
  if (meant.kind === "push" && move.repeat === "rewind" && move.in === meant.in) return "return";
  if (move.in === "beneath") return "beneath";
  if (move.in !== undefined) return "in";
  return move.repeat === "rewind" ? "rewind" : "push";
}

/** The key of the way that a leg goes, if it leads anywhere. */
export function chosenWay(project: Project, leg: Leg): string | undefined {
  return leg.move && wayKey(project, { ...leg, move: leg.move });
}
