import type { Project, Screen } from "../../model/schema.ts";
import { asLine } from "../../text/line.ts";
import { type Box, graphOf } from "./graph.ts";

/** The graph as a Mermaid state diagram: containers are states with states in them. */
export function mermaid(project: Project): string {
  const graph = graphOf(project);
  const lines = [
    "%% Made from the project document; do not edit.",
    "stateDiagram-v2",
    "  direction LR",
    ...graph.boxes.flatMap((box) => state(box, "  ")),
    ...graph.loose.map((screen) => named(screen, "  ")),
    ...(graph.start === undefined ? [] : [`  [*] --> ${id(graph.start)}`]),
    ...graph.arrows.map(({ from, to, label }) => `  ${id(from)} --> ${id(to)} : ${text(label)}`),
  ];
  return `${lines.join("\n")}\n`;
}

function state(box: Box, indent: string): string[] {
  const { container } = box;
  const head = `${indent}state "${text(`${container.name || container.id} (${container.kind})`)}" as ${id(container.id)}`;
  const inside = [...box.screens.map((screen) => named(screen, `${indent}  `)), ...box.boxes.flatMap((inner) => state(inner, `${indent}  `))];
  return inside.length === 0 ? [head] : [`${head} {`, ...inside, `${indent}}`];
}

function named(screen: Screen, indent: string): string {
  return `${indent}state "${text(screen.name || screen.id)}" as ${id(screen.id)}`;
}

/** A prefix keeps ids apart from the words of the language, such as `end`. */
const id = (place: string) => `p_${place}`;

/** Characters that the language reads as its own are written as entities. */
function text(value: string): string {
  return asLine(value).replace(/["#;:{}<>%]/g, (c) => `#${c.charCodeAt(0)};`);
}
