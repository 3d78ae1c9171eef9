import { useEffect, useRef, useState } from "react";

/** How many cards are added to the drawing in one frame, so that panning and zooming stay smooth while more come into view. */
const A_FRAME = 4;

/** The ids to draw: what is wanted, a few more in each frame until all are there. The first time, all at once. */
export function useGradually(wanted: readonly string[]): ReadonlySet<string> {
  const [shown, setShown] = useState<ReadonlySet<string>>(() => new Set(wanted));
  const begun = useRef(wanted.length > 0);
  useEffect(() => {
    let frame = 0;
    const go = () => {
      setShown((now) => {
        const next = nextShown(now, wanted, begun.current ? A_FRAME : wanted.length);
        begun.current ||= wanted.length > 0;
        if (next !== now && next.size < wanted.length) frame = requestAnimationFrame(go);
        return next;
      });
    };
    go();
    return () => cancelAnimationFrame(frame);
  }, [wanted]);
  return shown;
}

/** What is shown next: nothing that is no longer wanted, and a few more of what is. */
function nextShown(now: ReadonlySet<string>, wanted: readonly string[], more: number): ReadonlySet<string> {
  const missing = wanted.filter((id) => !now.has(id));
  const kept = wanted.length - missing.length;
  if (missing.length === 0 && kept === now.size) return now;
  const adding = new Set(missing.slice(0, more));
  return new Set(wanted.filter((id) => now.has(id) || adding.has(id)));
}
