import { expose } from "comlink";
import { check } from "../../core/check/check.ts";
import { wayTo } from "../../core/check/way.ts";
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
};
export type CheckApi = typeof api;
expose(api);
