import { elementOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { useSelection } from "../../session/hooks.ts";

import type { PlainFinding } from "../../worker/protocol.ts";

/** For an element that leads nowhere yet, the way on: picking where it leads. */
export function LeadOn({ project, finding }: { project: Project; finding: PlainFinding }) {
  const { select, link } = useSelection();
  const [place = "", element = ""] = finding.subjects;
  if (finding.code !== "idle-element" || !elementOf(project, place, element)) return null;
  const lead = () => {
    select({ kind: "element", place, id: element });
    link({ place, element });
  };
  return (
    <button type="button" className="min-h-6 shrink-0 font-semibold text-accent hover:underline" onClick={lead}>
      Lead it somewhere…
    </button>
  );
}
