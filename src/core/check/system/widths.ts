import type { Project, Width } from "../../model/schema.ts";

/** Widths in which the document can not behave differently, together. */
export function widthClasses(project: Project): Width[][] {
  if (!dependsOnWidth(project)) return [["narrow"]];
  if (asksWidth(project)) return [["narrow"], ["middle"], ["wide"]];
  const pinned = (from: "middle" | "wide") => project.containers.some((c) => c.kind === "drawer" && c.pinnedFrom === from);
  const classes: Width[][] = [["narrow"]];
  for (const width of ["middle", "wide"] as const) {
    if (pinned(width)) classes.push([width]);
    else classes.at(-1)?.push(width);
  }
  return classes;
}

/** Whether anything in the document is different from one width to another. */
export function dependsOnWidth(project: Project): boolean {
  return asksWidth(project) || project.containers.some((c) => c.kind === "drawer" && c.pinnedFrom !== "never");
}

function asksWidth(project: Project): boolean {
  const asks = (source: string | undefined) => source !== undefined && /\bwidth\b/.test(source);
  const elements = [...project.screens, ...project.containers].flatMap((place) => place.elements ?? []);
  return (
    project.legs.some((leg) => asks(leg.when) || Object.values(leg.set ?? {}).some(asks)) ||
    elements.some((e) => asks(e.shown) || asks(e.enabled)) ||
    project.entrances.some((e) => asks(e.when))
  );
}
