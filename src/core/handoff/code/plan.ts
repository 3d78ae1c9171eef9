/** A project as generated code needs it: expressions as trees, what is ill-typed left out, all else as the engine takes it. */

import { type CompiledLeg, compiled } from "../../engine/compiled.ts";
import { type ASTNode, compile, fits, type Scope, valueType } from "../../model/expression.ts";
import { elementIdOf, firstScreen, lookup, nameOf, parametersOf, passTarget, rowTypeOf } from "../../model/lookup.ts";
import { moveSentence } from "../../model/propose.ts";
import type { Entrance, Leg, Move, Param, Project, RecordType, Screen } from "../../model/schema.ts";
import { entranceScope, legScope } from "../../model/scope.ts";
import { patternVariables } from "../../model/template.ts";
import { triggerKey } from "../../plan/lower/legs.ts";

export interface CodeLeg {
  leg: Leg;
  on: "user" | "after" | "arrive" | "depart";
  key: string;
  never: boolean;
  when: ASTNode | undefined;
  shown: ASTNode | undefined;
  enabled: ASTNode | undefined;
  except: string[];
  rows: RecordType | undefined;
  move: Move | undefined;
  /** Whether the move gives arguments, be they none. */
  passes: boolean;
  pass: Array<{ name: string; value: ASTNode; required: boolean }>;
  set: Array<{ fact: string; value: ASTNode }>;
  /** The screen that gets the arguments. */
  target: Screen | undefined;
}
export interface CodeEntrance {
  entrance: Entrance;
  variables: string[];
  when: ASTNode | "never" | undefined;
  pass: Array<{ name: string; value: ASTNode }> | undefined;
  target: Screen | undefined;
}

/** The legs in document order. */
export function codeLegs(project: Project): CodeLeg[] {
  return project.legs.map((leg) => codeLeg(project, leg, compiled(project).legs.get(leg.id) as CompiledLeg));
}

function codeLeg(project: Project, leg: Leg, entry: CompiledLeg): CodeLeg {
  const scope = legScope(project, leg);
  const element = entry.element === "missing" ? undefined : entry.element;
  const given = leg.move && "pass" in leg.move ? leg.move.pass : undefined;
  const to = passTarget(project, leg) ?? "";
  return {
    leg,
    on: leg.on.kind === "after" || leg.on.kind === "arrive" || leg.on.kind === "depart" ? leg.on.kind : "user",
    key: triggerKey(leg),
    never: !entry.wellTyped || (elementIdOf(leg) !== undefined && element === undefined),
    when: entry.when?.ast,
    shown: element?.shown?.ast,
    enabled: element?.enabled?.ast,
    except: [...(element?.except ?? [])],
    rows: rowTypeOf(project, leg),
    move: leg.move,
    passes: given !== undefined,
    pass: trees(given, scope).map(({ name, value }) => {
      const param = parametersOf(project, to).find((p) => p.name === name);
      return { name, value, required: param?.required === true && param.default === undefined };
    }),
    set: entry.set.map(({ fact, ast }) => ({ fact, value: ast })),
    target: firstScreen(project, to),
  };
}

function trees(given: Record<string, string> | undefined, scope: Scope): Array<{ name: string; value: ASTNode; type: string }> {
  return Object.entries(given ?? {}).flatMap(([name, source]) => {
    const result = compile(source, scope);
    return result.ok ? [{ name, value: result.ast, type: result.type }] : [];
  });
}

/** The ways in, in document order. */
export function codeEntrances(project: Project): CodeEntrance[] {
  return project.entrances.map((entrance) => {
    const entry = compiled(project).entrances.get(entrance.id);
    const params = parametersOf(project, entrance.to);
    const pass = entrance.pass && trees(entrance.pass, entranceScope(project, entrance));
    return {
      entrance,
      variables: entrance.pattern === undefined ? [] : patternVariables(entrance.pattern),
      when: entry?.when === "never" ? "never" : entry?.when?.ast,
      pass: pass?.filter(({ name, type }) => {
        const param = params.find((p) => p.name === name);
        return !param || fits(type as never, valueType(param.type));
      }),
      target: lookup(project).screens.get(entrance.to),
    };
  });
}

/** Whether a call has to give a parameter. */
export function mustGive(param: Param): boolean {
  return param.required && param.default === undefined;
}

/** A leg that the app uses by name: what is said of it, and whether a call must give anything. */
export interface UsableLeg extends CodeLeg {
  says: string;
  mayGiveNothing: boolean;
}

/** The legs that a person or the clock sets off; the others fire by themselves. */
export function usableLegs(project: Project): UsableLeg[] {
  return codeLegs(project)
    .filter(({ on }) => on === "user" || on === "after")
    .map((leg) => ({
      ...leg,
      says: `${nameOf(project, leg.leg.from)}: ${leg.move ? moveSentence(project, leg.leg.from, leg.move) : "sets facts"}`,
      mayGiveNothing: leg.target?.params.some(mustGive) !== true,
    }));
}

/** By screen the name that its view has in code. */
export function viewNames(project: Project): Map<string, string> {
  const code = new Map(project.screens.map((s) => [s.id, s.code ?? s.id]));
  return uniqueNames([...code.keys()], (id) => code.get(id) ?? id);
}

/** Names that are unique even where a language reads capitals alike or puts them first; later ones get a number. */
export function uniqueNames(ids: readonly string[], nameOf: (id: string) => string, taken: readonly string[] = []): Map<string, string> {
  const used = new Set(taken.map((name) => name.toLowerCase()));
  const out = new Map<string, string>();
  for (const id of ids) {
    const wanted = nameOf(id);
    let name = wanted;
    for (let n = 2; used.has(name.toLowerCase()); n++) name = `${wanted}${n}`;
    used.add(name.toLowerCase());
    out.set(id, name);
  }
  return out;
}

export function capital(id: string): string {
  return id.charAt(0).toUpperCase() + id.slice(1);
}
