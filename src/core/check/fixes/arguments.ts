import { changeEntrance, changeLeg, changeScreen } from "../../model/edits/change.ts";
import { type Edit, quoted } from "../../model/edits/edit.ts";
import { together } from "../../model/edits/kinds.ts";
import { dropParameter as takeAway } from "../../model/edits/params.ts";
import { compile, fits, valueType } from "../../model/expression.ts";
import { elementIdOf, firstScreen, lookup, nameOf, passOf, targetOf } from "../../model/lookup.ts";
import { takesPass, withPass } from "../../model/moves.ts";
import { withArguments } from "../../model/propose.ts";
import type { Json, Leg, Param, Project } from "../../model/schema.ts";
import { legScope } from "../../model/scope.ts";

/** Fixes for an argument that a leg does not hand on: from what is there, through the screen it starts from, or not needed at all. */
export function handOn(project: Project, leg: Leg, screenId: string, name: string): Edit[] {
  const param = paramOf(project, screenId, name);
  if (!param || !leg.move || !takesPass(leg.move)) return [];
  const filled = withArguments(project, leg.from, elementIdOf(leg), leg.move);
  const known = "pass" in filled ? filled.pass?.[name] : undefined;
  const from = lookup(project).screens.get(leg.from);
  const source = known ?? (from?.params.some((p) => p.name === name && p.type === param.type) ? `param.${name}` : undefined);
  if (source !== undefined) return [passing(project, leg, name, source), ...optional(project, screenId, param)];
  const along: Edit[] =
    from && !from.params.some((p) => p.name === name) && sampleOf(param.type) !== undefined
      ? [
          together(`Add ${name} to ${quoted(nameOf(project, from.id))} and pass it along`, [
            changeScreen(project, from.id, { params: [...from.params, { name, type: param.type, required: true, default: sampleOf(param.type) }] }),
            passing(project, leg, name, `param.${name}`),
          ]),
        ]
      : [];
  return [passing(project, leg, name, sampleLiteral(param.type)), ...optional(project, screenId, param), ...along];
}

function passing(project: Project, leg: Leg, name: string, source: string): Edit {
  const pass = { ...passOf(leg), [name]: source };
  return { ...changeLeg(project, leg, { move: leg.move && withPass(leg.move, pass) }), name: `Pass ${name} = ${source}` };
}

function optional(project: Project, screenId: string, param: Param): Edit[] {
  const value = sampleOf(param.type);
  if (value === undefined) return [];
  const params = (lookup(project).screens.get(screenId)?.params ?? []).map((p) => (p.name === param.name ? { ...p, required: false, default: value } : p));
  return [{ ...changeScreen(project, screenId, { params }), name: `Make ${param.name} optional, with ${JSON.stringify(value)}` }];
}

/** The fix for arguments of another type than is wanted: what is known to fit takes their place. */
export function passFitting(project: Project, leg: Leg): Edit[] {
  const { move } = leg;
  if (!move || !("pass" in move) || !move.pass) return [];
  const shown = move.kind === "open" ? (move.show ?? move.to) : targetOf(leg);
  const params = (shown === undefined ? undefined : firstScreen(project, shown))?.params ?? [];
  const scope = legScope(project, leg);
  const wrong = params.filter((param) => {
    const source = move.pass?.[param.name];
    const compiled = source === undefined ? undefined : compile(source, scope);
    return compiled && !(compiled.ok && fits(compiled.type, valueType(param.type)));
  });
  const filled = withArguments(project, leg.from, elementIdOf(leg), move);
  const known = "pass" in filled ? (filled.pass ?? {}) : {};
  const pass = { ...move.pass };
  for (const param of wrong) pass[param.name] = known[param.name] ?? sampleLiteral(param.type);
  if (wrong.length === 0) return [];
  return [{ ...changeLeg(project, leg, { move: { ...move, pass } }), name: `Pass ${wrong.map((p) => `${p.name} = ${pass[p.name]}`).join(", ")}` }];
}

/** Fixes for an argument that an entrance does not hand in. */
export function handIn(project: Project, entranceId: string, screenId: string, name: string): Edit[] {
  const entrance = lookup(project).entrances.get(entranceId);
  const param = paramOf(project, screenId, name);
  if (!entrance || !param) return [];
  const source = sampleLiteral(param.type);
  return [
    { ...changeEntrance(project, entranceId, { pass: { ...entrance.pass, [name]: source } }), name: `Pass ${name} = ${source}` },
    ...optional(project, screenId, param),
  ];
}

/** The fix for a parameter that an address says nothing of: the address says it. */
export function bindInAddress(project: Project, entranceId: string, name: string): Edit[] {
  const entrance = lookup(project).entrances.get(entranceId);
  const param = entrance && paramOf(project, entrance.to, name);
  if (!entrance || entrance.pattern === undefined || !param || lookup(project).types.has(param.type) || /\{\+/.test(entrance.pattern)) return [];
  const pattern = `${entrance.pattern.replace(/\/$/, "")}/{${name}}`;
  const pass = entrance.pass ? { ...entrance.pass, [name]: `link.${name}` } : undefined;
  return [{ ...changeEntrance(project, entranceId, pass ? { pattern, pass } : { pattern }), name: `Let the address say it: ${pattern}` }];
}

/** The fix for a parameter that nobody uses: it goes, and nobody hands it on any longer. */
export function dropParameter(project: Project, screenId: string, name: string): Edit[] {
  if (!paramOf(project, screenId, name)) return [];
  return [takeAway(project, screenId, name)];
}

function paramOf(project: Project, screenId: string, name: string): Param | undefined {
  return lookup(project)
    .screens.get(screenId)
    ?.params.find((p) => p.name === name);
}

/** A value of a simple type to begin with; undefined for record types. */
function sampleOf(type: string): Json | undefined {
  switch (type) {
    case "text":
      return "";
    case "date":
      return "2026-01-01";
    case "integer":
    case "number":
      return 0;
    case "boolean":
      return false;
    default:
      return undefined;
  }
}

export function sampleLiteral(type: string): string {
  return type === "integer" || type === "number" ? "1" : type === "boolean" ? "true" : '"sample"';
}
