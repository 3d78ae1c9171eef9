import { addScreen, newScreen } from "../../model/edits/add.ts";
import { moveInto } from "../../model/edits/arrange.ts";
import { changeContainer } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import type { Container, Project } from "../../model/schema.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const noStart: FindingKind = {
  code: "no-start",
  severity: "blocker",
  says: "a container with nothing in it, or whose start is none of its members",
  help: "A container shows its start when it comes up, and there is none.",
  subjects: "the container",
  inDocument: find,
  open: (project, [id = ""]) => lookup(project).containers.get(id)?.members.length === 0,
  fixes: (project, [id = ""]) => {
    const container = lookup(project).containers.get(id);
    return container ? [startOf(project, container)] : [];
  },
};

/** Containers with no member, or whose start is none of their members. */
function find(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    if (c.members.length === 0) return [{ subjects: [c.id], message: `${quote(project, c.id)} has nothing in it to start with.` }];
    return c.members.includes(c.start)
      ? []
      : [{ subjects: [c.id], message: `${quote(project, c.id)} starts with ${quote(project, c.start)}, which is none of its members.` }];
  });
}

/** A start that is a member: by taking in the one that is named, or by the first member. */
function startOf(project: Project, container: Container): Edit {
  const free = lookup(project).places.has(container.start) && !lookup(project).owners.has(container.start) && container.start !== project.root;
  if (free) return moveInto(project, container.start, container.id);
  const [first] = container.members;
  return first === undefined
    ? fill(project, container)
    : named(`Start ${quote(project, container.id)} with ${quote(project, first)}`, changeContainer(project, container.id, { start: first }));
}

function fill(project: Project, container: Container): Edit {
  const screen = newScreen(container.start, nameOf(project, container.start));
  const known = lookup(project).places.has(container.start);
  return known
    ? moveInto(project, container.start, container.id)
    : { ...addScreen(screen, container.id), name: `Add a first screen to ${quote(project, container.id)}` };
}
