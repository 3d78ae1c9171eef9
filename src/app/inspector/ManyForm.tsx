import type { Chosen } from "../../core/model/edits/clip.ts";
import { COMMANDS } from "../commands/commands.ts";
import type { Command } from "../commands/context.ts";
import { contextNow } from "../commands/context.ts";
import { Button } from "../parts/Button.tsx";
import { nameOfChosen } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";

/** What can be done with several things at once. */
const WITH_MANY = [
  "Put into tabs",
  "Put into a stack",
  "Put into a drawer",
  "Put into a modal",
  "Only a path between the two that are chosen",
  "Only planned, or real",
  "Duplicate",
  "Delete",
];

/** Several things are chosen: which, and what can be done with all of them. */
export function ManyForm({ chosen }: { chosen: readonly Chosen[] }) {
  const project = useDocument((d) => d.project);
  const select = useSelection((s) => s.select);
  const commands = COMMANDS.filter((command) => WITH_MANY.includes(command.name) && (command.can?.(contextNow()) ?? true));
  return (
    <div className="flex flex-col gap-2">
      <h3 className="caption m-0 text-[13px]">{chosen.length} chosen</h3>
      <p className="m-0 max-h-20 overflow-y-auto text-[12px] text-ink-2">{chosen.map((one) => nameOfChosen(project, one)).join(", ")}</p>
      <div className="flex flex-wrap gap-1">
        {commands.map((command) => (
          <CommandButton key={command.name} command={command} />
        ))}
      </div>
      <Button tone="quiet" className="self-start" onClick={() => select(undefined)}>
        Choose nothing
      </Button>
    </div>
  );
}

/** A command as a button, with its key. */
export function CommandButton({ command }: { command: Command }) {
  return (
    <Button onClick={() => command.run(contextNow())}>
      {command.name} {command.shown && <span className="ml-1 font-mono text-[10px] text-ink-2">{command.shown}</span>}
    </Button>
  );
}

/** Buttons for some commands, as far as they can be done now. */
export function CommandButtons({ names }: { names: readonly string[] }) {
  return (
    <div className="flex flex-wrap gap-1">
      {COMMANDS.filter((command) => names.includes(command.name)).map((command) => (
        <CommandButton key={command.name} command={command} />
      ))}
    </div>
  );
}
