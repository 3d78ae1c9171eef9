import { aroundPlace, lanesAround } from "../lanes.ts";
import type { Pattern } from "../pattern.ts";

export const MENU: Pattern = {
  id: "menu",
  name: "Side menu",
  shape: true,
  says: "A menu that slides in from the side, with a place for each entry; what is chosen becomes the first of them.",
  words: ["drawer", "hamburger", "navigation drawer", "sidebar"],
  asks: [
    { id: "menu", label: "The menu", usual: "Menu", of: "place" },
    { id: "others", label: "Beside it", usual: "Archive, Settings", of: "places" },
  ],
  where: (project, place) => aroundPlace(project, place, "drawer"),
  put: (making) => lanesAround(making, "drawer", making.plain("menu")),
};
