import { DRAWINGS, type Drawing } from "../../../core/map/types.ts";
import { plannedIn } from "../../../core/model/edits/planned.ts";
import type { Project } from "../../../core/model/schema.ts";
import { useSeeing, useSelection } from "../../session/hooks.ts";
import { usePreferences } from "../../ui/preferences.ts";
import { LensSelect } from "./LensSelect.tsx";

/** What each drawing is for, where it is chosen. */
const SAYS: Record<Drawing, string> = {
  rows: "Cards with their elements: to build",
  faces: "A small picture of each screen",
  names: "The whole app, a name for each screen",
};

/** How the map is drawn, how much there is, and the zoom. */
export function MapControls({ project, zoomBy, showAll }: { project: Project; zoomBy: (factor: number) => void; showAll: () => void }) {
  const { drawing, draw } = useSeeing();
  const choose = (next: Drawing) => {
    draw(next);
    usePreferences.getState().set({ drawing: next });
  };
  return (
    <div className="absolute right-3 bottom-2 flex items-center gap-2 border border-hairline bg-paper px-2 py-0.5 text-[11.5px] text-ink-2">
      <fieldset className="m-0 flex gap-1 border-0 p-0">
        <legend className="sr-only">How the map is drawn</legend>
        {DRAWINGS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={drawing === one}
            title={SAYS[one]}
            className={`min-h-6 min-w-6 px-1 ${drawing === one ? "border-accent border-b-2 font-semibold text-ink" : "border-transparent border-b-2 hover:text-ink"}`}
            onClick={() => choose(one)}
          >
            {one}
          </button>
        ))}
      </fieldset>
      <LensSelect />
      <span className="mx-1 hidden h-4 border-hairline border-l @min-[560px]:inline" />
      <span className="hidden whitespace-nowrap font-mono text-[11px] @min-[560px]:inline">{countsOf(project)}</span>
      <PlannedMark project={project} />
      <span className="mx-1 h-4 border-hairline border-l" />
      <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom out" onClick={() => zoomBy(0.8)}>
        −
      </button>
      <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Zoom in" onClick={() => zoomBy(1.25)}>
        +
      </button>
      <button type="button" className="min-h-6 min-w-6 hover:text-ink" aria-label="Show the whole map" onClick={showAll}>
        all
      </button>
    </div>
  );
}

function countsOf(project: Project): string {
  const counted = (count: number, what: string) => `${count} ${count === 1 ? what : `${what}s`}`;
  return [counted(project.screens.length, "screen"), counted(project.legs.length, "leg")].join(" · ");
}

/** How many stand-ins there are; a click chooses them all, to be changed in bulk. */
function PlannedMark({ project }: { project: Project }) {
  const selectAll = useSelection((s) => s.selectAll);
  const { screens, legs } = plannedIn(project);
  if (screens.length + legs.length === 0) return null;
  return (
    <button
      type="button"
      className="min-h-6 underline decoration-dashed underline-offset-4 hover:text-ink"
      title="Choose all that is only planned"
      onClick={() => selectAll([...legs.map((id) => ({ kind: "leg" as const, id })), ...screens.map((id) => ({ kind: "place" as const, id }))])}
    >
      {screens.length + legs.length} planned
    </button>
  );
}
