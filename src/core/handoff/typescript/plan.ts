import { keyField } from "../../model/lookup.ts";
import type { Container, Json, Project, Screen } from "../../model/schema.ts";
import { type CodeEntrance, type CodeLeg, codeEntrances, codeLegs } from "../code/plan.ts";
import { expressionCode } from "./expression.ts";

/** Source text that stands for itself in `literal`. */
class Code {
  constructor(readonly text: string) {}
}

/** The design as a `Plan`: one line a place, a leg, an entrance, a fact. */
export function planCode(project: Project): string {
  const table = (entries: Array<[string, unknown]>) => `{\n${entries.map(([id, value]) => `    ${property(id)}: ${literal(value)},\n`).join("")}  }`;
  return [
    "/** The design itself. */",
    "export const plan: Plan = {",
    `  root: ${JSON.stringify(project.root)},`,
    `  places: ${table([...project.containers.map((c): [string, unknown] => [c.id, containerPlan(c)]), ...project.screens.map((s): [string, unknown] => [s.id, screenPlan(s)])])},`,
    `  legs: ${table(codeLegs(project).map((leg) => [leg.leg.id, legPlan(leg)]))},`,
    `  entrances: ${table(codeEntrances(project).map((entrance) => [entrance.entrance.id, entrancePlan(entrance)]))},`,
    `  facts: ${table(project.facts.map((f) => [f.id, { initial: f.initial, values: f.type === "choice" ? (f.values ?? []) : undefined, outside: f.source === "outside" || undefined, persists: f.persists || undefined }]))},`,
    `  rows: ${table(project.types.map((type) => [type.id, { key: keyField(type), all: new Code(`samples.${type.id}`) }]))},`,
    "};",
  ].join("\n");
}

function screenPlan({ params, up, bar, pages, coversTabs, path }: Screen) {
  return {
    kind: "screen",
    params: params.map(({ name, type, default: initial }) => ({ name, type, default: initial })),
    up,
    bar: bar && { show: bar.show, lead: bar.lead },
    pages,
    coversTabs: coversTabs || undefined,
    path,
  };
}

function containerPlan(c: Container) {
  const common = { kind: c.kind, start: c.start, members: c.members, bar: c.bar && { show: c.bar.show, lead: c.bar.lead } };
  switch (c.kind) {
    case "stack":
      return common;
    case "tabs":
      return { ...common, onBack: c.onBack, chosenAgain: c.chosenAgain, keeps: c.keeps };
    case "drawer":
      return { ...common, onBack: c.onBack, keeps: c.keeps, over: c.over, pinnedFrom: c.pinnedFrom, closeOn: c.closeOn };
    case "modal":
      return { ...common, full: c.shape === "full" || undefined, blocks: c.blocks, closeOn: c.closeOn };
  }
}

function legPlan(leg: CodeLeg) {
  const expression = (ast: CodeLeg["when"]) => ast && new Code(expressionCode(ast));
  const { on, resumes } = leg.leg;
  const move = leg.move && Object.fromEntries(Object.entries(leg.move).filter(([name]) => name !== "pass" && name !== "url"));
  return {
    from: leg.leg.from,
    on: leg.on,
    key: leg.key,
    by: on.kind === "depart" ? on.by : undefined,
    never: leg.never || undefined,
    when: expression(leg.when),
    shown: expression(leg.shown),
    enabled: expression(leg.enabled),
    except: leg.except.length > 0 ? leg.except : undefined,
    rows: leg.rows?.id,
    move,
    passes: leg.passes || undefined,
    pass:
      leg.pass.length > 0
        ? Object.fromEntries(leg.pass.map(({ name, value, required }) => [name, { value: new Code(expressionCode(value)), required }]))
        : undefined,
    set: leg.set.length > 0 ? Object.fromEntries(leg.set.map(({ fact, value }) => [fact, new Code(expressionCode(value))])) : undefined,
    resumes: resumes || undefined,
  };
}

function entrancePlan({ entrance, variables, when, pass }: CodeEntrance) {
  return {
    pattern: entrance.pattern,
    variables,
    to: entrance.to,
    pass: pass && Object.fromEntries(pass.map(({ name, value }) => [name, new Code(expressionCode(value))])),
    when: when === undefined ? undefined : new Code(when === "never" ? "() => false" : expressionCode(when)),
    otherwise: entrance.otherwise,
    resume: entrance.resume || undefined,
    onTop: entrance.warm === "onTop" || undefined,
  };
}

/** A value as source; what is undefined is left out. */
export function literal(value: unknown): string {
  if (value instanceof Code) return value.text;
  if (Array.isArray(value)) return `[${value.map(literal).join(", ")}]`;
  if (typeof value === "object" && value !== null) {
    const entries = Object.entries(value).filter(([, inner]) => inner !== undefined);
    return entries.length === 0 ? "{}" : `{ ${entries.map(([name, inner]) => `${property(name)}: ${literal(inner)}`).join(", ")} }`;
  }
  return text(value as Json);
}

/** JSON as source: no end of a script and no line that a reader takes for its own. */
function text(value: Json): string {
  return JSON.stringify(value).replaceAll("<", "\\u003c").replaceAll("\u2028", "\\u2028").replaceAll("\u2029", "\\u2029");
}

/** A name as a property: `__proto__` is none of its own unless computed. */
export function property(name: string): string {
  return name === "__proto__" ? '["__proto__"]' : /^[A-Za-z_$][\w$]*$/.test(name) ? name : text(name);
}
