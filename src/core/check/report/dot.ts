import type { Edge, Exploration } from "../system/exploration.ts";

/**
 * The states that were looked at as a graph in the DOT language of Graphviz, one cluster for each class of widths: a box for each state with its
 * line and the values of the facts that were followed, dashed where it is not yet said what shows.
 */
export function dotOf(explorations: readonly Exploration[]): string {
  const clusters = explorations.map(({ width, nodes }, cluster) => {
    const states = nodes.map(({ line, state, pending }, i) => {
      const facts = Object.entries(state.facts).map(([id, value]) => `${id}=${value}`);
      return `    s${cluster}_${i} [label=${text([line, ...facts].join("\n"))}${pending ? ", style=dashed" : ""}];`;
    });
    const steps = nodes.flatMap(({ edges }, from) => [
      ...new Set(
        edges.flatMap((edge) => (edge.outcome === "moved" ? [`    s${cluster}_${from} -> s${cluster}_${edge.to} [label=${text(nameOf(edge))}];`] : [])),
      ),
    ]);
    return [`  subgraph cluster_${cluster} {`, `    label=${text(width)};`, ...states, ...steps, "  }"].join("\n");
  });
  return ["digraph states {", "  node [shape=box, fontsize=10];", "  edge [fontsize=9];", ...clusters, "}", ""].join("\n");
}

function nameOf({ event, way }: Edge): string {
  if (!event) return way === "reveal" ? "" : "facts";
  switch (event.do) {
    case "leg":
      return event.leg;
    case "tab":
    case "pick":
      return `${event.do} ${event.to}`;
    case "close":
      return `close ${event.via}`;
    default:
      return event.do;
  }
}

const text = (value: string) => JSON.stringify(value).replaceAll("\\n", "\\l");
