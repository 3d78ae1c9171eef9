import { appOf } from "../../insight/app.ts";
import { metStates } from "../../insight/met.ts";
import { proposal } from "../../insight/proposal.ts";
import { wrap } from "../../model/edits/arrange.ts";
import { changeLeg } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { applyEdit } from "../../model/edits/kinds.ts";
import { removeLegs } from "../../model/edits/remove.ts";
import { sameValue } from "../../model/json.ts";
import { elementIdOf, lookup, nameOf, ownersAround } from "../../model/lookup.ts";
import { takesPass, withPass } from "../../model/moves.ts";
import { inStackMeant, moveSentence } from "../../model/propose.ts";
import type { Leg, Move, Project } from "../../model/schema.ts";
import { programOf } from "../../plan/lower/moves.ts";
import { makeMove } from "../../semantics/moves.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { allEdges, quote } from "./parts.ts";

export const refusedMove: FindingKind = {
  code: "refused-move",
  severity: "blocker",
  says: "a leg that in some state cannot do what it says",
  help: "The leg fires, and then nothing can be done: there is no stack around it to push onto, the container that it needs is not on screen, or it would put a container inside itself.",
  subjects: "the leg",
  inSearch: find,
  shows: ({ subjects }, { result }) => result.log.refused.some(({ leg }) => leg === subjects[0]),
  fixes: (project, [id = ""]) => {
    const leg = lookup(project).legs.get(id);
    return leg ? [...instead(project, leg), removeLegs(project, [leg.id])] : [];
  },
};

const REPORTED = ["no-stack", "not-showing", "no-place", "inside-itself"];

/** Legs that in some state fire and can not do what they say. */
function find(graph: Graph): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ refusals }) => refusals.length > 0))
    for (const { leg, why } of edge.refusals) if (REPORTED.includes(why)) note(found, [leg], at, () => refusalText(graph.project, leg, why));
  return [...found.values()];
}

function refusalText(project: Project, legId: string, why: string): string {
  const leg = lookup(project).legs.get(legId);
  const from = `"${nameOf(project, leg?.from ?? "")}"`;
  const to = leg?.move && "to" in leg.move ? `"${nameOf(project, leg.move.to)}"` : "its target";
  switch (why) {
    case "no-stack":
      return `The leg from ${from} to ${to} fails: it goes on top, but there is no stack around it to go onto.`;
    case "not-showing":
      return `The leg from ${from} to ${to} fails: the container that it needs is not on screen at that moment.`;
    case "inside-itself":
      return `The leg from ${from} to ${to} fails: it would put a container inside itself.`;
    default:
      return `The leg from ${from} fails: it names a place that is not there or is of the wrong kind.`;
  }
}

/** Ways for a leg that is refused: another that works where its source is met, a stack put around its source, and showing its target instead. */
function instead(project: Project, leg: Leg): Edit[] {
  const { move } = leg;
  if (!move || !("to" in move)) return [];
  const to = move.kind === "open" ? (move.show ?? move.to) : move.to;
  const proposed = proposal(project, { place: leg.from, element: elementIdOf(leg), on: "element" in leg.on ? undefined : leg.on }, to);
  const shown: Move = takesPass(move) ? withPass({ kind: "replace", to }, move.pass) : { kind: "replace", to };
  // In a modal, what stands elsewhere would lose what is around it.
  const stays = modalAround(project, leg.from) === modalAround(project, to);
  const moves: Move[] = [inStackMeant(project, leg.from, move), proposed.move, ...(stays ? [shown] : [])];
  const works = (p: Project, one: Move) =>
    metStates(p, leg.from).every(({ state, branch }) => makeMove(appOf(p), state, branch, programOf(p, one), {}).is === "moved");
  const others = moves
    .filter(
      (one, i) => !sameValue(one, move) && moves.findIndex((other) => isSameWay(other, one)) === i && lookup(project).places.has(to) && works(project, one),
    )
    .map((one) => ({ ...changeLeg(project, leg, { move: one }), name: `${moveSentence(project, leg.from, one)}` }));
  return [...others, ...stackAround(project, leg).filter((edit) => works(applyEdit(project, edit), move))];
}

/** The modal in which a place stands, if it does. */
const modalAround = (project: Project, id: string) => ownersAround(project, id).find(({ kind }) => kind === "modal");

/** Whether two moves say the same, whatever they pass. */
const isSameWay = (a: Move, b: Move) => sameValue(withPass(a, undefined), withPass(b, undefined));

/** A stack around the screen that a leg starts from, for a move that puts something on top where there is no stack. */
function stackAround(project: Project, leg: Leg): Edit[] {
  const { screens } = lookup(project);
  if (!screens.has(leg.from) || ownersAround(project, leg.from).some((c) => c.kind === "stack")) return [];
  if (leg.move?.kind !== "push" && leg.move?.kind !== "reset") return [];
  const name = `${nameOf(project, leg.from)} steps`;
  return [{ ...wrap(project, [leg.from], "stack", name), name: `Put a stack around ${quote(project, leg.from)}, so that others go on top of it` }];
}
