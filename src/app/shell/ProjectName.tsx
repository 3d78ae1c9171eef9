import { changeProject } from "../../core/model/edits/change.ts";
import { useDocument, useRenaming } from "../session/hooks.ts";

import { PROJECT_NAME } from "../session/renaming.ts";
import { NameField } from "../ui/NameField.tsx";

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
          className="block w-full max-w-72 truncate border-b border-transparent text-left hover:border-ink-2"
          onClick={() => begin(PROJECT_NAME)}
        >
          {project.name || "without a name"}
        </button>
      </h1>
    );
  return (
    <NameField
      label="Name of the project"
      name={project.name}
      className="h-7 w-56 px-1.5 text-[14px]"
      onName={(name) => {
        end();
        if (name !== undefined && name !== "") apply(changeProject({ name }));
      }}
    />
  );
}
