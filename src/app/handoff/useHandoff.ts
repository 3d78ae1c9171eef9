import { useCallback, useMemo } from "react";
import type { Checked, HandedFile } from "../../core/handoff/target.ts";
import type { Project } from "../../core/model/schema.ts";
import { type Api, inWorker } from "../workers/start.ts";
import { type Task, useTask } from "../workers/useTask.ts";

/** Makes hand-offs in a worker, off the page: the one that is chosen, and others when asked for. A newer one stops an older. */
export function useHandoff(project: Project, chosen: string | undefined, checked: Checked) {
  const work = useMemo(() => (chosen === undefined ? undefined : (api: Api) => api.handOff(project, [chosen], checked)), [project, chosen, checked]);
  const task: Task<HandedFile[]> = useTask(work);
  const run = useCallback((targets: string[]) => inWorker((api) => api.handOff(project, targets, checked)).done, [project, checked]);
  return { task, run };
}
