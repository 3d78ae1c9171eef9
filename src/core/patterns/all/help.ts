import { lookup, nameOf } from "../../model/lookup.ts";
import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const HELP: Pattern = {
  id: "help",
  name: "Help from everywhere",
  says: "An icon in the bar of every screen in here brings up a help page over it; closing it leads back to where one was.",
  words: ["support", "faq", "question mark", "contact", "everywhere", "shared"],
  asks: [
    { id: "help", label: "The page", usual: "Help", of: "place" },
    { id: "more", label: "Behind it", usual: "Write to us", of: "place" },
  ],
  where: (project, place) => {
    const container = lookup(project).containers.get(place);
    if (!container) return onScreen(project, place);
    return container.members.length > 0 ? `on every screen in “${nameOf(project, place)}”` : undefined;
  },
  put: (making) => {
    const [help, more] = [making.name("help"), making.name("more")];
    making.put([
      `${making.at()}: ${help} icon (in bar) > ${help} (open)`,
      `${help} (full screen)`,
      `  "Steps"`,
      `    ${help}: "Answers" text, ${more} link > ${more} (push)`,
      `    ${more}: "Message" field, "Send" > close`,
    ]);
  },
};
