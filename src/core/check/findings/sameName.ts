import { elementIdOf, lookup, targetOf } from "../../model/lookup.ts";
import type { Element, Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { ANSWERING, quote } from "./parts.ts";

export const sameName: FindingKind = {
  code: "same-name",
  severity: "note",
  says: "two screens or two controls of one name",
  help: "People, and the team, tell them apart by their names alone.",
  subjects: "both",
  inDocument: find,
};

/** Two screens of one name, or two elements of one screen with one label that lead to different places. */
function find(project: Project): Found[] {
  const screens = pairs(
    project.screens.filter((s) => s.name !== ""),
    (s) => s.name,
  ).map(([a, b]) => ({
    subjects: [a.id, b.id],
    message: `Two screens are called "${a.name}"; their ids are ${a.id} and ${b.id}.`,
  }));
  const elements = project.screens.flatMap((screen) => {
    const legs = lookup(project).legsFrom.get(screen.id) ?? [];
    const targets = (e: Element) => legs.filter((leg) => elementIdOf(leg) === e.id).map((leg) => targetOf(leg) ?? leg.move?.kind ?? "");
    return pairs(
      screen.elements.filter((e) => ANSWERING.includes(e.kind) && e.label !== ""),
      (e) => e.label,
      (a, b) => targets(a).length > 0 && targets(b).length > 0 && targets(a).sort().join(" ") !== targets(b).sort().join(" "),
    ).map(([a, b]) => ({
      subjects: [a.id, b.id],
      message: `Two elements of ${quote(project, screen.id)} are both called "${a.label}" and lead to different places.`,
    }));
  });
  return [...screens, ...elements];
}

/** All pairs of the same name of which something holds. */
function pairs<T>(list: T[], name: (entry: T) => string, holds: (a: T, b: T) => boolean = () => true): Array<[T, T]> {
  const groups = new Map<string, T[]>();
  for (const entry of list) {
    const group = groups.get(name(entry));
    if (group) group.push(entry);
    else groups.set(name(entry), [entry]);
  }
  return [...groups.values()].flatMap((group) => group.flatMap((a, i) => group.slice(i + 1).flatMap((b): Array<[T, T]> => (holds(a, b) ? [[a, b]] : []))));
}
