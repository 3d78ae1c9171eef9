import { useDeferredValue, useMemo } from "react";
import { linesInto } from "../../../core/lines/into.ts";
import type { Project } from "../../../core/model/schema.ts";

/** What the lines in the field will make, before Enter; or what is wrong with them. */
export function LinesPreview({ project, text, beside }: { project: Project; text: string; beside: string | undefined }) {
  const shown = useDeferredValue(text);
  const made = useMemo(() => linesInto(project, shown, beside), [project, shown, beside]);
  if (!made.ok)
    return (
      <ul role="status" className="m-0 mt-1 list-none border-urgent border-l-2 p-0 pl-2 text-[12px] text-urgent">
        {made.problems.slice(0, 3).map(({ line, column, message }) => (
          <li key={`${line} ${column} ${message}`}>
            {shown.includes("\n") ? `Line ${line}, column ${column}` : `Column ${column}`}: {message}
          </li>
        ))}
      </ul>
    );
  return (
    <p role="status" className="m-0 mt-1 text-[12px]">
      <span className="font-semibold text-accent">Enter makes</span> {made.makes.length === 0 ? "nothing new" : made.makes.join(", ")}
    </p>
  );
}
