import { sameValue } from "../../model/json.ts";
import type { Fact } from "../../model/schema.ts";
import type { Json, Tree } from "../../plan/data.ts";
import type { Expression } from "../../plan/expression.ts";
import type { Plan } from "../../plan/plan.ts";
import { type Choice, CONTEXT_QUESTION, factAtFirst, valuesOf } from "./chooser.ts";
import type { Edge } from "./exploration.ts";

/** Values of facts by their ids. */
export type Values = Readonly<Record<string, Json>>;

/** What a step does with some facts: its choices without what it asks of them, and by the number of the values before it what may come of it; nothing where it is not possible. */
interface Effect {
  choices: Edge["choices"];
  after: (before: number) => readonly After[];
}

/** The number of the values after a step, and what nobody chooses that it takes for them. */
interface After {
  values: number;
  imposed: readonly Choice[];
}

/** What the steps of a search do with some facts. Values are numbered, and steps that ask and set the same are worked out once. */
export class Effects {
  /** The number of the values at launch. */
  readonly first: number;
  private readonly all: Values[] = [];
  private readonly numbers = new Map<string, number>();
  private readonly results = new Map<string, Array<readonly After[] | undefined>>();
  private readonly known = new WeakMap<Edge, Effect>();
  private readonly passing: Values;
  private readonly keptBy: number[] = [];

  constructor(
    private readonly plan: Plan,
    private readonly facts: readonly Fact[],
  ) {
    this.passing = Object.fromEntries(facts.filter(({ persists }) => !persists).map((fact) => [fact.id, fact.initial as Json]));
    this.first = this.numberOf(Object.fromEntries(facts.map((fact) => [fact.id, fact.initial as Json])));
  }

  valuesOf(number: number): Values {
    return this.all[number] as Values;
  }

  /** The number of some values after a new start: those of facts that do not persist are as at first. */
  kept(number: number): number {
    const known = this.keptBy[number] ?? this.numberOf({ ...this.valuesOf(number), ...this.passing });
    this.keptBy[number] = known;
    return known;
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
    const name = JSON.stringify([edge.way === "restart", edge.event?.do === "leg" && edge.event.leg, edge.outcome, edge.fired, asked]);
    const results = this.results.get(name) ?? [];
    this.results.set(name, results);
    const after = (before: number) => {
      const made = results[before] ?? this.after(edge, asked, before);
      results[before] = made;
      return made;
    };
    return { choices, after };
  }

  private after(edge: Edge, asked: readonly Choice[], number: number): After[] {
    const before = this.valuesOf(edge.way === "restart" ? this.kept(number) : number);
    if (asked.some(({ question, answer }) => !sameValue(answer, before[factAtFirst(question) ?? ""]))) return [];
    const rests = edge.outcome !== "moved" && edge.outcome !== "ignored";
    if (rests) return [{ values: number, imposed: [] }];
    return after(this.plan, this.facts, edge, before).map(({ values, imposed }) => ({ values: this.numberOf(values), imposed }));
  }
}

/** The values that facts may have after a step: as the legs that it fired set them, where these facts alone tell that, and else any. */
function after(plan: Plan, facts: readonly Fact[], { fired, event, outcome }: Edge, before: Values): Array<{ values: Values; imposed: Choice[] }> {
  let all: Array<{ values: Values; imposed: Choice[] }> = [{ values: before, imposed: [] }];
  for (const id of fired) {
    const leg = plan.legs.get(id);
    const set = leg?.set.flatMap(({ fact, value }) => facts.filter((one) => one.id === fact).map((declared) => ({ declared, value }))) ?? [];
    const isEvent = event?.do === "leg" && event.leg === id;
    // A leg that comes to nothing sets nothing. Of one that fires within the event of another it is not known here, and nobody chooses it.
    if (set.length === 0 || (isEvent && leg?.move !== undefined && outcome !== "moved")) continue;
    let changed = all;
    for (const { declared, value } of set)
      changed = changed.flatMap((one) =>
        resultsOf(declared, value, one.values).map((result) => ({ ...one, values: { ...one.values, [declared.id]: result } })),
      );
    const told = (does: boolean) => (one: (typeof all)[number]) => ({
      ...one,
      imposed: [...one.imposed, { question: `${CONTEXT_QUESTION}set by ${id}`, answer: does }],
    });
    all = leg?.move === undefined || isEvent ? changed : [...all.map(told(false)), ...changed.map(told(true))];
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
