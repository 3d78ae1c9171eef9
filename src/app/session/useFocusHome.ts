import { useEffect } from "react";
import { useSession } from "./hooks.ts";

/** Milliseconds after which it is looked again for what is to have the focus first, and how often it is. */
const AGAIN = 50;
const MOST_TRIES = 100;

/**
 * The focus is never left on the page's body: when what had it is gone (a sheet that was closed, something that was deleted), the
 * outline has it. An empty project begins in the field in which screens are named.
 */
export function useFocusHome() {
  const session = useSession();
  useEffect(() => {
    const { screens, legs } = session.document.getState().project;
    const focus = (id: string) => {
      const home = document.getElementById(id);
      home?.focus({ preventScroll: true });
      return home !== null;
    };
    // The outline may still be on its way; a view that has none leaves the focus where it is.
    let tries = MOST_TRIES;
    const begin = () => {
      const isThere = focus(screens.length < 2 && legs.length === 0 ? "find" : "places");
      tries -= 1;
      if (!isThere && tries > 0 && document.activeElement === document.body) timer = setTimeout(begin, AGAIN);
    };
    let timer = setTimeout(begin, 0);
    // After what closes has given the focus back, where it can.
    const look = () => {
      clearTimeout(timer);
      timer = setTimeout(() => document.activeElement === document.body && focus("places"), 0);
    };
    const stops = [session.document, session.selection, session.sheets].map((store) => store.subscribe(look));
    return () => {
      clearTimeout(timer);
      for (const stop of stops) stop();
    };
  }, [session]);
}
