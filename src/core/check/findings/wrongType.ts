import { fits, valueType } from "../../model/expression.ts";
import { entranceExpressions, isTaken, type Located, legExpressions, placeExpressions, ruleExpressions } from "../../model/expressions.ts";
import { firstScreen, lookup, passTarget } from "../../model/lookup.ts";
import type { Param, Project } from "../../model/schema.ts";
import { passFitting } from "../fixes/arguments.ts";
import { inExpressionWords } from "../fixes/plainWords.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const wrongType: FindingKind = {
  code: "wrong-type",
  severity: "blocker",
  says: "an expression that does not parse, or of another type than is wanted",
  help: "A condition or a value does not work as written, so that its leg never fires; what is shown or enabled by it counts as true.",
  subjects: "the leg, way in or rule, or the place and the element",
  inDocument: find,
  fixes: (project, [id = "", element]) => {
    const leg = lookup(project).legs.get(id);
    return [...inExpressionWords(project, id, element), ...(leg ? passFitting(project, leg) : [])];
  },
};

/** Expressions of another type than is wanted, that do not parse, or that name something not there. */
function find(project: Project): Found[] {
  const { places } = lookup(project);
  const legs = project.legs.flatMap((leg) => {
    const expressions = legExpressions(project, leg);
    if (expressions.length === 0) return [];
    const target = passTarget(project, leg);
    const params = (target === undefined ? undefined : firstScreen(project, target))?.params ?? [];
    const wrong = expressions.map((e) => problem(project, e, params)).find((p) => p !== undefined);
    return wrong === undefined ? [] : [{ subjects: [leg.id], message: `The leg from ${quote(project, leg.from)} never works: ${wrong}.` }];
  });
  const entrances = project.entrances.flatMap((entrance) => {
    const params = firstScreen(project, entrance.to)?.params ?? [];
    const wrong = entranceExpressions(project, entrance)
      .map((e) => problem(project, e, params))
      .find((p) => p !== undefined);
    return wrong === undefined ? [] : [{ subjects: [entrance.id], message: `The way in ${quote(project, entrance.id)} does not work as written: ${wrong}.` }];
  });
  const elements = [...places.keys()].flatMap((id) =>
    placeExpressions(project, id).flatMap((e) =>
      e.compiled.ok || e.element === undefined || e.role === "template"
        ? []
        : [
            {
              subjects: [id, e.element],
              message: `"${e.role}" of ${e.element} on ${quote(project, id)} counts as true: in "${e.source}", ${e.compiled.error.message}.`,
            },
          ],
    ),
  );
  const rules = (project.rules ?? []).flatMap((rule) => {
    const wrong = ruleExpressions(project, rule)
      .map((e) => problem(project, e, []))
      .find((p) => p !== undefined);
    return wrong === undefined ? [] : [{ subjects: [rule.id], message: `The rule "${rule.name}" cannot be checked: ${wrong}.` }];
  });
  return [...legs, ...entrances, ...elements, ...rules];
}

function problem(project: Project, e: Located, params: readonly Param[]): string | undefined {
  if (!e.compiled.ok) return `in "${e.source}", ${e.compiled.error.message}`;
  if (e.role === "pass") {
    const param = params.find((p) => p.name === e.name);
    return param && !fits(e.compiled.type, valueType(param.type))
      ? `"${e.source}" is of type ${e.compiled.type}, and "${param.name}" wants ${param.type}`
      : undefined;
  }
  if (e.role === "give")
    return isTaken(project, e.name ?? "", e.compiled.type)
      ? undefined
      : `it hands back "${e.source}", of type ${e.compiled.type}, as "${e.name}", and no screen takes a "${e.name}" of that type`;
  if (e.role !== "set") return undefined;
  const fact = lookup(project).facts.get(e.name ?? "");
  if (!fact) return `it sets "${e.name}", which is no fact of the project`;
  if (e.compiled.type !== (fact.type === "boolean" ? "boolean" : "text")) return `it sets the fact "${fact.id}" to a value of type ${e.compiled.type}`;
  const { ast } = e.compiled;
  return fact.type === "choice" && ast.op === "value" && !fact.values?.includes(String(ast.args))
    ? `"${String(ast.args)}" is none of the values of the fact "${fact.id}"`
    : undefined;
}
