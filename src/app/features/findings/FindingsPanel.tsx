import { ToggleGroup } from "radix-ui";
import { useMemo, useState } from "react";
import { kindOf } from "../../../core/check/findings/all.ts";
import { fixAll, fixable } from "../../../core/check/fixes/fixAll.ts";
import { withdrawAccepted } from "../../../core/model/edits/accepted.ts";
import { nameOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { keyOfFinding } from "../../parts/Changes.tsx";
import { parted, placeOfFinding, SEVERITY_GROUND } from "../../session/findingWords.ts";
import { useDocument, useFindings, useSheets } from "../../session/hooks.ts";
import { MOST_FAR, usePreferences } from "../../ui/preferences.ts";
import type { PlainFinding } from "../../worker/protocol.ts";
import { FindingRow } from "./FindingRow.tsx";

/** Rows shown of one group before the rest is asked for. */
const FIRST = 40;

/** All findings, grouped by what is wrong or by where. */
export function FindingsPanel({ onClose }: { onClose: () => void }) {
  const project = useDocument((d) => d.project);
  const { result, running } = useFindings();
  const [by, setBy] = useState<"code" | "place">("code");
  const findings = result?.findings ?? [];
  const { wrong, open } = parted(findings);
  const groups = [...Map.groupBy(wrong, (finding) => (by === "code" ? finding.code : (placeOfFinding(project, finding) ?? "")))];
  return (
    <section
      className="absolute inset-x-0 bottom-full z-30 max-h-[52vh] overflow-y-auto border-t border-ink bg-sheet shadow-[0_-6px_16px_var(--lift)]"
      aria-label="All findings"
    >
      <header className="sticky top-0 z-10 flex items-center gap-4 border-b border-hairline bg-sheet px-4 py-2">
        <h2 className="caption m-0 text-[13px]">Findings</h2>
        <ToggleGroup.Root
          type="single"
          value={by}
          onValueChange={(next) => next !== "" && setBy(next as typeof by)}
          aria-label="Grouped by"
          className="flex gap-1 text-[12px]"
        >
          {(["code", "place"] as const).map((key) => (
            <ToggleGroup.Item
              key={key}
              value={key}
              className="min-h-6 border border-hairline px-2 text-ink-2 hover:border-ink data-[state=on]:border-accent data-[state=on]:bg-accent-soft data-[state=on]:font-semibold data-[state=on]:text-ink"
            >
              {key === "code" ? "by what is wrong" : "by place"}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        <FarLimit />
        <button type="button" onClick={onClose} className="ml-auto min-h-6 px-2 text-ink-2 hover:text-ink">
          close
        </button>
      </header>
      {findings.length === 0 && (
        <p className="px-4 py-3 text-ink-2">
          {result ? "Nobody gets stuck, and nothing is left open." : running ? "Still looking…" : "Nothing is known yet: the check did not come to an end."}
        </p>
      )}
      {groups.map(([key, list]) => (
        <Group key={key} project={project} title={by === "code" ? key : nameOf(project, key) || "the project"} list={list} byCode={by === "code"} />
      ))}
      {open.length > 0 && (
        <section aria-label="Open ends">
          <h3 className="m-0 flex items-center gap-2 bg-band px-4 py-1 text-[12px] font-semibold">
            <span className="h-2 w-2 rounded-full border border-ink-2" />
            Open ends <span className="font-normal text-ink-2">{open.length}: not built yet, and nothing wrong with that</span>
          </h3>
          <Rows list={open} />
        </section>
      )}
      {(result?.accepted.length ?? 0) > 0 && (
        <>
          <h3 className="caption m-0 px-4 pt-3">Intended</h3>
          <ul className="m-0 list-none p-0">
            {result?.accepted.map((finding) => (
              <li key={keyOfFinding(finding)} className="flex gap-3 px-4 py-1 text-[12.5px] text-ink-2">
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

/** How many taps from launch a screen may be before it is far; kept by the browser, for all projects. */
function FarLimit() {
  const { far, set } = usePreferences();
  return (
    <label className="flex items-center gap-1 text-[12px] text-ink-2">
      far is more than
      <select value={far} onChange={(event) => set({ far: Number(event.target.value) })} className="h-6 border border-hairline bg-paper text-ink">
        {Array.from({ length: MOST_FAR }, (_, i) => (
          <option key={i + 1}>{i + 1}</option>
        ))}
      </select>
      {far === 1 ? "tap" : "taps"} from launch
    </label>
  );
}

function Group({ project, title, list, byCode }: { project: Project; title: string; list: readonly PlainFinding[]; byCode: boolean }) {
  const open = useSheets((s) => s.open);
  const kind = byCode ? kindOf(title) : undefined;
  const fixes = useMemo(() => (byCode ? fixable(project, list) : 0), [byCode, project, list]);
  const worst = list[0]?.severity ?? "note";
  return (
    <section aria-label={title}>
      <h3 className="m-0 flex items-center gap-2 bg-band px-4 py-1 text-[12px] font-semibold">
        <span className={`h-2 w-2 rounded-full ${SEVERITY_GROUND[worst]}`} />
        {kind ? sentence(kind.says) : title}
        <span className="font-normal text-ink-2">{list.length}</span>
        {kind && <code className="font-mono font-normal text-[10.5px] text-ink-2">{kind.code}</code>}
        {fixes > 0 && (
          <button
            type="button"
            className="ml-auto min-h-6 font-semibold text-accent hover:underline"
            onClick={() => {
              const all = fixAll(project, list);
              if (all) open({ is: "fix", fix: all });
            }}
          >
            Fix all {fixes}…
          </button>
        )}
      </h3>
      {kind && <p className="m-0 max-w-[90ch] px-4 py-1 text-[12px] text-ink-2">{kind.help}</p>}
      <Rows list={list} coded={!kind} />
    </section>
  );
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

function Rows({ list, coded = true }: { list: readonly PlainFinding[]; coded?: boolean }) {
  const [whole, setWhole] = useState(false);
  return (
    <>
      <ul className="m-0 list-none p-0">
        {(whole ? list : list.slice(0, FIRST)).map((finding) => (
          <FindingRow key={keyOfFinding(finding)} finding={finding} coded={coded} />
        ))}
      </ul>
      {!whole && list.length > FIRST && (
        <button type="button" className="min-h-7 px-4 text-[12.5px] font-semibold text-accent" onClick={() => setWhole(true)}>
          and {list.length - FIRST} more
        </button>
      )}
    </>
  );
}

function Withdraw({ finding }: { finding: PlainFinding }) {
  const apply = useDocument((d) => d.apply);
  const withdraw = () => apply(withdrawAccepted(finding));
  return (
    <button type="button" className="min-h-6 shrink-0 hover:text-ink" onClick={withdraw}>
      not any more
    </button>
  );
}
