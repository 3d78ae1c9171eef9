import { namesIn } from "../../model/edits/spelling.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { Json } from "../../plan/data.ts";
import { planOf } from "../../plan/planOf.ts";
import { valuesOf } from "./chooser.ts";
import { type Edge, type Exploration, type Explored, NO_STARTS } from "./exploration.ts";
import { Effects, type Values } from "./factEffects.ts";
import { setDistances } from "./shortestWays.ts";
import { factsKey } from "./stateKey.ts";

/** States that a search may have when more facts are followed in it: so many and so many times those that it has, at most. */
const MOST_STATES = 100_000;
const FEW_STATES = 25_000;
const MOST_TIMES = 20;
/** States of a search from which on it is not tried where there may be too many. */
const MANY_STATES = 5_000;

const most = (states: number): number => Math.min(MOST_STATES, FEW_STATES + MOST_TIMES * states);

/**
 * A search with more facts followed, along the steps that are known of it: each state once for every value that the facts may have there.
 * No step is worked out again, so what is hidden is as coarse as it was. Undefined where there would be too many states.
 */
export function followed(exploration: Exploration, names: ReadonlySet<string>): Exploration | undefined {
  const known = once(exploration, noneFollowed);
  const name = [...names].sort().join();
  if (!known.has(name)) known.set(name, makeFollowed(exploration, names));
  return known.get(name);
}

const noneFollowed = (_: Exploration) => new Map<string, Exploration | undefined>();

function makeFollowed(exploration: Exploration, names: ReadonlySet<string>): Exploration | undefined {
  const { abstraction } = exploration;
  const wanted = withSources(abstraction.original, names);
  const facts = abstraction.original.facts.filter(({ id, source }) => wanted.has(id) && source === "app" && !abstraction.precision.follows.has(id));
  const combinations = facts.reduce((count, fact) => count * valuesOf(fact).length, 1);
  if (exploration.nodes.length > MANY_STATES && exploration.nodes.length * combinations > 2 * MOST_STATES) return undefined;
  const follows = new Set([...abstraction.precision.follows, ...facts.map(({ id }) => id)]);
  const project = { ...abstraction.project, facts: abstraction.original.facts.filter(({ source, id }) => source === "app" && follows.has(id)) };
  const nodes: FollowedState[] = [];
  const out: Exploration = {
    ...exploration,
    abstraction: { ...abstraction, project, precision: { ...abstraction.precision, follows }, followed: new WeakMap() },
    nodes,
    launches: [],
  };
  const effects = new Effects(planOf(abstraction.original), facts);
  const ids = project.facts.map(({ id }) => id);
  const numbers = new Map<string, number>();
  const sources: number[] = [];
  const valuesAt: number[] = [];
  const enter = (at: number, values: number): number => {
    const name = `${at} ${values}`;
    const known = numbers.get(name);
    if (known !== undefined) return known;
    numbers.set(name, nodes.length);
    sources.push(at);
    valuesAt.push(values);
    nodes.push(new FollowedState(exploration.nodes[at] as Explored, effects.valuesOf(values), ids));
    return nodes.length - 1;
  };
  const stepFrom = (edge: Edge, before: number, from?: number): Edge[] => {
    const { choices, after } = effects.of(edge);
    const results = after(before);
    if (edge.outcome !== "moved" && edge.outcome !== "ignored") return results.length > 0 ? [new FollowedEdge(edge, from ?? 0, choices, edge.outcome)] : [];
    return results.map(({ values, imposed }) => {
      const to = enter(edge.to, values);
      return new FollowedEdge(edge, to, imposed.length > 0 ? [...choices, ...imposed] : choices, to === from ? edge.outcome : "moved");
    });
  };
  out.launches = exploration.launches.flatMap((edge) => stepFrom(edge, effects.first)).map(fieldsOf);
  // A launch that is led round for ever shows its first screen all the same.
  if (nodes.length === 0) enter(0, effects.first);
  for (const edge of out.launches) (nodes[edge.to] as Explored).launched ??= edge.choices;
  const anew = new Map<readonly Edge[], Array<readonly Edge[] | undefined>>();
  const startsFrom = (starts: readonly Edge[], values: number): readonly Edge[] => {
    if (starts.length === 0) return NO_STARTS;
    const known = anew.get(starts) ?? [];
    anew.set(starts, known);
    const kept = effects.kept(values);
    const made = known[kept] ?? starts.flatMap((edge) => stepFrom(edge, kept));
    known[kept] = made;
    return made;
  };
  for (let at = 0; at < nodes.length; at++) {
    if (nodes.length > most(exploration.nodes.length)) return undefined;
    const [node, source, values] = [nodes[at] as Explored, exploration.nodes[sources[at] as number] as Explored, valuesAt[at] as number];
    node.edges = source.edges.flatMap((edge) => stepFrom(edge, values, at));
    node.starts = startsFrom(source.starts, values);
  }
  setDistances(out);
  return out;
}

/** Some facts, and those that they are set by: of what is set to "not the other" nothing is known without the other. */
function withSources({ legs }: Project, names: ReadonlySet<string>): ReadonlySet<string> {
  const out = new Set(names);
  for (const name of out) for (const { set } of legs) for (const source of namesIn("fact", set?.[name] ?? "")) out.add(source);
  return out;
}

/** A step of a search with more facts followed: where it leads then, and what it still asks for. The rest is as it was, and not kept twice. */
class FollowedEdge implements Edge {
  constructor(
    private readonly step: Edge,
    readonly to: number,
    readonly choices: Edge["choices"],
    readonly outcome: Edge["outcome"],
  ) {}

  get event() {
    return this.step.event;
  }

  get way() {
    return this.step.way;
  }

  get grew() {
    return this.step.grew;
  }

  get hides() {
    return this.step.hides;
  }

  get uncovers() {
    return this.step.uncovers;
  }

  get leaves() {
    return this.step.leaves;
  }

  get shows() {
    return this.step.shows;
  }

  get asMade() {
    return this.step.asMade;
  }

  get why() {
    return this.step.why;
  }

  get fired() {
    return this.step.fired;
  }

  get refusals() {
    return this.step.refusals;
  }

  get copies() {
    return this.step.copies;
  }

  get handed() {
    return this.step.handed;
  }

  get passed() {
    return this.step.passed;
  }

  get around() {
    return this.step.around;
  }
}

/** A state with the values of the facts that are followed now; what tells of them is made when it is asked for. */
class FollowedState implements Explored {
  edges: Edge[] = [];
  starts = NO_STARTS;
  distance = 0;
  from?: NonNullable<Explored["from"]>;
  launched?: NonNullable<Explored["launched"]>;
  private made: Pick<Explored, "state" | "key"> | undefined;

  constructor(
    private readonly node: Explored,
    private readonly values: Values,
    private readonly ids: readonly string[],
  ) {}

  get state() {
    return this.withValues().state;
  }

  get key() {
    return this.withValues().key;
  }

  get line() {
    return this.node.line;
  }

  get screen() {
    return this.node.screen;
  }

  get pending() {
    return this.node.pending;
  }

  get followed() {
    return this.node.followed;
  }

  private withValues(): Pick<Explored, "state" | "key"> {
    if (!this.made) {
      const { state, key } = this.node;
      const all: Record<string, unknown> = { ...state.facts, ...this.values };
      const facts = Object.fromEntries(this.ids.map((id) => [id, all[id] as Json]));
      // In a key the facts come first that are written as an object.
      this.made = { state: { ...state, facts }, key: key.replace(factsKey(state.facts), () => factsKey(facts)) };
    }
    return this.made;
  }
}

/** The fields of a step, as an object of its own. */
export function fieldsOf(edge: Edge): Edge {
  const { event, way, choices, to, outcome, grew, hides, uncovers, leaves, shows, asMade, why, fired, refusals, copies, handed, passed, around } = edge;
  return { event, way, choices, to, outcome, grew, hides, uncovers, leaves, shows, asMade, why, fired, refusals, copies, handed, passed, around };
}
