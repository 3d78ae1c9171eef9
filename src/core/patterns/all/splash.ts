import { firstOf, startsWithNew } from "../first.ts";
import type { Pattern } from "../pattern.ts";
import { beforeStart } from "../places.ts";

export const SPLASH: Pattern = {
  id: "splash",
  name: "A splash that goes by itself",
  says: "A first screen that leads on after a moment, and that Back never shows again.",
  words: ["launch screen", "logo", "loading", "start", "delay", "timer"],
  asks: [{ id: "splash", label: "The screen", usual: "Splash", of: "place" }],
  where: beforeStart,
  put: (making) => {
    const first = firstOf(making);
    const { stack, start } = first;
    making.put([`${making.at(stack)}`, `  ${making.name("splash")} (once, no up, no bar): "Logo" image, after 800 ms > ${making.at(start)} (reset)`], start);
    startsWithNew(making, first);
  },
};
