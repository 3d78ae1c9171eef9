import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const STEPS: Pattern = {
  id: "steps",
  name: "One after another",
  shape: true,
  says: "A few screens, each on top of the one before; Back goes through them again, and the last one leads back to where they began.",
  words: ["wizard", "steps", "sequence", "checkout", "onboarding", "form"],
  asks: [
    { id: "begin", label: "The button", usual: "Begin", of: "label" },
    { id: "steps", label: "The screens", usual: "First step, Second step, Done", of: "places" },
  ],
  where: onScreen,
  put: (making) => {
    const steps = making.names("steps");
    const { declared, passed } = making.needed();
    making.put([
      `${making.at()}: ${making.name("begin")} > ${steps[0]}${passed} (push)`,
      ...steps.map((step, i) => {
        const next = steps[i + 1];
        return `${step}${declared}: ${next === undefined ? `"Finish" > ${making.at()}${passed} (pop to)` : `"Next" > ${next}${passed} (push)`}`;
      }),
    ]);
  },
};
