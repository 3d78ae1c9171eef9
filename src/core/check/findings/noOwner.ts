import { moveInto } from "../../model/edits/arrange.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { lookup, targetOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const noOwner: FindingKind = {
  code: "no-owner",
  severity: "blocker",
  says: "a place in no container, or in two",
  help: "Every screen and every container but the outermost and the modals belongs to exactly one container.",
  subjects: "the place",
  inDocument: find,
  fixes: (project, [id = ""]) => placeSomewhere(project, id),
};

/** Places in no container that are not the root, and places in two. */
function find(project: Project): Found[] {
  const owners = new Map<string, number>();
  for (const container of project.containers) for (const member of new Set(container.members)) owners.set(member, (owners.get(member) ?? 0) + 1);
  return [...project.containers, ...project.screens].flatMap((place) => {
    const count = owners.get(place.id) ?? 0;
    const isModal = "kind" in place && place.kind === "modal";
    if (count > 1) return [{ subjects: [place.id], message: `${quote(project, place.id)} is in ${count} containers at once; a place has one owner.` }];
    if (count === 0 && place.id !== project.root && !isModal)
      return [{ subjects: [place.id], message: `${quote(project, place.id)} is in no container, so no history holds it.` }];
    return [];
  });
}

function placeSomewhere(project: Project, placeId: string): Edit[] {
  const others = project.containers.filter((c) => c.members.includes(placeId));
  const [keep] = others;
  if (keep && others.length > 1)
    return [{ ...moveInto(project, placeId, keep.id), name: `Keep ${quote(project, placeId)} in ${quote(project, keep.id)} only` }];
  const stack = lookup(project).owners.get(lookup(project).legs.size > 0 ? (project.legs.find((leg) => targetOf(leg) === placeId)?.from ?? "") : "");
  const home = stack ?? project.containers.find((c) => c.kind === "stack" && c.id !== placeId);
  return home ? [moveInto(project, placeId, home.id)] : [];
}
