import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const FORM: Pattern = {
  id: "form",
  name: "A form in a sheet",
  says: "A sheet with a field over the page; Save closes it as soon as something is typed, Cancel at any time.",
  words: ["new item", "add", "create", "edit", "dialog", "modal", "compose"],
  asks: [
    { id: "begin", label: "The button", usual: "Add", of: "label" },
    { id: "form", label: "The sheet", usual: "Add one", of: "place" },
    { id: "field", label: "Its field", usual: "Name", of: "label" },
  ],
  where: onScreen,
  put: (making) => {
    making.put([
      `${making.at()}: ${making.name("begin")} > ${making.name("form")} (open)`,
      `${making.name("form")} (sheet): ${making.name("field")} field (as entered), "Save" (enabled if field.entered != "") > close, "Cancel" link > close`,
    ]);
  },
};
