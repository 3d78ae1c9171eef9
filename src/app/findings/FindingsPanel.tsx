import { fixesFor } from "../../core/check/fixes.ts";
import { lookup } from "../../core/model/lookup.ts";
import { useDocument } from "../store/document.ts";
import { useFindings } from "../store/findings.ts";
import { useSelection } from "../store/selection.ts";
import type { PlainFinding } from "../workers/plain.ts";
import { usePlay } from "./usePlay.ts";
import { SEVERITY_COLOR, SEVERITY_GROUND } from "./words.ts";

/** All findings: each in one sentence, with its walk, its mending, and "this is intended" with a reason. */
export function FindingsPanel({ onClose }: { onClose: () => void }) {
  const result = useFindings((f) => f.result);
  const findings = result?.findings ?? [];
  return (
    <section
      className="absolute inset-x-0 bottom-full z-30 max-h-[46vh] overflow-y-auto border-t border-ink bg-sheet shadow-[0_-6px_16px_var(--lift)]"
      aria-label="All findings"
    >
      <header className="sticky top-0 flex items-center justify-between border-b border-hairline bg-sheet px-4 py-2">
        <h2 className="caption m-0 text-[13px]">Findings</h2>
        <button type="button" onClick={onClose} className="min-h-6 px-2 text-ink-2 hover:text-ink">
          close
        </button>
      </header>
      {findings.length === 0 && <p className="px-4 py-3 text-ink-2">Nobody gets stuck, and nothing is left open.</p>}
      <ul className="m-0 list-none p-0">
        {findings.map((finding) => (
          <FindingRow key={`${finding.code} ${finding.subjects.join(" ")}`} finding={finding} />
        ))}
      </ul>
      {(result?.accepted.length ?? 0) > 0 && (
        <>
          <h3 className="caption m-0 px-4 pt-3">Intended</h3>
          <ul className="m-0 list-none p-0">
            {result?.accepted.map((finding) => (
              <li key={`${finding.code} ${finding.subjects.join(" ")}`} className="flex gap-3 px-4 py-1 text-[12.5px] text-ink-2">
                <span className="min-w-0 flex-1">
                  {finding.message} <em>{finding.reason}</em>
                </span>
                <Withdraw finding={finding} />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function FindingRow({ finding }: { finding: PlainFinding }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const select = useSelection((s) => s.select);
  const play = usePlay();
  const fixes = fixesFor(project, finding);
  const show = () => {
    const id = finding.subjects[0] ?? "";
    const { legs, places, entrances } = lookup(project);
    if (legs.has(id)) select({ kind: "leg", id });
    else if (entrances.has(id)) select({ kind: "entrance", id });
    else if (places.has(id)) select({ kind: "place", id });
  };
  const accept = () => {
    const reason = window.prompt("Why is this intended? The reason is kept in the document.");
    if (!reason) return;
    apply({
      name: `Accept ${finding.code}`,
      apply: (p) => ({ ...p, accepted: [...(p.accepted ?? []), { code: finding.code, subjects: finding.subjects, reason }] }),
    });
  };
  return (
    <li data-finding={finding.code} className="flex items-baseline gap-3 border-b border-hairline px-4 py-1.5 text-[12.5px]">
      <span className={`mt-1 h-2 w-2 shrink-0 self-start rounded-full ${SEVERITY_GROUND[finding.severity]}`} />
      <button type="button" onClick={show} className="min-w-0 flex-1 text-left hover:underline">
        {finding.message}
      </button>
      <code className={`shrink-0 font-mono text-[10.5px] ${SEVERITY_COLOR[finding.severity]}`}>{finding.code}</code>
      {finding.walk && (
        <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => play(finding)}>
          Walk it
        </button>
      )}
      {fixes.map((fix) => (
        <button
          key={fix.name}
          type="button"
          className="min-h-6 max-w-64 shrink-0 truncate font-semibold text-accent hover:underline"
          title={fix.name}
          onClick={() => apply(fix)}
        >
          Mend: {fix.name}
        </button>
      ))}
      <button type="button" className="min-h-6 shrink-0 text-ink-2 hover:text-ink" onClick={accept}>
        intended…
      </button>
    </li>
  );
}

function Withdraw({ finding }: { finding: PlainFinding }) {
  const apply = useDocument((d) => d.apply);
  const withdraw = () =>
    apply({
      name: `No longer accept ${finding.code}`,
      apply: (p) => {
        const accepted = (p.accepted ?? []).filter((a) => a.code !== finding.code || a.subjects.join(" ") !== finding.subjects.join(" "));
        const { accepted: _, ...rest } = p;
        return accepted.length > 0 ? { ...rest, accepted } : rest;
      },
    });
  return (
    <button type="button" className="min-h-6 shrink-0 hover:text-ink" onClick={withdraw}>
      not any more
    </button>
  );
}
