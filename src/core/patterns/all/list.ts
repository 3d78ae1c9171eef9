import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const LIST: Pattern = {
  id: "list",
  name: "List and detail, with paging",
  shape: true,
  says: "Rows that are tapped, a screen for each, and the next and the previous row from there.",
  words: ["table", "master detail", "rows", "records", "catalogue", "feed", "pager"],
  asks: [
    { id: "list", label: "The list", usual: "Items", of: "label" },
    { id: "detail", label: "The screen of one", usual: "Item", of: "place" },
    { id: "rows", label: "Rows of", usual: "item", of: "rows" },
  ],
  where: onScreen,
  put: (making) => {
    const { type, key, says, line } = making.rows("rows");
    const detail = making.name("detail");
    const param = `${type}Id`;
    const pager = (label: string, row: string) =>
      `  - "${label}" pager (enabled if has(${row}.id)) > ${detail}(${param} = ${row}.${key}) (replace, if has(${row}.id))`;
    making.put([
      line,
      `${making.at()}: ${making.name("list")} list (of ${type}, says ${says}) > ${detail}(${param} = item.${key}) (push)`,
      `${detail}(${param}) (title {param.${param}}, pages ${type} by ${param})`,
      pager("Previous", "prev").replaceAll("has(prev.id)", `has(prev.${key})`),
      pager("Next", "next").replaceAll("has(next.id)", `has(next.${key})`),
    ]);
  },
};
