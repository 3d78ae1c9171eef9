import { Command } from "cmdk";
import { useMemo, useState } from "react";
import { doingsFrom } from "../../../core/insight/nowhere.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import { begins, rankedByName, sameName } from "../../../core/model/names.ts";
import { alikeWithin, type Control, controlsOf } from "../../../core/model/pictures.ts";
import { ELEMENT_KINDS, type Element, type Picture, type Project } from "../../../core/model/schema.ts";
import type { LinkTarget } from "../../session/actions/linking.ts";
import { useDocument, useWalkState } from "../../session/hooks.ts";
import type { NewArea } from "./makeArea.ts";

/** Rows that each list shows. */
const LISTED = 6;
const ROW = "flex min-h-7 cursor-default items-baseline gap-2 px-2 py-0.5 text-[12.5px] data-[selected=true]:bg-accent-soft";

interface Props {
  screen: string;
  picture: Picture;
  /** Where it stands over the picture. */
  style: React.CSSProperties;
  onDone: (what: NewArea) => void;
  onCancel: () => void;
}

/** What an area that was just drawn is for: first a name, or a control that is there already; then where it leads. */
export function AreaForm({ screen, picture, style, onDone, onCancel }: Props) {
  const project = useDocument((d) => d.project);
  const [label, setLabel] = useState<string>();
  const [kind, setKind] = useState<Element["kind"]>("button");
  const alike = useMemo(() => alikeWithin(project, screen, picture), [project, screen, picture]);
  const [within, setWithin] = useState<string>();
  return (
    <section
      role="dialog"
      aria-label="What is in this area?"
      className="absolute z-20 w-[286px] border border-ink bg-sheet p-2.5 text-[12.5px] text-ink shadow-[0_8px_24px_var(--lift)]"
      style={style}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDownCapture={(event) => {
        if (event.key !== "Escape") return;
        event.stopPropagation();
        if (label === undefined) onCancel();
        else setLabel(undefined);
      }}
    >
      {label === undefined ? (
        <WhatList project={project} screen={screen} picture={picture} onPick={(control) => onDone({ control, within })} onName={setLabel} />
      ) : (
        <>
          <h2 className="m-0 mb-1 font-semibold">Where does “{label}” lead?</h2>
          <label className="mb-1 flex items-center gap-2 text-[11.5px] text-ink-2">
            It is a
            <select
              aria-label="Kind"
              value={kind}
              onChange={(event) => setKind(event.target.value as Element["kind"])}
              className="h-6 border border-hairline bg-paper text-[12px] text-ink"
            >
              {ELEMENT_KINDS.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
          <TargetList project={project} screen={screen} label={label} onPick={(to) => onDone({ label, kind, to, within })} />
        </>
      )}
      {alike.length > 0 && (
        <label className="mt-1.5 block border-t border-hairline pt-1.5 text-[11.5px] text-ink-2">
          Put it on
          <select
            aria-label="Put it on"
            value={within ?? ""}
            onChange={(event) => setWithin(event.target.value || undefined)}
            className="mt-0.5 block h-6 w-full border border-hairline bg-paper text-[12px] text-ink"
          >
            <option value="">this picture alone</option>
            {alike.map(({ container, screens }) => (
              <option key={container} value={container}>
                all {screens} of this size in {nameOf(project, container)}, kept together
              </option>
            ))}
          </select>
        </label>
      )}
      <p className="m-0 mt-1.5 text-[11px] text-ink-2">Enter takes the first. Esc {label === undefined ? "leaves it" : "goes back"}.</p>
    </section>
  );
}

interface WhatProps {
  project: Project;
  screen: string;
  picture: Picture;
  onPick: (control: string) => void;
  onName: (label: string) => void;
}

/** A name for a new element, or one of the controls that have no area yet. */
function WhatList({ project, screen, picture, onPick, onName }: WhatProps) {
  const [query, setQuery] = useState("");
  const name = query.trim();
  const controls = useMemo(() => {
    const has = new Set(picture.areas.map(({ control }) => control));
    return controlsOf(project, screen).filter(({ control, element }) => !has.has(control) || element?.kind === "list");
  }, [project, screen, picture]);
  const shown = rankedByName(controls, name, (one) => [one.label, noteOf(project, one)]).slice(0, LISTED);
  const exact = shown.find((one) => name !== "" && sameName(one.label, name));
  // What is there and begins so comes before what would be new.
  const first = shown.filter((one) => name !== "" && (one === exact || begins(one.label, name)));
  const fresh = name !== "" && !exact && (
    <Command.Item value="new" onSelect={() => onName(name)} className={ROW}>
      <span className="font-semibold text-accent">+ “{name}”</span>
      <span className="ml-auto text-[11px] text-ink-2">new control</span>
    </Command.Item>
  );
  const item = (one: Control) => (
    <Command.Item key={one.control} value={one.control} onSelect={() => onPick(one.control)} className={ROW}>
      <span className="min-w-0 flex-1 truncate font-semibold">{one.label}</span>
      <span className="shrink-0 text-[11px] text-ink-2">{noteOf(project, one)}</span>
    </Command.Item>
  );
  return (
    <Command shouldFilter={false} loop label="What is in this area?">
      <h2 className="m-0 mb-1 font-semibold">What is here?</h2>
      <Command.Input
        autoFocus
        aria-label="What is in this area?"
        value={query}
        onValueChange={setQuery}
        placeholder={controls.length > 0 ? "a name, or one of these" : "a name, such as Send"}
        className="h-7 w-full border border-ink bg-paper px-1.5 text-[12.5px]"
      />
      <Command.List className="mt-1 max-h-[172px] overflow-y-auto">
        {first.map(item)}
        {fresh}
        {shown.filter((one) => !first.includes(one)).map(item)}
      </Command.List>
    </Command>
  );
}

/** What a control is, or whose, in a word. */
export function noteOf(project: Project, { kind, on, element }: Control): string {
  switch (kind) {
    case "tab":
      return `tab of ${nameOf(project, on)}`;
    case "pick":
      return `in ${nameOf(project, on)}`;
    case "lead":
      return "in the bar";
    case "close":
      return "×";
    default:
      return element?.kind ?? "";
  }
}

interface TargetProps {
  project: Project;
  screen: string;
  label: string;
  onPick: (to: LinkTarget | undefined) => void;
}

/** Where a new control leads: a place, back or the like, a new screen, or nowhere yet. A screen of its name comes first. */
function TargetList({ project, screen, label, onPick }: TargetProps) {
  const at = useWalkState();
  const [query, setQuery] = useState("");
  const name = query.trim();
  const { owners } = lookup(project);
  const places = useMemo(
    () => [...project.screens, ...project.containers].filter(({ id }) => id !== screen).map(({ id, name: named }) => ({ id, name: named || id })),
    [project, screen],
  );
  const doings = useMemo(() => doingsFrom(project, screen, at), [project, screen, at]);
  const wanted = name === "" ? label : name;
  const ranked = rankedByName(places, name, (one) => [one.name]);
  const called = ranked.filter((one) => sameName(one.name, wanted));
  const beginning = name === "" ? [] : ranked.filter((one) => !called.includes(one) && begins(one.name, name));
  const rest = ranked.filter((one) => !called.includes(one) && !beginning.includes(one));
  const doing = doings.filter((one) => name === "" || [one.name, ...one.words].some((word) => begins(word, name)));
  const row = (value: string, says: string, note: string, to: LinkTarget | undefined, fresh = false) => (
    <Command.Item key={value} value={value} onSelect={() => onPick(to)} className={ROW}>
      <span className={`min-w-0 flex-1 truncate font-semibold ${fresh ? "text-accent" : ""}`}>{says}</span>
      <span className="shrink-0 text-[11px] text-ink-2">{note}</span>
    </Command.Item>
  );
  const place = (one: { id: string; name: string }) => row(one.id, one.name, owners.get(one.id)?.name ?? "", one.id);
  const fresh = row("new", `+ New screen “${wanted}”`, "", { as: "screen", name: wanted }, true);
  const modal = row("modal", `+ “${wanted}” in a new modal`, "", { as: "modal", name: wanted }, true);
  return (
    <Command shouldFilter={false} loop label="Where it leads">
      <Command.Input
        autoFocus
        aria-label="Where it leads"
        value={query}
        onValueChange={setQuery}
        placeholder="a screen, back, close…"
        className="h-7 w-full border border-ink bg-paper px-1.5 text-[12.5px]"
      />
      <Command.List className="mt-1 max-h-[172px] overflow-y-auto">
        {called.map(place)}
        {beginning.map(place)}
        {name !== "" && doing.map((one) => row(`do ${one.key}`, one.name, "no place", { doing: one }))}
        {called.length === 0 && name !== "" && fresh}
        {called.length === 0 && name !== "" && modal}
        {row("none", "Nowhere yet", "draw the line later", undefined)}
        {rest.slice(0, 40).map(place)}
        {name === "" && doing.map((one) => row(`do ${one.key}`, one.name, "no place", { doing: one }))}
        {called.length === 0 && name === "" && fresh}
      </Command.List>
    </Command>
  );
}
