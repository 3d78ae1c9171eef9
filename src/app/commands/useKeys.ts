import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { lookup } from "../../core/model/lookup.ts";
import { goAnotherWay } from "../inspector/goAnotherWay.ts";
import { waysOf } from "../inspector/moveKinds.ts";
import { useDeletion } from "../shell/deletion.ts";
import { listenToClipboard } from "./clipboard.ts";
import { COMMANDS } from "./commands.ts";
import { type Command, type Context, contextNow } from "./context.ts";

/** Binds the keys of all commands, and the system's copy, cut and paste. */
export function useKeys() {
  useEffect(() => {
    const bindings: Record<string, (event: KeyboardEvent) => void> = {};
    for (const command of COMMANDS) for (const key of command.keys ?? []) bindings[key] = (event) => run(command, event);
    for (let digit = 1; digit <= 9; digit++) bindings[String(digit)] = (event) => run(takeWay(digit), event);
    const stop = tinykeys(window, bindings);
    const stopClipboard = listenToClipboard((chosen) => useDeletion.getState().ask(...chosen));
    return () => {
      stop();
      stopClipboard();
    };
  }, []);
}

function run(command: Command, event: KeyboardEvent) {
  const target = event.target instanceof Element ? event.target : undefined;
  if (target && taken(command, target, event)) return;
  if (event.defaultPrevented) return;
  const context = contextNow();
  if (command.can && !command.can(context)) return;
  event.preventDefault();
  command.run(context);
}

/** Commands that work everywhere, whatever has the focus. */
const EVERYWHERE: readonly string[] = ["Do or find anything by name"];
/** Those that a text in which something is being written has for itself. */
const OF_TEXT: readonly string[] = ["Undo", "Redo"];
/** Inputs that take no text: they leave all keys but their own to the page. */
const TEXTLESS: readonly string[] = ["checkbox", "radio", "button", "submit", "file", "range", "color"];

/**
 * Whether a key belongs to what has the focus and not to the page. A text has all of its keys, but undo only while something is
 * written there that is not in the document yet; a drop-down has letters and digits, by which it is chosen from; a sheet has all but undo.
 */
function taken(command: Command, target: Element, event: KeyboardEvent): boolean {
  if (EVERYWHERE.includes(command.name)) return false;
  const field = target.closest<HTMLElement>("input, textarea, select");
  const inText = field instanceof HTMLTextAreaElement || (field instanceof HTMLInputElement && !TEXTLESS.includes(field.type));
  if (OF_TEXT.includes(command.name)) return inText && field.dataset.clean !== "true" && field.value !== "";
  if (inText || target.closest("[role=dialog]")) return true;
  return field instanceof HTMLSelectElement && !event.ctrlKey && !event.metaKey && !event.altKey && event.key !== "Escape";
}

/** The command that a digit means while a leg is chosen: the way of that number. */
function takeWay(digit: number): Command {
  const wayOf = ({ project, selected }: Context) => {
    const leg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
    const way = leg && waysOf(project, leg)[digit - 1];
    return leg && way ? { leg, way } : undefined;
  };
  return {
    group: "Make",
    name: `Way ${digit}`,
    can: (context) => wayOf(context) !== undefined,
    run: (context) => {
      const chosen = wayOf(context);
      if (chosen) goAnotherWay(chosen.leg, chosen.way.move);
    },
  };
}
