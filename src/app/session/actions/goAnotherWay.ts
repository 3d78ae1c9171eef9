import { changeLeg } from "../../../core/model/edits/change.ts";
import type { Leg, Move } from "../../../core/model/schema.ts";
import { freshLeg } from "../selection.ts";
import type { Session } from "../session.ts";

/** Leads a leg another way. A leg that was just made stays just made, so that Escape takes back all of it. */
export function goAnotherWay(session: Session, leg: Leg, move: Move) {
  const { project, apply } = session.document.getState();
  const fresh = freshLeg(session.selection.getState(), project);
  apply(changeLeg(project, leg, { move }, "Another way"));
  const { project: now } = session.document.getState();
  if (fresh?.leg === leg.id && now !== project) session.selection.getState().madeOtherwise(now);
}
