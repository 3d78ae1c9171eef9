import { HandoffView } from "../features/handoff/HandoffView.tsx";
import { Workspace } from "./Workspace.tsx";

export function HandoffPage() {
  return (
    <Workspace name="the hand-off">
      <HandoffView />
    </Workspace>
  );
}
