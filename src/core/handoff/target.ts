import { mapSvg } from "../map/svg.ts";
import { addressesCsv, addressesJson } from "./addresses/addresses.ts";
import { dot } from "./diagrams/dot.ts";
import { graphml } from "./diagrams/graphml.ts";
import { mermaid } from "./diagrams/mermaid.ts";
import type { Target } from "./handed.ts";
import { kotlinModule } from "./kotlin/module.ts";
import { prototypeHtml } from "./prototype/prototype.ts";
import { scxml } from "./scxml/chart.ts";
import { specificationHtml } from "./specification/html.ts";
import { specificationMarkdown } from "./specification/markdown.ts";
import { swiftModule } from "./swift/module.ts";
import { featureFiles } from "./tests/gherkin.ts";
import runWalks from "./tests/run-walks.txt?raw";
import { walksJson } from "./tests/walks.ts";
import { typescriptModule } from "./typescript/module.ts";
import { reactModule } from "./typescript/react.ts";

/** Everything that can be handed off; a new format is one entry here. */
export const TARGETS: readonly Target[] = [
  {
    id: "spec",
    name: "Specification",
    says: "Every screen with what it needs, its ways in and out, Up, Back and its address, for people to read and print.",
    files: (project, checked) => [
      { name: "specification.md", text: specificationMarkdown(project, checked) },
      { name: "specification.html", text: specificationHtml(project, checked) },
      { name: "specification-map.svg", text: mapSvg(project) },
    ],
  },
  {
    id: "prototype",
    name: "Prototype",
    says: "One page to send to anyone: it opens from disk without a network, on a phone or a desk, and walks as here.",
    files: (project, { frame, pictures }) => [{ name: "prototype.html", text: prototypeHtml(project, frame, pictures) }],
  },
  {
    id: "typescript",
    name: "TypeScript",
    says: "One module: a function for each leg that asks only for what the design cannot work out, a navigator that moves as it was walked, bound to the browser's history; with a small file for React.",
    files: (project, { react }) => [
      { name: "navigation.ts", text: typescriptModule(project) },
      ...(react ? [{ name: "navigation-react.tsx", text: reactModule(project) }] : []),
    ],
  },
  {
    id: "kotlin",
    name: "Kotlin",
    says: "The same types, the same plan and the same state function in plain Kotlin.",
    files: (project, { packageName }) => [{ name: "Navigation.kt", text: kotlinModule(project, packageName) }],
  },
  {
    id: "swift",
    name: "Swift",
    says: "The same types, the same plan and the same state function in plain Swift.",
    files: (project, { packageName }) => [{ name: "Navigation.swift", text: swiftModule(project, packageName) }],
  },
  {
    id: "svg",
    name: "Map",
    says: "The map as drawings: cards with their elements, small pictures, and a name for each screen.",
    files: (project, { pictures }) => [
      { name: "map.svg", text: mapSvg(project) },
      { name: "map-faces.svg", text: mapSvg(project, { drawing: "faces", pictures: addressIn(pictures) }) },
      { name: "map-names.svg", text: mapSvg(project, { drawing: "names" }) },
    ],
  },
  { id: "dot", name: "Graph, DOT", says: "Screens and legs as a graph for Graphviz.", files: (project) => [{ name: "map.dot", text: dot(project) }] },
  {
    id: "mermaid",
    name: "Graph, Mermaid",
    says: "A state diagram that most code hosts draw by themselves.",
    files: (project) => [{ name: "map.mmd", text: mermaid(project) }],
  },
  { id: "graphml", name: "Graph, GraphML", says: "The graph for tools that read XML.", files: (project) => [{ name: "map.graphml", text: graphml(project) }] },
  {
    id: "scxml",
    name: "State chart",
    says: "The states nearest to launch and what leads from one to another, as W3C SCXML; it says itself what a finite chart can not say.",
    files: (project) => [{ name: "chart.scxml", text: scxml(project) }],
  },
  {
    id: "tests",
    name: "Tests",
    says: "A short walk for each leg, as Gherkin scenarios and as events with a program that runs them; and the walks kept in the document.",
    files: (project) => [...featureFiles(project), { name: "walks.json", text: walksJson(project) }, { name: "run-walks.mjs", text: runWalks }],
  },
  {
    id: "addresses",
    name: "Addresses",
    says: "All addresses as a table, and as URL patterns.",
    files: (project) => [
      { name: "addresses.csv", text: addressesCsv(project) },
      { name: "addresses.json", text: addressesJson(project) },
    ],
  },
];

/** The address of a picture by its file. */
function addressIn(pictures: Readonly<Record<string, string>> | undefined): (file: string) => string | undefined {
  return (file) => (pictures && Object.hasOwn(pictures, file) ? pictures[file] : undefined);
}

export function targetOf(id: string): Target | undefined {
  return TARGETS.find((target) => target.id === id);
}
