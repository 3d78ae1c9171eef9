import { upTarget } from "../../model/lookup.ts";
import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const CONFIRM: Pattern = {
  id: "confirm",
  name: "Ask before it is done",
  says: "A dialog asks once more. No leads back to the screen; Yes does it and, where the screen has an Up, leads there.",
  words: ["delete", "are you sure", "confirm", "alert", "remove", "dialog"],
  asks: [
    { id: "begin", label: "The button", usual: "Delete", of: "label" },
    { id: "ask", label: "The question", usual: "Delete it?", of: "place" },
    { id: "yes", label: "Yes", usual: "Yes, delete it", of: "label" },
    { id: "no", label: "No", usual: "Keep it", of: "label" },
  ],
  where: onScreen,
  put: (making) => {
    // The screen goes when it is seen again after the dialog: only there is known what lies beneath it.
    const fact = upTarget(making.project, making.place) === undefined ? undefined : making.freshFact("deleted");
    const ask = making.name("ask");
    making.put([
      ...(fact ? [`fact ${fact}`] : []),
      `${making.at()}: ${making.name("begin")} > ${ask} (open)${fact ? `, on arriving > up (if fact.${fact}, set ${fact} = false)` : ""}`,
      `${ask} (dialog, stays on a tap outside, no × closes)`,
      `  ${ask} (no bar): ${making.name("yes")} > close${fact ? ` (set ${fact} = true)` : ""}, ${making.name("no")} > close`,
    ]);
  },
};
