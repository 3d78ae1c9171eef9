import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { takeTyped } from "./typedAhead.tsx";

/** The text of a field that has the focus from the first; what was typed before it was there, Enter and arrows too, happens in it once it is. */
export function useTypedAhead(): [text: string, change: (text: string) => void] {
  const [text, change] = useState("");
  const waiting = useRef<string[]>([]);
  // A first drawing may be thrown away and made again; only what stands takes what was typed, and that while nobody can type between.
  useLayoutEffect(() => {
    const typed = takeTyped();
    if (typed.length === 0) return;
    const acts = typed.findIndex((key) => key.length > 1 && key !== "Backspace");
    const written = acts < 0 ? typed.length : acts;
    change(typing("", typed.slice(0, written)));
    waiting.current = typed.slice(written);
  }, []);
  useEffect(() => {
    // What stands in the field has to be shown before a key can act on it.
    let next = setTimeout(function play() {
      const key = waiting.current.shift();
      if (key === undefined) return;
      if (key.length === 1 || key === "Backspace") flushSync(() => change((text: string) => typing(text, [key])));
      else document.activeElement?.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
      next = setTimeout(play, 0);
    }, 0);
    return () => clearTimeout(next);
  }, []);
  return [text, change];
}

function typing(text: string, keys: readonly string[]): string {
  return keys.reduce((so, key) => (key === "Backspace" ? so.slice(0, -1) : so + key), text);
}
