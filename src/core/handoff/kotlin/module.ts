import { typeLabel } from "../../model/lookup.ts";
import type { Fact, Project } from "../../model/schema.ts";
import { planHash } from "../../plan/planOf.ts";
import { asLine } from "../../text/line.ts";
import { inputsOf } from "../code/inputs.ts";
import { capital, codeEntrances, uniqueNames, usableLegs, viewNames } from "../code/plan.ts";
import navigator from "./navigator.kt?raw";
import { kotlin, kotlinPlan } from "./plan.ts";
import engine from "./runtime.kt?raw";

/** The runtime alone, for many plans in one program. */
export const kotlinRuntime = `${engine.trim()}\n\n${navigator}`;

/** Words that the language keeps for itself. */
const KEPT = new Set(
  "as break class continue do else false for fun if in interface is null object package return super this throw true try typealias typeof val var when while".split(
    " ",
  ),
);
/** Names that the file itself has, or that the language's own library has where types of the design are written. */
const OWN = "Any Args Boolean Double Facts Guards Int Legs List Map Navigator Picks Rows Screen String Tabs Unit Views Ways plan".split(" ");
const TAKEN = [...kotlinRuntime.matchAll(/^(?:private |open )?(?:(?:data |sealed )*class|typealias|fun|val|object) (\w+)/gm)].map((m) => m[1] ?? "");

/** Names of the types of a design. */
interface Names {
  rows: ReadonlyMap<string, string>;
  screens: ReadonlyMap<string, string>;
  /** Of facts with values. */
  facts: ReadonlyMap<string, string>;
}

/**
 * The project as one Kotlin file without dependencies: its types, functions that give events, a navigator, the plan and the state
 * function. `packageName` is the package that it declares, if any.
 */
export function kotlinModule(project: Project, packageName?: string): string {
  const named = (suffix: string, ids: string[]) => uniqueNames(ids, (id) => `${capital(id)}${suffix}`, [...TAKEN, ...OWN]);
  const names: Names = {
    rows: named(
      "Row",
      project.types.map((t) => t.id),
    ),
    screens: named(
      "",
      project.screens.map((s) => s.id),
    ),
    facts: named(
      "Fact",
      project.facts.filter((f) => f.type === "choice" && (f.values ?? []).length > 0).map((f) => f.id),
    ),
  };
  return [
    `// Made by Etape from "${oneLine(project.name)}", design ${planHash(project)}. Do not edit: change the design and make this file again.`,
    ...(packageName === undefined ? [] : ["", `package ${packageName}`]),
    "",
    ...rowClasses(project, names),
    ...screenClasses(project, names),
    ...factClasses(project, names),
    ...eventObjects(project, names),
    ...navigatorClass(project, names),
    kotlinPlan(project, "plan"),
    "",
    kotlinRuntime,
  ].join("\n");
}

function rowClasses(project: Project, names: Names): string[] {
  return project.types.flatMap((type) => {
    const name = names.rows.get(type.id);
    const field = (of: string) => `${typeOf(of, names)}${names.rows.has(of) ? "?" : ""}`;
    return [
      `/** ${oneLine(typeLabel(type))}. */`,
      `data class ${name}(${type.fields.map((f) => `val ${word(f.name)}: ${field(f.type)}`).join(", ")}) {`,
      `    fun toArgs(): Args = mapOf<String, Any?>(${type.fields.map((f) => `${kotlin(f.name)} to ${asValue(word(f.name), f.type, names, names.rows.has(f.type))}`).join(", ")}).filterValues { it != null }`,
      "    companion object {",
      `        fun of(args: Args): ${name} = ${name}(${type.fields.map((f) => fromValue(`args[${kotlin(f.name)}]`, f.type, names, !names.rows.has(f.type))).join(", ")})`,
      "    }",
      "}",
      "",
    ];
  });
}

function screenClasses(project: Project, names: Names): string[] {
  const views = viewNames(project);
  const classes = project.screens.map(({ id, name, params }) => {
    const of = names.screens.get(id);
    const always = (p: (typeof params)[number]) => p.required || p.default !== undefined;
    const fields = params.map((p) => `val ${word(p.name)}: ${typeOf(p.type, names)}${always(p) ? "" : "?"}`).join(", ");
    const read = params.map((p) => fromValue(`shown.args[${kotlin(p.name)}]`, p.type, names, always(p))).join(", ");
    return {
      declared: [`    /** ${oneLine(name || id)} */`, params.length === 0 ? `    object ${of} : Screen()` : `    data class ${of}(${fields}) : Screen()`],
      made: `    ${kotlin(id)} -> Screen.${of}${params.length === 0 ? "" : `(${read})`}`,
      view: `    fun ${word(views.get(id) ?? id)}(screen: Screen.${of}): View`,
      shown: `    is Screen.${of} -> views.${word(views.get(id) ?? id)}(screen)`,
    };
  });
  return [
    "/** The screens, each with what it knows. */",
    "sealed class Screen {",
    ...classes.flatMap(({ declared }) => declared),
    "}",
    "",
    "/** A screen that stands, as its own type. */",
    "fun screenOf(shown: Shown): Screen = when (shown.at) {",
    ...classes.map(({ made }) => made),
    '    else -> throw IllegalArgumentException("the design has no screen " + shown.at)',
    "}",
    "",
    "/** One function a screen; a table of views that lacks one does not compile. */",
    "interface Views<View> {",
    ...classes.map(({ view }) => view),
    "}",
    "",
    "/** What a screen looks like, from a table of views. */",
    "fun <View> viewOf(views: Views<View>, screen: Screen): View = when (screen) {",
    ...classes.map(({ shown }) => shown),
    "}",
    "",
  ];
}

function factClasses(project: Project, names: Names): string[] {
  const choices = project.facts.flatMap((fact) => {
    const name = names.facts.get(fact.id);
    if (name === undefined) return [];
    const values = fact.values ?? [];
    const entries = uniqueNames(values, (value) => `V_${value.replace(/[^A-Za-z0-9]+/g, "_")}`.replace(/^V_(?=[A-Za-z])/, "").toUpperCase(), ["VALUE", "OF"]);
    return [
      `enum class ${name}(val value: String) {`,
      `    ${[...entries].map(([value, entry]) => `${word(entry)}(${kotlin(value)})`).join(", ")};`,
      "    companion object {",
      `        fun of(value: Any?): ${name} = values().firstOrNull { it.value == value } ?: values().first()`,
      "    }",
      "}",
      "",
    ];
  });
  const outside = project.facts.filter((f) => f.source === "outside");
  return [
    ...choices,
    "/** The facts that conditions ask about. */",
    project.facts.length === 0 ? "class Facts" : `data class Facts(${project.facts.map((f) => `val ${word(f.id)}: ${factType(f, names)}`).join(", ")})`,
    "",
    "/** What only the app can tell: asked before each event. */",
    "interface Guards {",
    ...outside.map((f) => `    fun ${word(f.id)}(): ${factType(f, names)}`),
    "}",
    "",
  ];
}

function factType(fact: Fact, names: Names): string {
  return fact.type === "boolean" ? "Boolean" : (names.facts.get(fact.id) ?? "String");
}

function eventObjects(project: Project, names: Names): string[] {
  const legs = usableLegs(project).flatMap(({ leg, says }) => {
    const { row, fields } = inputsOf(project, [leg]);
    const ids = uniqueNames(
      fields.map(({ id }) => id),
      (id) => id,
      ["row"],
    );
    const takes = [
      ...(row ? [`row: ${names.rows.get(row.type.id)}`] : []),
      ...fields.map(({ id, type }) => `${word(ids.get(id) ?? id)}: ${type === "boolean" ? "Boolean" : "String"}`),
    ];
    const typed = fields.length > 0 ? `mapOf<String, Any?>(${fields.map(({ id }) => `${kotlin(id)} to ${word(ids.get(id) ?? id)}`).join(", ")})` : "null";
    return [
      `    /** ${oneLine(says)} */`,
      `    fun ${word(leg.id)}(${takes.join(", ")}): Event = Event.UseLeg(${kotlin(leg.id)}, ${row ? "row.toArgs()" : "null"}, ${typed})`,
    ];
  });
  const ways = codeEntrances(project).flatMap(({ entrance, variables, target }) => {
    const typeFor = (name: string) => (entrance.pass ? undefined : target?.params.find((p) => p.name === name))?.type ?? "text";
    const takes = variables.map((name) => `${word(name)}: ${typeOf(typeFor(name), names)}`);
    const args = `mapOf<String, Any?>(${variables.map((name) => `${kotlin(name)} to ${asValue(word(name), typeFor(name), names)}`).join(", ")})`;
    return [
      `    /** ${oneLine(entrance.name)} */`,
      `    fun ${word(entrance.id)}(${[...takes, "cold: Boolean = false"].join(", ")}): Event = Event.Enter(${kotlin(entrance.id)}, ${args}, cold)`,
    ];
  });
  const members = (kind: "tabs" | "drawer", event: string) =>
    [...new Set(project.containers.filter((c) => c.kind === kind).flatMap((c) => c.members))].map(
      (id) => `    val ${word(id)}: Event = Event.${event}(${kotlin(id)})`,
    );
  const object = (says: string, name: string, lines: string[]) => [`/** ${says} */`, `object ${name} {`, ...lines, "}", ""];
  return [
    ...object(
      "One function a leg: the event of using it. A call gives only what the design cannot work out: the row that was used, and what was typed.",
      "Legs",
      legs,
    ),
    ...object("One function a way in.", "Ways", ways),
    ...object("The tabs.", "Tabs", members("tabs", "Tab")),
    ...object("The members of drawers.", "Picks", members("drawer", "Pick")),
  ];
}

function navigatorClass(project: Project, names: Names): string[] {
  const outside = project.facts.filter((f) => f.source === "outside");
  const value = (f: Fact) => `{ guards.${word(f.id)}()${names.facts.has(f.id) ? ".value" : ""} }`;
  const rows = project.types.map((t) => ({ id: t.id, name: word(t.id), type: names.rows.get(t.id) }));
  const facts = project.facts.map((f) => {
    const read = `state.facts[${kotlin(f.id)}]`;
    return f.type === "boolean" ? `${read} == true` : names.facts.has(f.id) ? `${names.facts.get(f.id)}.of(${read})` : `${read}.toString()`;
  });
  return [
    "/** The app's own rows, for pages and lists, in place of the samples. */",
    `class Rows(${rows.map(({ name, type }) => `val ${name}: (() -> List<${type}>)? = null`).join(", ")}) {`,
    "    fun of(type: String): List<Args>? = when (type) {",
    ...rows.map(({ id, name }) => `        ${kotlin(id)} -> ${name}?.invoke()?.map { it.toArgs() }`),
    "        else -> null",
    "    }",
    "}",
    "",
    "/** Moves through the app as the design says. */",
    `class Navigator(${outside.length > 0 ? "guards: Guards, " : ""}rows: Rows = Rows(), stored: Args = mapOf(),`,
    "    /** Takes what happens, a line of JSON each, to be held against the design; `run` names this start of the app. */",
    "    log: ((String) -> Unit)? = null, run: String = java.util.UUID.randomUUID().toString()) :",
    `    Core(plan, ${kotlin(planHash(project))}, mapOf<String, () -> Any>(${outside.map((f) => `${kotlin(f.id)} to ${value(f)}`).join(", ")}), stored, { rows.of(it) }, log, run) {`,
    "    /** The screen that shows. */",
    "    val screen: Screen get() = screenOf(state.current())",
    `    val facts: Facts get() = Facts(${facts.join(", ")})`,
    "}",
    "",
  ];
}

function typeOf(type: string, { rows }: Names): string {
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
function asValue(name: string, type: string, { rows }: Names, optional = false): string {
  const dot = optional ? "?." : ".";
  if (type === "integer") return `${name}${dot}toDouble()`;
  return rows.has(type) ? `${name}${dot}toArgs()` : name;
}

/** A value of the plan's as a typed one; what is not there is null, or the least there is where it is `always` there. */
function fromValue(read: string, type: string, { rows }: Names, always: boolean): string {
  const or = (least: string) => (always ? ` ?: ${least}` : "");
  switch (type) {
    case "text":
    case "date":
      return `${read} as? String${or('""')}`;
    case "integer":
      return `(${read} as? Double)?.toInt()${or("0")}`;
    case "number":
      return `${read} as? Double${or("0.0")}`;
    case "boolean":
      return `${read} as? Boolean${or("false")}`;
    default:
      return rows.has(type)
        ? always
          ? `${rows.get(type)}.of(argsOf(${read}) ?: mapOf())`
          : `argsOf(${read})?.let { ${rows.get(type)}.of(it) }`
        : `argsOf(${read})${or("mapOf()")}`;
  }
}

function word(name: string): string {
  return KEPT.has(name) || !/^[A-Za-z_]\w*$/.test(name) ? `\`${name}\`` : name;
}

function oneLine(name: string): string {
  return asLine(name).replaceAll("*/", "* /").replaceAll("/*", "/ *");
}
