import { elementIdOf, firstScreen, lookup, ownersAround, treeOf } from "../lookup.ts";
import { takesPass } from "../moves.ts";
import { suitedMove, withArguments } from "../propose.ts";
import type { Leg, Move, Project } from "../schema.ts";

/** What stands for a container that is gone: the screen it showed first, and the stack around it. */
interface Instead {
  first?: string | undefined;
  stack?: string | undefined;
}
/** A document after an arrangement, with what happened to legs on the way. */
export interface Repointed {
  project: Project;
  /** Legs that go another way now. */
  changed: string[];
  /** Legs that had nothing left to do and are gone. */
  lost: string[];
}

/**
 * Keeps legs right when places move: a leg that went the way that suited its target before goes
 * the way that suits it now; one that someone chose otherwise stays. What names a place that is
 * gone is led to what stands for it now (`instead`), or loses that part.
 */
export function repoint(before: Project, after: Project, instead: Instead = {}): Repointed {
  const { places } = lookup(after);
  const gone = new Set([...lookup(before).places.keys()].filter((id) => !places.has(id)));
  const changed: string[] = [];
  const lost: string[] = [];
  const legs = after.legs.flatMap((leg): Leg[] => {
    if (!leg.move) return [leg];
    const move = moved(before, after, leg, leg.move, gone, instead);
    if (move === undefined) {
      lost.push(leg.id);
      return leg.set ? [withoutMove(leg)] : [];
    }
    if (move === leg.move || same(move, leg.move)) return [leg];
    changed.push(leg.id);
    return [{ ...leg, move }];
  });
  return { project: { ...after, legs }, changed, lost };
}

function withoutMove({ move: _, ...leg }: Leg): Leg {
  return leg;
}

function moved(before: Project, after: Project, leg: Leg, move: Move, gone: Set<string>, instead: Instead): Move | undefined {
  if (move.kind === "menu") return move.drawer !== undefined && gone.has(move.drawer) ? undefined : move;
  if (move.kind === "close" && closes(before, leg, move, gone)) return { kind: "back" };
  if (!("to" in move)) return move;
  const goneTo = gone.has(move.to);
  const shown = move.kind === "open" && move.show !== undefined ? move.show : move.to;
  const aim = goneTo ? (gone.has(shown) ? instead.first : shown) : shown;
  if (aim === undefined) return move;
  const usual = wasUsual(before, leg, move, shown);
  if (goneTo || usual) {
    if (!lookup(after).places.has(leg.from)) return move;
    const suited = suitedMove(after, leg.from, aim);
    return same(suited, move) ? move : carrying(after, leg, suited, move);
  }
  if ((move.kind === "push" || move.kind === "reset") && move.in !== undefined && gone.has(move.in)) {
    const { in: _, ...rest } = move;
    return instead.stack === undefined ? rest : { ...rest, in: instead.stack };
  }
  return move;
}

function closes(before: Project, leg: Leg, move: Extract<Move, { kind: "close" }>, gone: Set<string>): boolean {
  if (move.modal !== undefined) return gone.has(move.modal);
  const around = ownersAround(before, leg.from).find((c) => c.kind === "modal");
  return around !== undefined && gone.has(around.id);
}

/** Whether a leg goes to its target as Etape would have proposed. */
function wasUsual(before: Project, leg: Leg, move: Move, shown: string): boolean {
  return lookup(before).places.has(leg.from) && same(suitedMove(before, leg.from, shown), move);
}

/** The arguments that the leg handed on stay; where it had none, what is known of them is filled in. */
function carrying(after: Project, leg: Leg, suited: Move, old: Move): Move {
  const pass = "pass" in old ? old.pass : undefined;
  if (!takesPass(suited)) return suited;
  return pass ? { ...suited, pass } : withArguments(after, leg.from, elementIdOf(leg), suited);
}

/** The move of a leg that now starts from another place: what suits it there, if it went the suitable way before. */
export function suitedFrom(project: Project, leg: Leg, origin: string | undefined, from: string): Move | undefined {
  const { move } = leg;
  if (!move || !("to" in move) || origin === undefined || !lookup(project).places.has(move.to)) return move;
  const shown = move.kind === "open" && move.show !== undefined ? move.show : move.to;
  if (!wasUsual(project, { ...leg, from: origin }, move, shown)) return move;
  const suited = suitedMove(project, from, shown);
  return same(suited, move) ? move : carrying(project, { ...leg, from }, suited, move);
}

/** Whether two moves go the same way, arguments aside. */
function same(a: Move, b: Move): boolean {
  return shape(a) === shape(b);
}
function shape(move: Move): string {
  const { pass: _, ...rest } = move as Move & { pass?: unknown };
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** The screen that stands for a container that goes: the one it showed first. */
export function standIn(project: Project, containerId: string): string | undefined {
  return firstScreen(project, containerId)?.id ?? treeOf(project, containerId).find((id) => lookup(project).screens.has(id));
}
