import type { Fact } from "../schema.ts";
import { type Edit, quoted } from "./edit.ts";

export function addFact(fact: Fact): Edit {
  return { name: `Add fact ${quoted(fact.name ?? fact.id)}`, apply: (project) => ({ ...project, facts: [...project.facts, fact] }) };
}

/** Removes a fact; expressions that name it are then ill-typed, which the checker says. */
export function removeFact(id: string): Edit {
  return { name: `Delete fact ${quoted(id)}`, apply: (project) => ({ ...project, facts: project.facts.filter((fact) => fact.id !== id) }) };
}
