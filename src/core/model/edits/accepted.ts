import * as z from "zod";
import type { Project } from "../schema.ts";
import { type Edit, editKind } from "./edit.ts";

const accepted = { code: z.string(), subjects: z.array(z.string()) };
type Accepted = { code: string; subjects: readonly string[] };

export const acceptsFinding = editKind("acceptFinding", z.strictObject({ ...accepted, reason: z.string() }), (p, { code, subjects, reason }) => ({
  ...p,
  accepted: [...(p.accepted ?? []), { code, subjects, reason }],
}));
/** Notes that the team lives with a finding, and why. */
export function acceptFinding({ code, subjects }: Accepted, reason: string): Edit {
  return acceptsFinding.make(`Accept ${code}`, { code, subjects: [...subjects], reason });
}

export const withdrawsAccepted = editKind("withdrawAccepted", z.strictObject(accepted), (p, one): Project => {
  const { accepted: all, ...rest } = p;
  const left = (all ?? []).filter((a) => a.code !== one.code || a.subjects.join(" ") !== one.subjects.join(" "));
  return left.length > 0 ? { ...rest, accepted: left } : rest;
});
/** A finding counts again that was accepted. */
export function withdrawAccepted({ code, subjects }: Accepted): Edit {
  return withdrawsAccepted.make(`No longer accept ${code}`, { code, subjects: [...subjects] });
}
