import { Command } from "cmdk";
import { useMemo, useState } from "react";
import { linkElement, linkToNewScreen } from "../../core/model/edits/link.ts";
import { elementOf, lookup, nameOf } from "../../core/model/lookup.ts";
import { propose } from "../../core/model/propose.ts";
import { Dialog } from "../parts/Dialog.tsx";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";

/** Picks the target of a leg by name; says what each would do; makes a new screen where none is called that. */
export function TargetPicker() {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { linking, link, select } = useSelection();
  const [query, setQuery] = useState("");
  const targets = useMemo(() => {
    if (!linking) return [];
    const { owners } = lookup(project);
    return [...project.screens, ...project.containers].map((place) => ({
      id: place.id,
      name: place.name || place.id,
      within: owners.get(place.id)?.name ?? ("kind" in place ? place.kind : ""),
      says: propose(project, linking.place, linking.element, place.id).sentence,
    }));
  }, [project, linking]);
  const close = () => {
    link(undefined);
    setQuery("");
  };
  if (!linking) return null;
  const label = elementOf(project, linking.place, linking.element)?.label ?? linking.element;
  const name = query.trim();
  const shown = ranked(targets, name);
  const done = (made: { edit: Parameters<typeof apply>[0]; legId: string }) => {
    apply(made.edit);
    select({ kind: "leg", id: made.legId });
    close();
  };
  return (
    <Dialog title={`Where does “${label}” on “${nameOf(project, linking.place)}” lead?`} open onClose={close} wide>
      <Command label="Targets" loop shouldFilter={false}>
        <Command.Input
          autoFocus
          value={query}
          onValueChange={setQuery}
          placeholder="Type a name; Enter takes the first"
          className="mb-2 h-9 w-full border border-ink bg-paper px-2 text-[13px]"
        />
        <Command.List className="max-h-[46vh] overflow-y-auto">
          {shown.map((target) => (
            <Command.Item
              key={target.id}
              value={`${target.name} ${target.within} ${target.id}`}
              onSelect={() => done(linkElement(project, linking.place, linking.element, target.id))}
              className="flex min-h-8 cursor-default items-baseline gap-3 px-2 py-1 text-[13px] data-[selected=true]:bg-accent-soft"
            >
              <span className="w-40 shrink-0 truncate font-semibold">
                {target.name} <span className="font-normal text-[11px] text-ink-2">{target.within}</span>
              </span>
              <span className="min-w-0 flex-1 truncate text-[12px] text-ink-2">{target.says}</span>
            </Command.Item>
          ))}
          {name !== "" && (
            <Command.Item
              forceMount
              value={`new screen ${name}`}
              onSelect={() => done(linkToNewScreen(project, linking.place, linking.element, name))}
              className="flex min-h-8 cursor-default items-baseline gap-3 border-t border-hairline px-2 py-1 text-[13px] data-[selected=true]:bg-accent-soft"
            >
              <span className="font-semibold text-accent">+ New screen “{name}”</span>
            </Command.Item>
          )}
        </Command.List>
      </Command>
    </Dialog>
  );
}

/** The targets whose name has what was typed in it, those that begin with it first. */
function ranked<T extends { name: string; within: string }>(targets: T[], typed: string): T[] {
  const wanted = typed.toLowerCase();
  const rank = ({ name, within }: T) => {
    const at = name.toLowerCase().indexOf(wanted);
    return at === 0 ? 0 : at > 0 ? 1 : within.toLowerCase().includes(wanted) ? 2 : 3;
  };
  return targets
    .map((target, i) => ({ target, rank: rank(target), i }))
    .filter(({ rank: r }) => r < 3)
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map(({ target }) => target);
}
