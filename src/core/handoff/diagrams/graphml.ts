import type { Project, Screen } from "../../model/schema.ts";
import { escaped } from "../../text/xml.ts";
import { type Box, graphOf } from "./graph.ts";

/** The graph as GraphML: containers are nodes with a graph of their own. */
export function graphml(project: Project): string {
  const graph = graphOf(project);
  const lines = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    "<!-- Made from the project document; do not edit. -->",
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    '  <key id="name" for="node" attr.name="name" attr.type="string"/>',
    '  <key id="kind" for="node" attr.name="kind" attr.type="string"/>',
    '  <key id="label" for="edge" attr.name="label" attr.type="string"/>',
    '  <key id="move" for="edge" attr.name="move" attr.type="string"/>',
    '  <graph id="map" edgedefault="directed">',
    ...graph.boxes.flatMap((box) => boxNode(box, "    ")),
    ...graph.loose.map((screen) => node(screen, "    ")),
    ...graph.arrows.map(
      ({ leg, from, to, label }) =>
        `    <edge id="${leg.id}" source="${from}" target="${to}"><data key="label">${escaped(label)}</data><data key="move">${leg.move?.kind ?? ""}</data></edge>`,
    ),
    "  </graph>",
    "</graphml>",
  ];
  return `${lines.join("\n")}\n`;
}

function boxNode(box: Box, indent: string): string[] {
  const { id, name, kind } = box.container;
  return [
    `${indent}<node id="${id}"><data key="name">${escaped(name || id)}</data><data key="kind">${kind}</data>`,
    `${indent}  <graph id="${id}.inside" edgedefault="directed">`,
    ...box.screens.map((screen) => node(screen, `${indent}    `)),
    ...box.boxes.flatMap((inner) => boxNode(inner, `${indent}    `)),
    `${indent}  </graph>`,
    `${indent}</node>`,
  ];
}

function node(screen: Screen, indent: string): string {
  return `${indent}<node id="${screen.id}"><data key="name">${escaped(screen.name || screen.id)}</data><data key="kind">screen</data></node>`;
}
