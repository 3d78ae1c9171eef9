import { triggerLabel } from "../../model/describe.ts";
import { elementIdOf, elementOf, firstScreen, lookup, targetOf } from "../../model/lookup.ts";
import { moveWord } from "../../model/propose.ts";
import type { Container, Leg, Project, Screen } from "../../model/schema.ts";

/** One arrow of a diagram, from the place that a leg starts at to the screen that it shows. */
export interface Arrow {
  leg: Leg;
  from: string;
  to: string;
  /** What is used and how it goes: "Notes, on top". */
  label: string;
}
/** The tree of containers with their screens, for diagrams that draw boxes in boxes. */
export interface Box {
  container: Container;
  boxes: Box[];
  screens: Screen[];
}
export interface Graph {
  boxes: Box[];
  /** Screens in no container. */
  loose: Screen[];
  arrows: Arrow[];
  /** The screen that a launch shows. */
  start: string | undefined;
}

/** A project as a plain graph. Legs that lead to no screen by themselves (back, close, up) are left out; the specification has them. */
export function graphOf(project: Project): Graph {
  const { containers, screens } = lookup(project);
  const seen = new Set<string>();
  const box = (container: Container): Box => {
    seen.add(container.id);
    const members = container.members.filter((id) => !seen.has(id));
    const out: Box = { container, boxes: [], screens: [] };
    for (const id of members) {
      const inner = containers.get(id);
      const screen = screens.get(id);
      if (inner && !seen.has(id)) out.boxes.push(box(inner));
      if (screen && !seen.has(id)) {
        seen.add(id);
        out.screens.push(screen);
      }
    }
    return out;
  };
  const root = containers.get(project.root);
  const boxes = [...(root ? [box(root)] : []), ...project.containers.flatMap((c) => (c.kind === "modal" && !seen.has(c.id) ? [box(c)] : []))];
  for (const container of project.containers) if (!seen.has(container.id)) boxes.push(box(container));
  return {
    boxes,
    loose: project.screens.filter((s) => !seen.has(s.id)),
    arrows: project.legs.flatMap((leg) => arrow(project, leg)),
    start: firstScreen(project, project.root)?.id,
  };
}

function arrow(project: Project, leg: Leg): Arrow[] {
  const { move } = leg;
  const aim = move?.kind === "open" ? (move.show ?? move.to) : targetOf(leg);
  const to = aim === undefined ? undefined : firstScreen(project, aim)?.id;
  if (to === undefined || !lookup(project).places.has(leg.from)) return [];
  const element = elementIdOf(leg);
  const by = element === undefined ? triggerLabel(leg) : elementOf(project, leg.from, element)?.label || element;
  const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? ` (${leg.on.outcome})` : "";
  return [{ leg, from: leg.from, to, label: `${by}${outcome}, ${moveWord(move)}` }];
}
