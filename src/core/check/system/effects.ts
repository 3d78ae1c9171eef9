import { sameValue } from "../../model/json.ts";
import type { Fact } from "../../model/schema.ts";
import type { Json, Tree } from "../../plan/data.ts";
import type { Expression } from "../../plan/expression.ts";
import type { Plan } from "../../plan/plan.ts";
import { type Choice, factAtFirst, valuesOf } from "./choices.ts";
import type { Edge } from "./exploration.ts";

/** Values of facts by their ids. */
export type Values = Readonly<Record<string, Json>>;

/** What a step does with some facts: its choices without what it asks of them, and by the number of the values before it those of the values after; none where it is not possible. */
interface Effect {
  choices: Edge["choices"];
  after: (before: number) => readonly number[];
}

/** What the steps of a search do with some facts. Values are numbered, and steps that ask and set the same are worked out once. */
export class Effects {
  /** The number of the values at launch. */
  readonly first: number;
  private readonly all: Values[] = [];
  private readonly numbers = new Map<string, number>();
  private readonly results = new Map<string, Array<readonly number[] | undefined>>();
  private readonly known = new WeakMap<Edge, Effect>();

  constructor(
    private readonly plan: Plan,
    private readonly facts: readonly Fact[],
  ) {
    this.first = this.numberOf(Object.fromEntries(facts.map((fact) => [fact.id, fact.initial as Json])));
  }

  valuesOf(number: number): Values {
    return this.all[number] as Values;
  }

  of(edge: Edge): Effect {
    const known = this.known.get(edge) ?? this.make(edge);
    this.known.set(edge, known);
    return known;
  }

  private numberOf(values: Values): number {
    const name = JSON.stringify(values);
    const known = this.numbers.get(name);
    if (known !== undefined) return known;
    this.numbers.set(name, this.all.length);
    this.all.push(values);
    return this.all.length - 1;
  }

  private make(edge: Edge): Effect {
    const ids = new Set(this.facts.map(({ id }) => id));
    const asked = edge.choices.filter(({ question }) => ids.has(factAtFirst(question) ?? ""));
    const choices = asked.length > 0 ? edge.choices.filter((choice) => !asked.includes(choice)) : edge.choices;
    const name = JSON.stringify([edge.way === "restart", edge.event?.do === "leg" && edge.event.leg, edge.outcome === "moved", edge.fired, asked]);
    const results = this.results.get(name) ?? [];
    this.results.set(name, results);
    const after = (before: number) => {
      const made = results[before] ?? this.after(edge, asked, before);
      results[before] = made;
      return made;
    };
    return { choices, after };
  }

  private after(edge: Edge, asked: readonly Choice[], number: number): number[] {
    const values = this.valuesOf(number);
    const starting = edge.way === "restart" ? this.facts.filter(({ persists }) => !persists) : [];
    const before = { ...values, ...Object.fromEntries(starting.map((fact) => [fact.id, fact.initial as Json])) };
    if (asked.some(({ question, answer }) => !sameValue(answer, before[factAtFirst(question) ?? ""]))) return [];
    const rests = edge.outcome !== "moved" && edge.outcome !== "ignored";
    return rests ? [number] : after(this.plan, this.facts, edge, before).map((next) => this.numberOf(next));
  }
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
