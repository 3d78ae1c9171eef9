import { useState } from "react";
import { changeProject } from "../../core/model/edits/change.ts";
import { TEXT_LIMIT } from "../../core/model/schema.ts";
import { useOnce } from "../parts/useOnce.ts";
import { useDocument } from "../store/document.ts";
import { useRenaming } from "../store/renaming.ts";

/** The key under which the project's name is being written. */
export const PROJECT_NAME = "the project";

/** The project's name in the head; a click (or F2 while nothing is chosen) writes another. */
export function ProjectName() {
  const { project, apply } = useDocument();
  const { key, begin, end } = useRenaming();
  if (key !== PROJECT_NAME)
    return (
      <h1 className="m-0 min-w-0 shrink font-medium text-[14px]">
        <button
          type="button"
          title={`${project.name}: rename the project`}
          className="max-w-72 truncate border-b border-transparent text-left hover:border-ink-2"
          onClick={() => begin(PROJECT_NAME)}
        >
          {project.name || "without a name"}
        </button>
      </h1>
    );
  return (
    <Writing
      name={project.name}
      done={(name) => {
        end();
        if (name !== undefined && name !== "") apply(changeProject({ name }));
      }}
    />
  );
}

function Writing({ name, done }: { name: string; done: (name: string | undefined) => void }) {
  const [draft, setDraft] = useState(name);
  const answer = useOnce(done);
  return (
    <input
      autoFocus
      aria-label="Name of the project"
      value={draft}
      maxLength={TEXT_LIMIT}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => answer(draft.trim())}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") answer(draft.trim());
        if (event.key === "Escape") answer(undefined);
      }}
      className="h-7 w-56 border border-accent bg-paper px-1.5 text-[14px]"
    />
  );
}
