import { sameValue } from "../../model/json.ts";
import type { Node, StackNode, State } from "../../semantics/types.ts";
import { contextOf, isHidden, isRest } from "./hiding.ts";
import { isFact, visitsOf, WAITING } from "./precision.ts";
import { missingOn } from "./stateKey.ts";
import type { Abstraction } from "./types.ts";

/** Whether a concrete state is one of those that a state of a search stands for, as far as what is not hidden in it tells. */
export function isInstance(abstraction: Abstraction, abstract: State, concrete: State): boolean {
  return (
    abstract.layers.length === concrete.layers.length &&
    (abstract.waiting?.entrance === concrete.waiting?.entrance || !abstraction.precision.follows.has(WAITING)) &&
    (abstract.held === concrete.held || JSON.stringify(abstract.held) === JSON.stringify(concrete.held)) &&
    Object.entries(abstract.facts).every(([id, value]) => !isFact(id) || sameValue(value, concrete.facts[id])) &&
    abstract.layers.every(({ at, content }, i) => at === concrete.layers[i]?.at && fits(abstraction, content, concrete.layers[i].content)) &&
    fits(abstraction, abstract.base, concrete.base)
  );
}

function fits(abstraction: Abstraction, abstract: Node, concrete: Node): boolean {
  if (standsForAny(abstract)) return true;
  if (abstract.at !== concrete.at) return false;
  switch (abstract.kind) {
    case "shown":
      return (
        concrete.kind === "shown" &&
        spent(abstract.spent) === spent(concrete.spent) &&
        missingOn(abstraction.app.plan, abstract) === missingOn(abstraction.app.plan, concrete)
      );
    case "stack":
      return concrete.kind === "stack" && stackFits(abstraction, abstract, concrete);
    case "tabs":
    case "drawer": {
      if (concrete.kind !== abstract.kind || abstract.active !== concrete.active) return false;
      if (abstract.kind === "drawer" && concrete.kind === "drawer" && abstract.open !== concrete.open) return false;
      const declared = abstraction.app.plan.containers.get(abstract.at);
      const visits = declared?.onBack === "previous" && abstraction.precision.follows.has(visitsOf(abstract.at));
      if (visits && String(abstract.visited) !== String(concrete.visited)) return false;
      if (Object.keys(concrete.lanes).some((id) => !Object.hasOwn(abstract.lanes, id))) return false;
      return Object.entries(concrete.lanes).every(([id, lane]) => fits(abstraction, abstract.lanes[id] as Node, lane));
    }
  }
}

const standsForAny = (node: Node): boolean => isHidden(node);

function stackFits(abstraction: Abstraction, abstract: StackNode, concrete: StackNode): boolean {
  const [lowest] = abstract.items;
  const rest = lowest && isRest(lowest) ? lowest : undefined;
  const known = rest ? abstract.items.slice(1) : abstract.items;
  const beneath = concrete.items.length - known.length;
  if (rest ? beneath < 1 : beneath !== 0) return false;
  if (rest && abstraction.contexts?.mayEndWith(contextOf(rest), concrete.items[beneath - 1]?.at ?? "") === false) return false;
  return known.every((item, i) => fits(abstraction, item, concrete.items[beneath + i] as Node));
}

function spent(legs: readonly string[] | undefined): string {
  return legs ? [...legs].sort().join() : "";
}
