import { useEffect, useLayoutEffect, useState } from "react";

let typed = "";

/** Stands where a part of the page is still being loaded that people type into, and keeps what they type meanwhile. */
export function TypedAhead() {
  useLayoutEffect(() => {
    typed = "";
    const note = (event: KeyboardEvent) => {
      if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
      typed += event.key;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener("keydown", note, true);
    return () => window.removeEventListener("keydown", note, true);
  }, []);
  return null;
}

/** The text of a field, which begins as what was typed before it was there. */
export function useTypedAhead(): [text: string, change: (text: string) => void] {
  // A first drawing may be thrown away and made again; only what stands has taken it.
  const [text, change] = useState(() => typed);
  useEffect(() => {
    typed = "";
  }, []);
  return [text, change];
}
