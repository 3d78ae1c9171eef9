import { useLayoutEffect } from "react";

/** Keys besides characters that mean something in the fields that are waited for. */
const PLAYED = ["Enter", "Escape", "Backspace", "ArrowUp", "ArrowDown"];

let typed: string[] = [];

/** What was typed and nobody has taken yet, which is then taken. */
export function takeTyped(): string[] {
  const taken = typed;
  typed = [];
  return taken;
}

/** Stands where a part of the page is still being loaded that people type into, and keeps what they type meanwhile. */
export function TypedAhead() {
  useLayoutEffect(() => {
    typed = [];
    const note = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.length !== 1 && !PLAYED.includes(event.key)) return;
      typed.push(event.key);
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener("keydown", note, true);
    return () => {
      window.removeEventListener("keydown", note, true);
      // A field that stands now has taken it already; nothing typed for this part is for one that comes later.
      queueMicrotask(() => {
        typed = [];
      });
    };
  }, []);
  return null;
}
