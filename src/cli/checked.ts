import { check } from "../core/check/check.ts";
import type { CheckResult } from "../core/check/finding.ts";
import type { CheckOptions } from "../core/check/options.ts";
import type { Project } from "../core/model/schema.ts";
import { progress } from "./progress.ts";

/** Checks a project for a command, telling on a terminal how far it is. */
export function checked(project: Project, options: CheckOptions = {}): CheckResult {
  const line = progress(`Checking ${project.name}`);
  const result = check(project, { ...options, stop: line.asked });
  line.done();
  return result;
}
