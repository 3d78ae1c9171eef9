import type { Project } from "../../model/schema.ts";
import react from "./react.txt?raw";
import { madeBy } from "./words.ts";

/** A small file for React apps beside the module: a provider, hooks, links and the screens themselves. */
export function reactModule(project: Project): string {
  return `${madeBy(project)}\n\n${react}`;
}
