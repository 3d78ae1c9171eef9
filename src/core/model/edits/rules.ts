import * as z from "zod";
import { PARTS, type Project, type Rule } from "../schema.ts";
import { type Edit, editKind, freshId, quoted } from "./edit.ts";

export const addsRule = editKind("addRule", z.strictObject({ rule: PARTS.Rule }), (p, { rule }) => ({ ...p, rules: [...(p.rules ?? []), rule] }));
/** Adds a rule, which comes last. */
export function addRule(rule: Rule): Edit {
  return addsRule.make(`Add the rule ${quoted(rule.name)}`, { rule });
}

export const changesRule = editKind("changeRule", z.strictObject({ id: z.string(), rule: PARTS.Rule }), (p, { id, rule }) =>
  p.rules ? { ...p, rules: p.rules.map((one) => (one.id === id ? rule : one)) } : p,
);
/** Puts a rule in the place of the one with its id. */
export function changeRule(rule: Rule): Edit {
  return changesRule.make(`Change the rule ${quoted(rule.name)}`, { id: rule.id, rule });
}

export const removesRule = editKind(
  "removeRule",
  z.strictObject({ id: z.string() }),
  (p, { id }): Project => {
    const { rules = [], ...rest } = p;
    const left = rules.filter((rule) => rule.id !== id);
    return left.length > 0 ? { ...p, rules: left } : rest;
  },
  true,
);
export function removeRule(project: Project, id: string): Edit {
  return removesRule.make(`Delete the rule ${quoted(project.rules?.find((rule) => rule.id === id)?.name ?? id)}`, { id });
}

/** An id for a rule of a name. */
export function freshRuleId(project: Project, name: string): string {
  return freshId(name, new Set(project.rules?.map(({ id }) => id)), "rule");
}
