import { MapView } from "../features/map/MapView.tsx";
import { RulesPanel } from "../features/rules/RulesPanel.tsx";
import { useDocument } from "../session/hooks.ts";
import { Boundary } from "../ui/Boundary.tsx";
import { Workspace } from "./Workspace.tsx";

/** The team's rules beneath the map, on which their parts are picked; the walk beside it shows where one breaks. */
export function RulesPage() {
  const project = useDocument((d) => d.project);
  return (
    <Workspace name="the map">
      <div className="grid h-full grid-rows-[minmax(0,1fr)_minmax(240px,46%)]">
        <div className="relative min-h-0 overflow-hidden">
          <MapView />
        </div>
        <Boundary name="the rules" of={project}>
          <RulesPanel />
        </Boundary>
      </div>
    </Workspace>
  );
}
