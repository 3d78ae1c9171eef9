import { VersionsView } from "../features/versions/VersionsView.tsx";
import { Workspace } from "./Workspace.tsx";

export function VersionsPage() {
  return (
    <Workspace name="the versions">
      <VersionsView />
    </Workspace>
  );
}
