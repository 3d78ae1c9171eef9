import { ParametersView } from "../features/parameters/ParametersView.tsx";
import { Workspace } from "./Workspace.tsx";

export function ParametersPage() {
  return (
    <Workspace name="the parameters">
      <ParametersView />
    </Workspace>
  );
}
