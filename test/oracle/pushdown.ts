/**
 * Pushdown systems as the textbook has them, apart from the checker and from the engine: saturation forwards and backwards, and the
 * configurations that one automaton takes and another does not (S. Schwoon, Model-Checking Pushdown Systems, 2002, algorithms 1 and 2).
 */

/** From a control state with a symbol on top to another, with what stands there instead: nothing (pop), one symbol, or two (push), the top first. */
export interface Rule {
  from: string;
  top: string;
  to: string;
  push: readonly string[];
}

/** An automaton over stacks, read from the top: it takes a configuration from the state that is its control state. */
export interface Automaton {
  edges: Map<string, Map<string, Set<string>>>;
  final: Set<string>;
}

const SILENT = "";

/** Adds an edge; whether it is new. */
export function addEdge({ edges }: Automaton, from: string, symbol: string, to: string): boolean {
  const bySymbol = edges.get(from) ?? new Map<string, Set<string>>();
  const targets = bySymbol.get(symbol) ?? new Set<string>();
  edges.set(from, bySymbol.set(symbol, targets));
  if (targets.has(to)) return false;
  targets.add(to);
  return true;
}

/** The automaton that takes one configuration alone. */
export function only(control: string, stack: readonly string[]): Automaton {
  const automaton: Automaton = { edges: new Map(), final: new Set([`${control} ${stack.length}`]) };
  for (const [i, symbol] of stack.entries()) addEdge(automaton, i === 0 ? control : `${control} ${i}`, symbol, `${control} ${i + 1}`);
  return automaton;
}

/** All that can be reached from what an automaton takes. No edge of it may lead into a control state. */
export function postStar(rules: readonly Rule[], start: Automaton): Automaton {
  const out = copy(start);
  const between = ({ to, push }: Rule) => `${to} | ${push[0]}`;
  for (const rule of rules) if (rule.push.length === 2) addEdge(out, rule.to, rule.push[0] as string, between(rule));
  for (let more = true; more; ) {
    more = false;
    for (const rule of rules)
      for (const after of afterSymbol(out, new Set([rule.from]), rule.top)) {
        const [first = SILENT, second] = rule.push;
        if (second === undefined ? addEdge(out, rule.to, first, after) : addEdge(out, between(rule), second, after)) more = true;
      }
  }
  return out;
}

/** All from which something can be reached that an automaton takes. No edge of it may lead into a control state. */
export function preStar(rules: readonly Rule[], goal: Automaton): Automaton {
  const out = copy(goal);
  for (let more = true; more; ) {
    more = false;
    for (const { from, top, to, push } of rules) {
      const ends = push.reduce((states, symbol) => afterSymbol(out, states, symbol), new Set([to]));
      for (const end of ends) if (addEdge(out, from, top, end)) more = true;
    }
  }
  return out;
}

/** The symbols that are on top of some stack, with a control state, which all of some automata take and none of some others. */
export function tops(control: string, all: readonly Automaton[], none: readonly Automaton[] = []): Set<string> {
  const [first] = all;
  const begin = { all: all.map((one) => closed(one, new Set([control]))), none: none.map((one) => closed(one, new Set([control]))) };
  const next = (at: Position, symbol: string): Position => ({
    all: all.map((one, i) => afterSymbol(one, at.all[i] as Set<string>, symbol)),
    none: none.map((one, i) => afterSymbol(one, at.none[i] as Set<string>, symbol)),
  });
  const isTaken = (at: Position) => at.all.every((states, i) => meetsFinal(all[i], states)) && !at.none.some((states, i) => meetsFinal(none[i], states));
  const out = new Set<string>();
  for (const symbol of symbolsFrom(first, begin.all[0])) {
    const queue = [next(begin, symbol)];
    const known = new Set<string>();
    for (const at of queue) {
      if (isTaken(at)) {
        out.add(symbol);
        break;
      }
      for (const more of symbolsFrom(first, at.all[0])) {
        const to = next(at, more);
        const key = JSON.stringify([to.all.map((states) => [...states].sort()), to.none.map((states) => [...states].sort())]);
        if (!known.has(key)) queue.push(to);
        known.add(key);
      }
    }
  }
  return out;
}

/** The states in which some automata may be after the same symbols. */
interface Position {
  all: Set<string>[];
  none: Set<string>[];
}

const meetsFinal = (automaton: Automaton | undefined, states: ReadonlySet<string>) => [...states].some((one) => automaton?.final.has(one));

function symbolsFrom(automaton: Automaton | undefined, states: ReadonlySet<string> = new Set()): Set<string> {
  return new Set([...states].flatMap((one) => [...(automaton?.edges.get(one)?.keys() ?? [])]).filter((symbol) => symbol !== SILENT));
}

/** Whether an automaton takes a stack with a control state. */
export function takes(automaton: Automaton, control: string, stack: readonly string[]): boolean {
  const ends = stack.reduce((states, symbol) => afterSymbol(automaton, states, symbol), closed(automaton, new Set([control])));
  return meetsFinal(automaton, ends);
}

/** The states in which one is after a symbol, read from any of some. */
function afterSymbol(automaton: Automaton, from: ReadonlySet<string>, symbol: string): Set<string> {
  const to = [...closed(automaton, from)].flatMap((state) => [...(automaton.edges.get(state)?.get(symbol) ?? [])]);
  return closed(automaton, new Set(to));
}

function closed({ edges }: Automaton, from: ReadonlySet<string>): Set<string> {
  const all = new Set(from);
  for (const state of all) for (const to of edges.get(state)?.get(SILENT) ?? []) all.add(to);
  return all;
}

function copy({ edges, final }: Automaton): Automaton {
  const out: Automaton = { edges: new Map(), final: new Set(final) };
  for (const [from, bySymbol] of edges) for (const [symbol, targets] of bySymbol) for (const to of targets) addEdge(out, from, symbol, to);
  return out;
}
