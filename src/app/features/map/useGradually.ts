import { useEffect, useRef, useState } from "react";

/** How many cards are added to the drawing in one frame, so that panning and zooming stay smooth while more come into view. */
const A_FRAME = 3;
/** How many times as many may go in one frame. */
const GOING = 4;

/** The ids to draw: what is wanted, a few more and a few fewer in each frame until it is just that. The first time, all at once. */
export function useGradually(wanted: readonly string[], aFrame = A_FRAME): ReadonlySet<string> {
  const [shown, setShown] = useState<ReadonlySet<string>>(() => new Set(wanted));
  const begun = useRef(wanted.length > 0);
  useEffect(() => {
    let frame = 0;
    const go = () => {
      setShown((now) => {
        const next = nextShown(now, wanted, begun.current ? aFrame : wanted.length);
        begun.current ||= wanted.length > 0;
        if (next !== now) frame = requestAnimationFrame(go);
        return next;
      });
    };
    go();
    return () => cancelAnimationFrame(frame);
  }, [wanted, aFrame]);
  return shown;
}

/** What is shown next: a few less of what is no longer wanted, and a few more of what is. */
function nextShown(now: ReadonlySet<string>, wanted: readonly string[], more: number): ReadonlySet<string> {
  const missing = wanted.filter((id) => !now.has(id));
  const want = new Set(wanted);
  const going = [...now].filter((id) => !want.has(id));
  if (missing.length === 0 && going.length === 0) return now;
  const next = new Set(now);
  for (const id of going.slice(0, more * GOING)) next.delete(id);
  for (const id of missing.slice(0, more)) next.add(id);
  return next;
}
