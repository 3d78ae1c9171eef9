import { typeLabel } from "../../model/lookup.ts";
import type { Fact, Project } from "../../model/schema.ts";
import { planHash } from "../../plan/planOf.ts";
import { asLine } from "../../text/line.ts";
import { inputsOf } from "../code/inputs.ts";
import { capital, codeEntrances, uniqueNames, usableLegs } from "../code/plan.ts";
import navigator from "./navigator.swift?raw";
import { swiftPlan, text } from "./plan.ts";
import engine from "./runtime.swift?raw";

/** Words that the language keeps for itself. */
const KEPT = new Set(
  "Any Self as associatedtype break case catch class continue default defer deinit do else enum extension fallthrough false fileprivate for func guard if import in init inout internal is let nil open operator private protocol public repeat rethrows return self static struct subscript super switch throw throws true try typealias var where while Type Protocol".split(
    " ",
  ),
);
const runtime = `${engine.trim()}\n\n${navigator.trim()}`;
/** Names that the file itself has, or that the language's own library has where types of the design are written. */
const OWN = "Array Bool Double Facts Guards Int Legs Navigator Picks Rows Screen String Tabs Ways plan".split(" ");
const TAKEN = [...runtime.matchAll(/^(?:public |indirect |final |open )*(?:struct|class|enum|typealias|func) (\w+)/gm)].map((m) => m[1] ?? "");

/** Names of the types of a design. */
interface Names {
  rows: ReadonlyMap<string, string>;
  /** Of facts with values. */
  facts: ReadonlyMap<string, string>;
}

/**
 * The project as one Swift file that needs Foundation alone, all of it in one enum: its types, functions that give events, a navigator, the
 * plan and the state function. `namespace` is the name of that enum.
 */
export function swiftModule(project: Project, namespace = "Navigation"): string {
  const named = (suffix: string, ids: string[]) => uniqueNames(ids, (id) => `${capital(id)}${suffix}`, [...TAKEN, ...OWN]);
  const names: Names = {
    rows: named(
      "Row",
      project.types.map((t) => t.id),
    ),
    facts: named(
      "Fact",
      project.facts.filter((f) => f.type === "choice" && (f.values ?? []).length > 0).map((f) => f.id),
    ),
  };
  const inside = [
    ...rowStructs(project, names),
    ...screenEnum(project, names),
    ...factTypes(project, names),
    ...eventEnums(project, names),
    ...navigatorClass(project, names),
    ...swiftPlan(project),
    "",
    // What stands at the outermost level of the runtime is a member of the enum here.
    ...runtime.replace(/^(public )?func /gm, "$1static func ").split("\n"),
  ];
  return [
    `// Made by Etape from "${oneLine(project.name)}", design ${planHash(project)}. Do not edit: change the design and make this file again.`,
    "",
    "import Foundation",
    "",
    `public enum ${word(namespace.replaceAll(".", "_"))} {`,
    ...inside.map((line) => (line === "" ? "" : `    ${line}`)),
    "}",
    "",
  ].join("\n");
}

function rowStructs(project: Project, names: Names): string[] {
  return project.types.flatMap((type) => {
    const optional = (of: string) => names.rows.has(of);
    const typed = (of: string) => `${typeOf(of, names)}${optional(of) ? "?" : ""}`;
    return [
      `/// ${oneLine(typeLabel(type))}.`,
      // A record may be made of records of its own kind, which a struct cannot hold.
      `public final class ${names.rows.get(type.id)} {`,
      ...type.fields.map((f) => `    public let ${word(f.name)}: ${typed(f.type)}`),
      `    public init(${type.fields.map((f) => `${word(f.name)}: ${typed(f.type)}`).join(", ")}) {`,
      ...type.fields.map((f) => `        self.${word(f.name)} = ${word(f.name)}`),
      "    }",
      "    init(_ args: Args) {",
      ...type.fields.map((f) => `        self.${word(f.name)} = ${fromValue(`args[${text(f.name)}]`, f.type, names, !optional(f.type))}`),
      "    }",
      "    public var args: Args {",
      "        var out: Args = [:]",
      ...type.fields.map((f) =>
        optional(f.type)
          ? `        out[${text(f.name)}] = ${word(f.name)}.map { .record($0.args) }`
          : `        out[${text(f.name)}] = ${asValue(word(f.name), f.type, names)}`,
      ),
      "        return out",
      "    }",
      "}",
      "",
    ];
  });
}

function screenEnum(project: Project, names: Names): string[] {
  const always = (p: Project["screens"][number]["params"][number]) => p.required || p.default !== undefined;
  const screens = project.screens.map(({ id, name, params }) => {
    const fields = params.map((p) => `${word(p.name)}: ${typeOf(p.type, names)}${always(p) ? "" : "?"}`).join(", ");
    const read = params.map((p) => `${word(p.name)}: ${fromValue(`shown.args[${text(p.name)}]`, p.type, names, always(p))}`).join(", ");
    return {
      declared: [`    /// ${oneLine(name || id)}`, `    case ${word(id)}${params.length === 0 ? "" : `(${fields})`}`],
      made: `        case ${text(id)}: self = .${word(id)}${params.length === 0 ? "" : `(${read})`}`,
    };
  });
  return [
    "/// The screens, each with what it knows. A switch over them that lacks one does not compile.",
    "public enum Screen {",
    ...screens.flatMap(({ declared }) => declared),
    "",
    "    init(_ shown: Shown) {",
    "        switch shown.at {",
    ...screens.map(({ made }) => made),
    '        default: fatalError("the design has no screen \\(shown.at)")',
    "        }",
    "    }",
    "}",
    "",
  ];
}

function factTypes(project: Project, names: Names): string[] {
  const choices = project.facts.flatMap((fact) => {
    const name = names.facts.get(fact.id);
    if (name === undefined) return [];
    const cases = uniqueNames(fact.values ?? [], (value) => caseName(value), ["rawValue", "allCases"]);
    return [`public enum ${name}: String, CaseIterable {`, ...[...cases].map(([value, of]) => `    case ${word(of)} = ${text(value)}`), "}", ""];
  });
  const outside = project.facts.filter((f) => f.source === "outside");
  return [
    ...choices,
    "/// The facts that conditions ask about.",
    "public struct Facts {",
    ...project.facts.map((f) => `    public let ${word(f.id)}: ${factType(f, names)}`),
    "}",
    "",
    "/// What only the app can tell: asked before each event.",
    "public struct Guards {",
    ...outside.map((f) => `    public let ${word(f.id)}: () -> ${factType(f, names)}`),
    `    public init(${outside.map((f) => `${word(f.id)}: @escaping () -> ${factType(f, names)}`).join(", ")}) {`,
    ...outside.map((f) => `        self.${word(f.id)} = ${word(f.id)}`),
    "    }",
    "}",
    "",
  ];
}

/** A value of a fact as the name of a case. */
function caseName(value: string): string {
  const name = value.replace(/[^A-Za-z0-9]+(\w?)/g, (_, next: string) => next.toUpperCase());
  return /^[A-Za-z]/.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : `v${name}`;
}

function factType(fact: Fact, names: Names): string {
  return fact.type === "boolean" ? "Bool" : (names.facts.get(fact.id) ?? "String");
}

function eventEnums(project: Project, names: Names): string[] {
  const legs = usableLegs(project).flatMap(({ leg, says }) => {
    const { row, fields } = inputsOf(project, [leg]);
    const ids = uniqueNames(
      fields.map(({ id }) => id),
      (id) => id,
      ["row"],
    );
    const takes = [
      ...(row ? [`_ row: ${names.rows.get(row.type.id)}`] : []),
      ...fields.map(({ id, type }) => `${word(ids.get(id) ?? id)}: ${type === "boolean" ? "Bool" : "String"}`),
    ];
    const typed = fields.map(({ id, type }) => `${text(id)}: .${type === "boolean" ? "truth" : "text"}(${word(ids.get(id) ?? id)})`).join(", ");
    const given = [...(row ? ["item: .record(row.args)"] : []), ...(fields.length > 0 ? [`fields: [${typed}]`] : [])];
    return [
      `    /// ${oneLine(says)}`,
      `    public static func ${word(leg.id)}(${takes.join(", ")}) -> Event { return .leg(${[text(leg.id), ...given].join(", ")}) }`,
    ];
  });
  const ways = codeEntrances(project).flatMap(({ entrance, variables, target }) => {
    const typeFor = (name: string) => (entrance.pass ? undefined : target?.params.find((p) => p.name === name))?.type ?? "text";
    const takes = variables.map((name) => `${word(name)}: ${typeOf(typeFor(name), names)}`);
    const args = variables.map((name) => `${text(name)}: ${asValue(word(name), typeFor(name), names)}`).join(", ");
    return [
      `    /// ${oneLine(entrance.name)}`,
      `    public static func ${word(entrance.id)}(${[...takes, "cold: Bool = false"].join(", ")}) -> Event { return .enter(${text(entrance.id)}, args: [${args || ":"}], cold: cold) }`,
    ];
  });
  const members = (kind: "tabs" | "drawer", event: string) =>
    [...new Set(project.containers.filter((c) => c.kind === kind).flatMap((c) => c.members))].map(
      (id) => `    public static let ${word(id)} = Event.${event}(${text(id)})`,
    );
  const group = (says: string, name: string, lines: string[]) => [`/// ${says}`, `public enum ${name} {`, ...lines, "}", ""];
  return [
    ...group(
      "One function a leg: the event of using it. A call gives only what the design cannot work out: the row that was used, and what was typed.",
      "Legs",
      legs,
    ),
    ...group("One function a way in.", "Ways", ways),
    ...group("The tabs.", "Tabs", members("tabs", "tab")),
    ...group("The members of drawers.", "Picks", members("drawer", "pick")),
  ];
}

function navigatorClass(project: Project, names: Names): string[] {
  const outside = project.facts.filter((f) => f.source === "outside");
  const value = (f: Fact) => {
    const asked = `guards.${word(f.id)}()`;
    return `{ ${f.type === "boolean" ? `.truth(${asked})` : `.text(${asked}${names.facts.has(f.id) ? ".rawValue" : ""})`} }`;
  };
  const facts = project.facts.map((f) => {
    const read = `state.facts[${text(f.id)}]`;
    const name = names.facts.get(f.id);
    const first = word(caseName(f.values?.[0] ?? ""));
    const typed =
      f.type === "boolean" ? `${read}?.truth ?? false` : name === undefined ? `${read}?.string ?? ""` : `${name}(rawValue: ${read}?.string ?? "") ?? .${first}`;
    return `${word(f.id)}: ${typed}`;
  });
  return [
    "/// The app's own rows, for pages and lists, in place of the samples.",
    "public struct Rows {",
    ...project.types.map((t) => `    public var ${word(t.id)}: (() -> [${names.rows.get(t.id)}])? = nil`),
    "    public init() {}",
    "    func of(_ type: String) -> [Args]? {",
    "        switch type {",
    ...project.types.map((t) => `        case ${text(t.id)}: return ${word(t.id)}?().map { $0.args }`),
    "        default: return nil",
    "        }",
    "    }",
    "}",
    "",
    "/// Moves through the app as the design says.",
    "public final class Navigator: Core {",
    `    public init(${outside.length > 0 ? "guards: Guards, " : ""}rows: Rows = Rows(), stored: Args = [:],`,
    "        /// Takes what happens, a line of JSON each, to be held against the design; `run` names this start of the app.",
    "        log: ((String) -> Void)? = nil, run: String = UUID().uuidString) {",
    `        super.init(plan, hash: ${text(planHash(project))}, guards: [${outside.map((f) => `${text(f.id)}: ${value(f)}`).join(", ") || ":"}], stored: stored, rows: { rows.of($0) }, log: log, run: run)`,
    "    }",
    "    /// The screen that shows.",
    "    public var screen: Screen { return Screen(state.current(state.top)) }",
    `    public var facts: Facts { return Facts(${facts.join(", ")}) }`,
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
      return "Bool";
    default:
      return rows.get(type) ?? "Args";
  }
}

function asValue(name: string, type: string, { rows }: Names): string {
  switch (type) {
    case "text":
    case "date":
      return `.text(${name})`;
    case "integer":
      return `.number(Double(${name}))`;
    case "number":
      return `.number(${name})`;
    case "boolean":
      return `.truth(${name})`;
    default:
      return rows.has(type) ? `.record(${name}.args)` : `.record(${name})`;
  }
}

/** A value of the plan's as a typed one; what is not there is nil, or the least there is where it is `always` there. */
function fromValue(read: string, type: string, { rows }: Names, always: boolean): string {
  const or = (least: string) => (always ? ` ?? ${least}` : "");
  switch (type) {
    case "text":
    case "date":
      return `${read}?.string${or('""')}`;
    case "integer":
      return `${read}?.number.map { Int($0) }${or("0")}`;
    case "number":
      return `${read}?.number${or("0")}`;
    case "boolean":
      return `${read}?.truth${or("false")}`;
    default:
      if (!rows.has(type)) return `${read}?.record${or("[:]")}`;
      return always ? `${rows.get(type)}(${read}?.record ?? [:])` : `${read}?.record.map { ${rows.get(type)}($0) }`;
  }
}

function word(name: string): string {
  return KEPT.has(name) ? `\`${name}\`` : name;
}

function oneLine(name: string): string {
  return asLine(name);
}
