import { expose } from "comlink";
import { check } from "../../core/check/check.ts";
import { wayTo } from "../../core/check/way.ts";
import { type Checked, type HandedFile, targetOf } from "../../core/handoff/target.ts";
import { readProjectData } from "../../core/model/read.ts";
import type { NavEvent } from "../../core/model/schema.ts";
import { type PlainResult, plain } from "./plain.ts";

/** Checks a document off the main thread. Fixes are functions, so the page works them out anew. */
const api = {
  check(data: unknown): PlainResult | undefined {
    const result = readProjectData(data);
    return result.ok ? plain(check(result.project)) : undefined;
  },
  wayTo(data: unknown, screen: string): NavEvent[] | undefined {
    const result = readProjectData(data);
    return result.ok ? wayTo(result.project, screen) : undefined;
  },
  /** The files of some hand-offs, in the order of the targets named. */
  handOff(data: unknown, targets: string[], checked: Checked): HandedFile[] {
    const result = readProjectData(data);
    return result.ok ? targets.flatMap((id) => targetOf(id)?.files(result.project, checked) ?? []) : [];
  },
};
export type CheckApi = typeof api;
expose(api);
