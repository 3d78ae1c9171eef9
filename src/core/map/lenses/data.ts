import { bornSays, followValue } from "../../insight/flow.ts";
import { legStart } from "../../model/describe.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { counted, type LensViewer, type Seen } from "./lens.ts";

/** Where a value comes from and goes; without one, how much each screen needs to know. */
export const data: LensViewer = (project, choice) => {
  const { screen, param } = choice.lens === "data" ? choice : { screen: undefined, param: undefined };
  const known = screen === undefined ? undefined : lookup(project).screens.get(screen);
  return known && param !== undefined && known.params.some(({ name }) => name === param) ? ofOne(project, known.id, param) : ofAll(project);
};

function ofOne(project: Project, screen: string, param: string) {
  const { slots, legs, born, entrances } = followValue(project, { screen, param });
  const places = new Map<string, Seen>();
  for (const slot of slots) {
    const start = slot.screen === screen && slot.param === param;
    places.set(slot.screen, {
      tone: start ? "s4" : "s2",
      says: slot.param === param ? "•" : slot.param,
      long: `“${nameOf(project, slot.screen)}” knows it as ${slot.param}`,
    });
  }
  for (const leg of legs) if (!places.has(leg.from)) places.set(leg.from, { tone: "warm", says: "→", long: `“${nameOf(project, leg.from)}” passes it on` });
  return {
    id: "data" as const,
    question: `Where does ${param} of “${nameOf(project, screen)}” come from and go?`,
    places,
    legend: [
      { tone: "s4" as const, says: "here", count: 1 },
      { tone: "s2" as const, says: "other screens that know it", count: new Set(slots.map((slot) => slot.screen)).size - 1 },
      { tone: "warm" as const, says: "where it begins", count: [...places.values()].filter(({ tone }) => tone === "warm").length },
    ],
    extremes: born.length === 0 ? ["Nobody passes it."] : [...new Set(born.map((provider) => `It begins as ${bornSays(project, provider)}.`))],
    list: [
      ...slots.map((slot) => ({ place: slot.screen, says: nameOf(project, slot.screen), note: slot.param })),
      ...legs.map((leg) => ({ place: leg.from, says: `${nameOf(project, leg.from)} · ${legStart(project, leg)}`, note: "passes it on" })),
      ...entrances.map((entrance) => ({ place: entrance.to, says: entrance.name, note: "way in that passes it" })),
    ],
  };
}

function ofAll(project: Project) {
  const places = new Map<string, Seen>();
  const needing = project.screens.filter(({ params }) => params.length > 0).sort((a, b) => b.params.length - a.params.length);
  for (const { id, name, params } of project.screens)
    places.set(id, {
      tone: params.length === 0 ? "none" : params.length === 1 ? "s1" : params.length === 2 ? "s2" : "s3",
      says: params.length === 0 ? "" : String(params.length),
      long: params.length === 0 ? `“${name || id}” needs nothing` : `“${name || id}” needs ${params.map((one) => one.name).join(", ")}`,
    });
  return {
    id: "data" as const,
    question: "What does each screen need to know?",
    places,
    legend: [
      { tone: "s2" as const, says: "screens that need something", count: needing.length },
      { tone: "none" as const, says: "screens that need nothing", count: project.screens.length - needing.length },
    ],
    extremes: needing[0]
      ? [`“${needing[0].name || needing[0].id}” needs the most: ${counted(needing[0].params.length, "value")}.`]
      : ["No screen needs anything."],
    list: needing.map(({ id, name, params }) => ({ place: id, says: name || id, note: params.map((one) => one.name).join(", ") })),
  };
}
