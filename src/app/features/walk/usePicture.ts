import { lookup } from "../../../core/model/lookup.ts";
import { pictureFor } from "../../../core/model/pictures.ts";
import type { Picture, Project } from "../../../core/model/schema.ts";
import { currentScreen } from "../../../core/semantics/state.ts";
import type { State } from "../../../core/semantics/types.ts";
import { useDark, usePictureUrls } from "../../session/hooks.ts";

/** A picture that can be drawn. */
export interface Shows {
  picture: Picture;
  url: string;
}

/** The picture of the screen that a branch shows, for the width and the theme; none where it has none, or its file is missing. */
export function usePicture(project: Project, state: State, branch: number): Shows | undefined {
  const urls = usePictureUrls();
  const dark = useDark();
  const screen = lookup(project).screens.get(currentScreen(state, branch).at);
  const picture = screen && pictureFor(screen, { width: state.width, dark });
  const url = picture && urls.url(picture.file);
  return picture && url !== undefined ? { picture, url } : undefined;
}
