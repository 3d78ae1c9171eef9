import * as z from "zod";
import { type Fact, PARTS } from "../schema.ts";
import { type Edit, editKind, quoted } from "./edit.ts";

export const addsFact = editKind("addFact", z.strictObject({ fact: PARTS.Fact }), (project, { fact }) => ({ ...project, facts: [...project.facts, fact] }));
export function addFact(fact: Fact): Edit {
  return addsFact.make(`Add fact ${quoted(fact.name ?? fact.id)}`, { fact });
}

export const removesFact = editKind("removeFact", z.strictObject({ id: z.string() }), (project, { id }) => ({
  ...project,
  facts: project.facts.filter((fact) => fact.id !== id),
}));
/** Removes a fact; expressions that name it are then ill-typed, which the checker says. */
export function removeFact(id: string): Edit {
  return removesFact.make(`Delete fact ${quoted(id)}`, { id });
}
