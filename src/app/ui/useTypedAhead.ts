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
    let tries = MOST_TRIES;
    let next = setTimeout(function play() {
      const [key] = waiting.current;
      if (key === undefined) return;
      if (key.length > 1 && key !== "Backspace" && !canAct() && tries > 0) {
        tries -= 1;
        next = setTimeout(play, AGAIN);
        return;
      }
      waiting.current.shift();
      if (key.length === 1 || key === "Backspace") flushSync(() => change((text: string) => typing(text, [key])));
      else document.activeElement?.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
      next = setTimeout(play, 0);
    }, 0);
    return () => clearTimeout(next);
  }, []);
  return [text, change];
}

/** Milliseconds after which it is looked again whether a key can act, and how often it is. */
const AGAIN = 20;
const MOST_TRIES = 100;

/** Whether a field has the focus and, where it has a list, one of that is chosen: the list chooses its first a moment after it is drawn. */
function canAct(): boolean {
  const field = document.activeElement;
  const list = field?.closest("[cmdk-root]");
  if (!(field instanceof HTMLInputElement)) return false;
  return !list || list.querySelector("[cmdk-item]") === null || list.querySelector("[cmdk-item][aria-selected=true]") !== null;
}

function typing(text: string, keys: readonly string[]): string {
  return keys.reduce((so, key) => (key === "Backspace" ? so.slice(0, -1) : so + key), text);
}
