import { deletionOf, nameOfChosen } from "../../session/actions/deletion.ts";
import { useDocument, useSelection, useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";

/** Deletes what is asked; where more goes with it, that is shown first. */
export function DeleteDialog() {
  const { project, apply } = useDocument();
  const { sheet, close } = useSheets();
  const select = useSelection((s) => s.select);
  const asked = sheet?.is === "delete" ? sheet.asked : [];
  const [first] = asked;
  if (!first) return null;
  const { edit, alsoGoes, changes } = deletionOf(project, asked);
  const title = asked.length > 1 ? `Delete these ${asked.length}?` : first.kind === "leg" ? "Delete this leg?" : `Delete “${nameOfChosen(project, first)}”?`;
  return (
    <Dialog title={title} open onClose={close}>
      {asked.length > 1 && <p className="m-0 mb-2">{asked.map((one) => nameOfChosen(project, one)).join(", ")}</p>}
      {alsoGoes.length > 0 ? (
        <>
          <p className="m-0 mb-1">With {asked.length > 1 ? "them" : "it"} goes:</p>
          <ul className="m-0 mb-3 pl-5">
            {alsoGoes.map((what) => (
              <li key={what}>{what}</li>
            ))}
          </ul>
        </>
      ) : changes.length > 0 ? null : (
        <p className="m-0 mb-3 text-ink-2">Nothing else goes with {asked.length > 1 ? "them" : "it"}. Undo brings it back.</p>
      )}
      {changes.length > 0 && (
        <>
          <p className="m-0 mb-1">And this changes:</p>
          <ul className="m-0 mb-3 pl-5">
            {changes.map((change) => (
              <li key={change}>{change}</li>
            ))}
          </ul>
        </>
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
