import type { Pattern } from "../pattern.ts";
import { onScreen } from "../places.ts";

export const PHOTO: Pattern = {
  id: "photo",
  name: "A picture, seen large",
  says: "A picture that is tapped fills the screen; a swipe down or its × closes it.",
  words: ["photo", "image", "gallery", "viewer", "lightbox", "zoom", "full screen"],
  asks: [
    { id: "image", label: "The picture", usual: "Photo", of: "label" },
    { id: "viewer", label: "The large one", usual: "Photo in large", of: "place" },
  ],
  where: onScreen,
  put: (making) => {
    making.put([
      `${making.at()}: ${making.name("image")} image > ${making.name("viewer")} (open)`,
      `${making.name("viewer")} (full screen): ${making.name("image")} image, swipe down > close`,
    ]);
  },
};
