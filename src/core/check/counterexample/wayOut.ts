import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import type { State } from "../../semantics/types.ts";
import { hubsOf } from "../reach/graph.ts";
import type { Exploration, Explored, Way } from "../system/exploration.ts";
import { distancesTo, searchOnwards, WITHOUT_RESTART } from "./directedSearch.ts";
import type { Reached } from "./replay.ts";

/** Where somebody is said to be stuck. */
export interface Stuck {
  line: string;
  project: Project;
  subjects: readonly string[];
  hubs: ReadonlySet<string>;
}

/** What would prove a finding wrong that says that nothing helps: a way by which something is reached. */
export interface Help {
  /** The system's Back counts as a way. */
  back: boolean;
  /** Whether a state is out of where the person was stuck. */
  out: (state: State, from: Stuck) => boolean;
  /** Whether a state of the search is; left out, where one more step may be enough. */
  at?: (node: Explored, from: Pick<Stuck, "subjects" | "hubs">) => boolean;
}

/** Anything else than what is shown there. */
export const elsewhere: Help["out"] = (state, { line, project }) => stateLine(planOf(project), state) !== line;

/** That a modal, the first of the subjects, is not open any more. */
export const closed: Help = {
  back: true,
  out: (state, { subjects }) => !isOpen(state, subjects[0]),
  at: ({ state }, { subjects }) => !isOpen(state, subjects[0]),
};

const isOpen = ({ layers }: State, modal: string | undefined) => layers.some(({ at }) => at === modal);

const WITHOUT_BACK: ReadonlySet<Way> = new Set<Way>([...WITHOUT_RESTART].filter((way) => way !== "back"));

/** States that a way out is looked for in. */
const MOST = 300;
/** All of them count, though they differ only in what is hidden. */
const ALIKE = MOST;

/** Whether, where a walk ends of a finding that says that nothing helps, something helps after all. */
export function helpsAfterAll(exploration: Exploration, help: Help, subjects: readonly string[], end: State): boolean {
  return wayOut(exploration, help, subjects, { state: end, walk: [] }) !== undefined;
}

/**
 * How somebody gets out of where a walk ends of a finding that says that nothing helps; undefined where no way was found. A search through `step` on the document
 * itself, led by what the analysis knows of the way. So a walk that ends where only some of the states are stuck which the analysis took
 * for one is not given as evidence.
 */
export function wayOut(exploration: Exploration, help: Help, subjects: readonly string[], start: Reached): Reached | undefined {
  const project = exploration.abstraction.original;
  const from: Stuck = { line: stateLine(planOf(project), start.state), project, subjects, hubs: hubsOf(project, exploration) };
  const distances = help.at && distancesFor(exploration, help, from);
  return searchOnwards(exploration, {
    starts: [start],
    ...(distances ? { distances } : {}),
    ways: help.back ? WITHOUT_RESTART : WITHOUT_BACK,
    most: MOST,
    alike: ALIKE,
    found: (at) => (at.walk.length > start.walk.length && help.out(at.state, from) ? at : undefined),
  });
}

/** How far it is to where a finding of some subjects would not hold; worked out once for a search. */
function distancesFor(exploration: Exploration, help: Help, from: Stuck): ReadonlyArray<number | undefined> {
  const known = once(exploration, noDistances);
  const key = from.subjects.join(" ");
  const goals = () => exploration.nodes.flatMap((node, i) => (!node.pending && help.at?.(node, from) ? [i] : []));
  const made = known.get(key) ?? distancesTo(exploration, goals(), WITHOUT_RESTART);
  known.set(key, made);
  return made;
}

const noDistances = (_: Exploration) => new Map<string, ReadonlyArray<number | undefined>>();
