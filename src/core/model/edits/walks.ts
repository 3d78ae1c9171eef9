import { nameOf } from "../lookup.ts";
import type { NavEvent, Project, Walk } from "../schema.ts";
import { type Edit, freshId, quoted } from "./edit.ts";

/** Keeps events as a walk of the document. */
export function addWalk(project: Project, name: string, events: NavEvent[]): { edit: Edit; id: string } {
  const id = freshId(name, new Set(project.walks.map((walk) => walk.id)), "walk");
  return { id, edit: { name: `Keep the walk ${quoted(name)}`, apply: (p) => ({ ...p, walks: [...p.walks, { id, name, events }] }) } };
}

/** Expects a state line after so many events of a walk; one that is expected there already is replaced. */
export function expectInWalk(project: Project, id: string, after: number, shows: string): Edit {
  const change = (walk: Walk): Walk => ({
    ...walk,
    expect: [...(walk.expect ?? []).filter((e) => e.after !== after), { after, shows }].sort((a, b) => a.after - b.after),
  });
  return {
    name: `Expect something in the walk ${quoted(walkName(project, id))}`,
    apply: (p) => ({ ...p, walks: p.walks.map((walk) => (walk.id === id ? change(walk) : walk)) }),
  };
}

export function removeWalk(project: Project, id: string): Edit {
  return { name: `Delete the walk ${quoted(walkName(project, id))}`, apply: (p) => ({ ...p, walks: p.walks.filter((walk) => walk.id !== id) }) };
}

function walkName(project: Project, id: string): string {
  return project.walks.find((walk) => walk.id === id)?.name ?? nameOf(project, id);
}
