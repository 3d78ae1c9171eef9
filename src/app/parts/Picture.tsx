import { useMemo } from "react";
import { pileOf } from "../../core/insight/preview.ts";
import { whatIf } from "../../core/insight/whatif.ts";
import { nameOf } from "../../core/model/lookup.ts";
import type { Move, Project } from "../../core/model/schema.ts";
import { branchNode, topBranch } from "../../core/semantics/state.ts";
import { useWalkState } from "../session/hooks.ts";

/** The stack before and after, as small cards; the one that shows is in the accent. */
export function Picture({ project, from, move }: { project: Project; from: string; move: Move }) {
  const at = useWalkState();
  const { before, branch, after, says } = useMemo(() => whatIf(project, from, move, at), [project, from, move, at]);
  const over = after && topBranch(after) > 0 ? nameOf(project, after.layers[topBranch(after) - 1]?.at ?? "") : undefined;
  return (
    <div className="flex items-end gap-3" aria-hidden="true">
      <Pile names={pileOf(before, branch).map((id) => nameOf(project, id))} says="before" />
      <span className="pb-4 text-ink-2">→</span>
      {after ? (
        <Pile
          names={pileOf(after).map((id) => nameOf(project, id))}
          says={over ? `after, over the page: ${over}` : `after${branchNode(after, topBranch(after)) === branchNode(before, branch) ? ", the same" : ""}`}
          now
        />
      ) : (
        <span className="pb-3 text-[11.5px] text-ink-2">{says}</span>
      )}
    </div>
  );
}

function Pile({ names, says, now }: { names: string[]; says: string; now?: boolean }) {
  return (
    <div>
      {[...names].reverse().map((name, i) => (
        <div
          key={i}
          className={`mt-[2px] w-28 truncate border px-1 text-[11px] ${i === 0 ? (now ? "border-accent bg-accent text-on-accent" : "border-ink bg-band") : "border-ink-2 bg-sheet"}`}
        >
          {name}
        </div>
      ))}
      <p className="m-0 text-[10.5px] text-ink-2">{says}</p>
    </div>
  );
}
