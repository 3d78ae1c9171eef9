import { useEffect } from "react";
import { Link, NavLink, useParams } from "react-router";
import type { Width } from "../../core/model/schema.ts";
import { Keys } from "../commands/Keys.tsx";
import { useOpened } from "../commands/opened.ts";
import { Palette } from "../commands/Palette.tsx";
import { useKeys } from "../commands/useKeys.ts";
import { FixDialog } from "../findings/FixDialog.tsx";
import { Foot } from "../findings/Foot.tsx";
import { HandoffView } from "../handoff/HandoffView.tsx";
import { FactsSheet } from "../inspector/FactsSheet.tsx";
import { Inspector } from "../inspector/Inspector.tsx";
import { WhatIf } from "../inspector/WhatIf.tsx";
import { MapView } from "../map/MapView.tsx";
import { Outline } from "../outline/Outline.tsx";
import { ParametersView } from "../parameters/ParametersView.tsx";
import { Boundary } from "../parts/Boundary.tsx";
import { Button } from "../parts/Button.tsx";
import { afterPaint } from "../store/afterPaint.ts";
import { useDocument } from "../store/document.ts";
import { useFindings } from "../store/findings.ts";
import { useSelection } from "../store/selection.ts";
import { useWalk, useWalkState } from "../store/walk.ts";
import { WalkPanel } from "../walk/WalkPanel.tsx";
import { DeleteDialog } from "./DeleteDialog.tsx";
import { download } from "./download.ts";
import { Notice } from "./Notice.tsx";
import { ProjectName } from "./ProjectName.tsx";
import { ThemeToggle } from "./ThemeToggle.tsx";

/** The columns of the page: the structure with what is chosen in it, the map with half of the window, and the walk, which takes what its device needs. */
const COLUMNS: Record<Width, string> = {
  narrow: "grid-cols-[clamp(250px,24.4vw,340px)_minmax(0,1fr)_326px]",
  middle: "grid-cols-[clamp(250px,24.4vw,340px)_minmax(0,1fr)_410px]",
  wide: "grid-cols-[250px_minmax(0,1fr)_570px]",
};

/** One project: the outline, the map, the walk beside it, and how things stand at the foot. */
export function ProjectPage() {
  const { id = "", view } = useParams();
  const { open, status, project, error, undoName } = useDocument();
  const check = useFindings((f) => f.check);
  useEffect(() => {
    useSelection.getState().select(undefined);
    useWalk.setState({ project: undefined, start: undefined, steps: [], at: 0, reason: undefined, kept: undefined, begun: undefined, time: "passes" });
    return open(id);
  }, [open, id]);
  useEffect(() => {
    if (status !== "ready") return;
    return afterPaint(() => check(project));
  }, [check, status, project]);
  useEffect(() => {
    document.title = status === "ready" ? `${project.name} – Etape` : "Etape";
  }, [status, project.name]);
  const width = useWalkState()?.width ?? "narrow";
  useKeys();
  if (status !== "ready") return <Waiting status={status} error={error} />;
  return (
    <div className="grid h-full min-w-[1024px] grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
      <Head id={id} />
      <div className={`grid min-h-0 grid-rows-[minmax(0,1fr)] ${COLUMNS[width]}`}>
        <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] border-r border-hairline bg-sheet">
          <Boundary name="the outline" of={project}>
            <Outline />
          </Boundary>
          <Chosen />
        </div>
        <main className="relative min-h-0 min-w-0 overflow-hidden">
          <Boundary name={view === "parameters" ? "the parameters" : view === "hand-off" ? "the hand-off" : "the map"} of={`${view} ${undoName}`}>
            {view === "parameters" ? <ParametersView /> : view === "hand-off" ? <HandoffView /> : <MapView />}
          </Boundary>
        </main>
        <div className="min-h-0 overflow-y-auto border-l border-hairline bg-sheet">
          <Boundary name="the walk" of={project}>
            <WalkPanel />
          </Boundary>
        </div>
      </div>
      <Foot />
      <Notice />
      <DeleteDialog />
      <Palette />
      <Keys />
      <FactsSheet />
      <WhatIf />
      <FixDialog />
    </div>
  );
}

/** What is chosen; something else to choose is a new beginning after a failure. */
function Chosen() {
  const selected = useSelection((s) => s.selected);
  return (
    <Boundary name="what is chosen" of={selected}>
      <Inspector />
    </Boundary>
  );
}

/** The views of a project, each with an address of its own. */
const VIEWS = [
  { path: "", name: "Map" },
  { path: "/parameters", name: "Parameters" },
  { path: "/hand-off", name: "Hand-off" },
];

function Head({ id }: { id: string }) {
  const open = useOpened((o) => o.open);
  const { project, saving, undoName, redoName, undo, redo, error } = useDocument();
  return (
    <header className="flex h-11 items-center gap-3 border-b-2 border-ink/60 bg-sheet px-3">
      <Link to="/" className="caption text-[17px] font-extrabold text-ink no-underline" style={{ fontStretch: "125%" }} aria-label="Etape: all projects">
        Etape
      </Link>
      <ProjectName />
      <nav aria-label="Views" className="flex gap-1">
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
      <span role="status" data-testid="saved" title={error} className={`min-w-0 truncate text-[11.5px] ${error ? "max-w-[420px] text-urgent" : "text-ink-2"}`}>
        {error ? `not saved: ${error}` : saving ? "saving…" : "saved"}
      </span>
      <div className="ml-auto flex items-center gap-1">
        <Button tone="quiet" disabled={undoName === undefined} title={undoName ? `Undo: ${undoName}` : "Nothing to undo"} onClick={undo}>
          {undoName ? <span className="inline-block max-w-52 truncate align-bottom">Undo: {undoName}</span> : "Undo"}
        </Button>
        <Button tone="quiet" disabled={redoName === undefined} title={redoName ? `Redo: ${redoName}` : "Nothing to redo"} onClick={redo}>
          Redo
        </Button>
        <Button tone="quiet" onClick={() => download(project)}>
          Export
        </Button>
        <ThemeToggle />
        <Button tone="quiet" onClick={() => open("palette")} title="Do or find anything by name: Ctrl K">
          Find, do…
        </Button>
        <Button tone="quiet" onClick={() => open("keys")}>
          Keys ?
        </Button>
      </div>
    </header>
  );
}

function Waiting({ status, error }: { status: string; error: string | undefined }) {
  if (status === "loading") return <p className="p-8 text-ink-2">Opening…</p>;
  return (
    <div className="mx-auto max-w-xl p-10">
      <h1 className="caption text-[16px]">{status === "missing" ? "There is no such project in this browser." : "The project can not be opened."}</h1>
      {error && <p>{error}</p>}
      <Link to="/" className="font-semibold text-accent">
        To all projects
      </Link>
    </div>
  );
}
