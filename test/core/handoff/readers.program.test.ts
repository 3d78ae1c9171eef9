import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { MultiDirectedGraph } from "graphology";
import { parse } from "graphology-graphml/node/index.js";
import { describe, expect, it } from "vitest";
import { dot } from "../../../src/core/handoff/diagrams/dot.ts";
import { graphml } from "../../../src/core/handoff/diagrams/graphml.ts";
import { scxml } from "../../../src/core/handoff/scxml/chart.ts";
import { specificationHtml } from "../../../src/core/handoff/specification/html.ts";
import { mapSvg } from "../../../src/core/map/svg.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { app } from "../../vectors/app.ts";

const has = (program: string) => spawnSync(program, ["--version"]).error === undefined;
for (const program of ["dot", "xmllint"]) if (!has(program)) process.stderr.write(`${program} is not installed: what it would read is not given to it.\n`);

const demos = ["hollowcomb", "tidewatch"].map((name) => {
  const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
  if (!read.ok) throw new Error(`${name} can be read`);
  return read.project;
});
const nasty = app("end", {
  stacks: { end: "graph node" },
  screens: { graph: { name: `"]; } digraph { <b> & \\ "` }, node: { name: "a\nb -> c -- ]]>" } },
  legs: ["edge graph push node"],
});

describe.skipIf(!has("dot"))("Graphviz", () => {
  it("draws every graph, with a node for each screen", () => {
    for (const project of [...demos, nasty]) {
      const { status, stdout, stderr } = spawnSync("dot", ["-Tjson"], { input: dot(project), encoding: "utf8", maxBuffer: 1e8 });
      expect(status, stderr).toBe(0);
      expect(stderr).toBe("");
      const { objects = [], edges = [] } = JSON.parse(stdout) as { objects?: Array<{ name: string }>; edges?: unknown[] };
      const names = objects.map((object) => object.name);
      for (const screen of project.screens) expect(names).toContain(`s_${screen.id}`);
      expect(edges.length).toBeGreaterThan(0);
    }
  });
});

it("another reader of GraphML finds a node for each screen and container and an edge for each arrow", () => {
  for (const project of [...demos, nasty]) {
    const xml = graphml(project);
    const graph = parse(MultiDirectedGraph, xml);
    for (const place of [...project.screens, ...project.containers]) expect(graph.hasNode(place.id), place.id).toBe(true);
    expect(graph.size).toBe(xml.split("<edge ").length - 1);
    for (const screen of project.screens) expect(graph.getNodeAttribute(screen.id, "name")).toBe(screen.name);
  }
});

describe.skipIf(!has("xmllint"))("xmllint", () => {
  it("finds the map, the graph and the chart well formed", () => {
    for (const project of [...demos, nasty])
      for (const xml of [mapSvg(project), graphml(project), scxml(project)]) {
        const { status, stderr } = spawnSync("xmllint", ["--noout", "-"], { input: xml, encoding: "utf8", maxBuffer: 1e8 });
        expect(stderr).toBe("");
        expect(status).toBe(0);
      }
  });

  it("finds no broken markup in the specification", () => {
    const html = specificationHtml(nasty, { findings: [], proof: "", frame: "" });
    const { stderr } = spawnSync("xmllint", ["--html", "--noout", "-"], { input: html, encoding: "utf8" });
    // It knows HTML 4: elements that came later are not errors of ours.
    expect(stderr.split("\n").filter((text) => text.includes("error") && !/Tag \w+ invalid/.test(text))).toEqual([]);
  });
});
