import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { useWalk } from "../store/walk.ts";
import { useDeletion } from "./deletion.ts";

/** The keys of a project page, in the one place from which the sheet of keys is made too. */
export const KEYS: ReadonlyArray<{ keys: string; says: string }> = [
  { keys: "/", says: "find or add a screen" },
  { keys: "↑ ↓", says: "through the outline" },
  { keys: "L", says: "lead the chosen element somewhere" },
  { keys: "Delete", says: "delete what is chosen" },
  { keys: "Escape", says: "choose nothing" },
  { keys: "Ctrl Z", says: "undo" },
  { keys: "Ctrl Shift Z", says: "redo" },
  { keys: "R", says: "walk from the start again" },
  { keys: "B", says: "Back on the device" },
  { keys: "[ ]", says: "a step back and on in the walk" },
  { keys: "?", says: "these keys" },
];

export function useKeys(showKeys: () => void) {
  useEffect(() => {
    const outsideFields = (run: () => void) => (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("input, select, textarea, [role=dialog]")) return;
      event.preventDefault();
      run();
    };
    // In a field, undo is the field's own, as long as there is something in it.
    const unlessWriting = (run: () => void) => (event: KeyboardEvent) => {
      const field = (event.target as HTMLElement).closest("input, textarea");
      if (field && (field as HTMLInputElement).value !== "") return;
      event.preventDefault();
      run();
    };
    const { getState: walk } = useWalk;
    return tinykeys(window, {
      "/": outsideFields(() => document.getElementById("find")?.focus()),
      l: outsideFields(() => {
        const { selected, link } = useSelection.getState();
        if (selected?.kind === "element") link({ place: selected.place, element: selected.id });
      }),
      Delete: outsideFields(() => {
        const { selected } = useSelection.getState();
        if (selected) useDeletion.getState().ask(selected);
      }),
      Escape: outsideFields(() => useSelection.getState().select(undefined)),
      "$mod+z": unlessWriting(() => useDocument.getState().undo()),
      "$mod+Shift+z": unlessWriting(() => useDocument.getState().redo()),
      r: outsideFields(() => walk().restart()),
      b: outsideFields(() => walk().send({ do: "back" })),
      "[": outsideFields(() => walk().goTo(walk().at - 1)),
      "]": outsideFields(() => walk().goTo(walk().at + 1)),
      "Shift+?": outsideFields(showKeys),
      "?": outsideFields(showKeys),
    });
  }, [showKeys]);
}
