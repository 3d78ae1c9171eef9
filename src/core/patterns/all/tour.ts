import { nameOf } from "../../model/lookup.ts";
import { firstOf, startsWithNew } from "../first.ts";
import type { Pattern } from "../pattern.ts";
import { beforeStart, leavesFrom } from "../places.ts";

export const TOUR: Pattern = {
  id: "tour",
  name: "A first-run tour",
  says: "A few screens that are seen once, before the app begins; whoever has seen or skipped them never meets them again.",
  words: ["onboarding", "introduction", "welcome", "walkthrough", "first launch", "skip"],
  asks: [
    { id: "steps", label: "Its screens", usual: "Hello, What it does, All set", of: "places" },
    { id: "again", label: "To see it again", usual: "Show me round again", of: "label" },
  ],
  where: (project, place) => {
    const before = beforeStart(project);
    return before && `${before}${leavesFrom(project, place) ? `; it can be seen again from “${nameOf(project, place)}”` : ""}`;
  },
  put: (making) => {
    const fact = making.freshFact("toured");
    const steps = making.names("steps");
    const first = firstOf(making);
    const { stack, start } = first;
    const again = leavesFrom(making.project, making.place);
    const on = `${making.at(start)} (reset, set ${fact} = true)`;
    making.put(
      [
        making.factLine(fact, " (persists)"),
        `${making.at(stack)}`,
        ...steps.map((step, i) => {
          const next = i + 1 < steps.length ? `"Next" (at foot) > ${steps[i + 1]} (push), "Skip" link (at foot) > ${on}` : `"Begin" (at foot) > ${on}`;
          return `  ${step} (once, no up${i === 0 ? ", no bar" : ""}): ${next}${i === 0 ? `, on arriving > ${making.at(start)} (reset, if fact.${fact})` : ""}`;
        }),
        ...(again ? [`${making.at()}: ${making.name("again")} link > ${steps[0]} (reset, in ${making.at(stack)}, set ${fact} = false)`] : []),
      ],
      start,
    );
    startsWithNew(making, first);
  },
};
