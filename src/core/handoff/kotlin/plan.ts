import type { ASTNode } from "../../model/expression.ts";
import { keyField } from "../../model/lookup.ts";
import type { Container, Json, Move, Project, Screen } from "../../model/schema.ts";
import { codeEntrances, codeLegs } from "../code/plan.ts";
import { chunks, type Language, written } from "../code/written.ts";

/** Entries of one function: the virtual machine takes functions of limited size only. */
const A_FUNCTION = 40;

const KOTLIN: Language = {
  literal: kotlin,
  fact: (id) => `v.fact[${kotlin(id)}]`,
  bag: (name) => `v.${name}`,
  width: "v.width",
  member: (value, name) => `member(${value}, ${kotlin(name)})`,
  isThere: (value) => `(${value} != null)`,
  later: (value) => `{ ${value} }`,
};

/** The design as a `Plan` by the name given, with functions for its parts. */
export function kotlinPlan(project: Project, name: string): string {
  const functions: string[] = [];
  const table = (kind: string, type: string, entries: Array<[string, string]>) => {
    const parts = chunks(entries, A_FUNCTION);
    parts.forEach((part, i) => {
      functions.push(
        `private fun ${name}${kind}${i}(): Map<String, ${type}> = mapOf(`,
        part.map(([id, value]) => `    ${kotlin(id)} to ${value}`).join(",\n"),
        ")",
      );
    });
    return parts.length === 0 ? "mapOf()" : parts.map((_, i) => `${name}${kind}${i}()`).join(" + ");
  };
  const fields = [
    kotlin(project.root),
    table("Places", "Place", [
      ...project.containers.map((c): [string, string] => [c.id, containerCode(c)]),
      ...project.screens.map((s): [string, string] => [s.id, screenCode(s)]),
    ]),
    table("Legs", "Leg", legEntries(project)),
    table("Entrances", "Entrance", entranceEntries(project)),
    table(
      "Facts",
      "Fact",
      project.facts.map((f) => [
        f.id,
        call("Fact", {
          initial: kotlin(f.initial),
          values: f.type === "choice" ? list(f.values ?? []) : undefined,
          outside: f.source === "outside" ? "true" : undefined,
          persists: f.persists ? "true" : undefined,
        }),
      ]),
    ),
    table(
      "Rows",
      "Rows",
      project.types.map((t) => [t.id, `Rows(${kotlin(keyField(t))}) { listOf(${t.samples.map(kotlin).join(", ")}) }`]),
    ),
  ];
  return [...functions, `val ${name}: Plan = Plan(`, fields.map((field) => `    ${field}`).join(",\n"), ")"].join("\n");
}

function legEntries(project: Project): Array<[string, string]> {
  return codeLegs(project).map((leg) => [
    leg.leg.id,
    call("Leg", {
      from: kotlin(leg.leg.from),
      on: kotlin(leg.on),
      key: kotlin(leg.key),
      by: leg.leg.on.kind === "depart" && leg.leg.on.by ? list(leg.leg.on.by) : undefined,
      never: leg.never ? "true" : undefined,
      condition: expression(leg.when),
      shown: expression(leg.shown),
      enabled: expression(leg.enabled),
      except: leg.except.length > 0 ? list(leg.except) : undefined,
      rows: leg.rows && kotlin(leg.rows.id),
      move: leg.move && moveCode(leg.move),
      passes: leg.passes ? "true" : undefined,
      pass: map(leg.pass.map(({ name, value, required }) => [name, `Given(${expression(value)}, ${required})`])),
      set: map(leg.set.map(({ fact, value }) => [fact, expression(value) ?? ""])),
      resumes: leg.leg.resumes ? "true" : undefined,
    }),
  ]);
}

function entranceEntries(project: Project): Array<[string, string]> {
  return codeEntrances(project).map(({ entrance, variables, when, pass }) => [
    entrance.id,
    call("Entrance", {
      to: kotlin(entrance.to),
      pattern: entrance.pattern === undefined ? undefined : kotlin(entrance.pattern),
      variables: variables.length > 0 ? list(variables) : undefined,
      pass: pass && `mapOf<String, Expression>(${pass.map(({ name, value }) => `${kotlin(name)} to ${expression(value)}`).join(", ")})`,
      condition: when === "never" ? "{ _ -> false }" : expression(when),
      otherwise: entrance.otherwise === undefined ? undefined : kotlin(entrance.otherwise),
      resume: entrance.resume ? "true" : undefined,
      onTop: entrance.warm === "onTop" ? "true" : undefined,
    }),
  ]);
}

function screenCode({ params, up, bar, pages, coversTabs }: Screen): string {
  return call("Screen", {
    params:
      params.length > 0
        ? `listOf(${params.map((p) => `Param(${[p.name, p.type, ...(p.default === undefined ? [] : [p.default])].map(kotlin).join(", ")})`).join(", ")})`
        : undefined,
    up: kotlin(up),
    bar: bar && `Bar(${bar.show}, ${kotlin(bar.lead)})`,
    pages: pages && `Pages(${[pages.over, pages.by, ...(pages.order === undefined ? [] : [pages.order])].map(kotlin).join(", ")})`,
    coversTabs: coversTabs ? "true" : undefined,
  });
}

function containerCode(c: Container): string {
  const text = (value: string | undefined) => (value === undefined ? undefined : kotlin(value));
  const truth = (value: boolean | undefined) => (value === undefined ? undefined : String(value));
  return call("Container", {
    kind: kotlin(c.kind),
    start: kotlin(c.start),
    members: list(c.members),
    bar: c.bar && `Bar(${c.bar.show}, ${kotlin(c.bar.lead)})`,
    onBack: text("onBack" in c ? c.onBack : undefined),
    chosenAgain: text("chosenAgain" in c ? c.chosenAgain : undefined),
    keeps: truth("keeps" in c ? c.keeps : undefined),
    over: truth("over" in c ? c.over : undefined),
    pinnedFrom: text("pinnedFrom" in c ? c.pinnedFrom : undefined),
    full: truth("shape" in c ? c.shape === "full" : undefined),
    blocks: truth("blocks" in c ? c.blocks : undefined),
    closeOn: "closeOn" in c ? list(c.closeOn) : undefined,
  });
}

function moveCode(move: Move): string {
  const own = Object.entries(move).filter(([name]) => name !== "kind" && name !== "pass" && name !== "url");
  return call("Move", { kind: kotlin(move.kind), ...Object.fromEntries(own.map(([name, value]) => [name === "in" ? "within" : name, kotlin(value as Json)])) });
}

function expression(ast: ASTNode | undefined): string | undefined {
  return ast && `{ v -> ${written(ast, KOTLIN)} }`;
}

/** A call with named arguments; what is undefined is left out. */
function call(name: string, args: Record<string, string | undefined>): string {
  const given = Object.entries(args).filter((entry): entry is [string, string] => entry[1] !== undefined);
  return `${name}(${given.map(([arg, value]) => `${arg} = ${value}`).join(", ")})`;
}

function map(entries: Array<[string, string]>): string | undefined {
  return entries.length > 0 ? `mapOf(${entries.map(([id, value]) => `${kotlin(id)} to ${value}`).join(", ")})` : undefined;
}

function list(values: readonly string[]): string {
  return `listOf(${values.map(kotlin).join(", ")})`;
}

/** JSON as Kotlin: numbers are Double, `$` begins nothing. */
export function kotlin(value: Json): string {
  switch (typeof value) {
    case "string":
      return `"${[...JSON.stringify(value).slice(1, -1)].join("").replaceAll("$", "\\$").replaceAll("\\f", "\\u000c")}"`;
    case "number":
      return Number.isInteger(value) && Math.abs(value) < 1e15 ? `${value}.0` : String(value);
    case "boolean":
      return String(value);
    default:
      if (value === null) return "null";
      if (Array.isArray(value)) return `listOf<Any?>(${value.map(kotlin).join(", ")})`;
      return `mapOf<String, Any?>(${Object.entries(value)
        .map(([name, inner]) => `${kotlin(name)} to ${kotlin(inner as Json)}`)
        .join(", ")})`;
  }
}
