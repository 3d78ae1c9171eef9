import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { lookup } from "../../../core/model/lookup.ts";
import { listenToClipboard } from "../../session/actions/clipboard.ts";
import type { Command } from "../../session/commands/command.ts";
import { COMMANDS } from "../../session/commands/table.ts";
import { type Context, contextOf } from "../../session/context.ts";
import { useSession } from "../../session/hooks.ts";
import type { Session } from "../../session/session.ts";
import { usePreferences } from "../../ui/preferences.ts";
import { beside } from "../../ui/preloaded.tsx";

/** What digits need: nobody has a leg chosen at once. */
const ways = beside(async () => ({
  ...(await import("../../session/actions/goAnotherWay.ts")),
  ...(await import("../../session/actions/moveKinds.ts")),
}));

/** Where single letters are keys. */
const HOME_OF_LETTERS = "#places, .map-frame, [data-testid=device], [aria-label='The leg that was just made']";
/** Milliseconds after Enter in a field in which a letter is taken for one that was meant for the field. */
const STILL_WRITING = 1000;

/** Binds the keys of all commands, and the system's copy, cut and paste. */
export function useKeys() {
  const session = useSession();
  useEffect(() => {
    const bindings: Record<string, (event: KeyboardEvent) => void> = {};
    const writing = watchWriting();
    const bind = (command: Command) => (event: KeyboardEvent) => {
      if (isCharacter(event) && (!usePreferences.getState().singleKeys || !atHome(event))) return;
      if (isLetter(event) && writing.still(event)) return;
      run(session, command, event);
    };
    const keyed = COMMANDS.flatMap((command) => (command.keys ?? []).map((key) => ({ key, command })));
    // The last key of a sequence is no key by itself: what is bound first is asked first.
    for (const { key, command } of [...keyed.filter(({ key }) => key.includes(" ")), ...keyed.filter(({ key }) => !key.includes(" "))])
      bindings[key] = bind(command);
    for (let digit = 1; digit <= 9; digit++) bindings[String(digit)] = bind(takeWay(digit));
    const stop = tinykeys(window, bindings);
    const stopClipboard = listenToClipboard(session);
    return () => {
      stop();
      stopClipboard();
      writing.stop();
    };
  }, [session]);
}

function isCharacter({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  return key.length === 1 && !ctrlKey && !metaKey && !altKey;
}

/** What may be a name that goes on; digits and signs are not taken for one. */
function isLetter(event: KeyboardEvent): boolean {
  return isCharacter(event) && /\p{L}/u.test(event.key);
}

/** A letter is a key where the focus is on what it works on. */
function atHome({ target }: KeyboardEvent): boolean {
  return target instanceof Element && target.closest(HOME_OF_LETTERS) !== null;
}

/** Notices Enter in a field: for a second a letter may still be meant for it, unless another key or the pointer was used meanwhile. */
function watchWriting(): { still: (event: KeyboardEvent) => boolean; stop: () => void } {
  let entered: number | undefined;
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "Enter" && event.target instanceof HTMLInputElement) entered = event.timeStamp;
    else if (event.key.length > 1) entered = undefined;
  };
  const onPointer = () => {
    entered = undefined;
  };
  window.addEventListener("keydown", onKey, { capture: true });
  window.addEventListener("pointerdown", onPointer, { capture: true });
  return {
    still: (event) => entered !== undefined && event.timeStamp - entered < STILL_WRITING,
    stop: () => {
      window.removeEventListener("keydown", onKey, { capture: true });
      window.removeEventListener("pointerdown", onPointer, { capture: true });
    },
  };
}

function run(session: Session, command: Command, event: KeyboardEvent) {
  const target = event.target instanceof Element ? event.target : undefined;
  if (target && taken(command, target, event)) return;
  if (event.defaultPrevented) return;
  const context = contextOf(session);
  if (command.can && !command.can(context)) return;
  event.preventDefault();
  command.run(context);
}

/** Those that a text in which something is being written has for itself. */
const OF_TEXT: readonly string[] = ["undo", "redo"];
/** Inputs that take no text: they leave all keys but their own to the page. */
const TEXTLESS: readonly string[] = ["checkbox", "radio", "button", "submit", "file", "range", "color"];

/**
 * Whether a key belongs to what has the focus and not to the page. A text has all of its keys, but undo only while something is
 * written there that is not in the document yet; a drop-down has letters and digits, by which it is chosen from; a sheet has all but undo.
 */
function taken(command: Command, target: Element, event: KeyboardEvent): boolean {
  if (command.everywhere) return false;
  const field = target.closest<HTMLElement>("input, textarea, select");
  const inText = field instanceof HTMLTextAreaElement || (field instanceof HTMLInputElement && !TEXTLESS.includes(field.type));
  if (OF_TEXT.includes(command.id)) return inText && field.dataset.clean !== "true" && field.value !== "";
  if (inText || target.closest("[role=dialog]")) return true;
  return field instanceof HTMLSelectElement && !event.ctrlKey && !event.metaKey && !event.altKey && event.key !== "Escape";
}

/** The command that a digit means while a leg is chosen: the way of that number. */
function takeWay(digit: number): Command {
  const wayOf = ({ project, selected }: Context) => {
    const leg = selected?.kind === "leg" ? lookup(project).legs.get(selected.id) : undefined;
    const way = leg && ways()?.waysOf(project, leg)[digit - 1];
    return leg && way ? { leg, way } : undefined;
  };
  return {
    id: `way ${digit}`,
    group: "Make",
    name: `Way ${digit}`,
    can: (context) => wayOf(context) !== undefined,
    run: (context) => {
      const chosen = wayOf(context);
      if (chosen) ways()?.goAnotherWay(context.session, chosen.leg, chosen.way.move);
    },
  };
}
