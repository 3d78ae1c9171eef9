import { SaxesParser } from "saxes";
import { emptyProject, newScreen } from "../../model/edits/add.ts";
import { freshId } from "../../model/edits/edit.ts";
import { suitedMove } from "../../model/propose.ts";
import { SIZE_LIMIT } from "../../model/read.ts";
import type { Container, Element, Leg, Project, Screen } from "../../model/schema.ts";
import type { ImportResult } from "./imported.ts";

/** A state of the chart as it is read. */
interface Node {
  kind: "state" | "parallel" | "final";
  id: string;
  /** What it shows, in a chart of our own: its state line. */
  label: string | undefined;
  initial: string | undefined;
  children: Node[];
  transitions: Array<{ event: string | undefined; target: string | undefined; cond: string | undefined; line: number }>;
}

const STATES = ["state", "parallel", "final"];
/** What is read and left out without a word, for it says nothing about where people go. */
const SILENT = ["scxml", "initial", "transition"];

/**
 * A project from a state chart (W3C SCXML): a state without states in it is a screen, one with some is a stack of them,
 * a parallel one is a tab set; transitions with an event are buttons, those without are taken on arriving. Document types are refused.
 */
export function fromScxml(text: string, name = "Imported"): ImportResult {
  if (text.length > SIZE_LIMIT)
    return { ok: false, problems: [{ message: `The file has ${text.length} characters; at most ${SIZE_LIMIT} (20 MiB) are expected.` }] };
  const read = nodesOf(text);
  if ("problem" in read) return { ok: false, problems: [read.problem] };
  if (read.root.children.length === 0) return { ok: false, problems: [{ message: "There is no state in the chart; expected at least one <state>." }] };
  return built(read.root, read.lost, read.name ?? name);
}

function nodesOf(text: string): { root: Node; lost: string[]; name: string | undefined } | { problem: { line: number; message: string } } {
  const root: Node = { kind: "state", id: "", label: undefined, initial: undefined, children: [], transitions: [] };
  const lost = new Set<string>();
  const around: Node[] = [root];
  const tags: string[] = [];
  let name: string | undefined;
  let problem: { line: number; message: string } | undefined;
  const parser = new SaxesParser();
  const stop = (message: string) => {
    problem ??= { line: parser.line, message };
  };
  parser.on("doctype", () => stop("a document type; expected none, for it could bring entities from elsewhere"));
  parser.on("error", (error) => stop(error.message.replace(/^\d+:\d+: /, "")));
  parser.on("opentag", ({ name: tag, attributes }) => {
    const given = attributes as Record<string, string>;
    const parent = around.at(-1) ?? root;
    if (tags.length === 0) {
      if (tag !== "scxml") stop(`the file begins with <${tag}>; a state chart with <scxml> is expected`);
      root.initial = given.initial;
      name = given.name;
    }
    if (STATES.includes(tag)) {
      const node: Node = {
        kind: tag as Node["kind"],
        id: given.id ?? `${tag}${parser.line}`,
        label: given["etape:line"],
        initial: given.initial,
        children: [],
        transitions: [],
      };
      parent.children.push(node);
      around.push(node);
    } else if (tag === "transition") {
      const { event, target, cond } = given;
      if (tags.at(-1) === "initial") parent.initial ??= target;
      else parent.transitions.push({ event, target, cond, line: parser.line });
    } else if (!SILENT.includes(tag) && tags.length > 0) lost.add(`<${tag}>`);
    tags.push(tag);
  });
  parser.on("closetag", ({ name: tag }) => {
    tags.pop();
    if (STATES.includes(tag)) around.pop();
  });
  for (let at = 0; at < text.length && !problem; at += 65_536) parser.write(text.slice(at, at + 65_536));
  if (!problem) parser.close();
  return problem ? { problem } : { root, lost: [...lost].map((tag) => `${tag}, wherever it stands`), name };
}

function built(root: Node, lost: string[], name: string): ImportResult {
  const taken = new Set<string>();
  const ids = new Map<string, string>();
  const all: Node[] = [];
  const visit = (node: Node, depth: number) => {
    if (ids.has(node.id)) lost.push(`a second state ${node.id}`);
    const id = freshId(node.id === "" ? "main" : node.id, taken, "place");
    taken.add(id);
    if (!ids.has(node.id)) ids.set(node.id, id);
    all.push(node);
    if (depth > 60) {
      lost.push(`the states in ${node.id}, which stand too deep`);
      node.children = [];
    }
    for (const child of node.children) visit(child, depth + 1);
  };
  visit(root, 0);
  const idOf = new Map(all.map((node, i): [Node, string] => [node, [...taken][i] ?? ""]));
  const at = (node: Node) => idOf.get(node) ?? "";
  const containers: Container[] = all.filter((node) => node.children.length > 0).map((node) => containerOf(node, at, ids));
  const screens: Screen[] = all.filter((node) => node.children.length === 0).map((node) => newScreen(at(node), node.label ?? node.id));
  const project: Project = { ...emptyProject(name), root: at(root), containers, screens };
  const legs = new Set<string>();
  for (const node of all) for (const transition of node.transitions) addLeg(project, node, at(node), transition, { ids, legs, lost });
  return { ok: true, project, lost };
}

function containerOf(node: Node, at: (node: Node) => string, ids: ReadonlyMap<string, string>): Container {
  const members = node.children.map(at);
  const wanted = ids.get(node.initial?.split(/\s+/)[0] ?? "");
  const common = { id: at(node), name: node.id || "Main", start: wanted !== undefined && members.includes(wanted) ? wanted : (members[0] ?? ""), members };
  return node.kind === "parallel"
    ? { kind: "tabs", ...common, edge: "bottom", onBack: "leave", chosenAgain: "root", keeps: true }
    : { kind: "stack", ...common };
}

function addLeg(
  project: Project,
  node: Node,
  from: string,
  { event, target, cond, line }: Node["transitions"][number],
  { ids, legs, lost }: { ids: ReadonlyMap<string, string>; legs: Set<string>; lost: string[] },
): void {
  const where = `line ${line}`;
  if (cond !== undefined) lost.push(`${where}: the condition ${cond.slice(0, 80)}, which the leg has as a note`);
  const [first, ...others] = target?.split(/\s+/) ?? [];
  if (others.length > 0) lost.push(`${where}: further targets ${others.join(", ")}`);
  const to = first === undefined ? undefined : ids.get(first);
  if (first !== undefined && to === undefined) lost.push(`${where}: a transition to ${first}, which is no state of the chart`);
  if (to === undefined) {
    if (first === undefined) lost.push(`${where}: a transition without a target`);
    return;
  }
  const screen = project.screens.find((s) => s.id === from);
  if (event === undefined && !screen) {
    lost.push(`${where}: a transition without an event from ${node.id}, which holds others`);
    return;
  }
  const id = freshId(event ?? `${from} arrives`, legs, "leg");
  legs.add(id);
  const note = cond === undefined ? {} : { note: `only if ${cond}`.slice(0, 2000) };
  const on: Leg["on"] = event === undefined ? { kind: "arrive" } : { kind: "tap", element: id };
  if (event !== undefined) {
    const element: Element = { id, kind: "button", label: event };
    const container = project.containers.find((c) => c.id === from);
    if (screen) screen.elements.push(element);
    else if (container) container.elements = [...(container.elements ?? []), element];
  }
  const move = event === undefined ? ({ kind: "replace", to } as const) : suitedMove(project, from, to);
  project.legs.push({ id, from, on, move, ...note });
}
