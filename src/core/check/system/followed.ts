import { sameValue } from "../../model/json.ts";
import type { Fact } from "../../model/schema.ts";
import type { Json, Tree } from "../../plan/data.ts";
import type { Expression } from "../../plan/expression.ts";
import type { Plan } from "../../plan/plan.ts";
import { planOf } from "../../plan/planOf.ts";
import { factAtFirst, valuesOf } from "./choices.ts";
import type { Edge, Exploration, Explored } from "./exploration.ts";
import { factsKey } from "./key.ts";
import { setDistances } from "./ways.ts";

/** States that a search may have when more facts are followed in it. */
const MOST_STATES = 40_000;

/**
 * A search with more facts followed, along the steps that are known of it: each state once for every value that the facts may have there.
 * No step is worked out again, so what is hidden is as coarse as it was. Undefined where there would be too many states.
 */
export function followed(exploration: Exploration, names: ReadonlySet<string>): Exploration | undefined {
  const { abstraction } = exploration;
  const plan = planOf(abstraction.original);
  const facts = abstraction.original.facts.filter(({ id }) => names.has(id) && !abstraction.precision.follows.has(id));
  const follows = new Set([...abstraction.precision.follows, ...facts.map(({ id }) => id)]);
  const project = { ...abstraction.project, facts: abstraction.original.facts.filter(({ source, id }) => source === "app" && follows.has(id)) };
  const out: Exploration = {
    ...exploration,
    abstraction: { ...abstraction, project, precision: { ...abstraction.precision, follows }, followed: new WeakMap() },
    nodes: [],
    launches: [],
  };
  const numbers = new Map<string, number>();
  const sources: number[] = [];
  const valuesAt: Values[] = [];
  const enter = (at: number, values: Values): number => {
    const name = `${at} ${JSON.stringify(values)}`;
    const known = numbers.get(name);
    if (known !== undefined) return known;
    numbers.set(name, out.nodes.length);
    sources.push(at);
    valuesAt.push(values);
    out.nodes.push(withValues(out, exploration.nodes[at] as Explored, values));
    return out.nodes.length - 1;
  };
  const initial: Values = Object.fromEntries(facts.map((fact) => [fact.id, fact.initial as Json]));
  const stepFrom = (edge: Edge, values: Values, from?: number): Edge[] => {
    const before =
      edge.way === "restart" ? { ...values, ...Object.fromEntries(facts.filter((f) => !f.persists).map((f) => [f.id, f.initial as Json])) } : values;
    const isFollowed = ({ question }: Edge["choices"][number]) => Object.hasOwn(before, factAtFirst(question) ?? "");
    if (edge.choices.some((choice) => isFollowed(choice) && !sameValue(choice.answer, before[factAtFirst(choice.question) ?? ""]))) return [];
    const known = { ...edge, choices: edge.choices.filter((choice) => !isFollowed(choice)) };
    if (edge.outcome !== "moved" && edge.outcome !== "ignored") return [{ ...known, to: from ?? 0 }];
    return after(plan, facts, edge, before).map((next) => {
      const to = enter(edge.to, next);
      return to === from ? { ...known, to } : { ...known, outcome: "moved", to };
    });
  };
  out.launches = exploration.launches.flatMap((edge) => stepFrom(edge, initial));
  // A launch that is led round for ever shows its first screen all the same.
  if (out.nodes.length === 0) enter(0, initial);
  for (const edge of out.launches) (out.nodes[edge.to] as Explored).launched ??= edge.choices;
  for (let at = 0; at < out.nodes.length; at++) {
    if (out.nodes.length > MOST_STATES) return undefined;
    (out.nodes[at] as Explored).edges = (exploration.nodes[sources[at] as number] as Explored).edges.flatMap((edge) =>
      stepFrom(edge, valuesAt[at] as Values, at),
    );
  }
  setDistances(out);
  return out;
}

/** Values of facts by their ids. */
type Values = Readonly<Record<string, Json>>;

function withValues({ abstraction }: Exploration, node: Explored, values: Values): Explored {
  const all: Record<string, unknown> = { ...node.state.facts, ...values };
  const facts = Object.fromEntries(abstraction.project.facts.map(({ id }) => [id, all[id] as Json]));
  // In a key the facts come first that are written as an object.
  const key = node.key.replace(factsKey(node.state.facts), () => factsKey(facts));
  const { from: _, launched: __, ...rest } = node;
  return { ...rest, state: { ...node.state, facts }, key, edges: [], distance: 0 };
}

/** The values that facts may have after a step: as the legs that it fired set them, where these facts alone tell that, and else any. */
function after(plan: Plan, facts: readonly Fact[], { fired, event, outcome }: Edge, before: Values): Values[] {
  let all = [before];
  for (const id of fired) {
    const leg = plan.legs.get(id);
    const set = leg?.set.flatMap(({ fact, value }) => facts.filter((one) => one.id === fact).map((declared) => ({ declared, value }))) ?? [];
    if (set.length === 0) continue;
    let changed = all;
    for (const { declared, value } of set)
      changed = changed.flatMap((values) => resultsOf(declared, value, values).map((result) => ({ ...values, [declared.id]: result })));
    // A leg that fires within an event and comes to nothing sets nothing either.
    const surely = leg?.move === undefined || (event?.do === "leg" && event.leg === id && outcome === "moved");
    all = surely ? changed : [...all, ...changed];
  }
  return all;
}

function resultsOf(fact: Fact, { tree, run }: Expression, values: Values): readonly Json[] {
  const result = restsOn(tree, values) ? run({ fact: values, width: "narrow" }) : undefined;
  return result === undefined ? valuesOf(fact) : [result];
}

/** Whether an expression reads nothing but some facts. */
function restsOn(tree: Tree, values: Values): boolean {
  switch (tree[0]) {
    case "value":
      return true;
    case "name":
      return false;
    case "member":
      return tree[1][0] === "name" && tree[1][1] === "fact" && Object.hasOwn(values, tree[2]);
    default:
      return tree.slice(1).every((part) => restsOn(part as Tree, values));
  }
}
