import { Suspense, useEffect, useState } from "react";
import type { Width } from "../../core/model/schema.ts";
import { Inspector } from "../features/inspector/Inspector.tsx";
import { MapView } from "../features/map/MapView.tsx";
import { Outline } from "../features/outline/Outline.tsx";
import { WalkPanel } from "../features/walk/WalkPanel.tsx";
import { useDocument, useSelection, useWalkState } from "../session/hooks.ts";
import { useLensLooking } from "../session/useLens.ts";
import { Boundary } from "../ui/Boundary.tsx";
import { usePreferences } from "../ui/preferences.ts";
import { Later, preload } from "../ui/preloaded.tsx";
import { NARROWEST, WIDEST } from "./sides.ts";

const Edge = preload(async () => (await import("./Edge.tsx")).Edge);

/** Pixels that the walk needs for its device with what stands beside or beneath it. */
const NEEDS: Record<Width, number> = { narrow: 326, middle: 410, wide: 570 };

/** The structure and what is chosen at one side, a view in the middle, the walk at the other; each side can be dragged and folded. */
export function Workspace({ name, children }: { name: string; children: React.ReactNode }) {
  const project = useDocument((d) => d.project);
  useLensLooking();
  const undoName = useDocument((d) => d.undoName);
  const { left, right, foldedLeft, foldedRight } = useSides();
  return (
    <div className="grid min-h-0 grid-rows-[minmax(0,1fr)]" style={{ gridTemplateColumns: `${left}px minmax(0, 1fr) ${right}px` }}>
      <div className={`grid min-h-0 grid-rows-[minmax(0,1fr)_auto] overflow-hidden bg-sheet ${foldedLeft ? "invisible" : "border-r border-hairline"}`}>
        <Boundary name="the outline" of={project}>
          <Outline />
        </Boundary>
        <Chosen />
      </div>
      <main className="relative min-h-0 min-w-0">
        <div className="absolute inset-0 overflow-hidden">
          <Boundary name={name} of={undoName}>
            {children}
          </Boundary>
        </div>
        <Suspense>
          <Later part={Edge} side="left" width={left} />
          <Later part={Edge} side="right" width={right} />
        </Suspense>
      </main>
      <div className={`min-h-0 overflow-hidden bg-sheet ${foldedRight ? "invisible" : "border-l border-hairline"}`}>
        <Boundary name="the walk" of={project}>
          <WalkPanel />
        </Boundary>
      </div>
    </div>
  );
}

export function MapWorkspace() {
  return (
    <Workspace name="the map">
      <MapView />
    </Workspace>
  );
}

/** What is chosen; something else to choose is a new beginning after a failure. */
function Chosen() {
  const selected = useSelection((s) => s.selected);
  return (
    <Boundary name="what is chosen" of={selected}>
      <Inspector />
    </Boundary>
  );
}

/** How wide the sides are: as they were dragged, else what they need as long as the view between them keeps half of the window. */
function useSides(): { left: number; right: number; foldedLeft: boolean; foldedRight: boolean } {
  const { left, right, foldedLeft, foldedRight } = usePreferences();
  const window = useWindowWidth();
  const needs = NEEDS[useWalkState()?.width ?? "narrow"];
  const usualLeft = Math.max(250, Math.min(0.244 * window, 340, window / 2 - needs));
  const usualRight = Math.min(needs, window / 2 - usualLeft);
  return { left: foldedLeft ? 0 : clamp(left ?? usualLeft), right: foldedRight ? 0 : clamp(right ?? usualRight), foldedLeft, foldedRight };
}

const clamp = (width: number) => Math.round(Math.max(NARROWEST, Math.min(WIDEST, width)));

function useWindowWidth(): number {
  const [width, setWidth] = useState(innerWidth);
  useEffect(() => {
    const changed = () => setWidth(innerWidth);
    addEventListener("resize", changed);
    return () => removeEventListener("resize", changed);
  }, []);
  return width;
}
