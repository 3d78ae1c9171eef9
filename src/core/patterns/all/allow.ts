import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const ALLOW: Pattern = {
  id: "allow",
  name: "Ask for leave first",
  says: "The first time, a dialog says what the app wants to use and why; allowed once, the button leads straight on.",
  words: ["permission", "camera", "location", "microphone", "notifications", "consent", "privacy"],
  asks: [
    { id: "begin", label: "The button", usual: "Scan a code", of: "label" },
    { id: "ask", label: "The question", usual: "May we use the camera?", of: "place" },
    { id: "then", label: "Where it leads", usual: "Camera", of: "place" },
  ],
  where: onScreen,
  put: (making) => {
    const fact = making.fact(`may ${making.plain("then")}`.replace(/\W+(\w)/g, (_, letter: string) => letter.toUpperCase()));
    const [ask, then] = [making.name("ask"), making.name("then")];
    making.put([
      making.factLine(fact, " (persists)"),
      `${making.at()}: ${making.name("begin")} > ${then} (push, if fact.${fact}) | ${ask} (open, if !fact.${fact})`,
      `${ask} (dialog): "What for" text, "Allow" > close (set ${fact} = true), "Not now" > close`,
      `${then}: "Done" > back`,
    ]);
  },
};
