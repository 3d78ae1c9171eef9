import { useState } from "react";
import { lookup, treeOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { movable, moveTo } from "../../session/actions/arranging.ts";
import { contextOf } from "../../session/context.ts";
import { useSession } from "../../session/hooks.ts";
import type { Session } from "../../session/session.ts";
import { outlineRows } from "./tree.ts";

export interface Drop {
  key: string;
  where: "before" | "into";
}

/** Dragging places in the outline: before another place, or into a container. */
export function useDragRows(project: Project) {
  const session = useSession();
  const [dragged, setDragged] = useState<readonly string[]>([]);
  const [drop, setDrop] = useState<Drop>();
  const rowOf = (event: React.DragEvent) => (event.target as Element).closest<HTMLElement>("[data-key]");
  const stop = () => {
    setDragged([]);
    setDrop(undefined);
  };
  const handlers = {
    onDragStart: (event: React.DragEvent) => {
      const key = rowOf(event)?.dataset.key;
      if (key === undefined || !lookup(project).places.has(key) || key === project.root) {
        event.preventDefault();
        return;
      }
      event.dataTransfer.effectAllowed = "move";
      event.dataTransfer.setData("text/plain", key);
      setDragged(movedWith(session, project, key));
    },
    onDragOver: (event: React.DragEvent) => {
      const row = rowOf(event);
      const next = row && dragged.length > 0 ? dropAt(project, dragged, row, event.clientY) : undefined;
      if (next) event.preventDefault();
      if (next?.key !== drop?.key || next?.where !== drop?.where) setDrop(next);
    },
    onDrop: (event: React.DragEvent) => {
      event.preventDefault();
      if (dragged.length > 0 && drop) put(session, dragged, drop);
      stop();
    },
    onDragEnd: stop,
  };
  return { handlers, drop };
}

/** The upper half of a row means before it; the lower half of a container means into it. A place never goes into its own tree. */
function dropAt(project: Project, dragged: readonly string[], row: HTMLElement, y: number): Drop | undefined {
  const key = row.dataset.key ?? "";
  if (dragged.some((id) => treeOf(project, id).includes(key))) return undefined;
  const box = row.getBoundingClientRect();
  const upper = y < box.top + box.height / 2;
  const { containers, owners } = lookup(project);
  if (containers.has(key) && (!upper || !owners.has(key))) return { key, where: "into" };
  return owners.has(key) ? { key, where: "before" } : undefined;
}

function put(session: Session, dragged: readonly string[], drop: Drop) {
  const { project } = contextOf(session);
  const owner = drop.where === "into" ? lookup(project).containers.get(drop.key) : lookup(project).owners.get(drop.key);
  if (owner) moveTo(contextOf(session), dragged, owner.id, drop.where === "into" ? undefined : drop.key);
}

/** What is dragged with a row: everything chosen, where the row is chosen, in the order of the outline. */
function movedWith(session: Session, project: Project, key: string): string[] {
  const { places } = contextOf(session);
  if (!places.includes(key)) return [key];
  const order = outlineRows(project, undefined).map((row) => row.place);
  return movable(project, places).sort((a, b) => order.indexOf(a) - order.indexOf(b));
}
