import { typeLabel } from "../../model/lookup.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import { capital, mustGive, uniqueNames, usableLegs, viewNames } from "../code/plan.ts";
import { kotlin, kotlinPlan } from "./plan.ts";
import runtime from "./runtime.kt?raw";

/** Words that the language keeps for itself. */
const KEPT = new Set(
  "as break class continue do else false for fun if in interface is null object package return super this throw true try typealias typeof val var when while".split(
    " ",
  ),
);
const TAKEN = [...runtime.matchAll(/^(?:private )?(?:(?:data |sealed )*class|typealias|fun|val|object) (\w+)/gm)].map((m) => m[1] ?? "");

/** The project as one Kotlin file without dependencies: types, functions that give events, the plan and the state function. */
export function kotlinModule(project: Project): string {
  const names = (suffix: string, ids: string[]) => uniqueNames(ids, (id) => `${capital(id)}${suffix}`, [...TAKEN, "Views", "Legs", "plan"]);
  const rows = names(
    "Row",
    project.types.map((t) => t.id),
  );
  const args = names(
    "Arguments",
    project.screens.filter((s) => s.params.length > 0).map((s) => s.id),
  );
  return [
    `// Made by Etape from "${oneLine(project.name)}". Do not edit: change the design and make this file again.`,
    "",
    ...project.types.flatMap((t) => [
      `/** ${oneLine(typeLabel(t))}. */`,
      `data class ${rows.get(t.id)}(${t.fields.map((f) => `val ${word(f.name)}: ${typeOf(f.type, rows)}`).join(", ")}) {`,
      `    fun toArgs(): Args = mapOf(${t.fields.map((f) => `${kotlin(f.name)} to ${asValue(word(f.name), f.type, rows)}`).join(", ")})`,
      "}",
      "",
    ]),
    ...project.screens.flatMap((screen) => argumentsClass(screen, args.get(screen.id), rows)),
    "/** One function a screen; a table of views that lacks one does not compile. */",
    "interface Views<View> {",
    ...[...viewNames(project).values()].map((name) => `    fun ${word(name)}(params: Args): View`),
    "}",
    "",
    "/** What a screen that shows looks like, from a table of views. */",
    "fun <View> viewOf(views: Views<View>, screen: Shown): View? = when (screen.at) {",
    ...[...viewNames(project)].map(([id, name]) => `    ${kotlin(id)} -> views.${word(name)}(screen.args)`),
    "    else -> null",
    "}",
    "",
    "/** One function a leg: the event of using it. */",
    "object Legs {",
    ...legFunctions(project, args),
    "}",
    "",
    kotlinPlan(project, "plan"),
    "",
    runtime.trim(),
    "",
  ].join("\n");
}

/** The runtime alone, for many plans in one program. */
export const kotlinRuntime = runtime;

function argumentsClass(screen: Screen, name: string | undefined, rows: ReadonlyMap<string, string>): string[] {
  if (name === undefined) return [];
  const needed = [...screen.params.filter(mustGive), ...screen.params.filter((p) => !mustGive(p))];
  return [
    `/** What ${oneLine(screen.name || screen.id)} needs. */`,
    `data class ${name}(${needed.map((p) => parameter(p, rows)).join(", ")}) {`,
    `    fun toArgs(): Args = mapOf<String, Any?>(${needed.map((p) => `${kotlin(p.name)} to ${asValue(word(p.name), p.type, rows, !mustGive(p))}`).join(", ")}).filterValues { it != null }`,
    "}",
    "",
  ];
}

function parameter(param: Param, rows: ReadonlyMap<string, string>): string {
  const type = typeOf(param.type, rows);
  return mustGive(param) ? `val ${word(param.name)}: ${type}` : `val ${word(param.name)}: ${type}? = null`;
}

function legFunctions(project: Project, args: ReadonlyMap<string, string>): string[] {
  return usableLegs(project).flatMap((leg) => {
    const type = leg.target && args.get(leg.target.id);
    const takes = type === undefined ? "" : `args: ${type}${leg.mayGiveNothing ? ` = ${type}()` : ""}, `;
    return [
      `    /** ${oneLine(leg.says)} */`,
      `    fun ${word(leg.leg.id)}(${takes}item: Any? = null, fields: Args? = null): Event = Event.UseLeg(${kotlin(leg.leg.id)}, item, fields${type === undefined ? "" : ", args.toArgs()"})`,
    ];
  });
}

function typeOf(type: string, rows: ReadonlyMap<string, string>): string {
  switch (type) {
    case "text":
    case "date":
      return "String";
    case "integer":
      return "Int";
    case "number":
      return "Double";
    case "boolean":
      return "Boolean";
    default:
      return rows.get(type) ?? "Args";
  }
}

/** A typed value as the plan's: whole numbers as Double, records as maps. */
function asValue(name: string, type: string, rows: ReadonlyMap<string, string>, optional = false): string {
  const dot = optional ? "?." : ".";
  if (type === "integer") return `${name}${dot}toDouble()`;
  return rows.has(type) ? `${name}${dot}toArgs()` : name;
}

function word(name: string): string {
  return KEPT.has(name) || !/^[A-Za-z_]\w*$/.test(name) ? `\`${name}\`` : name;
}

function oneLine(name: string): string {
  return name
    .replace(/[\r\n\u2028\u2029]+/g, " ")
    .replaceAll("*/", "* /")
    .replaceAll("/*", "/ *");
}
