import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Element, Project } from "../../../core/model/schema.ts";

export interface OutlineRow {
  key: string;
  level: number;
  name: string;
  /** What it is, in a word: stack, tabs, start, planned. */
  says: string;
  place: string;
  element?: Element;
  isContainer: boolean;
}

/** The project as rows from the outside in: the root's tree, the modals, then what is in no container. */
export function outlineRows(project: Project, withElementsOf: string | undefined): OutlineRow[] {
  const rows: OutlineRow[] = [];
  const seen = new Set<string>();
  const { places } = lookup(project);
  const visit = (id: string, level: number, isStart: boolean) => {
    const place = places.get(id);
    if (!place || seen.has(id)) return;
    seen.add(id);
    const container = place.kind === "container" ? place.container : undefined;
    const screen = place.kind === "screen" ? place.screen : undefined;
    const words = [isStart ? "start" : undefined, screen?.once || container?.once ? "once" : undefined, screen?.planned ? "planned" : undefined];
    const says = container ? container.kind : words.filter((word) => word !== undefined).join(" ");
    rows.push({ key: id, level, name: (container ?? screen)?.name || id, says, place: id, isContainer: container !== undefined });
    if (withElementsOf === id)
      for (const element of (container ?? screen)?.elements ?? [])
        rows.push({
          key: `${id} ${element.id}`,
          level: level + 1,
          name: element.label || element.id,
          says: element.kind,
          place: id,
          element,
          isContainer: false,
        });
    for (const member of container?.members ?? []) visit(member, level + 1, member === container?.start);
  };
  visit(project.root, 0, false);
  for (const container of project.containers) if (container.kind === "modal") visit(container.id, 0, false);
  for (const place of [...project.containers, ...project.screens]) visit(place.id, 0, false);
  return rows;
}

/** Where a screen goes that is added while a place is chosen, in words with a space before. */
export function addedWhere(project: Project, place: string): string {
  const { containers, owners } = lookup(project);
  const into = containers.get(place);
  const kind = (into ?? owners.get(place))?.kind;
  const as = kind === "tabs" ? " as a tab" : kind === "drawer" ? " as an item" : "";
  const preposition = into === undefined ? "beside" : as === "" ? "in" : "of";
  return `${as} ${preposition} “${nameOf(project, place)}”`;
}
