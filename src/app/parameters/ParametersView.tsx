import { useState } from "react";
import { useDocument } from "../store/document.ts";
import { ParameterTable } from "./ParameterTable.tsx";
import { TypesPanel } from "./TypesPanel.tsx";

/** What the screens need to know and who hands it to them; and the record types with their samples. */
export function ParametersView() {
  const project = useDocument((d) => d.project);
  const [shown, setShown] = useState<"handed" | "types">("handed");
  return (
    <div className="flex h-full min-h-0 flex-col bg-paper">
      <div role="tablist" aria-label="Parameters" className="flex shrink-0 gap-4 border-b border-hairline px-4">
        {(
          [
            ["handed", "What is handed on"],
            ["types", `Record types and samples (${project.types.length})`],
          ] as const
        ).map(([key, label]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={shown === key}
            onClick={() => setShown(key)}
            className={`min-h-9 text-[12.5px] ${shown === key ? "border-b-2 border-accent font-semibold" : "text-ink-2 hover:text-ink"}`}
          >
            {label}
          </button>
        ))}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto">{shown === "handed" ? <ParameterTable project={project} /> : <TypesPanel project={project} />}</div>
    </div>
  );
}
