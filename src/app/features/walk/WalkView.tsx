import { useState } from "react";
import type { Project } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import { Boundary } from "../../ui/Boundary.tsx";
import { useSize } from "../../ui/useSize.ts";
import { Beneath } from "./Beneath.tsx";
import { Controls, Outside } from "./Controls.tsx";
import { Device, useDeviceSize } from "./Device.tsx";
import { Steps } from "./Steps.tsx";
import type { Hands } from "./useHands.ts";
import { Outcomes, Says, useWalked } from "./WalkPanel.tsx";
import { Walks } from "./Walks.tsx";

/** Pixels around the device. */
const AROUND = 40;
/** How much larger than its own pixels the device is drawn at most. */
const LARGEST = 1.6;

/** The walk on the whole window: the device as large as fits, and beside it what no device shows. */
export function WalkView() {
  const { project, state, hands } = useWalked();
  if (!state) return <div />;
  return <Walked project={project} state={state} hands={hands} />;
}

function Walked({ project, state, hands }: { project: Project; state: State; hands: Hands }) {
  const [frame, size] = useSize();
  const [marks, setMarks] = useState(false);
  const own = useDeviceSize(project, state);
  const scale = size ? Math.min(LARGEST, (size.width - AROUND) / own.width, (size.height - AROUND) / own.height) : undefined;
  return (
    <Boundary name="the walk" of={project}>
      <section aria-label="Walk" className="grid min-h-0 grid-cols-[minmax(0,1fr)_400px] bg-paper">
        <div ref={frame as React.RefObject<HTMLDivElement>} className="flex min-h-0 items-center justify-center overflow-hidden">
          {scale !== undefined && (
            <div className={`relative rounded-[14px] border-2 border-ink bg-paper p-2 ${marks ? "marks-live" : ""}`}>
              <Device project={project} state={state} hands={hands} room={own.width * scale - 20} fill={own.height * scale - 20} />
              <Outcomes hands={hands} />
            </div>
          )}
        </div>
        <div className="min-h-0 overflow-y-auto border-l border-hairline bg-sheet p-4">
          <div className="flex flex-col gap-3">
            <Says hands={hands} />
            <Controls project={project} state={state} hands={hands} />
            <Outside project={project} state={state} hands={hands} marks={marks} onMarks={setMarks} />
            <Beneath project={project} state={state} wide />
            <Steps project={project} />
            <Walks />
          </div>
        </div>
      </section>
    </Boundary>
  );
}
