import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const SETTINGS: Pattern = {
  id: "settings",
  name: "Settings",
  says: "A screen of switches on top of this one, with what the app is about behind it.",
  words: ["preferences", "options", "account", "about", "gear"],
  asks: [
    { id: "settings", label: "The screen", usual: "Settings", of: "place" },
    { id: "switches", label: "Its switches", usual: "Notifications, Sounds", of: "label" },
    { id: "about", label: "Behind it", usual: "About", of: "place" },
  ],
  where: onScreen,
  put: (making) => {
    const [settings, about] = [making.name("settings"), making.name("about")];
    making.put([
      `${making.at()}: ${settings} icon (in bar) > ${settings} (push)`,
      `${settings}: ${making
        .names("switches")
        .map((one) => `${one} switch`)
        .join(", ")}, ${about} link > ${about} (push)`,
      `${about}: "Version" text`,
    ]);
  },
};
