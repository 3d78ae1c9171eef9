/** Which states a chart need not tell apart: those that differ only in what nothing reads. */

import type { Compiled } from "../../model/expression.ts";
import { entranceExpressions, legExpressions, placeExpressions } from "../../model/expressions.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { Args } from "../../plan/data.ts";
import type { Node, State } from "../../semantics/types.ts";

/** What conditions and moves of a project rest on. */
interface Read {
  facts: ReadonlySet<string>;
  params: ReadonlySet<string>;
  width: boolean;
}

/** A state as a text that is the same for states between which nothing that can happen makes a difference. */
export function tellingKey(project: Project, state: State): string {
  const read = once(project, readBy);
  const facts = Object.entries(state.facts).filter(([id]) => read.facts.has(id));
  const layers = state.layers.map(({ at, content }) => [at, telling(content, read)]);
  return JSON.stringify([telling(state.base, read), layers, facts, read.width ? state.width : "", state.waiting ?? "", state.held ?? ""]);
}

/** A node with the arguments that something reads; of others only whether they are there, for a move may want them. */
function telling(node: Node, read: Read): unknown {
  switch (node.kind) {
    case "shown":
      return [node.at, args(node.args, read), node.spent ?? []];
    case "stack":
      return [node.at, node.items.map((item) => telling(item, read))];
    case "tabs":
    case "drawer": {
      const lanes = Object.entries(node.lanes).map(([id, lane]) => [id, telling(lane, read)]);
      return [node.at, node.active, lanes, node.visited, node.kind === "drawer" && node.open];
    }
  }
}

function args(values: Args, { params }: Read): unknown {
  return Object.entries(values).map(([name, value]) => (params.has(name) ? [name, value] : name));
}

type Reads = Array<{ name: string; field?: string }>;

function readBy(project: Project): Read {
  const legs = project.legs.flatMap((leg) => legExpressions(project, leg));
  const places = [...lookup(project).places.keys()].flatMap((id) => placeExpressions(project, id)).filter(({ role }) => role !== "template");
  const ways = project.entrances.flatMap((entrance) => entranceExpressions(project, entrance));
  const all = [...legs, ...places, ...ways];
  const readsOf = ({ compiled }: { compiled: Compiled }): Reads => (compiled.ok ? compiled.reads : []);
  // What decides: conditions, values of facts, and arguments that a push compares to stay where it is.
  const deciding = all.filter(({ role }) => role !== "pass" && role !== "give").flatMap(readsOf);
  const compared = project.legs.flatMap(({ move }) =>
    move?.kind === "push" && move.repeat === "stay" ? (lookup(project).screens.get(move.to)?.params ?? []) : [],
  );
  const params = new Set([...namesOf(deciding), ...compared.map(({ name }) => name)]);
  const pages = project.screens.flatMap((screen) => screen.pages?.by ?? []);
  // What is passed on to be read there is read here.
  for (let before = -1; params.size > before; ) {
    before = params.size;
    if (deciding.some(({ name }) => name === "next" || name === "prev")) for (const name of pages) params.add(name);
    for (const one of [...legs, ...ways])
      if ((one.role === "pass" || one.role === "give") && one.name !== undefined && params.has(one.name)) {
        const reads = readsOf(one);
        for (const name of namesOf(reads)) params.add(name);
        if (reads.some(({ name }) => name === "next" || name === "prev")) for (const name of pages) params.add(name);
      }
  }
  const everything = all.flatMap(readsOf);
  return {
    facts: new Set(everything.flatMap(({ name, field }) => (name === "fact" && field !== undefined ? [field] : []))),
    params,
    width: everything.some(({ name }) => name === "width") || project.containers.some((c) => c.kind === "drawer" && c.pinnedFrom !== "never"),
  };
}

function namesOf(reads: Reads): string[] {
  return reads.flatMap(({ name, field }) => (name === "param" && field !== undefined ? [field] : []));
}
