import { passTarget } from "../../core/engine/compiled.ts";
import { pileOf, previewMove } from "../../core/engine/preview.ts";
import { branchNode, topBranch } from "../../core/engine/state.ts";
import { triggerLabel } from "../../core/map/layout.ts";
import { changeLeg } from "../../core/model/edits/change.ts";
import { elementIdOf, elementOf, lookup, nameOf, targetOf } from "../../core/model/lookup.ts";
import { moveSentence, moveWord } from "../../core/model/propose.ts";
import type { Leg, Move, Project } from "../../core/model/schema.ts";
import { compileCondition, legScope } from "../../core/model/scope.ts";
import { Check, Choice, TextField } from "../parts/Field.tsx";
import { useDeletion } from "../shell/deletion.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { Head } from "./Head.tsx";
import { TARGETLESS, wayKey, waysTo } from "./moveKinds.ts";
import { PassForm } from "./PassForm.tsx";
import { TriggerForm } from "./TriggerForm.tsx";

/** A leg as a strip: from, by what, if, goes how, carrying what, setting what; the picture of the stack before and after. */
export function LegStrip({ leg }: { leg: Leg }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { link } = useSelection();
  const ask = useDeletion((d) => d.ask);
  const change = (part: Partial<Leg>) => apply(changeLeg(project, leg, part));
  const elementId = elementIdOf(leg);
  const label = elementId === undefined ? triggerLabel(leg) : (elementOf(project, leg.from, elementId)?.label ?? elementId);
  const to = targetOf(leg);
  const scope = legScope(project, leg);
  const when = leg.when === undefined ? undefined : compileCondition(leg.when, scope);
  const target = passTarget(project, leg);
  const ways = to === undefined ? [] : waysTo(project, leg, to);
  return (
    <div className="flex flex-col gap-2">
      <Head kind={leg.planned ? "planned leg" : "leg"} name={label} id={leg.id} onDelete={() => ask({ kind: "leg", id: leg.id })} />
      <p className="m-0 text-[12.5px]">
        {nameOf(project, leg.from)} · {label} <span className="text-ink-2">goes {moveWord(leg.move)}</span>{" "}
        {to !== undefined && (
          <button
            type="button"
            className="font-semibold text-accent hover:underline"
            onClick={() => elementId !== undefined && link({ place: leg.from, element: elementId })}
            disabled={elementId === undefined}
          >
            {nameOf(project, to)}
          </button>
        )}
      </p>
      {leg.move && <p className="m-0 text-[12px] text-ink-2">{moveSentence(project, leg.from, leg.move)}</p>}
      {leg.move && <Picture project={project} leg={leg} move={leg.move} />}
      <div role="radiogroup" aria-label="How it gets there" className="flex flex-wrap gap-1">
        {[...ways, ...(to === undefined ? TARGETLESS : [])].map((way) => {
          const chosen = leg.move !== undefined && wayKey(leg.move) === way.key;
          return (
            <button
              key={way.key}
              type="button"
              role="radio"
              aria-checked={chosen}
              title={moveSentence(project, leg.from, way.move)}
              onClick={() => change({ move: way.move })}
              className={`min-h-6 border px-1.5 text-[11.5px] ${chosen ? "border-accent bg-accent-soft font-semibold" : "border-hairline hover:border-ink"}`}
            >
              {way.label}
            </button>
          );
        })}
      </div>
      <TriggerForm project={project} leg={leg} onChange={(on) => change({ on })} />
      <TextField
        label="Only if"
        mono
        value={leg.when ?? ""}
        placeholder="always"
        problem={when && !when.ok ? when.error.message : undefined}
        onCommit={(text) => change({ when: text === "" ? undefined : text })}
      />
      {leg.move && "to" in leg.move && leg.move.kind !== "select" && target !== undefined && (
        <PassForm
          scope={scope}
          target={target}
          pass={"pass" in leg.move ? leg.move.pass : undefined}
          onChange={(pass) => change({ move: withPass(leg.move as Move, pass) })}
        />
      )}
      <SetForm project={project} leg={leg} onChange={(set) => change({ set })} />
      <TextField label="Note" value={leg.note ?? ""} onCommit={(note) => change({ note: note === "" ? undefined : note })} />
      <Check label="only planned" value={leg.planned === true} onChange={(v) => change({ planned: v || undefined })} />
    </div>
  );
}

function withPass(move: Move, pass: Record<string, string> | undefined): Move {
  const { pass: _, ...rest } = move as Move & { pass?: unknown };
  return (pass ? { ...rest, pass } : rest) as Move;
}

/** The stack before and after, as small cards; the one that shows is in the accent. */
function Picture({ project, leg, move }: { project: Project; leg: Leg; move: Move }) {
  const { before, change } = previewMove(project, leg.from, move);
  const after = change.is === "moved" ? change.state : undefined;
  const over = after && topBranch(after) > 0 ? nameOf(project, after.layers[topBranch(after) - 1]?.at ?? "") : undefined;
  return (
    <div className="flex items-end gap-3" aria-hidden="true">
      <Pile names={pileOf(before).map((id) => nameOf(project, id))} says="before" />
      <span className="pb-4 text-ink-2">→</span>
      {after ? (
        <Pile
          names={pileOf(after).map((id) => nameOf(project, id))}
          says={
            over ? `after, over the page: ${over}` : `after${branchNode(after, topBranch(after)) === branchNode(before, topBranch(before)) ? ", the same" : ""}`
          }
          now
        />
      ) : (
        <span className="pb-3 text-[11.5px] text-ink-2">
          {change.is === "left" ? "the app is left" : change.is === "refused" ? "can not be done from there" : "nothing would change"}
        </span>
      )}
    </div>
  );
}

function Pile({ names, says, now }: { names: string[]; says: string; now?: boolean }) {
  return (
    <div>
      {[...names].reverse().map((name, i) => (
        <div
          key={i}
          className={`mt-[2px] w-28 truncate border px-1 text-[11px] ${i === 0 ? (now ? "border-accent bg-accent text-on-accent" : "border-ink bg-band") : "border-ink-2 bg-sheet"}`}
        >
          {name}
        </div>
      ))}
      <p className="m-0 text-[10.5px] text-ink-2">{says}</p>
    </div>
  );
}

function SetForm({ project, leg, onChange }: { project: Project; leg: Leg; onChange: (set: Leg["set"]) => void }) {
  const app = [...lookup(project).facts.values()];
  if (app.length === 0) return null;
  const set = leg.set ?? {};
  const free = app.filter((fact) => set[fact.id] === undefined);
  const put = (next: Record<string, string>) => onChange(Object.keys(next).length > 0 ? next : undefined);
  return (
    <div>
      <h4 className="caption m-0 mb-1">Sets</h4>
      {Object.entries(set).map(([id, source]) => (
        <TextField
          key={id}
          mono
          label={`${lookup(project).facts.get(id)?.name ?? id} =`}
          value={source}
          onCommit={(text) => {
            const { [id]: _, ...rest } = set;
            put(text === "" ? rest : { ...rest, [id]: text });
          }}
        />
      ))}
      {free.length > 0 && (
        <Choice
          label=""
          value=""
          options={[{ value: "", label: "set a fact…" }, ...free.map((fact) => ({ value: fact.id, label: fact.name ?? fact.id }))]}
          onChange={(id) => {
            const fact = lookup(project).facts.get(id);
            if (fact) put({ ...set, [id]: fact.type === "boolean" ? "true" : `"${fact.values?.[0] ?? ""}"` });
          }}
        />
      )}
    </div>
  );
}
