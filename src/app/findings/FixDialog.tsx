import { useCallback, useMemo } from "react";
import { create } from "zustand";
import { changesInWords } from "../../core/compare/words.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import { Button } from "../parts/Button.tsx";
import { Dialog } from "../parts/Dialog.tsx";
import { useDocument } from "../store/document.ts";
import { useFindings } from "../store/findings.ts";
import type { Api } from "../workers/start.ts";
import { useTask } from "../workers/useTask.ts";
import { Changes } from "./Changes.tsx";

/** The fix that is being looked at before it is made. */
export const useFix = create<{ fix: Edit | undefined; look: (fix: Edit) => void; close: () => void }>((set) => ({
  fix: undefined,
  look: (fix) => set({ fix }),
  close: () => set({ fix: undefined }),
}));

/** What a fix would change in the document, and which findings would come and go. */
export function FixDialog() {
  const { fix, close } = useFix();
  return fix ? <Opened fix={fix} close={close} /> : null;
}

function Opened({ fix, close }: { fix: Edit; close: () => void }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const before = useFindings((f) => (f.of === project && !f.running ? f.result : undefined));
  const fixed = useMemo(() => fix.apply(project), [fix, project]);
  const after = useTask(useCallback((api: Api) => api.check(fixed), [fixed]));
  return (
    <Dialog title={`Fix: ${fix.name}`} open onClose={close} wide>
      <h3 className="caption m-0 mb-1 text-[12px]">What it changes</h3>
      <ul className="m-0 mb-3 max-h-48 list-none overflow-y-auto p-0 text-[12.5px]">
        {changesInWords(project, fixed).map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <h3 className="caption m-0 mb-1 text-[12px]">Findings that come and go</h3>
      <div className="mb-3 text-[12.5px]">
        <Changes before={before} after={after} />
      </div>
      <div className="flex gap-2">
        <Button
          tone="main"
          autoFocus
          onClick={() => {
            apply(fix);
            close();
          }}
        >
          Make it so
        </Button>
        <Button onClick={close}>Leave it</Button>
      </div>
    </Dialog>
  );
}
