import { useState } from "react";
import { Link } from "react-router";
import { deleteProject, type Listed } from "../../session/storage/projects.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";

/** The projects kept in this browser, newest first. */
export function ProjectList({ rows, onChange }: { rows: readonly Listed[]; onChange: () => void }) {
  const [asked, setAsked] = useState<Listed>();
  return (
    <>
      <ul className="m-0 list-none p-0">
        {rows.map((row) => (
          <li key={row.id} className="flex items-baseline gap-4 border-b border-hairline py-1.5">
            <Link to={`/p/${row.id}`} className="min-h-6 min-w-0 flex-1 truncate font-medium text-[14px] text-ink no-underline hover:underline">
              {row.name || "without a name"}
            </Link>
            {row.exportedAt !== undefined && <span className="text-[12px] text-ink-2">exported {new Date(row.exportedAt).toLocaleDateString()}</span>}
            {row.updatedAt !== undefined && <time className="text-[12px] text-ink-2">{new Date(row.updatedAt).toLocaleString()}</time>}
            <Button tone="quiet" aria-label={`Delete ${row.name}`} onClick={() => setAsked(row)}>
              Delete
            </Button>
          </li>
        ))}
      </ul>
      {asked && (
        <Dialog title={`Delete “${asked.name}” from this browser?`} open onClose={() => setAsked(undefined)}>
          <p className="m-0 mb-3">This cannot be undone. Export it first to keep it.</p>
          <div className="flex gap-2">
            <Button
              tone="main"
              autoFocus
              onClick={async () => {
                await deleteProject(asked.id);
                setAsked(undefined);
                onChange();
              }}
            >
              Delete
            </Button>
            <Button onClick={() => setAsked(undefined)}>Keep</Button>
          </div>
        </Dialog>
      )}
    </>
  );
}
