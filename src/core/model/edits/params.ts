import * as z from "zod";
import { firstScreen, nameOf, targetOf } from "../lookup.ts";
import type { Project } from "../schema.ts";
import { changed, type Edit, editKind, quoted } from "./edit.ts";

export const dropsParameter = editKind("dropParameter", z.strictObject({ screen: z.string(), param: z.string() }), (p, { screen, param: name }) => ({
  ...p,
  screens: changed(p.screens, screen, (s) => ({ ...s, params: s.params.filter((q) => q.name !== name) })),
  legs: p.legs.map((leg) => {
    const { move } = leg;
    if (!move || !("pass" in move) || move.pass?.[name] === undefined) return leg;
    const shown = move.kind === "open" ? (move.show ?? move.to) : targetOf(leg);
    if (shown === undefined || firstScreen(p, shown)?.id !== screen) return leg;
    const { pass, ...rest } = move;
    const next = without(pass, name);
    return { ...leg, move: next ? { ...rest, pass: next } : rest };
  }),
  entrances: p.entrances.map((entrance) => {
    if (entrance.to !== screen || entrance.pass?.[name] === undefined) return entrance;
    const { pass, ...rest } = entrance;
    const next = without(pass, name);
    return next ? { ...rest, pass: next } : rest;
  }),
}));
/** Takes a parameter from a screen; nobody passes it any longer. */
export function dropParameter(project: Project, screen: string, name: string): Edit {
  return dropsParameter.make(`Take ${name} away from ${quoted(nameOf(project, screen))}`, { screen, param: name });
}

function without(pass: Record<string, string> | undefined, name: string): Record<string, string> | undefined {
  const { [name]: _, ...rest } = pass ?? {};
  return Object.keys(rest).length > 0 ? rest : undefined;
}
