import { useCallback, useMemo, useRef } from "react";
import type { Checked, HandedFile } from "../../../core/handoff/handed.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { WorkerClient } from "../../worker/client.ts";
import { inWorker } from "../../worker/start.ts";
import { type Task, useTask } from "../../worker/useTask.ts";

/** Makes hand-offs in a worker, off the page: the one that is chosen, and others when asked for. A newer one stops an older. */
export function useHandoff(project: Project, chosen: string | undefined, checked: Checked) {
  const work = useMemo(
    () => (chosen === undefined ? undefined : (worker: WorkerClient) => worker.ask("handOff", [project, [chosen], checked])),
    [project, chosen, checked],
  );
  const task: Task<HandedFile[]> = useTask(work);
  // What was made before is looked at until what is made instead is there.
  const last = useRef<{ of: string | undefined; files: HandedFile[] }>({ of: undefined, files: [] });
  if (task.is === "done") last.current = { of: chosen, files: task.value };
  const run = useCallback(
    (targets: string[], { pictures, ...known }: Partial<Checked>) =>
      inWorker((worker) => worker.ask("handOff", [project, targets, { ...checked, ...known, ...(pictures ? { pictures } : {}) }])).done,
    [project, checked],
  );
  return { task, files: chosen !== undefined && last.current.of === chosen ? last.current.files : [], run };
}
