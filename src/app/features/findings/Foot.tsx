import { lazy, Suspense, useState } from "react";
import { proofText } from "../../../core/check/proof.ts";
import { deletes } from "../../../core/model/edits/kinds.ts";
import { usePlay } from "../../session/actions/usePlay.ts";
import { resultOf } from "../../session/findings.ts";
import { count, openEnds, parted, SEVERITY_GROUND } from "../../session/findingWords.ts";
import { useDocument, useFindings } from "../../session/hooks.ts";
import { LeadOn } from "./LeadOn.tsx";

const FindingsPanel = lazy(async () => ({ default: (await import("./FindingsPanel.tsx")).FindingsPanel }));

/** One line on how things stand: the worst finding with its walk and its fixing, the counts, and what is proved. */
export function Foot() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { result, of, running: checking, error, states, stopped, stop, check } = useFindings();
  const running = stopped !== project && (checking || of !== project);
  const [open, setOpen] = useState(false);
  const play = usePlay();
  const { wrong, open: ends } = parted(result?.findings ?? []);
  const [worst] = wrong;
  const fix = useFindings((f) => resultOf(f, project)?.fix);
  const blockers = count(wrong, "blocker");
  return (
    <footer className="relative border-t-2 border-ink/60 bg-sheet">
      {open && (
        <Suspense>
          <FindingsPanel onClose={() => setOpen(false)} />
        </Suspense>
      )}
      <div className="flex h-10 items-center gap-4 px-3">
        {worst ? (
          <>
            <span className="flex min-w-0 items-center gap-2">
              <span
                className={`flex h-[18px] min-w-[18px] items-center justify-center rounded-full px-1 font-bold text-[11px] text-paper ${SEVERITY_GROUND[worst.severity]}`}
              >
                {count(wrong, worst.severity)}
              </span>
              <span className="truncate font-medium" data-testid="worst" title={worst.message}>
                {worst.message}
              </span>
            </span>
            {worst.walk && (
              <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => play(worst)}>
                Walk it
              </button>
            )}
            <LeadOn project={project} finding={worst} />
            {fix && !deletes(fix) && (
              <button
                type="button"
                className="min-h-6 max-w-72 shrink-0 truncate font-semibold text-accent hover:underline"
                title={fix.name}
                onClick={() => apply(fix)}
              >
                Fix: {fix.name}
              </button>
            )}
          </>
        ) : (
          <span className="text-ink-2">
            {result ? (ends.length > 0 ? "Nothing is wrong so far." : "Nothing is wrong.") : running ? "Looking for people who get stuck…" : ""}
          </span>
        )}
        <button
          type="button"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          className="flex min-h-6 shrink-0 items-center gap-3 text-ink-2 hover:text-ink"
        >
          {(["blocker", "warning", "note"] as const).map((severity) => {
            const n = count(wrong, severity);
            return n === 0 || (severity === worst?.severity && n === 1) ? null : (
              <span key={severity} data-count={severity} className="flex items-center gap-1">
                <span className={`h-2 w-2 rounded-full ${SEVERITY_GROUND[severity]}`} />
                {n} {severity}
                {n === 1 ? "" : "s"}
              </span>
            );
          })}
          {ends.length > 0 && (
            <span data-count="open" className="flex items-center gap-1">
              <span className="h-2 w-2 rounded-full border border-ink-2" />
              {openEnds(ends.length)}
            </span>
          )}
          <span className="underline decoration-hairline underline-offset-4">{open ? "close" : "all"}</span>
        </button>
        <span
          className={`min-w-28 flex-1 truncate text-right ${running || error || stopped === project || !result?.proof.complete ? "text-ink-2" : "text-proved"}`}
          data-testid="proof"
          data-running={running}
          title={result && proofText(result.proof)}
        >
          {error
            ? `The check failed: ${error}`
            : stopped === project
              ? "The check was stopped; these are the findings before the last edit."
              : running
                ? `checking…${states > 0 ? ` ${states} states` : ""}`
                : result
                  ? `${blockers > 0 ? "Otherwise: " : ""}${proofText(result.proof)}`
                  : ""}
        </span>
        {running && states > 0 && (
          <button type="button" className="min-h-6 shrink-0 text-ink-2 hover:text-ink" onClick={stop}>
            stop
          </button>
        )}
        {(stopped === project || error) && (
          <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => check(project)}>
            check again
          </button>
        )}
      </div>
    </footer>
  );
}
