import { Command } from "cmdk";
import { useMemo } from "react";
import type { Chosen } from "../../../core/model/edits/clip.ts";
import { rankedByName } from "../../../core/model/names.ts";
import type { Project } from "../../../core/model/schema.ts";
import { PATTERNS } from "../../../core/patterns/table.ts";
import { legSays } from "../../parts/legSays.ts";
import { COMMANDS } from "../../session/commands/table.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSelection, useSession, useSheets } from "../../session/hooks.ts";
import { Dialog } from "../../ui/Dialog.tsx";
import { useTypedAhead } from "../../ui/useTypedAhead.ts";

/** Most entries shown at once; typing narrows them down. */
const MOST = 60;

interface Entry {
  key: string;
  name: string;
  says: string;
  /** Other words by which it is found. */
  words?: readonly string[];
  run: () => void;
}

/** Anything by name: what can be done now, and every place, element, leg and way in to jump to. */
export function Palette() {
  const { sheet, close } = useSheets();
  if (sheet?.is !== "palette") return null;
  return <Opened close={close} />;
}

function Opened({ close }: { close: () => void }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const select = useSelection((s) => s.select);
  const [query, setQuery] = useTypedAhead();
  const all = useMemo(() => {
    const context = contextOf(session);
    const commands = COMMANDS.filter((command) => command.id !== "palette" && (command.can?.(context) ?? true));
    return [
      ...commands.map(
        (command): Entry => ({
          key: `do ${command.id}`,
          name: command.name,
          says: command.shown ?? command.group,
          words: command.words ?? [],
          run: () => command.run(contextOf(session)),
        }),
      ),
      ...PATTERNS.map(
        ({ id, name, words }): Entry => ({
          key: `pattern ${id}`,
          name: `Put in: ${name}`,
          says: "a pattern",
          words: ["pattern", ...words],
          run: () => {
            session.go("map");
            session.sheets.getState().open({ is: "patterns", first: id });
          },
        }),
      ),
      ...fieldsShown(),
      ...jumps(project).map(({ key, name, says, to }): Entry => ({ key, name, says, run: () => select(to) })),
    ];
  }, [session, project, select]);
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

/** The fields of what is chosen, to be gone to by name. */
function fieldsShown(): Entry[] {
  const inspector = document.querySelector("[aria-label=Inspector]");
  const fields = [...(inspector?.querySelectorAll<HTMLElement>("input, select, textarea") ?? [])];
  return fields.flatMap((field, i) => {
    const name = (field.getAttribute("aria-label") ?? field.closest("label")?.firstChild?.textContent ?? "").trim();
    if (name === "") return [];
    const words = field instanceof HTMLSelectElement ? [...field.options].map((option) => option.label) : [];
    return [{ key: `field ${i}`, name, says: "a field of what is chosen", words, run: () => field.focus() }];
  });
}

/** Entries that have every typed word in their name, in what stands beside it or in the words for it; those whose name fits the whole best first. */
function matching(all: Entry[], query: string): Entry[] {
  const typed = query
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== "");
  const has = (text: string, word: string) => text.toLowerCase().includes(word);
  const hits = all.filter(({ name, says, words = [] }) => typed.every((word) => has(name, word) || has(says, word) || words.some((other) => has(other, word))));
  const best = rankedByName(hits, query, (entry) => [entry.name, ...(entry.words ?? [])]);
  return [...best, ...hits.filter((entry) => !best.includes(entry))];
}
