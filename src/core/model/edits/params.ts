import * as z from "zod";
import { firstScreen, giveOf, nameOf, passOf, targetOf } from "../lookup.ts";
import { withGive, withPass } from "../moves.ts";
import type { Leg, Project } from "../schema.ts";
import { changed, type Edit, editKind, quoted } from "./edit.ts";

export const dropsParameter = editKind("dropParameter", z.strictObject({ screen: z.string(), param: z.string() }), (p, { screen, param: name }) => ({
  ...p,
  screens: changed(p.screens, screen, (s) => ({ ...s, params: s.params.filter((q) => q.name !== name) })),
  legs: p.legs.map((leg) => {
    const { move } = leg;
    if (!move) return leg;
    const gives = giveOf(leg)?.[name] !== undefined && !takenElsewhere(p, leg, screen, name);
    const given = gives ? { ...leg, move: withGive(move, without(giveOf(leg), name)) } : leg;
    const shown = move.kind === "open" ? (move.show ?? move.to) : targetOf(leg);
    if (passOf(leg)?.[name] === undefined || shown === undefined || firstScreen(p, shown)?.id !== screen) return given;
    return { ...given, move: withPass(given.move ?? move, without(passOf(leg), name)) };
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

/** Whether what a leg hands back by a name may be for another screen than one. */
function takenElsewhere(project: Project, leg: Leg, screen: string, name: string): boolean {
  if (leg.move?.kind === "return") return leg.move.to !== screen;
  return project.screens.some((other) => other.id !== screen && other.params.some((param) => param.name === name));
}

function without(pass: Record<string, string> | undefined, name: string): Record<string, string> | undefined {
  const { [name]: _, ...rest } = pass ?? {};
  return Object.keys(rest).length > 0 ? rest : undefined;
}
