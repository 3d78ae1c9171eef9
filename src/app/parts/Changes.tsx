import { SEVERITY_COLOR } from "../session/findingWords.ts";
import { useFindings } from "../session/hooks.ts";
import { Failed } from "../ui/Failed.tsx";
import type { PlainFinding, PlainResult } from "../worker/protocol.ts";
import type { Task } from "../worker/useTask.ts";

/** The findings that a change would bring and take; `before` is undefined as long as they are not known. */
export function Changes({ before, after }: { before: PlainResult | undefined; after: Task<PlainResult> }) {
  const failure = useFindings((f) => f.error);
  if (after.is === "failed") return <Failed what="What comes and goes is not known" error={after.error} onRetry={after.retry} />;
  if (!before && failure) return <span className="text-ink-2">not known: the check failed</span>;
  if (!before || after.is !== "done") return <span className="text-ink-2">looking…</span>;
  const gained = without(after.value.findings, before.findings);
  const lost = without(before.findings, after.value.findings);
  if (gained.length + lost.length === 0) return <span className="text-ink-2">no change</span>;
  return (
    <ul className="m-0 max-h-24 list-none overflow-y-auto p-0">
      {gained.map((finding) => (
        <li key={`+ ${keyOfFinding(finding)}`} className={SEVERITY_COLOR[finding.severity]}>
          + {finding.message}
        </li>
      ))}
      {lost.map((finding) => (
        <li key={`- ${keyOfFinding(finding)}`} className="text-proved">
          − {finding.message}
        </li>
      ))}
    </ul>
  );
}

function without(list: readonly PlainFinding[], others: readonly PlainFinding[]): PlainFinding[] {
  const known = new Set(others.map(keyOfFinding));
  return list.filter((finding) => !known.has(keyOfFinding(finding)));
}

export const keyOfFinding = (finding: PlainFinding) => `${finding.code} ${finding.subjects.join(" ")}`;
