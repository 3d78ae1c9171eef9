import type { Doing } from "../../../core/insight/nowhere.ts";
import { proposal } from "../../../core/insight/proposal.ts";
import { triggerLabel } from "../../../core/model/describe.ts";
import {
  type LegStart,
  type Link,
  linkElement,
  linkToDoing,
  linkToNewLane,
  linkToNewModal,
  linkToNewScreen,
  linkToNewStack,
} from "../../../core/model/edits/link.ts";
import { elementOf, lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { Session } from "../session.ts";
import { stateOfWalk } from "../walk.ts";

/** A new screen to lead to: on top, in a modal (with steps of its own or not), in a stack of its own, or as one more tab or menu entry. */
export interface NewTarget {
  as: "screen" | "modal" | "flow" | "stack" | "lane";
  name: string;
}
/** Where a leg that is being made leads: a place, something to do that is no place, a new screen, or a screen with a modal put around it. */
export type LinkTarget = string | { doing: Doing } | NewTarget | { modalAround: string };

/** Ends the picking of a target: the leg is made (or led elsewhere) and chosen. Escape right afterwards takes it back. */
export function linkTo(session: Session, target: LinkTarget, from = session.selection.getState().linking) {
  const { project, apply } = session.document.getState();
  if (!from) return;
  const made = linkOf(session, project, from, target);
  if (!made) return;
  apply(made.edit);
  const { project: now } = session.document.getState();
  const selection = session.selection.getState();
  if (now !== project) selection.made(made.legId, now);
  else {
    // It leads there already: nothing was made that could be taken back.
    selection.link(undefined);
    selection.select({ kind: "leg", id: made.legId });
  }
  document.getElementById("places")?.focus();
}

/** The edit that leads from a start to a target, in a project; undefined where that cannot be. */
export function linkOf(session: Session, project: Project, from: LegStart, target: LinkTarget): Pick<Link, "edit" | "legId"> | undefined {
  if (typeof target === "string") return linkElement(project, from, target, proposal(project, from, target, stateOfWalk(session.walk.getState())));
  if ("doing" in target) return linkToDoing(project, from, { ...target.doing.does, name: target.doing.name, label: target.doing.label });
  if ("modalAround" in target) return linkToNewModal(project, from, { around: target.modalAround });
  switch (target.as) {
    case "screen":
      return linkToNewScreen(project, from, target.name);
    case "stack":
      return linkToNewStack(project, from, target.name);
    case "lane":
      return linkToNewLane(project, from, target.name);
    case "modal":
    case "flow":
      return linkToNewModal(project, from, { name: target.name, steps: target.as === "flow" });
  }
}

/** What is asked while a target is picked: `Where does “Join” on “Welcome” lead?` */
export function linkQuestion(project: Project, { place, element, on, leg }: LegStart): string {
  const where = `“${nameOf(project, place)}”`;
  if (element !== undefined) return `Where does “${elementOf(project, place, element)?.label || element}” on ${where} lead?`;
  const trigger = on ?? lookup(project).legs.get(leg ?? "")?.on;
  switch (trigger?.kind) {
    case undefined:
      return `Where does a new button on ${where} lead?`;
    case "arrive":
      return `Where does ${where} lead as soon as it shows?`;
    case "after":
      return `Where does ${where} lead ${triggerLabel({ on: trigger })}?`;
    case "depart":
      return `What comes up when ${where} is left?`;
    case "swipe":
      return `Where does a swipe ${trigger.to} on ${where} lead?`;
    default:
      return `Where does ${where} lead?`;
  }
}

/** The edit that leading to a place would make, without making it. */
export function editTo(session: Session, from: LegStart, to: string) {
  return linkOf(session, session.document.getState().project, from, to)?.edit;
}
