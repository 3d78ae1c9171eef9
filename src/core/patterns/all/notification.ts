import { firstScreen, lookup, nameOf, targetOf, upTarget } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const NOTIFICATION: Pattern = {
  id: "notification",
  name: "A notification, with its way beneath",
  says: "It leads straight to this screen, and Back goes the way that people would have come.",
  words: ["push notification", "deep link", "alert", "way in", "reminder"],
  asks: [{ id: "news", label: "What it says", usual: "There is news", of: "label" }],
  where: (project, place) => (onScreen(project, place) && passed(project, place) && goesOn(project, place) ? `to “${nameOf(project, place)}”` : undefined),
  put: (making) => {
    const pass = passed(making.project, making.place) ?? [];
    making.put([`in ${making.name("news")} > ${making.at()}${pass.length > 0 ? `(${pass.join(", ")})` : ""} (notification)`]);
  },
};

/** Whether people get on from a screen that has nothing beneath it but what Up says. */
function goesOn(project: Project, place: string): boolean {
  return (
    firstScreen(project, project.root)?.id === place ||
    upTarget(project, place) !== undefined ||
    lookup(project).screens.get(place)?.hub === true ||
    lookup(project).legsFrom.has(place)
  );
}

/** What the screen needs, from the first rows that lists hand on to it; undefined where it needs a whole record. */
function passed(project: Project, place: string): string[] | undefined {
  const needed =
    lookup(project)
      .screens.get(place)
      ?.params.filter(({ required }) => required) ?? [];
  if (needed.some(({ type }) => lookup(project).types.has(type))) return undefined;
  return needed.map(({ name, type }) => `${name} = ${known(project, place, name) ?? USUAL[type] ?? '"1"'}`);
}

const USUAL: Record<string, string> = { number: "1", integer: "1", boolean: "true", date: '"2026-01-01"' };

/** The value of a parameter in the first row of a list from which it is passed, as an expression. */
function known(project: Project, place: string, name: string): string | undefined {
  for (const leg of project.legs) {
    const move = leg.move;
    if (!move || targetOf(leg) !== place || !("pass" in move)) continue;
    const field = /^item\.(\w+)$/.exec(move.pass?.[name] ?? "")?.[1];
    const element = lookup(project)
      .screens.get(leg.from)
      ?.elements.find((one) => "element" in leg.on && one.id === leg.on.element);
    const value = field === undefined ? undefined : lookup(project).types.get(element?.of ?? "")?.samples[0]?.[field];
    if (value !== undefined && typeof value !== "object") return JSON.stringify(value);
  }
  return undefined;
}
