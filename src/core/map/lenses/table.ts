import type { Project } from "../../model/schema.ts";
import { changed } from "./changed.ts";
import { data } from "./data.ts";
import { findings } from "./findings.ts";
import { followed } from "./followed.ts";
import type { LensChoice, LensGiven, LensId, LensView, LensViewer } from "./lens.ts";
import { reach } from "./reach.ts";
import { walked } from "./walked.ts";

/** What each lens does; what it is called is in `names.ts`. */
const VIEWS: Record<LensId, LensViewer> = { findings, reach, walked, changed, data, followed };

/** What a lens answers. */
export function lensView(project: Project, choice: LensChoice, given: LensGiven = {}): LensView {
  return VIEWS[choice.lens](project, choice, given);
}
