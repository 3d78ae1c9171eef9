import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const FLOW: Pattern = {
  id: "flow",
  name: "A flow that comes up and closes",
  shape: true,
  says: "A sheet with steps of its own over the page, and a review at their end that closes it.",
  words: ["wizard with review", "new item", "create", "modal", "sheet", "steps", "form", "booking", "order"],
  asks: [
    { id: "begin", label: "The button", usual: "New", of: "label" },
    { id: "flow", label: "The sheet", usual: "New item", of: "place" },
    { id: "steps", label: "Its steps", usual: "What, When", of: "places" },
    { id: "review", label: "The review", usual: "Check it", of: "place" },
  ],
  where: onScreen,
  put: (making) => {
    const steps = making.names("steps");
    const review = making.name("review");
    making.put([
      `${making.at()}: ${making.name("begin")} > ${making.name("flow")} (open)`,
      `${making.name("flow")} (sheet)`,
      `  "Steps"`,
      ...steps.map((step, i) => `    ${step}: ${step} field, "Next" > ${steps[i + 1] ?? review} (push)`),
      `    ${review}: "Save" > close, "Begin again" link > ${steps[0]} (reset)`,
    ]);
  },
};
