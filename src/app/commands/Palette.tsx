import { Command } from "cmdk";
import { useMemo, useState } from "react";
import type { Chosen } from "../../core/model/edits/clip.ts";
import { rankedByName } from "../../core/model/names.ts";
import type { Project } from "../../core/model/schema.ts";
import { Dialog } from "../parts/Dialog.tsx";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { COMMANDS } from "./commands.ts";
import { contextNow } from "./context.ts";
import { legSays } from "./legSays.ts";
import { useOpened } from "./opened.ts";

/** Most entries shown at once; typing narrows them down. */
const MOST = 60;

interface Entry {
  key: string;
  name: string;
  says: string;
  run: () => void;
}

/** Anything by name: what can be done now, and every place, element, leg and way in to jump to. */
export function Palette() {
  const { sheet, close } = useOpened();
  if (sheet !== "palette") return null;
  return <Opened close={close} />;
}

function Opened({ close }: { close: () => void }) {
  const project = useDocument((d) => d.project);
  const select = useSelection((s) => s.select);
  const [query, setQuery] = useState("");
  const all = useMemo(() => {
    const context = contextNow();
    const commands = COMMANDS.filter((command) => command.name !== "Do or find anything by name" && (command.can?.(context) ?? true));
    return [
      ...commands.map(
        (command): Entry => ({ key: `do ${command.name}`, name: command.name, says: command.shown ?? command.group, run: () => command.run(contextNow()) }),
      ),
      ...jumps(project).map(({ key, name, says, to }): Entry => ({ key, name, says, run: () => select(to) })),
    ];
  }, [project, select]);
  const shown = useMemo(() => matching(all, query).slice(0, MOST), [all, query]);
  return (
    <Dialog title="Do or find anything" open onClose={close} wide>
      <Command label="Commands and places" loop shouldFilter={false}>
        <Command.Input
          autoFocus
          value={query}
          onValueChange={setQuery}
          placeholder="Type what to do, or where to go"
          className="mb-2 h-9 w-full border border-ink bg-paper px-2 text-[13px]"
        />
        <Command.List className="max-h-[50vh] overflow-y-auto">
          {shown.map((entry) => (
            <Command.Item
              key={entry.key}
              value={entry.key}
              onSelect={() => {
                close();
                // The sheet gives the focus back first; what runs may want it elsewhere.
                setTimeout(entry.run, 0);
              }}
              className="flex min-h-7 cursor-default items-baseline gap-3 px-2 py-0.5 text-[13px] data-[selected=true]:bg-accent-soft"
            >
              <span className="min-w-0 flex-1 truncate">{entry.name}</span>
              <span className="shrink-0 text-[11.5px] text-ink-2">{entry.says}</span>
            </Command.Item>
          ))}
          {shown.length === 0 && <p className="px-2 text-ink-2">Nothing is called that.</p>}
        </Command.List>
      </Command>
    </Dialog>
  );
}

function jumps(project: Project): Array<{ key: string; name: string; says: string; to: Chosen }> {
  const places = [...project.screens.map((s) => ({ place: s, kind: "screen" })), ...project.containers.map((c) => ({ place: c, kind: c.kind as string }))];
  return [
    ...places.map(({ place, kind }) => ({ key: `place ${place.id}`, name: place.name || place.id, says: kind, to: { kind: "place" as const, id: place.id } })),
    ...project.entrances.map((e) => ({ key: `in ${e.id}`, name: e.name, says: e.kind, to: { kind: "entrance" as const, id: e.id } })),
    ...places.flatMap(({ place }) =>
      (place.elements ?? []).map((e) => ({
        key: `element ${place.id} ${e.id}`,
        name: e.label || e.id,
        says: `${e.kind} on ${place.name || place.id}`,
        to: { kind: "element" as const, place: place.id, id: e.id },
      })),
    ),
    ...project.legs.map((leg) => ({ key: `leg ${leg.id}`, name: legSays(project, leg), says: "leg", to: { kind: "leg" as const, id: leg.id } })),
  ];
}

/** Entries that have every typed word, those whose name fits the whole best first. */
function matching(all: Entry[], query: string): Entry[] {
  const words = query
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== "");
  const hits = all.filter((entry) => words.every((word) => entry.name.toLowerCase().includes(word) || entry.says.toLowerCase().includes(word)));
  const best = rankedByName(hits, query, (entry) => [entry.name]);
  return [...best, ...hits.filter((entry) => !best.includes(entry))];
}
