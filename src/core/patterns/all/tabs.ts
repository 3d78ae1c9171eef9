import { aroundPlace, lanesAround } from "../lanes.ts";
import type { Pattern } from "../pattern.ts";

export const TABS: Pattern = {
  id: "tabs",
  name: "Tabs",
  shape: true,
  says: "Tabs at the foot, each with a history of its own; what is chosen becomes the first of them.",
  words: ["tab bar", "bottom navigation", "sections", "lanes"],
  asks: [
    { id: "tabs", label: "The tabs together", usual: "Main", of: "place" },
    { id: "others", label: "Beside it", usual: "Search, Profile", of: "places" },
  ],
  where: (project, place) => aroundPlace(project, place, "tabs"),
  put: (making) => lanesAround(making, "tabs", making.plain("tabs")),
};
