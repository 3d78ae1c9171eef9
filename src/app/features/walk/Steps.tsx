import { useEffect, useRef } from "react";
import { eventText } from "../../../core/insight/explain.ts";
import { nameOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { planOf } from "../../../core/plan/planOf.ts";
import { stateLine } from "../../../core/semantics/line.ts";
import { currentScreen } from "../../../core/semantics/state.ts";
import { useWalk, useWalkState } from "../../session/hooks.ts";
import { useBrokenRules } from "./useBrokenRules.ts";

/** The events so far; each can be gone back to, and the walk branches from there. */
export function Steps({ project }: { project: Project }) {
  const { start, steps, at, goTo, begun, stopPlaying, reason } = useWalk();
  const state = useWalkState();
  const broken = useBrokenRules(project);
  const breaks = (step: number) =>
    broken
      .get(step)
      ?.map((name) => `“${name}”`)
      .join(", ");
  const here = breaks(at);
  if (!start || !state) return null;
  const go = (to: number) => {
    stopPlaying();
    goTo(to);
  };
  return (
    <>
      {here && !reason && (
        <p role="status" data-testid="breaks" className="m-0 border-l-2 border-urgent pl-2 text-[12.5px] text-urgent">
          Here the rule {here} is broken.
        </p>
      )}
      <h3 className="caption m-0 border-t border-hairline pt-2">Steps</h3>
      <ol className="relative m-0 max-h-[172px] list-none overflow-y-auto p-0" aria-label="Steps">
        <StepRow
          number={0}
          text={begun ? "placed here" : "launch"}
          shows={nameOf(project, currentScreen(start).at)}
          breaks={breaks(0)}
          current={at === 0}
          onClick={() => go(0)}
        />
        {steps.map((one, i) => (
          <StepRow
            key={i}
            number={i + 1}
            text={eventText(project, one.event)}
            shows={one.outcome === "moved" ? nameOf(project, currentScreen(one.state).at) : one.outcome}
            why={one.sentence}
            breaks={breaks(i + 1)}
            trouble={one.outcome === "refused" || one.outcome === "ignored"}
            current={at === i + 1}
            later={i + 1 > at}
            onClick={() => go(i + 1)}
          />
        ))}
      </ol>
      <p className="m-0 font-mono text-[10.5px] leading-snug break-all text-ink-2" data-testid="line" title="The state line">
        {stateLine(planOf(project), state)}
      </p>
    </>
  );
}

interface RowProps {
  number: number;
  text: string;
  shows: string;
  why?: string;
  /** The rules that the step breaks, by name. */
  breaks?: string | undefined;
  current: boolean;
  later?: boolean;
  trouble?: boolean;
  onClick: () => void;
}

function StepRow({ number, text, shows, why, breaks, current, later, trouble, onClick }: RowProps) {
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    const list = row.current?.parentElement;
    if (!current || !row.current || !list) return;
    const { offsetTop, offsetHeight } = row.current;
    if (offsetTop < list.scrollTop || offsetTop + offsetHeight > list.scrollTop + list.clientHeight)
      list.scrollTop = offsetTop + offsetHeight - list.clientHeight;
  }, [current]);
  return (
    <li ref={row}>
      <button
        type="button"
        onClick={onClick}
        title={breaks ? `Breaks the rule ${breaks}` : why || undefined}
        aria-current={current ? "step" : undefined}
        className={`flex min-h-6 w-full items-baseline gap-2 px-1.5 text-left text-[12px] ${current ? "bg-accent-soft font-semibold" : "hover:bg-band"} ${later ? "opacity-60" : ""}`}
      >
        <span className={`w-4 shrink-0 font-mono text-[11px] ${breaks ? "font-bold text-urgent" : "text-ink-2"}`}>{number}</span>
        <span className="min-w-0 flex-1 truncate">{text}</span>
        <span className={`truncate text-[11px] ${trouble || breaks ? "text-urgent" : "text-ink-2"}`}>{breaks ? "breaks a rule" : shows}</span>
      </button>
    </li>
  );
}
