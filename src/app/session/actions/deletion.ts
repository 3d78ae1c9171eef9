import type { Chosen } from "../../../core/model/edits/clip.ts";
import type { Edit } from "../../../core/model/edits/edit.ts";
import { together } from "../../../core/model/edits/kinds.ts";
import { legName, lossesOf, removeElement, removeEntrance, removeLegs, removePlaces } from "../../../core/model/edits/remove.ts";
import { elementIdOf, elementOf, lookup, nameOf } from "../../../core/model/lookup.ts";
import { speaksOf } from "../../../core/model/rules.ts";
import type { Project } from "../../../core/model/schema.ts";

/** The edit that deletes what is chosen, what else goes with it, and what is otherwise afterwards, in words. */
export function deletionOf(project: Project, what: readonly Chosen[]): { edit: Edit; alsoGoes: string[]; changes: string[] } {
  const ids = (kind: Chosen["kind"]) => what.flatMap((one) => (one.kind === kind ? [one.id] : []));
  const losses = lossesOf(project, ids("place"));
  const elements = what.flatMap((one) => (one.kind === "element" && !losses.places.includes(one.place) ? [one] : []));
  const onElements = elements.flatMap((one) => (lookup(project).legsFrom.get(one.place) ?? []).filter((leg) => elementIdOf(leg) === one.id));
  const places = losses.places.filter((id) => !ids("place").includes(id)).map((id) => `“${nameOf(project, id)}”`);
  const legs = [...new Set([...losses.legs, ...onElements.map((leg) => leg.id)])].filter((id) => !ids("leg").includes(id));
  const named = legs.flatMap((id) => lookup(project).legs.get(id) ?? []).map((leg) => `the leg ${legName(project, leg)}`);
  const entrances = losses.entrances.filter((id) => !ids("entrance").includes(id)).map((id) => `the way in “${nameOf(project, id)}”`);
  const edits = [
    ...(ids("leg").length > 0 ? [removeLegs(project, ids("leg"))] : []),
    ...elements.map((one) => removeElement(project, one.place, one.id)),
    ...ids("entrance").map((id) => removeEntrance(project, id)),
    ...(ids("place").length > 0 ? [removePlaces(project, ids("place"))] : []),
  ];
  const gone = {
    places: new Set(losses.places),
    legs: new Set([...ids("leg"), ...legs]),
    entrances: new Set([...ids("entrance"), ...losses.entrances]),
  };
  const rules = (project.rules ?? []).filter((rule) => speaksOf(rule, gone));
  const [only] = edits;
  return {
    edit: edits.length === 1 && only ? only : together(`Delete ${what.length} things`, edits),
    changes: [
      ...losses.ups.map((id) => `Up of “${nameOf(project, id)}” leads as usual again`),
      ...rules.map((rule) => `the rule “${rule.name}” speaks of it`),
      ...losses.otherwise.map((id) => `the way in “${nameOf(project, id)}”, where it may not be used, does as a launch does`),
    ],
    alsoGoes: [...places, ...(named.length > 6 ? [...named.slice(0, 5), `and ${named.length - 5} more legs`] : named), ...entrances],
  };
}

/** What is to be deleted, by name. */
export function nameOfChosen(project: Project, one: Chosen): string {
  if (one.kind === "element") return elementOf(project, one.place, one.id)?.label || one.id;
  const leg = one.kind === "leg" ? lookup(project).legs.get(one.id) : undefined;
  return leg ? legName(project, leg) : nameOf(project, one.id);
}
