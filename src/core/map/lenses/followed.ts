import { legStart } from "../../model/describe.ts";
import { counted, type FollowedLog, type LensViewer, type Seen } from "./lens.ts";

const NOTHING: FollowedLog = { entries: 0, screens: {}, legs: {}, departures: [] };

/** Where a running app is and has been, how often, and where it departs from the design. */
export const followed: LensViewer = (project, _, { log = NOTHING }) => {
  const most = Math.max(1, ...Object.values(log.screens));
  const away = new Set(log.departures.flatMap(({ from }) => from));
  const places = new Map<string, Seen>();
  for (const { id, name } of project.screens) {
    const count = log.screens[id] ?? 0;
    const share = count / most;
    const often = `“${name || id}” was shown ${count === 1 ? "once" : `${count} times`}${away.has(id) ? "; the app departs from the design here" : ""}`;
    places.set(id, {
      tone: away.has(id) ? "urgent" : id === log.now ? "good" : count === 0 ? "none" : share > 0.5 ? "s4" : share > 0.1 ? "s3" : "s2",
      says: count > 0 ? String(count) : "",
      long: id === log.now ? `${often}; the app is here now` : often,
    });
  }
  const never = project.screens.filter(({ id }) => !log.screens[id]);
  const unused = project.legs.filter(({ id, on }) => !log.legs[id] && on.kind !== "depart" && on.kind !== "arrive");
  return {
    id: "followed",
    question: "Where does the running app go?",
    places,
    legend: [
      { tone: "s3", says: "screens shown", count: project.screens.length - never.length },
      { tone: "none", says: "screens never shown", count: never.length },
      { tone: "urgent", says: "screens it departs from", count: away.size },
    ],
    extremes:
      log.entries === 0
        ? ["Nothing is known of a running app yet: read its log, or let it tell what it does."]
        : log.departures.map(({ sentence, count }) => `${sentence}${count > 1 ? ` (${count} times)` : ""}`).slice(0, 8),
    list: [
      ...Object.entries(log.legs)
        .slice(0, 40)
        .flatMap(([id, count]) => {
          const leg = project.legs.find((one) => one.id === id);
          return leg ? [{ place: leg.from, says: legStart(project, leg), note: counted(count, "use") }] : [];
        }),
      ...never.map(({ id, name }) => ({ place: id, says: name || id, note: "never shown" })),
      ...unused.map((leg) => ({ place: leg.from, says: legStart(project, leg), note: "never used" })),
    ],
  };
};
