import { useState } from "react";
import { fixesFor } from "../../../core/check/fixes/fixes.ts";
import { acceptFinding } from "../../../core/model/edits/accepted.ts";
import { lookup } from "../../../core/model/lookup.ts";
import { usePlay } from "../../session/actions/usePlay.ts";
import { SEVERITY_COLOR, SEVERITY_GROUND } from "../../session/findingWords.ts";
import { useDocument, useSelection, useSession, useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import type { PlainFinding } from "../../worker/protocol.ts";
import { LeadOn } from "./LeadOn.tsx";

/** A finding in one sentence (`coded`: with its code), with its walk, its fixes (each to be looked at first), and "this is intended" with a reason. */
export function FindingRow({ finding, coded = true }: { finding: PlainFinding; coded?: boolean }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const session = useSession();
  const select = useSelection((s) => s.select);
  const open = useSheets((s) => s.open);
  const play = usePlay();
  const [reasoning, setReasoning] = useState(false);
  const fixes = fixesFor(project, finding);
  const show = () => {
    const id = finding.subjects[0] ?? "";
    const { legs, places, entrances } = lookup(project);
    if (legs.has(id)) select({ kind: "leg", id });
    else if (entrances.has(id)) select({ kind: "entrance", id });
    else if (places.has(id)) select({ kind: "place", id });
    else if (project.rules?.some((rule) => rule.id === id)) session.go("rules");
  };
  return (
    <li data-finding={finding.code} className="border-b border-hairline px-4 py-1.5 text-[12.5px]">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className={`mt-1 h-2 w-2 shrink-0 self-start rounded-full ${finding.open ? "border border-ink-2" : SEVERITY_GROUND[finding.severity]}`} />
        <button type="button" onClick={show} className="min-h-6 min-w-[26rem] flex-1 text-left hover:underline">
          {finding.message}
        </button>
        <div className="ml-auto flex max-w-full flex-wrap items-baseline justify-end gap-x-3 pl-5">
          {coded && (
            <code className={`shrink-0 font-mono text-[10.5px] ${finding.open ? "text-ink-2" : SEVERITY_COLOR[finding.severity]}`}>{finding.code}</code>
          )}
          {finding.walk && (
            <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={() => play(finding)}>
              Walk it
            </button>
          )}
          <LeadOn project={project} finding={finding} />
          {fixes.map((fix) => (
            <button
              key={fix.name}
              type="button"
              className="min-h-6 max-w-64 shrink-0 truncate font-semibold text-accent hover:underline"
              title={fix.name}
              onClick={() => open({ is: "fix", fix: fix })}
            >
              Fix: {fix.name}…
            </button>
          ))}
          <button type="button" className="min-h-6 shrink-0 text-ink-2 hover:text-ink" aria-expanded={reasoning} onClick={() => setReasoning(!reasoning)}>
            intended…
          </button>
        </div>
      </div>
      {reasoning && (
        <form
          className="mt-1 flex items-end gap-2 pl-5"
          onSubmit={(event) => {
            event.preventDefault();
            const reason = String(new FormData(event.currentTarget).get("reason")).trim();
            if (reason === "") return;
            apply(acceptFinding(finding, reason));
          }}
        >
          <label className="flex-1 text-[11.5px] text-ink-2">
            Why is this intended? The reason is kept in the document.
            <input name="reason" autoFocus maxLength={2000} className="mt-0.5 block h-7 w-full border border-hairline bg-paper px-1.5 text-[12.5px] text-ink" />
          </label>
          <Button type="submit">It is intended</Button>
        </form>
      )}
    </li>
  );
}
