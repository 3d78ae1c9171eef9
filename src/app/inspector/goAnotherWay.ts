import { changeLeg } from "../../core/model/edits/change.ts";
import type { Leg, Move } from "../../core/model/schema.ts";
import { useDocument } from "../store/document.ts";
import { freshLeg, useSelection } from "../store/selection.ts";

/** Leads a leg another way. A leg that was just made stays just made, so that Escape takes back all of it. */
export function goAnotherWay(leg: Leg, move: Move) {
  const { project, apply } = useDocument.getState();
  const fresh = freshLeg(useSelection.getState(), project);
  apply(changeLeg(project, leg, { move }, "Another way"));
  const { project: now } = useDocument.getState();
  if (fresh?.leg === leg.id && now !== project) useSelection.getState().madeOtherwise(now);
}
