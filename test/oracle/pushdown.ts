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

/**
 * A shortest stack, the top first, that one automaton takes from a control state, another does not, and that is as wanted; `wanted` looks at it
 * from the top on, by a state of its own. Undefined where there is none.
 */
export function difference<S>(
  control: string,
  taken: Automaton,
  not: Automaton | undefined,
  wanted: { start: S; next: (state: S, symbol: string) => S; ends: (state: S) => boolean },
): string[] | undefined {
  const queue = [
    { at: closed(taken, new Set([control])), out: not ? closed(not, new Set([control])) : new Set<string>(), state: wanted.start, word: [] as string[] },
  ];
  const known = new Set<string>();
  for (const { at, out, state, word } of queue) {
    if ([...at].some((one) => taken.final.has(one)) && ![...out].some((one) => not?.final.has(one)) && wanted.ends(state)) return word;
    for (const symbol of new Set([...at].flatMap((one) => [...(taken.edges.get(one)?.keys() ?? [])]))) {
      if (symbol === SILENT) continue;
      const next = {
        at: afterSymbol(taken, at, symbol),
        out: not ? afterSymbol(not, out, symbol) : out,
        state: wanted.next(state, symbol),
        word: [...word, symbol],
      };
      const key = JSON.stringify([[...next.at].sort(), [...next.out].sort(), next.state]);
      if (known.has(key)) continue;
      known.add(key);
      queue.push(next);
    }
  }
  return undefined;
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
