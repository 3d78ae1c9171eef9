import { Command } from "cmdk";
import { useEffect, useMemo, useState } from "react";
import { type Doing, doingsFrom } from "../../../core/insight/nowhere.ts";
import { proposal } from "../../../core/insight/proposal.ts";
import { type LegStart, lanesAround } from "../../../core/model/edits/link.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import { begins, rankedByName, sameName } from "../../../core/model/names.ts";
import { moveSentence } from "../../../core/model/propose.ts";
import { Picture } from "../../parts/Picture.tsx";
import { type LinkTarget, linkQuestion, linkTo, type NewTarget } from "../../session/actions/linking.ts";
import { useDocument, useHush, useSelection, useSession, useWalkState } from "../../session/hooks.ts";
import { useTypedAhead } from "../../ui/useTypedAhead.ts";
import { TriggerChoice } from "./TriggerChoice.tsx";

const AROUND = "modal around";
const DOING = "do";
const NEW = "new";

/** New screens to lead to, in the order in which they are offered. */
const NEW_ONES: ReadonlyArray<{ as: NewTarget["as"]; says: string; does: string }> = [
  { as: "screen", says: "", does: "A new screen beside this one, put on top." },
  { as: "modal", says: "in a new modal", does: "It comes up over the page, and goes away again." },
  { as: "flow", says: "in a new modal with steps of its own", does: "It comes up over the page, with a back stack of its own for the steps that follow." },
  { as: "lane", says: "as a new tab", does: "One more tab, with a back stack of its own." },
  { as: "stack", says: "in a new stack", does: "A stack of its own, put on top: for steps that belong together." },
];

/**
 * Picks the target of a leg: by typing here, or by a click on the map or in the outline, which
 * stay in reach. Says what the one pointed at would do, with the stack before and after.
 */
export function TargetPicker() {
  const linking = useSelection((s) => s.linking);
  return linking ? <Opened key={`${linking.place} ${linking.element} ${linking.leg}`} from={linking} /> : null;
}

function Opened({ from }: { from: LegStart }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const { link, aimAt } = useSelection();
  useHush();
  const lanes = useMemo(() => lanesAround(project, from.place), [project, from.place]);
  const [query, setQuery] = useTypedAhead();
  const [value, setValue] = useState("");
  // Until something is typed or the list is asked for by an arrow, the panel stays small and the map free to point at.
  const [browsing, setBrowsing] = useState(false);
  const targets = useMemo(() => {
    const { owners } = lookup(project);
    return [...project.screens, ...project.containers].map((place) => ({
      id: place.id,
      name: place.name || place.id,
      within: owners.get(place.id)?.name ?? ("kind" in place ? place.kind : ""),
    }));
  }, [project]);
  const name = query.trim();
  const shown = useMemo(() => rankedByName(targets, name, (target) => [target.name, target.within]), [targets, name]);
  const pointed = value.startsWith(`${AROUND} `) ? value.slice(AROUND.length + 1) : value;
  const at = useWalkState();
  const proposed = useMemo(
    () => (lookup(project).places.has(pointed) && pointed === value ? proposal(project, from, pointed, at) : undefined),
    [project, from, pointed, value, at],
  );
  const listed = browsing || name !== "";
  useEffect(() => aimAt(listed && lookup(project).places.has(pointed) ? pointed : undefined), [aimAt, listed, project, pointed]);
  const item = "flex min-h-7 cursor-default items-baseline gap-3 px-2 py-0.5 text-[13px] data-[selected=true]:bg-accent-soft";
  const done = (target: LinkTarget) => linkTo(session, target, from);
  const around = lookup(project).screens.has(pointed) && pointed !== project.root ? pointed : undefined;
  const doings = useMemo(() => doingsFrom(project, from.place, at), [project, from.place, at]);
  const fits = (one: Doing) => [one.name, ...one.words];
  const called = name === "" ? doings : doings.filter((one) => fits(one).some((word) => sameName(word, name)));
  const others = name === "" ? [] : rankedByName(doings, name, fits).filter((one) => !called.includes(one) && fits(one).some((word) => begins(word, name)));
  const doing = doings.find((one) => value === `${DOING} ${one.key}`);
  const exact = shown.filter((target) => name !== "" && sameName(target.name, name));
  const doingItem = (one: Doing) => (
    <Command.Item key={one.key} value={`${DOING} ${one.key}`} onSelect={() => done({ doing: one })} className={item}>
      <span className="min-w-0 flex-1 truncate font-semibold">{one.name}</span>
      <span className="shrink-0 text-[11.5px] text-ink-2">no place</span>
    </Command.Item>
  );
  const [begin, inside] = [shown.filter((target) => begins(target.name, name)), shown.filter((target) => !begins(target.name, name))];
  const place = (target: (typeof targets)[number]) => (
    <Command.Item key={target.id} value={target.id} onSelect={() => done(target.id)} className={item}>
      <span className="min-w-0 flex-1 truncate font-semibold">{target.name}</span>
      <span className="shrink-0 text-[11.5px] text-ink-2">{target.within}</span>
    </Command.Item>
  );
  const stop = () => {
    link(undefined);
    document.getElementById("places")?.focus();
  };
  const newOnes = NEW_ONES.filter((one) => one.as !== "lane" || lanes !== undefined).map((one) =>
    one.as === "lane" && lanes?.kind === "drawer"
      ? { ...one, says: "as a new menu entry", does: "One more entry of the menu, with a back stack of its own." }
      : one,
  );
  const made = newOnes.map(({ as, says }) => (
    <Command.Item key={as} value={`${NEW} ${as}`} onSelect={() => done({ as, name })} className={item}>
      <span className="min-w-0 flex-1 truncate font-semibold text-accent">
        + New screen “{name}”{says && ` ${says}`}
      </span>
    </Command.Item>
  ));
  return (
    <section
      role="dialog"
      aria-label={linkQuestion(project, from)}
      className="absolute bottom-3 left-1/2 z-20 w-[min(600px,94%)] -translate-x-1/2 border border-ink bg-sheet p-3 shadow-[0_8px_24px_var(--lift)]"
      onKeyDownCapture={(event) => {
        if (event.key === "ArrowDown" && !listed) {
          event.stopPropagation();
          event.preventDefault();
          setBrowsing(true);
        }
        if (event.key !== "Escape") return;
        event.stopPropagation();
        stop();
      }}
    >
      <h2 className="m-0 mb-2 flex items-baseline gap-2 text-[13px] font-semibold">
        <span className="min-w-0 flex-1 truncate">{linkQuestion(project, from)}</span>
        <span className="shrink-0 text-[11.5px] font-normal text-ink-2">type, or pick it on the map</span>
        <button type="button" className="min-h-6 min-w-6 font-normal text-ink-2 hover:text-ink" aria-label="Lead nowhere" onClick={stop}>
          ×
        </button>
      </h2>
      {from.on && <TriggerChoice project={project} from={{ ...from, on: from.on }} onChange={(on) => link({ ...from, on })} />}
      <Command label="Targets" loop shouldFilter={false} value={value} onValueChange={setValue}>
        <Command.Input
          autoFocus
          value={query}
          onValueChange={setQuery}
          placeholder="A name, or back, close, menu…; ↓ lists them all"
          className="h-8 w-full border border-ink bg-paper px-2 text-[13px]"
        />
        <Command.List className={`mt-1 max-h-[168px] overflow-y-auto ${listed ? "" : "hidden"}`} aria-label="Targets">
          {/* A name that is not there comes before those that merely have it somewhere inside. */}
          {exact.map(place)}
          {called.map(doingItem)}
          {begin.filter((target) => !exact.includes(target)).map(place)}
          {name !== "" && made}
          {others.map(doingItem)}
          {inside.map(place)}
          {around !== undefined && lookup(project).owners.get(around)?.kind !== "modal" && (
            <Command.Item value={`${AROUND} ${around}`} onSelect={() => done({ modalAround: around })} className={item}>
              <span className="text-ink-2">Put a new modal around “{nameOf(project, around)}”, and bring that up</span>
            </Command.Item>
          )}
        </Command.List>
      </Command>
      <div className={`mt-2 min-h-[104px] ${listed ? "" : "hidden"} border-t border-hairline pt-2 text-[12.5px]`} aria-live="polite">
        {doing ? (
          <>
            <p className="m-0 mb-2">
              {doing.does.move ? moveSentence(project, from.place, doing.does.move) : "Moves nothing; what it sets is chosen beside it."}
            </p>
            {doing.does.move && doing.does.move.kind !== "proceed" && <Picture project={project} from={from.place} move={doing.does.move} />}
          </>
        ) : proposed ? (
          <>
            <p className="m-0 mb-2">{proposed.sentence}</p>
            <Picture project={project} from={from.place} move={proposed.move} />
          </>
        ) : (
          <p className="m-0 text-ink-2">
            {value.startsWith(AROUND) ? "It comes up over the page, and goes away again." : (newOnes.find((one) => value === `${NEW} ${one.as}`)?.does ?? "")}
          </p>
        )}
      </div>
    </section>
  );
}
