import { Command } from "cmdk";
import { useState } from "react";
import { lookup, nameOf, treeOf } from "../../../core/model/lookup.ts";
import { rankedByName } from "../../../core/model/names.ts";
import { movable, moveTo } from "../../session/actions/arranging.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSession, useSheets } from "../../session/hooks.ts";
import { Dialog } from "../../ui/Dialog.tsx";

/** Moves everything that is chosen into a container that is there, picked by name. */
export function IntoSheet() {
  const { sheet, close } = useSheets();
  return sheet?.is === "into" ? <Opened close={close} /> : null;
}

function Opened({ close }: { close: () => void }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const [query, setQuery] = useState("");
  const places = movable(project, contextOf(session).places);
  const able = project.containers.filter(
    (container) => places.some((id) => lookup(project).owners.get(id)?.id !== container.id) && !places.some((id) => treeOf(project, id).includes(container.id)),
  );
  const shown = rankedByName(able, query.trim(), (container) => [container.name || container.id, container.kind]);
  const what = places.length === 1 ? `“${nameOf(project, places[0] ?? "")}”` : `these ${places.length}`;
  return (
    <Dialog title={`Move ${what} into…`} open onClose={close}>
      {places.length === 0 || able.length === 0 ? (
        <p className="m-0 text-ink-2">
          {places.length === 0 ? "Where the app starts, and modals, are in no container." : "There is no other container that could hold it."}
        </p>
      ) : (
        <Command label="Containers" loop shouldFilter={false}>
          <Command.Input
            autoFocus
            value={query}
            onValueChange={setQuery}
            placeholder="A stack, tabs, a drawer, a modal"
            className="mb-2 h-8 w-full border border-ink bg-paper px-2 text-[13px]"
          />
          <Command.List className="max-h-[50vh] overflow-y-auto">
            {shown.map((container) => (
              <Command.Item
                key={container.id}
                value={container.id}
                onSelect={() => {
                  close();
                  moveTo(contextOf(session), places, container.id);
                }}
                className="flex min-h-7 cursor-default items-baseline gap-3 px-2 py-0.5 text-[13px] data-[selected=true]:bg-accent-soft"
              >
                <span className="min-w-0 flex-1 truncate font-semibold">{container.name || container.id}</span>
                <span className="shrink-0 text-[11.5px] text-ink-2">
                  {container.kind}, {container.members.length} in it
                </span>
              </Command.Item>
            ))}
            {shown.length === 0 && <p className="px-2 text-ink-2">No container is called that.</p>}
          </Command.List>
        </Command>
      )}
    </Dialog>
  );
}
