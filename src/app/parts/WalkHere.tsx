import { useEffect, useMemo, useState } from "react";
import type { Json, Project, Screen } from "../../core/model/schema.ts";
import { argumentsFromText } from "../../core/semantics/values.ts";
import { useDocument, useWalk } from "../session/hooks.ts";
import { Button } from "../ui/Button.tsx";
import { Failed } from "../ui/Failed.tsx";
import type { WorkerClient } from "../worker/client.ts";
import { useTask } from "../worker/useTask.ts";

/** Walks to a screen by the shortest real way; says so where there is none. */
export function WalkHere({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const load = useWalk((w) => w.load);
  const [wanted, setWanted] = useState<Project>();
  const looking = useTask(
    useMemo(
      () => (wanted === project ? async (worker: WorkerClient) => ({ events: await worker.ask("wayTo", [project, screen.id]) }) : undefined),
      [wanted, project, screen.id],
    ),
  );
  const events = looking.is === "done" ? looking.value.events : undefined;
  useEffect(() => {
    if (!events) return;
    load(events);
    setWanted(undefined);
  }, [events, load]);
  return (
    <div>
      <Button tone="main" disabled={looking.is === "running"} onClick={() => setWanted(project)}>
        {looking.is === "running" ? "Looking for a way…" : "Walk from here"}
      </Button>
      {looking.is === "done" && !events && <Place screen={screen} />}
      {looking.is === "failed" && <Failed what="No way was looked for" error={looking.error} onRetry={looking.retry} />}
    </div>
  );
}

/** Where no walk leads to a screen, it can be shown all the same: with what it needs asked for. */
function Place({ screen }: { screen: Screen }) {
  const beginAt = useWalk((w) => w.beginAt);
  return (
    <form
      className="mt-1 flex flex-col gap-1 text-[12px]"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const given = Object.fromEntries(screen.params.map((p): [string, Json] => [p.name, String(data.get(p.name) ?? "")]));
        beginAt(screen.id, argumentsFromText(screen.params, given));
      }}
    >
      <p role="status" className="m-0 text-ink-2">
        No walk leads here, neither by taps nor by a way in. It can be shown all the same{screen.params.length > 0 ? ", with what it needs" : ""}:
      </p>
      {screen.params.map((param) => (
        <label key={param.name} className="flex items-center gap-2 font-mono text-[11.5px]">
          {param.name}
          <input name={param.name} aria-label={param.name} placeholder={param.type} className="h-6 min-w-0 flex-1 border border-hairline bg-paper px-1" />
        </label>
      ))}
      <Button type="submit" className="self-start">
        Show it
      </Button>
    </form>
  );
}
