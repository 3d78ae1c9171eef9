import { useCallback, useMemo, useState } from "react";
import { whatIf } from "../../../core/insight/whatif.ts";
import { changeLeg } from "../../../core/model/edits/change.ts";
import { applyEdit } from "../../../core/model/edits/kinds.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Leg, Project } from "../../../core/model/schema.ts";
import { Changes } from "../../parts/Changes.tsx";
import { Picture } from "../../parts/Picture.tsx";
import { goAnotherWay } from "../../session/actions/goAnotherWay.ts";
import { chosenWay, type Way, waysOf } from "../../session/actions/moveKinds.ts";
import { checkedAside } from "../../session/findings.ts";
import { useDocument, useFindings, useSelection, useSession, useSheets, useWalkState } from "../../session/hooks.ts";
import { Dialog } from "../../ui/Dialog.tsx";
import type { WorkerClient } from "../../worker/client.ts";
import type { PlainResult } from "../../worker/protocol.ts";
import { type Task, useTask } from "../../worker/useTask.ts";

/** What if: the ways a leg can go, side by side, with what Back and the lead do then and which findings come and go. */
export function WhatIf() {
  const { sheet, close } = useSheets();
  const project = useDocument((d) => d.project);
  const selected = useSelection((s) => s.selected);
  const leg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
  if (sheet?.is !== "whatIf" || !leg) return null;
  return <Opened key={leg.id} project={project} leg={leg} close={close} />;
}

function Opened({ project, leg, close }: { project: Project; leg: Leg; close: () => void }) {
  const session = useSession();
  const now = useFindings((f) => (f.running ? undefined : f.result));
  const at = useWalkState();
  const { real } = whatIf(project, leg.from, { kind: "back" }, at);
  const ways = useMemo(() => waysOf(project, leg), [project, leg]);
  const resultOf = useChecks(project, leg, ways);
  const take = (way: Way | undefined) => {
    if (!way) return;
    goAnotherWay(session, leg, way.move);
    close();
  };
  return (
    <Dialog title={`What if the leg from “${nameOf(project, leg.from)}” went another way?`} open onClose={close} widest>
      <table className="w-full border-collapse text-left align-top text-[12.5px]" onKeyDown={(event) => take(ways[Number(event.key) - 1])}>
        <thead className="text-[11.5px] text-ink-2">
          <tr>
            <th className="font-normal">Way</th>
            <th className="font-normal">The stack</th>
            <th className="font-normal">Back then</th>
            <th className="font-normal">Back or Up in the bar then</th>
            <th className="font-normal">Findings</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((way, i) => {
            const chosen = chosenWay(project, leg) === way.key;
            const { back, lead } = whatIf(project, leg.from, way.move, at);
            return (
              <tr key={way.key} className={`border-t border-hairline align-top ${chosen ? "bg-accent-soft" : ""}`}>
                <td className="py-2 pr-3 pl-1">
                  <button
                    type="button"
                    autoFocus={i === 0}
                    className="min-h-7 border border-ink px-2 text-left font-medium hover:bg-band"
                    aria-current={chosen}
                    onClick={() => take(way)}
                  >
                    <span className="mr-1 font-mono text-[10.5px] text-ink-2">{i + 1}</span>
                    {way.label}
                    {way.says !== undefined && <span className="ml-1 font-normal text-ink-2">{way.says}</span>}
                  </button>
                  {chosen && <span className="block text-[11px] text-ink-2">as it is</span>}
                </td>
                <td className="py-2 pr-3">
                  <Picture project={project} from={leg.from} move={way.move} />
                </td>
                <td className="py-2 pr-3">{back}</td>
                <td className="py-2 pr-3">{lead}</td>
                <td className="py-2">{chosen ? <span className="text-ink-2">those there are</span> : <Changes before={now} after={resultOf(way)} />}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="m-0 mt-3 text-[11.5px] text-ink-2">
        A digit takes one.{" "}
        {real
          ? "Tried where the walk stands, or where people first meet it."
          : `Nothing leads to “${nameOf(project, leg.from)}” yet: tried on what a link to it would lay down.`}
      </p>
    </Dialog>
  );
}

/** The findings for each way, one after another in a worker of its own, which goes with the sheet. */
function useChecks(project: Project, leg: Leg, ways: readonly Way[]): (way: Way) => Task<PlainResult> {
  const [results, setResults] = useState<ReadonlyMap<string, PlainResult>>(new Map());
  const work = useCallback(
    async (worker: WorkerClient) => {
      for (const way of ways) {
        if (chosenWay(project, leg) === way.key) continue;
        const result = await checkedAside(worker, applyEdit(project, changeLeg(project, leg, { move: way.move })));
        setResults((known) => new Map(known).set(way.key, result));
      }
    },
    [project, leg, ways],
  );
  const task = useTask(work);
  return (way: Way): Task<PlainResult> => {
    const value = results.get(way.key);
    return value ? { is: "done", value } : task.is === "failed" ? task : { is: "running" };
  };
}
