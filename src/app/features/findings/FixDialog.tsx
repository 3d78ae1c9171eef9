import { useCallback, useMemo } from "react";
import { changesInWords } from "../../../core/compare/words.ts";
import type { Edit } from "../../../core/model/edits/edit.ts";
import { applyEdit } from "../../../core/model/edits/kinds.ts";
import { Changes } from "../../parts/Changes.tsx";
import { checkedAside, resultOf } from "../../session/findings.ts";
import { useDocument, useFindings, useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import type { WorkerClient } from "../../worker/client.ts";
import { useTask } from "../../worker/useTask.ts";

/** What a fix would change in the document, and which findings would come and go. */
export function FixDialog() {
  const { sheet, close } = useSheets();
  return sheet?.is === "fix" ? <Opened fix={sheet.fix} close={close} /> : null;
}

function Opened({ fix, close }: { fix: Edit; close: () => void }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const before = useFindings((f) => resultOf(f, project));
  const fixed = useMemo(() => applyEdit(project, fix), [fix, project]);
  const after = useTask(useCallback((worker: WorkerClient) => checkedAside(worker, fixed), [fixed]));
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
