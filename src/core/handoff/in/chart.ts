import { SaxesParser } from "saxes";

/** A value that is given to data of the chart, on entering a state or on a transition. */
export interface Assign {
  location: string;
  expr: string;
  line: number;
}

export interface Transition {
  event: string | undefined;
  target: string | undefined;
  cond: string | undefined;
  assigns: Assign[];
  line: number;
}

/** A state of a chart as it is read. */
export interface ChartState {
  kind: "state" | "parallel" | "final";
  id: string;
  /** What it shows, in a chart of our own: its state line. */
  label: string | undefined;
  initial: string | undefined;
  children: ChartState[];
  transitions: Transition[];
  /** What is set on entering it, and what it sends itself after a while: by event, in milliseconds. */
  enters: Assign[];
  delays: Map<string, number>;
}

export interface Chart {
  root: ChartState;
  name: string | undefined;
  /** Data and the expression that each begins with. */
  data: Assign[];
  /** By the id of a history, the state whose history it is. */
  histories: Map<string, string>;
  /** What the reader does not know, a phrase each. */
  lost: string[];
}

const STATES = ["state", "parallel", "final"];
/** What is read, or left out without a word, for it says nothing about where people go. */
const SILENT = ["scxml", "initial", "transition", "datamodel", "onentry"];

/** A state chart (W3C SCXML) as it stands in a file. Document types are refused: nothing is fetched and nothing grows. */
export function chartOf(text: string): Chart | { problem: { line: number; message: string } } {
  const reader = new Reader();
  const { parser } = reader;
  // In pieces, so that reading ends where something is wrong.
  for (let at = 0; at < text.length && !reader.problem; at += 65_536) parser.write(text.slice(at, at + 65_536));
  if (!reader.problem) parser.close();
  const { root, name, data, histories, lost, problem } = reader;
  return problem ? { problem } : { root, name, data, histories, lost: [...lost].map((tag) => `${tag}, wherever it stands`) };
}

class Reader {
  readonly parser = new SaxesParser();
  readonly root = newState("state", "", {});
  readonly data: Assign[] = [];
  readonly histories = new Map<string, string>();
  readonly lost = new Set<string>();
  name: string | undefined;
  problem: { line: number; message: string } | undefined;
  private readonly around: ChartState[] = [this.root];
  private readonly tags: string[] = [];

  constructor() {
    this.parser.on("doctype", () => this.stop("a document type; expected none, for it could bring entities from elsewhere"));
    this.parser.on("error", (error) => this.stop(error.message.replace(/^\d+:\d+: /, "")));
    this.parser.on("opentag", ({ name, attributes }) => {
      this.opened(name, attributes as Record<string, string>);
      this.tags.push(name);
    });
    this.parser.on("closetag", ({ name }) => {
      this.tags.pop();
      if (STATES.includes(name)) this.around.pop();
    });
  }

  private stop(message: string) {
    this.problem ??= { line: this.parser.line, message };
  }

  private opened(tag: string, given: Record<string, string>) {
    const parent = this.around.at(-1) ?? this.root;
    const within = this.tags.at(-1);
    const { line } = this.parser;
    if (this.tags.length === 0) {
      if (tag !== "scxml") this.stop(`the file begins with <${tag}>; a state chart with <scxml> is expected`);
      this.root.initial = given.initial;
      this.name = given.name;
    }
    if (STATES.includes(tag)) {
      const state = newState(tag as ChartState["kind"], given.id ?? `${tag}${line}`, given);
      parent.children.push(state);
      this.around.push(state);
    } else if (tag === "transition") {
      const { event, target, cond } = given;
      if (within === "initial") parent.initial ??= target;
      // Where a history has never been, it begins with the start of its state, as Etape does.
      else if (within !== "history") parent.transitions.push({ event, target, cond, assigns: [], line });
    } else if (tag === "data" && given.id !== undefined) this.data.push({ location: given.id, expr: given.expr ?? "", line });
    else if (tag === "assign" && given.location !== undefined && (within === "transition" || within === "onentry")) {
      const assign = { location: given.location, expr: given.expr ?? "", line };
      if (within === "onentry") parent.enters.push(assign);
      else parent.transitions.at(-1)?.assigns.push(assign);
    } else if (tag === "send" && within === "onentry" && given.event !== undefined && milliseconds(given.delay) !== undefined)
      parent.delays.set(given.event, milliseconds(given.delay) ?? 0);
    else if (tag === "history" && given.id !== undefined) this.histories.set(given.id, parent.id);
    else if (!SILENT.includes(tag) && this.tags.length > 0) this.lost.add(`<${tag}>`);
  }
}

function newState(kind: ChartState["kind"], id: string, given: Record<string, string>): ChartState {
  return { kind, id, label: given["etape:line"], initial: given.initial, children: [], transitions: [], enters: [], delays: new Map() };
}

/** `2s`, `800ms` */
function milliseconds(delay: string | undefined): number | undefined {
  const [, count, unit] = /^(\d*\.?\d+)(ms|s)$/.exec(delay ?? "") ?? [];
  return count === undefined ? undefined : Number(count) * (unit === "s" ? 1000 : 1);
}
