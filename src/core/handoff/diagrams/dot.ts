import { firstScreen, lookup } from "../../model/lookup.ts";
import type { Project, Screen } from "../../model/schema.ts";
import { asLine } from "../../text/line.ts";
import { type Box, graphOf } from "./graph.ts";

/** The graph in the DOT language of Graphviz: containers as clusters, legs from a container starting at its frame. */
export function dot(project: Project): string {
  const graph = graphOf(project);
  const lines = [
    `digraph ${quoted(project.name)} {`,
    "  // Made from the project document; do not edit.",
    '  rankdir=LR; compound=true; node [shape=box, fontname="Helvetica", fontsize=11]; edge [fontname="Helvetica", fontsize=9];',
    "  launch [shape=point];",
    ...graph.boxes.flatMap((box) => cluster(box, "  ")),
    ...graph.loose.map((screen) => node(screen, "  ")),
    ...(graph.start === undefined ? [] : [`  launch -> ${id(graph.start)};`]),
    ...graph.arrows.flatMap(({ leg, from, to, label }) => {
      const start = lookup(project).screens.has(from) ? from : firstScreen(project, from)?.id;
      const frame = start === from ? "" : `, ltail=${quoted(`cluster_${from}`)}`;
      const style = leg.move?.kind === "open" ? ", style=dotted" : leg.move?.kind === "push" ? "" : ", style=dashed";
      return start === undefined ? [] : [`  ${id(start)} -> ${id(to)} [label=${quoted(label)}${frame}${style}];`];
    }),
    "}",
  ];
  return `${lines.join("\n")}\n`;
}

function cluster(box: Box, indent: string): string[] {
  const dashed = box.container.kind === "modal" ? " style=dashed;" : "";
  return [
    `${indent}subgraph ${quoted(`cluster_${box.container.id}`)} {`,
    `${indent}  label=${quoted(`${box.container.name || box.container.id} (${box.container.kind})`)};${dashed}`,
    ...box.screens.map((screen) => node(screen, `${indent}  `)),
    ...box.boxes.flatMap((inner) => cluster(inner, `${indent}  `)),
    `${indent}}`,
  ];
}

function node(screen: Screen, indent: string): string {
  return `${indent}${id(screen.id)} [label=${quoted(screen.name || screen.id)}${screen.planned ? ", style=dashed" : ""}];`;
}

/** Ids are quoted with a prefix, since DOT has words of its own that a screen may be called by. */
const id = (screen: string) => quoted(`s_${screen}`);
/** Lines stay lines; other characters that no reader shows become spaces. */
const quoted = (text: string) => `"${text.replaceAll("\\", "\\\\").replaceAll('"', '\\"').split("\n").map(asLine).join("\\n")}"`;
