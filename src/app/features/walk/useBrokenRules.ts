import { useEffect, useState } from "react";
import type { Project } from "../../../core/model/schema.ts";
import { useWalk } from "../../session/hooks.ts";

/** Nothing is broken. */
const NONE: ReadonlyMap<number, readonly string[]> = new Map();

/** By number of a step of the walk the names of the team's rules that it breaks; 0 is where it begins. Worked out only where there are rules. */
export function useBrokenRules(project: Project): ReadonlyMap<number, readonly string[]> {
  const { start, steps, begun } = useWalk();
  const [broken, setBroken] = useState(NONE);
  const rules = project.rules !== undefined && project.rules.length > 0;
  useEffect(() => {
    if (!rules || !start) return setBroken(NONE);
    let wanted = true;
    void import("../../../core/insight/rules/watch.ts").then(({ brokenAlong }) => {
      if (!wanted) return;
      const events = steps.map(({ event }) => event);
      const found = brokenAlong(project, start, events, begun === undefined);
      setBroken(new Map([...found].map(([step, all]) => [step, all.map(({ name }) => name)])));
    });
    return () => {
      wanted = false;
    };
  }, [project, rules, start, steps, begun]);
  return broken;
}
