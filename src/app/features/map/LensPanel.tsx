import { lazy, Suspense, useEffect, useState } from "react";
import type { LensChoice, LensView } from "../../../core/map/lenses/lens.ts";
import { LENSES } from "../../../core/map/lenses/names.ts";
import { editTo } from "../../session/actions/linking.ts";
import { useDocument, useLensing, useSelection, useSession } from "../../session/hooks.ts";
import { LensOptions } from "./LensOptions.tsx";

const LensChart = lazy(async () => ({ default: (await import("./LensChart.tsx")).LensChart }));

/** Places that are listed at once. */
const LISTED = 60;

/** The lens through which the map is seen: its question, what stands out, its legend, how it is distributed, and a list. */
export function LensPanel() {
  const { choice, view, error, choose } = useLensing();
  const lens = LENSES.find(({ id }) => id === choice.lens);
  return (
    <aside aria-label="Lens" className="flex min-h-0 flex-col gap-3 overflow-y-auto border-hairline border-l bg-sheet px-3 pt-8 pb-3 text-[12.5px]">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="caption m-0 text-[14px]">{lens?.name}</h2>
        <button
          type="button"
          className="min-h-6 min-w-6 text-ink-2 hover:text-ink"
          aria-label="Without a lens"
          title="Without a lens"
          onClick={() => choose({ lens: "findings" })}
        >
          ×
        </button>
      </div>
      <LensOptions choice={choice} />
      {error !== undefined && (
        <p role="alert" className="m-0 text-urgent">
          This could not be worked out: {error}
        </p>
      )}
      {view ? <Answer view={view} choice={choice} /> : error === undefined && <p className="m-0 text-ink-2">Looking…</p>}
    </aside>
  );
}

function Answer({ view, choice }: { view: LensView; choice: LensChoice }) {
  const select = useSelection((s) => s.select);
  const [more, setMore] = useState(false);
  const listed = more ? view.list : view.list.slice(0, LISTED);
  return (
    <>
      <p className="m-0 font-semibold">{view.question}</p>
      <Considered choice={choice} />
      <ul className="m-0 list-none p-0">
        {view.extremes.map((says) => (
          <li key={says} className="mb-1">
            {says}
          </li>
        ))}
      </ul>
      <dl className="m-0 grid grid-cols-[16px_1fr_auto] items-center gap-x-2 gap-y-1" aria-label="Legend">
        {view.legend.map(({ tone, says, count }) => (
          <div key={says} className="contents">
            <dt className="h-3.5 w-4 border border-ink-2" style={{ background: colourOf(tone), borderStyle: tone === "none" ? "dashed" : "solid" }}>
              <span className="sr-only">{tone}</span>
            </dt>
            <dd className="m-0">{says}</dd>
            <dd className="m-0 font-mono text-[11px] text-ink-2">{count}</dd>
          </div>
        ))}
      </dl>
      {view.chart && (
        <Suspense fallback={<div className="h-24" />}>
          <LensChart chart={view.chart} />
        </Suspense>
      )}
      <ul className="m-0 list-none border-hairline border-t p-0" aria-label="What it shows">
        {listed.map(({ place, says, note }, i) => (
          <li key={`${i} ${place} ${says}`}>
            <button
              type="button"
              disabled={place === undefined}
              className="flex min-h-6 w-full items-baseline justify-between gap-2 border-hairline border-b py-0.5 text-left enabled:hover:text-accent"
              onClick={() => place !== undefined && select({ kind: "place", id: place })}
            >
              <span className="min-w-0 truncate" title={says}>
                {says}
              </span>
              <span className="max-w-[60%] shrink-0 truncate text-[11px] text-ink-2" title={note}>
                {note}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {view.list.length > listed.length && (
        <button type="button" className="min-h-6 text-left font-semibold text-accent" onClick={() => setMore(true)}>
          {view.list.length - listed.length} more
        </button>
      )}
    </>
  );
}

/** The colour of a tone, as the map has it. */
export function colourOf(tone: string): string {
  const named: Record<string, string> = { good: "var(--s2)", warm: "var(--warm-soft)", urgent: "var(--urgent-soft)", none: "var(--paper)" };
  return named[tone] ?? `var(--${tone})`;
}

/** While a target is picked: what leading to the one that is aimed at would change of how far things are. */
function Considered({ choice }: { choice: LensChoice }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const considered = useLensing((l) => l.considered);
  const { linking, aim } = useSelection();
  const [says, setSays] = useState<readonly string[]>();
  useEffect(() => {
    setSays(undefined);
    const edit = choice.lens === "reach" && linking && aim !== undefined ? editTo(session, linking, aim) : undefined;
    if (!edit) return;
    let gone = false;
    considered(project, edit).then(
      (told) => !gone && setSays(told),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [session, project, choice, linking, aim, considered]);
  if (!says) return null;
  return (
    <div className="border-accent border-l-2 pl-2" role="status">
      <p className="m-0 font-semibold">With this leg</p>
      {says.map((line) => (
        <p key={line} className="m-0">
          {line}
        </p>
      ))}
    </div>
  );
}
