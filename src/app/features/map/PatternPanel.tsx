import { Command } from "cmdk";
import { useCallback, useEffect, useMemo, useState } from "react";
import { changed } from "../../../core/map/lenses/changed.ts";
import { firstScreen, lookup } from "../../../core/model/lookup.ts";
import { rankedByName } from "../../../core/model/names.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { Ask, Pattern } from "../../../core/patterns/pattern.ts";
import { putPattern, usualNames } from "../../../core/patterns/put.ts";
import { PATTERNS } from "../../../core/patterns/table.ts";
import { Changes } from "../../parts/Changes.tsx";
import { contextOf } from "../../session/context.ts";
import { checkedAside, resultOf } from "../../session/findings.ts";
import { useDocument, useFindings, useHush, useNotices, useSelection, useSession, useSheets, useTrying } from "../../session/hooks.ts";
import { keepVersion } from "../../session/storage/versions.ts";
import { Button } from "../../ui/Button.tsx";
import { useTypedAhead } from "../../ui/useTypedAhead.ts";
import type { WorkerClient } from "../../worker/client.ts";
import { useTask } from "../../worker/useTask.ts";

interface Offered {
  pattern: Pattern;
  place: string;
  where: string;
}

/** Patterns to put in at what is chosen: the map shows what the one pointed at would make, and beside it which findings would come and go. */
export function PatternPanel() {
  const { sheet, close } = useSheets();
  return sheet?.is === "patterns" ? <Opened first={sheet.first} close={close} /> : null;
}

function Opened({ first, close }: { first: string | undefined; close: () => void }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const { select, aimAt } = useSelection();
  const selected = useSelection((s) => s.selected);
  const say = useNotices((n) => n.say);
  useHush();
  const show = useTrying((t) => t.show);
  const at = useMemo(() => placeIn(project, selected && contextOf(session).places.at(-1)), [project, selected, session]);
  const [query, setQuery] = useTypedAhead();
  const [value, setValue] = useState(first ?? "");
  const [typed, setTyped] = useState<Readonly<Record<string, Record<string, string>>>>({});
  const offered = useMemo(() => offeredAt(project, at), [project, at]);
  const shown = useMemo(() => rankedByName(offered, query.trim(), ({ pattern }) => [pattern.name, ...pattern.words]), [offered, query]);
  const now = shown.find(({ pattern }) => pattern.id === value) ?? shown[0];
  const pattern = now?.pattern;
  const place = now?.place ?? at;
  const names = useMemo(() => pattern && { ...usualNames(project, pattern), ...typed[pattern.id] }, [project, pattern, typed]);
  const put = useMemo(() => pattern && putPattern(project, pattern, place, names), [project, pattern, place, names]);
  const made = put?.ok ? put.project : undefined;
  const before = useFindings((f) => resultOf(f, project));
  const after = useTask(useMemo(() => made && ((worker: WorkerClient) => checkedAside(worker, made)), [made]));
  const view = useMemo(() => made && changed(made, { lens: "changed", against: "" }, { older: { project, name: "before" } }), [made, project]);
  useEffect(() => {
    if (!made || !view) return show(undefined);
    show({ project: made, places: view.places });
    aimAt(made.screens.find(({ id }) => !lookup(project).screens.has(id))?.id ?? place);
  }, [made, view, show, aimAt, project, place]);
  useEffect(
    () => () => {
      show(undefined);
      aimAt(undefined);
    },
    [show, aimAt],
  );
  const stop = useCallback(() => {
    close();
    document.getElementById("places")?.focus();
  }, [close]);
  const putIn = () => {
    if (!now || !put?.ok) return;
    // Undo takes it back as well; the version is for whoever thinks of it later.
    keepVersion(session.id, `Before “${now.pattern.name}”`, project, "etape").catch(() => undefined);
    session.document.getState().apply(put.edit);
    select({ kind: "place", id: place });
    say(`“${now.pattern.name}” is in, ${now.where}. Undo takes it back.`);
    stop();
  };
  return (
    <section
      role="dialog"
      aria-label="Put in a pattern"
      className="absolute inset-x-3 bottom-3 z-20 grid max-h-[60%] overflow-y-auto grid-cols-[minmax(190px,240px)_minmax(220px,1fr)] gap-x-4 border border-ink bg-sheet p-3 shadow-[0_8px_24px_var(--lift)] @4xl:grid-cols-[240px_minmax(220px,1fr)_minmax(180px,280px)]"
      onKeyDownCapture={(event) => {
        if (event.key !== "Escape") return;
        event.stopPropagation();
        stop();
      }}
    >
      <div className="flex min-h-0 flex-col">
        <Command
          label="Patterns"
          loop
          shouldFilter={false}
          disablePointerSelection
          value={now?.pattern.id ?? ""}
          onValueChange={setValue}
          className="flex min-h-0 flex-col"
        >
          <Command.Input
            autoFocus
            value={query}
            onValueChange={setQuery}
            placeholder="Find a pattern; Enter puts it in"
            className="mb-1 h-8 w-full shrink-0 border border-ink bg-paper px-2 text-[13px]"
          />
          <Command.List className="max-h-[220px] min-h-0 overflow-y-auto" aria-label="Patterns">
            {shown.map(({ pattern: { id, name, says } }) => (
              <Command.Item
                key={id}
                value={id}
                title={says}
                onSelect={putIn}
                onClickCapture={(event) => {
                  // A click chooses, and shows what it would make; only Enter and the button put it in.
                  event.stopPropagation();
                  setValue(id);
                }}
                className="flex min-h-6 cursor-default items-center truncate px-2 text-[13px] data-[selected=true]:bg-accent-soft"
              >
                {name}
              </Command.Item>
            ))}
            {shown.length === 0 && <p className="m-0 px-2 text-[12.5px] text-ink-2">Nothing that goes here is called that.</p>}
          </Command.List>
        </Command>
        {offered.length < PATTERNS.length && (
          <p className="m-0 mt-1 px-2 text-[11.5px] text-ink-2">{PATTERNS.length - offered.length} more go elsewhere: choose another place on the map.</p>
        )}
      </div>
      {now && names && (
        <form
          className="flex min-h-0 flex-col overflow-y-auto"
          onSubmit={(event) => {
            event.preventDefault();
            putIn();
          }}
        >
          <h2 className="m-0 flex items-baseline gap-2 text-[13.5px] font-semibold">
            <span className="min-w-0 flex-1">
              {now.pattern.name} <span className="font-normal text-ink-2">{now.where}</span>
            </span>
            <button type="button" className="min-h-6 min-w-6 font-normal text-ink-2 hover:text-ink" aria-label="Put in nothing" onClick={stop}>
              ×
            </button>
          </h2>
          <p className="m-0 mb-2 text-[12.5px] text-ink-2">{now.pattern.says}</p>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(145px,1fr))] gap-x-3 gap-y-1.5">
            {now.pattern.asks.map((ask) => (
              <NameField
                key={`${now.pattern.id} ${ask.id}`}
                ask={ask}
                project={project}
                value={names[ask.id] ?? ""}
                problem={put?.ok === false ? put.problems.get(ask.id) : undefined}
                onChange={(name) => setTyped((all) => ({ ...all, [now.pattern.id]: { ...all[now.pattern.id], [ask.id]: name } }))}
              />
            ))}
          </div>
          <div className="mt-3 flex items-center gap-2">
            <Button tone="main" type="submit" disabled={!put?.ok}>
              Put it in
            </Button>
            <Button onClick={stop}>Leave it</Button>
          </div>
        </form>
      )}
      {now && (
        <div
          className="col-span-2 mt-2 min-h-0 overflow-y-auto border-hairline border-t pt-2 text-[12.5px] @4xl:col-span-1 @4xl:mt-0 @4xl:border-t-0 @4xl:border-l @4xl:pt-0 @4xl:pl-3"
          aria-live="polite"
        >
          <h3 className="caption m-0 mb-1 text-[12px]">Findings that come and go</h3>
          {made ? <Changes before={before} after={after} /> : <span className="text-ink-2">Known once all names are right.</span>}
          {view?.extremes
            .filter((line) => line.startsWith("The walk"))
            .map((line) => (
              <p key={line} className="m-0 mt-1 text-warning">
                {line}
              </p>
            ))}
        </div>
      )}
    </section>
  );
}

/** The place that a pattern goes to: what is chosen, or what the app shows first. */
function placeIn(project: Project, chosen: string | undefined): string {
  if (chosen !== undefined && lookup(project).places.has(chosen)) return chosen;
  return firstScreen(project, project.root)?.id ?? project.root;
}

/** What can go to a place or, of a container, to what it shows first. */
function offeredAt(project: Project, at: string): Offered[] {
  const places = [at, firstScreen(project, at)?.id ?? at];
  return PATTERNS.flatMap((pattern) => {
    const place = places.find((id) => pattern.where(project, id) !== undefined);
    const where = place === undefined ? undefined : pattern.where(project, place);
    return place === undefined || where === undefined ? [] : [{ pattern, place, where }];
  });
}

/** One name that a pattern asks for, with the record types to choose from where it is of rows. */
function NameField({
  ask,
  project,
  value,
  problem,
  onChange,
}: {
  ask: Ask;
  project: Project;
  value: string;
  problem: string | undefined;
  onChange: (name: string) => void;
}) {
  const list = ask.of === "rows" && project.types.length > 0 ? `rows-${ask.id}` : undefined;
  return (
    <label className="block text-[11.5px] text-ink-2">
      {ask.label}
      <input
        value={value}
        list={list}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={problem !== undefined}
        className={`mt-0.5 block h-7 w-full border bg-paper px-2 text-[13px] text-ink ${problem === undefined ? "border-hairline" : "border-blocker"}`}
      />
      {list && (
        <datalist id={list}>
          {project.types.map(({ id, name }) => (
            <option key={id} value={name ?? id} />
          ))}
        </datalist>
      )}
      {problem !== undefined && <span className="mt-0.5 block text-blocker">{problem}</span>}
    </label>
  );
}
