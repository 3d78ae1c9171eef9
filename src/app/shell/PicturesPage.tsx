import { PicturesPanel } from "../features/pictures/PicturesPanel.tsx";
import { Workspace } from "./Workspace.tsx";

/** The pictures of the screens between the outline and the walk, which runs on them. */
export function PicturesPage() {
  return (
    <Workspace name="the pictures">
      <PicturesPanel />
    </Workspace>
  );
}
