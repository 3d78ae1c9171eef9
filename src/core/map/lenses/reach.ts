import { reachGraph, tapsFrom, tapsTo } from "../../insight/reach.ts";
import { nameOf } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { LensTone } from "../draw/look.ts";
import { counted, type LensChoice, type LensViewer, type Seen } from "./lens.ts";

const SCALE: readonly LensTone[] = ["s0", "s1", "s2", "s3", "s4", "s5"];

/** How many taps away each screen is. */
export const reach: LensViewer = (project, choice) => {
  const { from, to } = choice.lens === "reach" ? choice : ({} as Extract<LensChoice, { lens: "reach" }>);
  const taps = tapsOf(project, { from, to });
  const most = Math.max(0, ...taps.values());
  const where = to !== undefined ? `back to “${nameOf(project, to)}”` : from !== undefined ? `from “${nameOf(project, from)}”` : "from launch";
  const places = new Map<string, Seen>();
  const missed: string[] = [];
  for (const { id, name } of project.screens) {
    const far = taps.get(id);
    if (far === undefined) missed.push(id);
    places.set(id, {
      tone: far === undefined ? "urgent" : toneOf(far, most),
      says: far === undefined ? "—" : String(far),
      long: far === undefined ? `“${name || id}”: not by taps ${where}` : `“${name || id}” is ${counted(far, "tap")} ${where}`,
    });
  }
  const counts = Array.from({ length: most + 1 }, (_, n) => [...taps.values()].filter((far) => far === n).length);
  const byFar = [...taps].sort(([, a], [, b]) => b - a);
  const farthest = byFar.filter(([, far]) => far === most).map(([id]) => `“${nameOf(project, id)}”`);
  return {
    id: "reach",
    question: to !== undefined ? `How many taps is it ${where}?` : `How many taps away is each screen ${where}?`,
    places,
    legend: [
      ...SCALE.flatMap((tone) => {
        const on = counts.flatMap((count, far) => (count > 0 && toneOf(far, most) === tone ? [far] : []));
        const [low, high] = [on[0], on.at(-1)];
        return low === undefined || high === undefined
          ? []
          : [{ tone, says: low === high ? counted(low, "tap") : `${low} to ${high} taps`, count: on.reduce((sum, far) => sum + (counts[far] ?? 0), 0) }];
      }),
      ...(missed.length > 0 ? [{ tone: "urgent" as const, says: "not by taps", count: missed.length }] : []),
    ],
    extremes: [
      ...(farthest.length > 0 && most > 0
        ? [`Farthest: ${farthest.slice(0, 3).join(", ")}${farthest.length > 3 ? ` and ${farthest.length - 3} more` : ""}, ${counted(most, "tap")} ${where}.`]
        : []),
      ...(missed.length > 0
        ? [
            `${counted(missed.length, "screen")} not reached by taps ${where}${from === undefined && to === undefined ? "; a way in or something from outside may lead there" : ""}.`,
          ]
        : []),
    ],
    list: [
      ...missed.map((place) => ({ place, says: nameOf(project, place), note: "not by taps" })),
      ...byFar.map(([place, far]) => ({ place, says: nameOf(project, place), note: counted(far, "tap") })),
    ],
    chart: { title: `Screens by taps ${where}`, labels: counts.map((_, far) => String(far)), counts },
  };
};

const graphOf = (project: Project) => reachGraph(project);

/** The fewest taps by screen: from a launch, from a place, or back to a screen. What is followed is followed once for a project object. */
export function tapsOf(project: Project, { from, to }: { from?: string | undefined; to?: string | undefined }): ReadonlyMap<string, number> {
  const graph = once(project, graphOf);
  return to !== undefined ? tapsTo(graph, to) : tapsFrom(project, graph, from);
}

function toneOf(far: number, most: number): LensTone {
  return SCALE[most <= 5 ? far : Math.round((far / most) * 5)] ?? "s5";
}

/** What is nearer or farther in a second project than in a first, as sentences: the screens that change most first. */
export function reachChange(before: Project, after: Project, choice: LensChoice): string[] {
  const asked = choice.lens === "reach" ? choice : {};
  const [was, is] = [tapsOf(before, asked), tapsOf(after, asked)];
  const moved = after.screens.flatMap(({ id }) => {
    const [then, now] = [was.get(id), is.get(id)];
    return then === now ? [] : [{ id, then, now, by: (then ?? 99) - (now ?? 99) }];
  });
  if (moved.length === 0) return ["No screen comes nearer or goes farther."];
  const far = (taps: number | undefined) => (taps === undefined ? "not reached" : String(taps));
  const [nearer, farther] = [moved.filter(({ by }) => by > 0), moved.filter(({ by }) => by < 0)];
  const most = (list: typeof moved) => list.sort((a, b) => Math.abs(b.by) - Math.abs(a.by)).slice(0, 2);
  const told = (list: typeof moved, says: string) =>
    list.length === 0
      ? []
      : [
          `${counted(list.length, "screen")} ${says}: ${most(list)
            .map(({ id, then, now }) => `“${nameOf(after, id)}” ${far(then)} → ${far(now)}`)
            .join(", ")}.`,
        ];
  return [...told(nearer, "nearer"), ...told(farther, "farther")];
}
