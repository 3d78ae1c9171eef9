import { useEffect, useMemo } from "react";
import { since } from "../../core/check/compareFindings.ts";
import type { LensGiven, LensView } from "../../core/map/lenses/lens.ts";
import { resultOf } from "./findings.ts";
import { useDocument, useFindings, useFollowing, useLensing } from "./hooks.ts";

/** Keeps what the lens shows up to date with the document, for as long as a part of the page that shows it is there. */
export function useLensLooking() {
  const project = useDocument((d) => d.project);
  const result = useFindings((f) => resultOf(f, project));
  const { choice, look, older } = useLensing();
  const { report, now } = useFollowing();
  const given = useMemo<LensGiven>(() => {
    if (choice.lens === "followed") return report ? { log: { ...report, now } } : {};
    if (choice.lens !== "changed" || older?.id !== choice.against) return {};
    const { name, result: was } = older;
    if (!was || !result) return { older: { project: older.project, name } };
    const { came, went } = since(was.findings, result.findings);
    return { older: { project: older.project, name, came: came.map(({ message }) => message), went: went.map(({ message }) => message) } };
  }, [choice, older, result, report, now]);
  useEffect(() => look(project, given), [look, project, given]);
}

/** What the lens shows of places; undefined where the map is seen without one. */
export function useLensView(): LensView | undefined {
  return useLensing((l) => (l.choice.lens === "findings" ? undefined : l.view));
}
