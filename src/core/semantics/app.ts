import { sameValue } from "../plan/expression.ts";
import type { Plan } from "../plan/plan.ts";
import { plainStacks } from "./stacks.ts";
import type { App, Evaluator } from "./types.ts";

/** Works out conditions and values as they are. */
const plainEvaluator: Evaluator = {
  holds: (condition, values) => condition.run(values) === true,
  value: (expression, values) => expression.run(values),
  sameArguments: (_, a, b) => sameValue(a, b),
};

/** An app that runs a plan as it is written. */
export function plainApp(plan: Plan): App {
  return { plan, evaluator: plainEvaluator, stacks: plainStacks };
}
