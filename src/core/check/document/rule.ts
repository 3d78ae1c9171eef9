import type { Project } from "../../model/schema.ts";
import type { Severity } from "../finding.ts";

/** What a rule finds: subjects, the first the main one, and the sentence. */
export interface Found {
  subjects: string[];
  message: string;
}
/** A rule about the document itself. `hubs` are the screens that users must always be able to get back to. */
export interface Rule {
  code: string;
  severity: Severity;
  find: (project: Project, hubs: ReadonlySet<string>) => Found[];
}
