import { walkedBy } from "../../insight/walked.ts";
import { legStart } from "../../model/describe.ts";
import { nameOf } from "../../model/lookup.ts";
import { counted, type LensViewer, type Seen } from "./lens.ts";

/** What the kept walks come by, and what they leave out. */
export const walked: LensViewer = (project, choice, { walks = [] }) => {
  const tests = choice.lens === "walked" && choice.tests === true;
  const all = [...project.walks, ...(tests ? walks : [])];
  const { places: met, legs } = walkedBy(project, all);
  const places = new Map<string, Seen>();
  for (const { id, name } of [...project.screens, ...project.containers]) {
    const count = met.get(id) ?? 0;
    places.set(id, {
      tone: count > 0 ? (count > 2 ? "s3" : "s2") : "none",
      says: count > 0 ? String(count) : "",
      long: count > 0 ? `“${name || id}”: ${counted(count, "walk")} ${count === 1 ? "comes" : "come"} by` : `No walk comes by “${name || id}”`,
    });
  }
  const [left, untaken] = [project.screens.filter(({ id }) => !met.has(id)), project.legs.filter(({ id }) => !legs.has(id))];
  const what = tests ? "kept walks and generated tests" : "kept walks";
  return {
    id: "walked",
    question: `What do the ${what} cover?`,
    places,
    legend: [
      { tone: "s2", says: "screens walked", count: project.screens.length - left.length },
      { tone: "none", says: "screens no walk comes by", count: left.length },
    ],
    extremes: [
      all.length === 0
        ? "No walk is kept yet: walk a few steps and keep them."
        : `${project.legs.length - untaken.length} of ${counted(project.legs.length, "leg")} are taken by ${counted(all.length, "walk")}.`,
    ],
    list: [
      ...left.map(({ id, name }) => ({ place: id, says: name || id, note: "no walk" })),
      ...untaken.map((leg) => ({ place: leg.from, says: `${nameOf(project, leg.from)} · ${legStart(project, leg)}`, note: "leg not taken" })),
    ],
  };
};
