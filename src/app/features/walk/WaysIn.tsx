import { Popover } from "radix-ui";
import { available } from "../../../core/insight/available.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { NavEvent, Project } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import { Button } from "../../ui/Button.tsx";
import type { Hands } from "./useHands.ts";

interface Props {
  project: Project;
  state: State;
  hands: Hands;
  button: React.ReactNode;
  onClose: () => void;
}

/** The ways in as a device would offer them, with the app running or not, and an address to be typed: open. */
export function WaysIn({ project, state, hands, button, onClose }: Props) {
  const ways = available(project, state).flatMap((event) => (event.do === "enter" ? [event] : []));
  const take = (event: NavEvent) => {
    hands.send(event);
    onClose();
  };
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Trigger asChild>{button}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          collisionPadding={8}
          sideOffset={4}
          className="z-30 max-h-(--radix-popover-content-available-height) w-72 overflow-y-auto border border-ink bg-sheet p-2 text-ink shadow-[0_8px_24px_var(--lift)]"
          role="group"
          aria-label="Ways in"
        >
          {ways.length === 0 && <p className="m-0 text-[12px] text-ink-2">No way in can be used now. The outline has a + to add one.</p>}
          {ways.map((event) => (
            <button
              key={`${event.entrance} ${event.cold}`}
              type="button"
              className="flex min-h-7 w-full items-baseline gap-2 px-1 text-left text-[12px] hover:bg-band"
              onClick={() => take(event)}
            >
              <span className="min-w-0 flex-1 truncate" title={nameOf(project, event.entrance)}>
                {nameOf(project, event.entrance)} <span className="text-ink-2">{lookup(project).entrances.get(event.entrance)?.kind}</span>
              </span>
              <span className="shrink-0 text-[11px] text-ink-2">{event.cold ? "app not running" : "app running"}</span>
            </button>
          ))}
          <form
            className="mt-1 flex gap-1 border-t border-hairline pt-2"
            onSubmit={(event) => {
              event.preventDefault();
              hands.goTo(String(new FormData(event.currentTarget).get("address")));
              onClose();
            }}
          >
            <input
              name="address"
              aria-label="Address of a link"
              placeholder="/hives/tansy"
              className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 font-mono text-[11.5px]"
            />
            <Button type="submit">Go</Button>
          </form>
          <button
            type="button"
            className="mt-1 block min-h-7 w-full border-t border-hairline px-1 text-left text-[12px] hover:bg-band"
            onClick={() => take({ do: "launch" })}
          >
            Launch again
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
