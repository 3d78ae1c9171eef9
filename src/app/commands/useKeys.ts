import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { changeLeg } from "../../core/model/edits/change.ts";
import { lookup } from "../../core/model/lookup.ts";
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
  const field = target?.closest("input, select, textarea");
  if (field ? !heldInField(command, field) : target?.closest("[role=dialog]") && command.name !== "Do or find anything by name") return;
  if (event.defaultPrevented) return;
  const context = contextNow();
  if (command.can && !command.can(context)) return;
  event.preventDefault();
  command.run(context);
}

/** In a field, keys are the field's own, but for the palette; and undo, as long as nothing is written there. */
function heldInField(command: Command, field: Element): boolean {
  if (command.name === "Do or find anything by name") return true;
  return (command.name === "Undo" || command.name === "Redo") && "value" in field && field.value === "";
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
      if (chosen) context.apply(changeLeg(context.project, chosen.leg, { move: chosen.way.move }, "Another way"));
    },
  };
}
