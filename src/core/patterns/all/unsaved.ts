import { lookup } from "../../model/lookup.ts";
import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const UNSAVED: Pattern = {
  id: "unsaved",
  name: "Unsaved changes?",
  says: "Whoever leaves with something typed and not saved is asked first; what waits goes on when it may.",
  words: ["discard", "draft", "leave", "guard", "dirty", "confirm", "save"],
  asks: [
    { id: "field", label: "The field", usual: "Text", of: "label" },
    { id: "save", label: "The button", usual: "Save", of: "label" },
    { id: "ask", label: "The question", usual: "Leave without saving?", of: "place" },
  ],
  where: (project, place) =>
    lookup(project)
      .legsFrom.get(place)
      ?.some(({ on }) => on.kind === "depart")
      ? undefined
      : onScreen(project, place),
  put: (making) => {
    const fact = making.fact("unsaved");
    const ask = making.name("ask");
    making.put([
      making.factLine(fact),
      `${making.at()}`,
      `  - ${making.name("field")} field > nothing (set ${fact} = true)`,
      `  - ${making.name("save")} (enabled if fact.${fact}) > nothing (set ${fact} = false)`,
      `  - on leaving > ${ask} (open, if fact.${fact})`,
      `${ask} (dialog, stays on a tap outside, no swipe closes, no × closes)`,
      `  ${ask} (no bar): "Keep writing" > close, "Leave without saving" link > go on (set ${fact} = false)`,
    ]);
  },
};
