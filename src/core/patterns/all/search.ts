import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const SEARCH: Pattern = {
  id: "search",
  name: "Search over the page",
  says: "A search that covers the whole page, with what it finds on top of it; closing it leads back to the page as it was.",
  words: ["find", "filter", "look up", "magnifier", "results"],
  asks: [
    { id: "search", label: "The search", usual: "Search", of: "place" },
    { id: "found", label: "The screen of what is found", usual: "Result", of: "place" },
    { id: "rows", label: "Rows of", usual: "result", of: "rows" },
  ],
  where: onScreen,
  put: (making) => {
    const { type, key, says, line } = making.rows("rows");
    const [search, found] = [making.name("search"), making.name("found")];
    making.put([
      line,
      `${making.at()}: ${search} icon (in bar) > ${search} (open)`,
      `${search} (full screen)`,
      `  "Steps"`,
      `    ${search}: ${search} field, "Found" list (of ${type}, says ${says}) > ${found}(${type}Id = item.${key}) (push)`,
      `    ${found}(${type}Id) (title {param.${type}Id})`,
    ]);
  },
};
