import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const FILTER: Pattern = {
  id: "filter",
  name: "Filter what is shown",
  says: "A sheet over half the page with switches; Show closes it.",
  words: ["sort", "narrow", "facets", "options", "sheet"],
  asks: [
    { id: "filter", label: "The sheet", usual: "Filter", of: "place" },
    { id: "by", label: "Its switches", usual: "Only mine, Only open", of: "label" },
  ],
  where: onScreen,
  put: (making) => {
    const filter = making.name("filter");
    making.put([
      `${making.at()}: ${filter} icon (in bar) > ${filter} (open)`,
      `${filter} (sheet, half the page): ${making
        .names("by")
        .map((by) => `${by} switch`)
        .join(", ")}, "Show" > close`,
    ]);
  },
};
