import { changeProject } from "../../../core/model/edits/change.ts";
import { nameOf } from "../../../core/model/lookup.ts";
import { useDocument } from "../../session/hooks.ts";
import { Choice, TextField } from "../../ui/Field.tsx";
import { CommandButtons } from "./ManyForm.tsx";

/** The project itself, while nothing in it is chosen. */
export function ProjectForm() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const places = [...project.containers.filter((c) => c.kind !== "modal"), ...project.screens].map(({ id }) => ({ value: id, label: nameOf(project, id) }));
  return (
    <details className="text-[12px]">
      <summary className="min-h-6 cursor-default text-ink-2">
        Pick a screen, a row or a line to read and change it. <span className="font-semibold text-ink">About the project</span>
      </summary>
      <div className="flex flex-col gap-2 pt-1">
        <TextField label="Project name" value={project.name} onCommit={(name) => name.trim() !== "" && apply(changeProject({ name: name.trim() }))} />
        <TextField
          label="What it is about"
          value={project.about ?? ""}
          onCommit={(about) => apply(changeProject({ about: about === "" ? undefined : about }))}
        />
        <Choice label="The app starts at" value={project.root} options={places} onChange={(root) => apply(changeProject({ root }))} />
        <CommandButtons ids={["facts", "parameters"]} />
      </div>
    </details>
  );
}
