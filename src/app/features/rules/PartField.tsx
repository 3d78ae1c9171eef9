import { Command } from "cmdk";
import { useLayoutEffect, useMemo, useRef, useState } from "react";
import { legStart } from "../../../core/model/describe.ts";
import { lookup, nameOf, targetOf } from "../../../core/model/lookup.ts";
import { rankedByName } from "../../../core/model/names.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { Thing } from "./draft.ts";

interface Named extends Thing {
  name: string;
  /** What it is, or where. */
  note: string;
}

/** Matches that are listed. */
const LISTED = 7;

/** What a thing of a rule is called. */
export function thingName(project: Project, { of, id }: Thing): string {
  if (of !== "legs") return nameOf(project, id);
  const leg = lookup(project).legs.get(id);
  return leg ? legStart(project, leg).replaceAll('"', "") : id;
}

/** Everything that a part of a rule can speak of, by name. */
function allThings(project: Project, placesAlone: boolean): Named[] {
  const { owners } = lookup(project);
  const places = [...project.screens, ...project.containers].map(
    (place): Named => ({
      of: "places",
      id: place.id,
      name: place.name || place.id,
      note: "kind" in place ? place.kind : (owners.get(place.id)?.name ?? "screen"),
    }),
  );
  if (placesAlone) return places;
  const legs = project.legs.map((leg): Named => {
    const to = targetOf(leg);
    return { of: "legs", id: leg.id, name: legStart(project, leg).replaceAll('"', ""), note: to === undefined ? "leg" : `leg to ${nameOf(project, to)}` };
  });
  return [...places, ...legs, ...project.entrances.map(({ id, name }): Named => ({ of: "entrances", id, name, note: "way in" }))];
}

interface Props {
  project: Project;
  /** What it is for, for those who do not see where it stands. */
  label: string;
  placesAlone: boolean;
  onPick: (thing: Thing) => void;
  /** Enter in the empty field: this part is done. */
  onNext: () => void;
  /** Backspace in the empty field. */
  onTakeBack: () => void;
}

/** Types what a part of a rule speaks of: the first that fits is taken by Enter. */
export function PartField({ project, label, placesAlone, onPick, onNext, onTakeBack }: Props) {
  const [query, setQuery] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const [above, setAbove] = useState({ left: 0, bottom: 0 });
  const all = useMemo(() => allThings(project, placesAlone), [project, placesAlone]);
  const name = query.trim();
  const shown = useMemo(() => (name === "" ? [] : rankedByName(all, name, (one) => [one.name, one.note]).slice(0, LISTED)), [all, name]);
  // The list stands over everything: the panel around the field may be too small for it.
  useLayoutEffect(() => {
    const box = field.current?.getBoundingClientRect();
    if (name !== "" && box) setAbove({ left: Math.min(box.left, innerWidth - 360), bottom: innerHeight - box.top + 4 });
  }, [name]);
  return (
    <Command shouldFilter={false} label={label} className="relative inline-block align-baseline">
      <Command.Input
        ref={field}
        autoFocus
        value={query}
        onValueChange={setQuery}
        placeholder="click it on the map, or type"
        aria-label={label}
        onKeyDown={(event) => {
          if (name !== "") return;
          if (event.key === "Enter") onNext();
          else if (event.key === "Backspace") onTakeBack();
          else return;
          event.preventDefault();
        }}
        className="h-7 w-52 border-0 bg-transparent px-1 text-[12.5px] outline-none placeholder:text-ink-2"
      />
      <Command.List style={above} className={`fixed z-40 w-[340px] border border-ink bg-sheet shadow-[0_6px_18px_var(--lift)] ${name === "" ? "hidden" : ""}`}>
        <Command.Empty className="px-2 py-1.5 text-[12.5px] text-ink-2">
          Nothing is called “{name}”. Screens, containers{placesAlone ? "" : ", legs and ways in"} can stand here.
        </Command.Empty>
        {shown.map((one) => (
          <Command.Item
            key={`${one.of} ${one.id}`}
            value={`${one.of} ${one.id}`}
            onSelect={() => {
              onPick(one);
              setQuery("");
            }}
            className="flex min-h-7 cursor-default items-baseline gap-3 px-2 py-0.5 text-[12.5px] data-[selected=true]:bg-accent-soft"
          >
            <span className="min-w-0 flex-1 truncate font-semibold">{one.name}</span>
            <span className="shrink-0 text-[11.5px] text-ink-2">{one.note}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
