import type { Chosen } from "../../../core/model/edits/clip.ts";
import { nameOfChosen } from "../../session/actions/deletion.ts";
import type { Command } from "../../session/commands/command.ts";
import { commandsOf } from "../../session/commands/table.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSelection, useSession } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

/** What can be done with several things at once. */
const WITH_MANY = ["wrapTabs", "wrapStack", "wrapDrawer", "wrapModal", "into", "onlyPath", "planned", "duplicate", "delete"];

/** Several things are chosen: which, and what can be done with all of them. */
export function ManyForm({ chosen }: { chosen: readonly Chosen[] }) {
  const project = useDocument((d) => d.project);
  const select = useSelection((s) => s.select);
  const session = useSession();
  const commands = commandsOf(...WITH_MANY).filter((command) => command.can?.(contextOf(session)) ?? true);
  return (
    <div className="flex flex-col gap-2">
      <h3 className="caption m-0 text-[13px]">{chosen.length} chosen</h3>
      <p className="m-0 max-h-20 overflow-y-auto text-[12px] text-ink-2">{chosen.map((one) => nameOfChosen(project, one)).join(", ")}</p>
      <div className="flex flex-wrap gap-1">
        {commands.map((command) => (
          <CommandButton key={command.id} command={command} />
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
  const session = useSession();
  return (
    <Button onClick={() => command.run(contextOf(session))}>
      {command.name} {command.shown && <span className="ml-1 font-mono text-[10px] text-ink-2">{command.shown}</span>}
    </Button>
  );
}

/** Buttons for some commands, by their ids. */
export function CommandButtons({ ids }: { ids: readonly string[] }) {
  return (
    <div className="flex flex-wrap gap-1">
      {commandsOf(...ids).map((command) => (
        <CommandButton key={command.id} command={command} />
      ))}
    </div>
  );
}
