import { changeScreen } from "../../model/edits/change.ts";
import { freshId } from "../../model/edits/edit.ts";
import { lookup } from "../../model/lookup.ts";
import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const PICK: Pattern = {
  id: "pick",
  name: "Pick one and hand it back",
  says: "A sheet with a list comes up; the row that is tapped is handed back to the screen, which shows it.",
  words: ["chooser", "selector", "result", "dropdown", "lookup", "for result"],
  asks: [
    { id: "begin", label: "The button", usual: "Choose", of: "label" },
    { id: "picker", label: "The sheet", usual: "Choose one", of: "place" },
    { id: "rows", label: "Rows of", usual: "choice", of: "rows" },
  ],
  where: onScreen,
  put: (making) => {
    const { type, key, says, line } = making.rows("rows");
    const screen = lookup(making.project).screens.get(making.place);
    const param = freshId(`chosen ${type}`, new Set(screen?.params.map(({ name }) => name)), "chosen");
    making.apply(changeScreen(making.project, making.place, { params: [...(screen?.params ?? []), { name: param, type: "text", required: false }] }));
    making.put([
      line,
      `${making.at()}`,
      `  - ${making.name("begin")} > ${making.name("picker")} (open)`,
      `  - "Chosen" text (says {param.${param}}, shown if has(param.${param}))`,
      `${making.name("picker")} (sheet): ${making.name("picker")} list (of ${type}, says ${says}) > close(${param} = item.${key})`,
    ]);
  },
};
