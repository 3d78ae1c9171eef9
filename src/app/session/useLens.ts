import { useEffect, useMemo } from "react";
import type { LensGiven, LensView } from "../../core/map/lenses/lens.ts";
import { useDocument, useFindings, useLensing } from "./hooks.ts";

/** Keeps what the lens shows up to date with the document, for as long as a part of the page that shows it is there. */
export function useLensLooking() {
  const project = useDocument((d) => d.project);
  const result = useFindings((f) => (f.of === project && !f.running ? f.result : undefined));
  const { choice, look, older } = useLensing();
  const given = useMemo<LensGiven>(() => {
    if (choice.lens !== "changed" || older?.id !== choice.against) return {};
    const { name, result: was } = older;
    const key = ({ code, subjects }: { code: string; subjects: readonly string[] }) => [code, ...subjects].join(" ");
    if (!was || !result) return { older: { project: older.project, name } };
    const [then, now] = [new Set(was.findings.map(key)), new Set(result.findings.map(key))];
    const news = (list: typeof was.findings, known: ReadonlySet<string>) => list.filter((finding) => !known.has(key(finding))).map(({ message }) => message);
    return { older: { project: older.project, name, came: news(result.findings, then), went: news(was.findings, now) } };
  }, [choice, older, result]);
  useEffect(() => look(project, given), [look, project, given]);
}

/** What the lens shows of places; undefined where the map is seen without one. */
export function useLensView(): LensView | undefined {
  return useLensing((l) => (l.choice.lens === "findings" ? undefined : l.view));
}
