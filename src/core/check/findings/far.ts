import { nameOf } from "../../model/lookup.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { ConcreteWays, concreteWays, sureWays } from "../counterexample/concreteWays.ts";
import { FAR } from "../options.ts";
import type { Candidate } from "../reach/graph.ts";
import { push } from "../system/contents.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { type Reached, shortestWays } from "../system/shortestWays.ts";
import type { FindingKind } from "./kind.ts";

export const far: FindingKind = {
  code: "far",
  severity: "note",
  says: "more taps from launch than people care to make",
  help: "The screen takes more taps from launch than the limit, by the shortest way that there is. The limit is 5 unless you set another.",
  subjects: "the screen",
  // Where the screen leads on does not matter.
  asks: () => [],
};

/** Screens that take more than the limit of taps to reach from launch, by the shortest way, which is the walk; those alone that are wanted. */
export function farScreens(exploration: Exploration, ways: TapWays, isWanted: (screen: string) => boolean = () => true): Candidate[] {
  const project = exploration.abstraction.original;
  const name = (id: string) => `"${nameOf(project, id)}"`;
  return project.screens.flatMap((screen) => {
    const reached = ways.nearest.get(screen.id);
    const count = reached ? tapsIn(reached) : 0;
    if (!reached || count <= ways.far || !isWanted(screen.id)) return [];
    const walk = walkOf(exploration, ways, screen.id, count);
    return [{ subjects: [screen.id], message: `${name(screen.id)} is ${count} taps from launch by the shortest way.`, at: [{ node: reached.at }], walk }];
  });
}

/** A walk to a screen that takes no more taps than the fewest that it may take. */
function walkOf(exploration: Exploration, { endsOf, reached, walks, isAsShort }: TapWays, screen: string, taps: number): NavEvent[] | undefined {
  const nearest = (endsOf.get(screen) ?? []).filter((at) => tapsIn(reached.get(at) as Reached) === taps).slice(0, TRIES);
  for (const at of nearest) for (const walk of [walks.walk(at), concreteWays(exploration).walk(at)]) if (walk && isAsShort(walk, at)) return walk;
  return undefined;
}

/** States of a screen to which a walk is looked for. */
const TRIES = 6;

/** The ways of the fewest taps, and of those of the fewest events, to all states that launches lead to. */
export interface TapWays {
  reached: ReadonlyMap<number, Reached>;
  /** By screen the state of it that takes the fewest. */
  nearest: ReadonlyMap<string, Reached>;
  /** The limit that they were found for. */
  far: number;
  /** The states by which it is known how many taps a screen takes, or that it is not far: of each screen the nearest, and others as near. */
  ends: readonly number[];
  endsOf: ReadonlyMap<string, readonly number[]>;
  walks: ConcreteWays;
  /** Whether a walk to a state takes no more taps than its way, or not so many that the screen would be far. */
  isAsShort: (walk: readonly NavEvent[], node: number) => boolean;
}

/** What a tap counts, an event counting one: no way has as many events. */
const TAP = 10_000;

/** The taps of a way. */
function tapsIn({ cost }: Reached): number {
  return Math.floor(cost / TAP);
}

export function tapWays(exploration: Exploration, far = FAR): TapWays {
  const { nodes, abstraction } = exploration;
  const costOf = tapsOf(abstraction.original);
  const reached = new Map<number, Reached>();
  const nearest = new Map<string, Reached>();
  for (const way of shortestWays(exploration, costOf)) {
    reached.set(way.at, way);
    const screen = nodes[way.at]?.screen ?? "";
    const known = nearest.get(screen);
    if (!known || way.cost < known.cost) nearest.set(screen, way);
  }
  let others: ConcreteWays | undefined;
  // Another way will do if it takes no more taps, or not so many that the screen would be far.
  const limit = (at: number) => Math.max(far, tapsIn(reached.get(at) as Reached));
  const isTap = tapEvents(abstraction.original);
  const isAsShort = (walk: readonly NavEvent[], at: number) => walk.filter(isTap).length <= limit(at);
  const isNear = (way: Reached) => tapsIn(way) <= Math.max(far, tapsIn(nearest.get(nodes[way.at]?.screen ?? "") ?? way));
  const ends = [...reached.values()].filter(isNear).map(({ at }) => at);
  const endsOf = new Map<string, number[]>();
  for (const at of ends) push(endsOf, nodes[at]?.screen ?? "", at);
  return {
    reached,
    nearest,
    far,
    ends,
    endsOf,
    walks: new ConcreteWays(
      exploration,
      (at) => reached.get(at)?.by,
      (at) => {
        others ??= sureWays(exploration, costOf);
        return others.at(at).filter(({ walk }) => isAsShort(walk, at));
      },
    ),
    isAsShort,
  };
}

/** Which events of a walk are taps. */
function tapEvents(project: Project): (event: NavEvent) => boolean {
  const after = afterLegs(project);
  return (event) => !["back", "fact", "launch", "width"].includes(event.do) && !(event.do === "leg" && after.has(event.leg));
}

function afterLegs(project: Project): ReadonlySet<string> {
  return new Set(project.legs.filter((leg) => leg.on.kind === "after").map((leg) => leg.id));
}

/** What a step costs: waiting, Back and outside facts no tap, and entrances are no way. */
function tapsOf(project: Project): (edge: Edge) => number | undefined {
  const after = afterLegs(project);
  return (edge) => {
    if (edge.way === "restart" && edge.event?.do !== "launch") return undefined;
    return edge.way !== "out" || (edge.event?.do === "leg" && after.has(edge.event.leg)) ? 1 : TAP + 1;
  };
}
