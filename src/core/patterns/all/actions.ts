import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const ACTIONS: Pattern = {
  id: "actions",
  name: "More to do, in a sheet",
  says: "An icon brings up a sheet with what else can be done here; each of it closes the sheet, and leads elsewhere once you lead it there.",
  words: ["more", "overflow", "context menu", "options", "action sheet", "dots", "share"],
  asks: [
    { id: "more", label: "The sheet", usual: "More", of: "place" },
    { id: "actions", label: "What can be done", usual: "Share, Copy, Print", of: "label" },
  ],
  where: onScreen,
  put: (making) => {
    const more = making.name("more");
    making.put([
      `${making.at()}: ${more} icon (in bar) > ${more} (open)`,
      `${more} (sheet, as large as it needs): ${making
        .names("actions")
        .map((action) => `${action} > close`)
        .join(", ")}`,
    ]);
  },
};
