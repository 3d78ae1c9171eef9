import { useCallback, useEffect, useState } from "react";
import type { Checked, HandedFile } from "../../core/handoff/target.ts";
import type { Project } from "../../core/model/schema.ts";
import { startWorker } from "../workers/start.ts";

/** Makes hand-offs in a worker, off the page: the one that is chosen, and others when asked for. A newer one stops an older. */
export function useHandoff(project: Project, chosen: string | undefined, checked: Checked) {
  const [made, setMade] = useState<{ of: string; files: HandedFile[] }>();
  const [working, setWorking] = useState(false);
  useEffect(() => {
    if (chosen === undefined) return;
    const { api, stop } = startWorker();
    setWorking(true);
    void api.handOff(project, [chosen], checked).then((files) => {
      setMade({ of: chosen, files });
      setWorking(false);
      stop();
    });
    return stop;
  }, [project, chosen, checked]);
  const run = useCallback(
    async (targets: string[]) => {
      const { api, stop } = startWorker();
      const files = await api.handOff(project, targets, checked);
      stop();
      return files;
    },
    [project, checked],
  );
  return { files: chosen !== undefined && made?.of === chosen ? made.files : [], working, run };
}
