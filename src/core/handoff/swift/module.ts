import { typeLabel } from "../../model/lookup.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import { capital, mustGive, uniqueNames, usableLegs, viewNames } from "../code/plan.ts";
import { swiftPlan, text } from "./plan.ts";
import runtime from "./runtime.swift?raw";

/** Words that the language keeps for itself. */
const KEPT = new Set(
  "Any Self as associatedtype break case catch class continue default defer deinit do else enum extension fallthrough false fileprivate for func guard if import in init inout internal is let nil open operator private protocol public repeat rethrows return self static struct subscript super switch throw throws true try typealias var where while".split(
    " ",
  ),
);
const TAKEN = [...runtime.matchAll(/^(?:public |indirect |final )*(?:struct|class|enum|typealias|func) (\w+)/gm)].map((m) => m[1] ?? "");
/** The project as one Swift file without dependencies: types, functions that give events, the plan and the state function. */
export function swiftModule(project: Project): string {
  const names = (suffix: string, ids: string[]) => uniqueNames(ids, (id) => `${capital(id)}${suffix}`, [...TAKEN, "Views", "Legs", "plan"]);
  const rows = names(
    "Row",
    project.types.map((t) => t.id),
  );
  const args = names(
    "Arguments",
    project.screens.filter((s) => s.params.length > 0).map((s) => s.id),
  );
  const views = viewNames(project);
  return [
    `// Made by Etape from "${oneLine(project.name)}". Do not edit: change the design and make this file again.`,
    "",
    "import Foundation",
    "",
    ...project.types.flatMap((t) => [
      `/// ${oneLine(typeLabel(t))}.`,
      `public struct ${rows.get(t.id)} {`,
      ...t.fields.map((f) => `    let ${word(f.name)}: ${typeOf(f.type, rows)}`),
      `    var args: Args { return [${t.fields.map((f) => `${text(f.name)}: ${asValue(word(f.name), f.type, rows)}`).join(", ") || ":"}] }`,
      "}",
      "",
    ]),
    ...project.screens.flatMap((screen) => argumentsStruct(screen, args.get(screen.id), rows)),
    "/// One function a screen; a table of views that lacks one does not compile.",
    "public protocol Views {",
    "    associatedtype View",
    ...[...views.values()].map((name) => `    func ${word(name)}(_ params: Args) -> View`),
    "}",
    "",
    "/// What a screen that shows looks like, from a table of views.",
    "public func viewOf<Table: Views>(_ views: Table, _ screen: Shown) -> Table.View? {",
    "    switch screen.at {",
    ...[...views].map(([id, name]) => `    case ${text(id)}: return views.${word(name)}(screen.args)`),
    "    default: return nil",
    "    }",
    "}",
    "",
    "/// One function a leg: the event of using it.",
    "public enum Legs {",
    ...legFunctions(project, args),
    "}",
    "",
    ...swiftPlan(project),
    "",
    runtime.trim(),
    "",
  ].join("\n");
}

function argumentsStruct(screen: Screen, name: string | undefined, rows: ReadonlyMap<string, string>): string[] {
  if (name === undefined) return [];
  const field = (p: Param) => `    let ${word(p.name)}: ${typeOf(p.type, rows)}${mustGive(p) ? "" : "?"}`;
  const given = screen.params.map((p) =>
    mustGive(p)
      ? `        args[${text(p.name)}] = ${asValue(word(p.name), p.type, rows)}`
      : `        if let given = ${word(p.name)} { args[${text(p.name)}] = ${asValue("given", p.type, rows)} }`,
  );
  const parameters = screen.params.map((p) => `${word(p.name)}: ${typeOf(p.type, rows)}${mustGive(p) ? "" : "? = nil"}`).join(", ");
  return [
    `/// What ${oneLine(screen.name || screen.id)} needs.`,
    `public struct ${name} {`,
    ...screen.params.map(field),
    `    init(${parameters}) {`,
    ...screen.params.map((p) => `        self.${word(p.name)} = ${word(p.name)}`),
    "    }",
    "    var args: Args {",
    "        var args: Args = [:]",
    ...given,
    "        return args",
    "    }",
    "}",
    "",
  ];
}

function legFunctions(project: Project, args: ReadonlyMap<string, string>): string[] {
  return usableLegs(project).flatMap((leg) => {
    const type = leg.target && args.get(leg.target.id);
    const takes = type === undefined ? "" : `_ args: ${type}${leg.mayGiveNothing ? ` = ${type}()` : ""}, `;
    return [
      `    /// ${oneLine(leg.says)}`,
      `    public static func ${word(leg.leg.id)}(${takes}item: Value? = nil, fields: Args? = nil) -> Event { return .leg(${text(leg.leg.id)}, item: item, fields: fields${type === undefined ? "" : ", args: args.args"}) }`,
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
      return "Bool";
    default:
      return rows.get(type) ?? "Args";
  }
}

function asValue(name: string, type: string, rows: ReadonlyMap<string, string>): string {
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

function word(name: string): string {
  return KEPT.has(name) ? `\`${name}\`` : name;
}

function oneLine(name: string): string {
  return name.replace(/[\r\n\u2028\u2029]+/g, " ");
}
