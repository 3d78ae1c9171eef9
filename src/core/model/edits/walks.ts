import * as z from "zod";
import { nameOf } from "../lookup.ts";
import { type NavEvent, PARTS, type Project } from "../schema.ts";
import { changed, type Edit, editKind, freshId, quoted } from "./edit.ts";

export const addsWalk = editKind("addWalk", z.strictObject({ walk: PARTS.Walk }), (p, { walk }) => ({ ...p, walks: [...p.walks, walk] }));
/** Keeps events as a walk of the document. */
export function addWalk(project: Project, name: string, events: NavEvent[]): { edit: Edit; id: string } {
  const id = freshId(name, new Set(project.walks.map((walk) => walk.id)), "walk");
  return { id, edit: addsWalk.make(`Keep the walk ${quoted(name)}`, { walk: { id, name, events } }) };
}

export const expectsInWalk = editKind("expectInWalk", z.strictObject({ id: z.string(), after: z.number(), shows: z.string() }), (p, { id, after, shows }) => ({
  ...p,
  walks: changed(p.walks, id, (walk) => ({
    ...walk,
    expect: [...(walk.expect ?? []).filter((e) => e.after !== after), { after, shows }].sort((a, b) => a.after - b.after),
  })),
}));
/** Expects a state line after so many events of a walk; one that is expected there already is replaced. */
export function expectInWalk(project: Project, id: string, after: number, shows: string): Edit {
  return expectsInWalk.make(`Expect something in the walk ${quoted(walkName(project, id))}`, { id, after, shows });
}

export const removesWalk = editKind("removeWalk", z.strictObject({ id: z.string() }), (p, { id }) => ({
  ...p,
  walks: p.walks.filter((walk) => walk.id !== id),
}));
export function removeWalk(project: Project, id: string): Edit {
  return removesWalk.make(`Delete the walk ${quoted(walkName(project, id))}`, { id });
}

function walkName(project: Project, id: string): string {
  return project.walks.find((walk) => walk.id === id)?.name ?? nameOf(project, id);
}
