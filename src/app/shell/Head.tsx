import { lazy, Suspense } from "react";
import { Link, NavLink } from "react-router";
import { useDocument, useSession, useSheets } from "../session/hooks.ts";
import { db } from "../session/storage/db.ts";
import { Button } from "../ui/Button.tsx";
import { ThemeToggle } from "../ui/ThemeToggle.tsx";
import { ProjectName } from "./ProjectName.tsx";

const FileState = lazy(async () => ({ default: (await import("./FileState.tsx")).FileState }));

/** The views of a project, each with an address of its own. */
const VIEWS = [
  { path: "", name: "Map" },
  { path: "/walk", name: "Walk" },
  { path: "/pictures", name: "Pictures" },
  { path: "/rules", name: "Rules" },
  { path: "/parameters", name: "Parameters" },
  { path: "/versions", name: "Versions" },
  { path: "/hand-off", name: "Hand-off" },
];

/** The project's name, its views, whether it is saved, and what concerns all of it. */
export function Head() {
  const { id } = useSession();
  const open = useSheets((s) => s.open);
  const { project, saving, undoName, redoName, undo, redo, error: failed } = useDocument();
  const error = failed ?? (db.refused && `not saved: ${db.refused}`);
  return (
    <header className="flex h-11 items-center gap-3 border-b-2 border-ink/60 bg-sheet px-3">
      <Link to="/" className="caption text-[17px] font-extrabold text-ink no-underline" style={{ fontStretch: "125%" }} aria-label="Etape: all projects">
        Etape
      </Link>
      <ProjectName />
      <nav aria-label="Views" className="flex shrink-0 gap-1 whitespace-nowrap">
        {VIEWS.map(({ path, name }) => (
          <NavLink
            key={name}
            to={`/p/${id}${path}`}
            end
            className={({ isActive }) =>
              `min-h-6 px-2 py-1 text-[12.5px] no-underline ${isActive ? "border-b-2 border-accent font-semibold text-ink" : "text-ink-2 hover:text-ink"}`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <span
        role="status"
        data-testid="saved"
        title={error}
        className={`min-w-0 truncate text-[11.5px] ${error ? "max-w-[420px] shrink-[99] text-urgent" : "text-ink-2"}`}
      >
        {error ?? (saving ? "saving…" : "saved")}
      </span>
      <Suspense>
        <FileState />
      </Suspense>
      <div className="ml-auto flex items-center gap-1">
        <Button tone="quiet" disabled={undoName === undefined} title={undoName ? `Undo: ${undoName}` : "Nothing to undo"} onClick={undo}>
          {undoName ? <span className="inline-block max-w-52 truncate align-bottom">Undo: {undoName}</span> : "Undo"}
        </Button>
        <Button tone="quiet" disabled={redoName === undefined} title={redoName ? `Redo: ${redoName}` : "Nothing to redo"} onClick={redo}>
          Redo
        </Button>
        <Button tone="quiet" onClick={() => void import("../session/actions/exporting.ts").then(({ exported }) => exported(id, project))}>
          Export
        </Button>
        <ThemeToggle />
        <Button tone="quiet" onClick={() => open({ is: "palette" })} title="Do or find anything by name: Ctrl K">
          Find, do…
        </Button>
        <Button tone="quiet" onClick={() => open({ is: "keys" })}>
          Keys ?
        </Button>
      </div>
    </header>
  );
}
