import type { ASTNode } from "../../model/expression.ts";
import { keyField } from "../../model/lookup.ts";
import type { Container, Json, Move, Project, Screen } from "../../model/schema.ts";
import { codeEntrances, codeLegs } from "../code/plan.ts";
import { chunks, type Language, written } from "../code/written.ts";

/** Entries of one array; a compiler takes long to find the types of long ones. */
const AN_ARRAY = 40;

const SWIFT: Language = {
  literal: value,
  fact: (id) => `v.fact[${text(id)}]`,
  bag: (name) => `v.${name}.map { Value.record($0) }`,
  width: ".text(v.width)",
  member: (inner, name) => `member(${inner.replace(/^v\.(\w+)\.map \{ Value\.record\(\$0\) \}$/, "v.$1")}, ${text(name)})`,
  isThere: (inner) => `.truth(${inner} != nil)`,
  later: (inner) => `{ ${inner} }`,
};

/** The plan, its legs in arrays of limited length. */
export function design(project: Project): string[] {
  const legs = chunks(codeLegs(project), AN_ARRAY);
  return [
    "/// The design as data.",
    "public enum Design {",
    ...legs.flatMap((part, i) => [
      `    private static let legs${i}: [Leg] = [`,
      ...part.map(
        (leg) =>
          `        ${call("Leg", {
            id: text(leg.leg.id),
            from: text(leg.leg.from),
            on: text(leg.on),
            key: text(leg.key),
            by: leg.leg.on.kind === "depart" && leg.leg.on.by ? list(leg.leg.on.by) : undefined,
            never: leg.never ? "true" : undefined,
            condition: expression(leg.when),
            shown: expression(leg.shown),
            enabled: expression(leg.enabled),
            except: leg.except.length > 0 ? list(leg.except) : undefined,
            rows: leg.rows && text(leg.rows.id),
            move: leg.move && moveCode(leg.move),
            passes: leg.passes ? "true" : undefined,
            pass:
              leg.pass.length > 0
                ? `[${entries(leg.pass.map((p): [string, string] => [p.name, `Given(value: ${expression(p.value)}, required: ${p.required})`]))}]`
                : undefined,
            set: leg.set.length > 0 ? `[${entries(leg.set.map((s): [string, string] => [s.fact, expression(s.value) ?? ""]))}]` : undefined,
            resumes: leg.leg.resumes ? "true" : undefined,
          })},`,
      ),
      "    ]",
    ]),
    "    public static let plan = Plan(",
    `        root: ${text(project.root)},`,
    `        screens: ${table(project.screens.map((s) => [s.id, screenCode(s)]))},`,
    `        containers: [${project.containers.map((c) => `\n            (${text(c.id)}, ${containerCode(c)})`).join(",")}\n        ],`,
    `        legs: ${legs.length === 0 ? "[]" : legs.map((_, i) => `legs${i}`).join(" + ")},`,
    `        entrances: ${table(
      codeEntrances(project).map(({ entrance, variables, when, pass }) => [
        entrance.id,
        call("Entrance", {
          to: text(entrance.to),
          pattern: entrance.pattern === undefined ? undefined : text(entrance.pattern),
          variables: variables.length > 0 ? list(variables) : undefined,
          pass: pass && (pass.length === 0 ? "[:]" : `[${entries(pass.map((p): [string, string] => [p.name, expression(p.value) ?? ""]))}]`),
          condition: when === "never" ? "{ _ in .truth(false) }" : expression(when),
          otherwise: entrance.otherwise === undefined ? undefined : text(entrance.otherwise),
          resume: entrance.resume ? "true" : undefined,
          onTop: entrance.warm === "onTop" ? "true" : undefined,
        }),
      ]),
    )},`,
    `        facts: ${table(
      project.facts.map((f) => [
        f.id,
        call("Fact", {
          initial: value(f.initial),
          values: f.type === "choice" ? list(f.values ?? []) : undefined,
          outside: f.source === "outside" ? "true" : undefined,
          persists: f.persists ? "true" : undefined,
        }),
      ]),
    )},`,
    `        rows: ${table(project.types.map((t) => [t.id, `Rows(key: ${text(keyField(t))}, all: { [${t.samples.map((row) => record(row as Record<string, Json>)).join(", ")}] })`]))}`,
    "    )",
    "}",
  ];
}

function screenCode({ params, up, bar, pages, coversTabs }: Screen): string {
  return call("Screen", {
    params:
      params.length > 0
        ? `[${params.map((p) => call("Param", { name: text(p.name), type: text(p.type), initial: p.default === undefined ? undefined : value(p.default) })).join(", ")}]`
        : undefined,
    up: text(up),
    bar: bar && `Bar(show: ${bar.show}, lead: ${text(bar.lead)})`,
    pages: pages && call("Pages", { over: text(pages.over), by: text(pages.by), order: pages.order === undefined ? undefined : text(pages.order) }),
    coversTabs: coversTabs ? "true" : undefined,
  });
}

function containerCode(c: Container): string {
  const words = (given: string | undefined) => (given === undefined ? undefined : text(given));
  const truth = (given: boolean | undefined) => (given === undefined ? undefined : String(given));
  return call("Container", {
    kind: text(c.kind),
    start: text(c.start),
    members: list(c.members),
    bar: c.bar && `Bar(show: ${c.bar.show}, lead: ${text(c.bar.lead)})`,
    onBack: words("onBack" in c ? c.onBack : undefined),
    chosenAgain: words("chosenAgain" in c ? c.chosenAgain : undefined),
    keeps: truth("keeps" in c ? c.keeps : undefined),
    over: truth("over" in c ? c.over : undefined),
    pinnedFrom: words("pinnedFrom" in c ? c.pinnedFrom : undefined),
    full: truth("shape" in c ? c.shape === "full" : undefined),
    blocks: truth("blocks" in c ? c.blocks : undefined),
    closeOn: "closeOn" in c ? list(c.closeOn) : undefined,
  });
}

/** In the order of the structure's own fields, as the language asks. */
function moveCode(move: Move): string {
  const given: Record<string, unknown> = { ...move };
  const as = (name: string, label = name) =>
    [label, typeof given[name] === "string" ? text(given[name]) : given[name] === undefined ? undefined : String(given[name])] as const;
  return call(
    "Move",
    Object.fromEntries([
      as("kind"),
      as("to"),
      as("in", "within"),
      as("repeat", "repeating"),
      as("tidy"),
      as("orElse"),
      as("show"),
      as("instead"),
      as("modal"),
      as("fresh"),
      as("drawer"),
      as("action"),
    ]),
  );
}

function expression(ast: ASTNode | undefined): string | undefined {
  if (!ast) return undefined;
  const code = written(ast, SWIFT);
  return code.includes("v.") ? `{ v in ${code} }` : `{ _ in ${code} }`;
}

function call(name: string, args: Record<string, string | undefined>): string {
  const given = Object.entries(args).filter(([, code]) => code !== undefined);
  return `${name}(${given.map(([label, code]) => `${label}: ${code}`).join(", ")})`;
}

function table(list: Array<[string, string]>): string {
  return list.length === 0 ? "[:]" : `[${list.map(([id, code]) => `\n            ${text(id)}: ${code}`).join(",")}\n        ]`;
}

export function entries(list: Array<[string, string]>): string {
  return list.length === 0 ? ":" : list.map(([id, code]) => `${text(id)}: ${code}`).join(", ");
}

function list(values: readonly string[]): string {
  return `[${values.map(text).join(", ")}]`;
}

/** Text as Swift: a backslash before a bracket begins nothing, for it is doubled. */
export function text(given: string): string {
  return JSON.stringify(given).replace(/\\(?:u([0-9a-f]{4})|([bf]))/g, (_, code: string | undefined, short: string | undefined) =>
    code !== undefined ? `\\u{${code}}` : short === "b" ? "\\u{8}" : "\\u{c}",
  );
}

function value(given: Json): string {
  switch (typeof given) {
    case "string":
      return `.text(${text(given)})`;
    case "number":
      return `.number(${given})`;
    case "boolean":
      return `.truth(${given})`;
    default:
      if (given === null) return "nil";
      return Array.isArray(given) ? `.list([${given.map(value).join(", ")}])` : `.record(${record(given as Record<string, Json>)})`;
  }
}

function record(given: Record<string, Json>): string {
  return `[${entries(Object.entries(given).flatMap(([name, inner]): Array<[string, string]> => (inner === null ? [] : [[name, value(inner)]])))}]`;
}
