import { elementOf, nameOf } from "../../core/model/lookup.ts";
import { Button } from "../parts/Button.tsx";
import { Dialog } from "../parts/Dialog.tsx";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { deletionOf, useDeletion } from "./deletion.ts";

/** Deletes what is asked; where more goes with it, that is shown first. */
export function DeleteDialog() {
  const { project, apply } = useDocument();
  const { asked, close } = useDeletion();
  const select = useSelection((s) => s.select);
  if (!asked) return null;
  const { edit, alsoGoes } = deletionOf(project, asked);
  const name = asked.kind === "element" ? (elementOf(project, asked.place, asked.id)?.label ?? asked.id) : nameOf(project, asked.id);
  return (
    <Dialog title={asked.kind === "leg" ? "Delete this leg?" : `Delete “${name}”?`} open onClose={close}>
      {alsoGoes.length > 0 ? (
        <>
          <p className="m-0 mb-1">With it goes:</p>
          <ul className="m-0 mb-3 pl-5">
            {alsoGoes.map((what) => (
              <li key={what}>{what}</li>
            ))}
          </ul>
        </>
      ) : (
        <p className="m-0 mb-3 text-ink-2">Nothing else goes with it. Undo brings it back.</p>
      )}
      <div className="flex gap-2">
        <Button
          tone="main"
          autoFocus
          onClick={() => {
            apply(edit);
            select(undefined);
            close();
          }}
        >
          Delete
        </Button>
        <Button onClick={close}>Keep</Button>
      </div>
    </Dialog>
  );
}
