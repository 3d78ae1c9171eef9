import { useState } from "react";
import { idProblem, type Named, renameId } from "../../../core/model/edits/rename.ts";
import { useDocument, useSelection } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

interface Props {
  kind: string;
  name: string;
  what: Named;
  onDelete: () => void;
}

/** What is selected: its kind, its name, its id (a click changes it, everywhere), and the way to delete it. */
export function Head({ kind, name, what, onDelete }: Props) {
  const [writing, setWriting] = useState(false);
  return (
    <header>
      <div className="flex items-baseline gap-2">
        <h3 className="caption m-0 min-w-0 truncate text-[13px]">{name}</h3>
        <span className="shrink-0 text-[11.5px] text-ink-2">{kind}</span>
        <button
          type="button"
          aria-label={`Change the id ${what.id}`}
          title="Change the id, wherever it is named"
          onClick={() => setWriting(!writing)}
          className="min-h-6 min-w-0 flex-1 truncate text-right font-mono text-[10.5px] text-ink-2 hover:text-ink"
        >
          {what.id}
        </button>
        <Button tone="quiet" className="!px-1 !py-0 text-urgent" onClick={onDelete}>
          Delete
        </Button>
      </div>
      {writing && <IdField key={what.id} what={what} done={() => setWriting(false)} />}
    </header>
  );
}

function IdField({ what, done }: { what: Named; done: () => void }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { selected, select } = useSelection();
  const [draft, setDraft] = useState(what.id);
  const problem = idProblem(project, what, draft);
  const commit = () => {
    if (problem !== undefined) return;
    done();
    if (draft === what.id) return;
    apply(renameId(what, draft));
    if (selected?.id === what.id) select({ ...selected, id: draft });
  };
  return (
    <form
      className="my-1 text-[11.5px] text-ink-2"
      onSubmit={(event) => {
        event.preventDefault();
        commit();
      }}
    >
      <label className="block">
        Id; it follows in legs, expressions and walks
        <input
          autoFocus
          value={draft}
          onChange={(event) => setDraft(event.target.value)}
          onKeyDown={(event) => event.key === "Escape" && done()}
          aria-invalid={problem !== undefined}
          className={`mt-0.5 block h-7 w-full border bg-paper px-1.5 font-mono text-[11.5px] text-ink ${problem ? "border-urgent" : "border-hairline"}`}
        />
      </label>
      {problem && <span className="block text-urgent">{problem}</span>}
    </form>
  );
}
