import { useEffect, useState } from "react";
import type { Project } from "../../core/model/schema.ts";
import type { State } from "../../core/semantics/types.ts";
import { Beneath } from "../features/walk/Beneath.tsx";
import { Controls, Outside } from "../features/walk/Controls.tsx";
import { Device } from "../features/walk/Device.tsx";
import { Steps } from "../features/walk/Steps.tsx";
import { useHands } from "../features/walk/useHands.ts";
import { Outcomes } from "../features/walk/WalkPanel.tsx";
import { useWalk, useWalkState } from "../session/hooks.ts";

/** Windows narrower than this show the app alone, as large as they are. */
const PHONE = 720;
/** Pixels at the foot of a phone for what is outside the app. */
const FOOT = 52;

/** The app to be tried, in a page of its own: the whole window on a phone, beside what lies beneath on anything wider. */
export function Prototype({ project }: { project: Project }) {
  const { follow } = useWalk();
  const state = useWalkState();
  const size = useWindowSize();
  useEffect(() => follow(project), [follow, project]);
  if (!state) return null;
  return size.width < PHONE ? <OnPhone project={project} state={state} size={size} /> : <OnDesk project={project} state={state} />;
}

interface Props {
  project: Project;
  state: State;
}

function OnPhone({ project, state, size }: Props & { size: { width: number; height: number } }) {
  const hands = useHands(project, state);
  const [more, setMore] = useState(false);
  return (
    <main className="relative flex h-dvh flex-col overflow-hidden bg-paper text-ink">
      <div className="relative min-h-0 flex-1">
        <Device project={project} state={state} hands={hands} room={size.width} fill={size.height - FOOT} />
        <Outcomes hands={hands} />
        {hands.told && (
          <p role="status" className="absolute inset-x-3 bottom-3 m-0 border border-warm bg-sheet p-2 text-[13px]">
            {hands.told.text}
          </p>
        )}
      </div>
      <div className="flex shrink-0 items-center gap-2 border-t border-ink bg-sheet px-2" style={{ height: FOOT }}>
        <FootButton onClick={() => hands.send({ do: "back" })}>← Back</FootButton>
        <span className="min-w-0 flex-1 truncate text-center text-[12px] text-ink-2">{project.name}</span>
        <FootButton expanded={more} onClick={() => setMore(!more)}>
          More
        </FootButton>
      </div>
      {more && (
        <section
          aria-label="Outside the app"
          className="by-thumb absolute inset-x-0 flex flex-col gap-3 border-t border-ink bg-sheet p-3 pb-4"
          style={{ bottom: FOOT }}
        >
          <Controls project={project} state={state} hands={hands} phone />
          <Outside project={project} state={state} hands={hands} phone />
        </section>
      )}
    </main>
  );
}

function FootButton({ children, expanded, onClick }: { children: React.ReactNode; expanded?: boolean; onClick: () => void }) {
  return (
    <button type="button" aria-expanded={expanded} className="min-h-11 min-w-16 border border-hairline bg-paper px-3 text-[14px]" onClick={onClick}>
      {children}
    </button>
  );
}

function OnDesk({ project, state }: Props) {
  const hands = useHands(project, state);
  const [marks, setMarks] = useState(false);
  const room = { narrow: 348, middle: 640, wide: 800 }[state.width];
  return (
    <main className="min-h-dvh bg-paper text-ink">
      <header className="border-b border-hairline px-6 py-3">
        <h1 className="m-0 text-[17px] font-semibold">{project.name}</h1>
        {project.about && <p className="m-0 text-[13px] text-ink-2">{project.about}</p>}
      </header>
      <div className="flex flex-wrap items-start justify-center gap-8 p-6">
        <div className={`relative border-2 border-ink bg-paper p-2 ${marks ? "marks-live" : ""}`}>
          <Device project={project} state={state} hands={hands} room={room} fill={state.width === "narrow" ? 660 : 600} />
          <Outcomes hands={hands} />
        </div>
        <div className="flex w-72 flex-col gap-4">
          {hands.told && (
            <p role="status" data-told className="m-0 border-l-2 border-warm pl-2 text-[13px]">
              {hands.told.text}
            </p>
          )}
          <Controls project={project} state={state} hands={hands} />
          <Outside project={project} state={state} hands={hands} marks={marks} onMarks={setMarks} />
          <Beneath project={project} state={state} />
          <Steps project={project} />
        </div>
      </div>
    </main>
  );
}

function windowSize(): { width: number; height: number } {
  return { width: window.innerWidth, height: window.innerHeight };
}

function useWindowSize(): { width: number; height: number } {
  const [size, setSize] = useState(windowSize);
  useEffect(() => {
    const changed = () => setSize(windowSize());
    window.addEventListener("resize", changed);
    return () => window.removeEventListener("resize", changed);
  }, []);
  return size;
}
