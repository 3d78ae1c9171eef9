import { useMemo, useState } from "react";
import { runWalk, walkTrouble } from "../../../core/insight/walks.ts";
import { addWalk, expectInWalk, removeWalk } from "../../../core/model/edits/walks.ts";
import { planOf } from "../../../core/plan/planOf.ts";
import { stateLine } from "../../../core/semantics/line.ts";
import { playFromStart } from "../../session/actions/playing.ts";
import { useDocument, useWalk, useWalkState, useWalkStore } from "../../session/hooks.ts";
import { SPEEDS, type Speed } from "../../session/walk.ts";
import { Button } from "../../ui/Button.tsx";

/** The walks kept in the document: each replayed at every edit, played on the device, with what it expects. */
export function Walks() {
  const { project, apply } = useDocument();
  const { steps, at, kept, load, begun, speed, setSpeed } = useWalk();
  const state = useWalkState();
  const walkStore = useWalkStore();
  const [naming, setNaming] = useState(false);
  const results = useMemo(() => new Map(project.walks.map((walk) => [walk.id, runWalk(project, walk)])), [project]);
  const failing = [...results.values()].filter((result) => !result.passed).length;
  const loaded = project.walks.find((walk) => walk.id === kept);
  const expected = loaded?.expect?.find((e) => e.after === at)?.shows;
  return (
    <section aria-label="Kept walks" className="border-t border-hairline pt-2">
      <header className="mb-1 flex items-center gap-2">
        <h3 className="caption m-0 flex-1">
          Walks
          {project.walks.length > 0 && (
            <span data-testid="walks" className={`ml-2 font-normal ${failing > 0 ? "text-urgent" : "text-proved"}`}>
              {failing > 0 ? `${failing} of ${project.walks.length} broken` : `all ${project.walks.length} pass`}
            </span>
          )}
        </h3>
        <select
          aria-label="Speed"
          value={speed}
          onChange={(event) => setSpeed(event.target.value as Speed)}
          className="h-6 border border-hairline bg-paper text-[11.5px]"
        >
          {Object.keys(SPEEDS).map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </header>
      {project.walks.map((walk) => {
        const result = results.get(walk.id);
        return (
          <div key={walk.id} className={`text-[12px] ${walk.id === kept ? "bg-accent-soft" : ""}`}>
            <div className="flex items-baseline gap-2 px-1">
              <span aria-hidden="true" className={result?.passed ? "text-proved" : "text-urgent"}>
                {result?.passed ? "✓" : "✗"}
              </span>
              <button
                type="button"
                className="min-h-6 min-w-0 flex-1 truncate text-left hover:underline"
                title="Play it on the device"
                onClick={() => {
                  load(walk.events, { at: 0, kept: walk.id });
                  playFromStart(walkStore);
                }}
              >
                {walk.name || walk.id} <span className="text-ink-2">{walk.events.length} steps</span>
              </button>
              <button
                type="button"
                aria-label={`Delete the walk ${walk.name}`}
                className="min-h-6 min-w-6 text-ink-2 hover:text-urgent"
                onClick={() => apply(removeWalk(project, walk.id))}
              >
                ×
              </button>
            </div>
            {result && !result.passed && (
              <button
                type="button"
                className="block w-full border-l-2 border-urgent px-2 text-left text-[11.5px] break-words"
                onClick={() => load(walk.events, { at: result.broken?.step ?? result.failed[0]?.after ?? 0, kept: walk.id })}
              >
                {walkTrouble(result)}
              </button>
            )}
          </div>
        );
      })}
      {loaded && state && (
        <p className="m-0 mt-1 text-[12px]">
          {expected === undefined
            ? "Nothing is expected here."
            : expected === stateLine(planOf(project), state)
              ? "This is what is expected here."
              : "Something else is expected here."}{" "}
          <Button tone="link" onClick={() => apply(expectInWalk(project, loaded.id, at, stateLine(planOf(project), state)))}>
            Expect what shows
          </Button>
        </p>
      )}
      {naming ? (
        <form
          className="mt-1 flex gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            const name = String(new FormData(event.currentTarget).get("name")).trim();
            if (name === "") return;
            const events = steps.slice(0, at).map((one) => one.event);
            const made = addWalk(project, name, events);
            apply(made.edit);
            load(events, { kept: made.id });
            setNaming(false);
          }}
        >
          <input
            name="name"
            autoFocus
            aria-label="Name of the walk"
            placeholder="First visit"
            className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 text-[12.5px]"
            onKeyDown={(event) => event.key === "Escape" && setNaming(false)}
          />
          <Button type="submit">Keep</Button>
        </form>
      ) : (
        <Button
          tone="link"
          disabled={at === 0 || begun !== undefined}
          title={begun ? "A walk that is kept begins with a launch" : undefined}
          onClick={() => setNaming(true)}
        >
          {at === 0 ? "Walk a few steps, then keep them here" : `Keep ${at === 1 ? "this step" : `these ${at} steps`} as a walk…`}
        </Button>
      )}
    </section>
  );
}
