import { useEffect, useRef, useState } from "react";
import type { Part } from "../../../core/model/rules.ts";
import { MOST_TAPS, type Project } from "../../../core/model/schema.ts";
import { useSelection } from "../../session/hooks.ts";
import type { Selection } from "../../session/selection.ts";
import { Button } from "../../ui/Button.tsx";
import { Choice, TextField } from "../../ui/Field.tsx";
import { ConditionTicks } from "./ConditionTicks.tsx";
import { type Draft, PARTS_OF, ruleOf, type Thing, takesPlacesAlone, thingsChosen, thingsIn, withoutThing, withThings } from "./draft.ts";
import { PartField, thingName } from "./PartField.tsx";

/** What stands in an empty part, and what the part is for. */
const EMPTY: Record<Part, { says: string; label: string }> = {
  see: { says: "what?", label: "What is not to be seen, or may be" },
  after: { says: "anything", label: "After what" },
  until: { says: "ever after", label: "Until what" },
  needs: { says: "what?", label: "What has to come first" },
  before: { says: "what?", label: "What comes after it" },
  to: { says: "what?", label: "What is near" },
  from: { says: "everywhere", label: "From where" },
};

interface Props {
  project: Project;
  draft: Draft;
  onChange: (draft: Draft) => void;
  onDone: () => void;
  onDelete: () => void;
}

/** A rule as a sentence whose parts are picked: on the map, in the outline, or by typing; facts by tick. */
export function RuleEditor({ project, draft, onChange, onDone, onDelete }: Props) {
  const { all, needed } = PARTS_OF[draft.kind];
  const isEmpty = (part: Part) => thingsIn(draft.parts[part]).length === 0;
  const [active, setActive] = useState<Part | undefined>(() => needed.find(isEmpty));
  const placesAlone = takesPlacesAlone(draft.kind);
  const add = (part: Part, things: readonly Thing[]) => things.length > 0 && onChange(withThings(draft, part, things));
  usePicked((selected) => active && add(active, thingsChosen(project, selected, placesAlone)));
  const next = (part: Part) => setActive(all.slice(all.indexOf(part) + 1).find(isEmpty) ?? needed.find((one) => one !== part && isEmpty(one)));
  const part = (name: Part) => (
    <PartView
      key={name}
      project={project}
      part={name}
      things={thingsIn(draft.parts[name])}
      active={active === name}
      placesAlone={placesAlone}
      onActive={() => setActive(name)}
      onPick={(thing) => add(name, [thing])}
      onRemove={(thing) => onChange(withoutThing(draft, name, thing))}
      onNext={() => next(name)}
    />
  );
  const whole = ruleOf(project, draft) !== undefined;
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // What it gives in some browsers is no cleaning up.
    void box.current?.scrollIntoView({ block: "nearest" });
  }, []);
  return (
    <div
      ref={box}
      role="group"
      aria-label="Write the rule"
      className="border-b border-hairline bg-paper px-4 pt-2 pb-3"
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        event.stopPropagation();
        if (active) setActive(undefined);
        else onDone();
      }}
    >
      <div className="m-0 text-[13.5px] leading-[2.3]" data-testid="sentence">
        {draft.kind === "never" && (
          <>
            After {part("after")} nobody sees or uses {part("see")} until {part("until")}.
          </>
        )}
        {draft.kind === "first" && (
          <>
            Nobody sees or uses {part("before")} without {part("needs")} first.
          </>
        )}
        {draft.kind === "only" && (
          <>
            While <ConditionTicks project={project} value={draft.while} onChange={(value) => onChange({ ...draft, while: value })} /> people see only{" "}
            {part("see")}.
          </>
        )}
        {draft.kind === "within" && (
          <>
            {part("to")} is within{" "}
            <input
              type="number"
              aria-label="Taps"
              min={1}
              max={MOST_TAPS}
              value={draft.taps}
              onChange={(event) => {
                const taps = Math.round(Number(event.target.value));
                if (taps >= 1 && taps <= MOST_TAPS) onChange({ ...draft, taps });
              }}
              className="h-7 w-14 border border-hairline bg-sheet px-1.5 text-[13px]"
            />{" "}
            {draft.taps === 1 ? "tap" : "taps"} of {part("from")}.
          </>
        )}
      </div>
      <p className="m-0 min-h-[18px] text-[12px] text-ink-2">
        {active
          ? `Click ${placesAlone ? "a screen or container" : "a screen, container, leg or way in"} on the map or in the outline, or type its name. Several count as “any of them”.`
          : whole
            ? "It is checked as you write it."
            : draft.kind === "only" && draft.while === ""
              ? "Say while what it holds: set at least one fact."
              : "Something is still missing: fill in what has a question mark."}
      </p>
      <div className="mt-2 flex items-end gap-3">
        <div className="w-52">
          <TextField
            label="Name"
            value={draft.name}
            placeholder={ruleOf(project, { ...draft, name: "" })?.name ?? ""}
            onCommit={(name) => onChange({ ...draft, name })}
          />
        </div>
        <div className="min-w-0 flex-1">
          <TextField
            label="Why, for others"
            value={draft.about ?? ""}
            onCommit={(about) => onChange({ ...draft, about: about.trim() === "" ? undefined : about })}
          />
        </div>
        <Choice
          label="If it is broken"
          value={draft.severity ?? "blocker"}
          options={[
            { value: "blocker", label: "blocker" },
            { value: "warning", label: "warning" },
            { value: "note", label: "note" },
          ]}
          onChange={(severity) => onChange({ ...draft, severity: severity === "blocker" ? undefined : severity })}
        />
        <div className="ml-auto flex gap-2">
          <Button tone="quiet" onClick={onDelete}>
            {draft.id === "" ? "Never mind" : "Delete"}
          </Button>
          <Button tone="main" disabled={!whole} onClick={onDone}>
            Done
          </Button>
        </div>
      </div>
    </div>
  );
}

/** Calls back for what comes to be chosen on the map or in the outline. */
function usePicked(pick: (selected: Selection) => void) {
  const selected = useSelection((s) => s.selected);
  const last = useRef(selected);
  const latest = useRef(pick);
  latest.current = pick;
  useEffect(() => {
    if (last.current === selected) return;
    last.current = selected;
    if (selected) latest.current(selected);
  }, [selected]);
}

interface PartProps {
  project: Project;
  part: Part;
  things: readonly Thing[];
  active: boolean;
  placesAlone: boolean;
  onActive: () => void;
  onPick: (thing: Thing) => void;
  onRemove: (thing: Thing) => void;
  onNext: () => void;
}

/** One part of the sentence: what it speaks of, each to be taken out; while it is picked, the field to type in. */
function PartView({ project, part, things, active, placesAlone, onActive, onPick, onRemove, onNext }: PartProps) {
  const { says, label } = EMPTY[part];
  if (!active)
    return (
      <button
        type="button"
        data-part={part}
        aria-label={`${label}: ${things.map((thing) => thingName(project, thing)).join(" or ") || says}`}
        onClick={onActive}
        className={`mx-0.5 inline min-h-6 border-b-2 px-1 text-left leading-normal ${things.length > 0 ? "border-ink/40 font-semibold" : says === "what?" ? "border-accent border-dashed font-semibold text-accent" : "border-hairline border-dashed text-ink-2"} hover:border-accent`}
      >
        {things.length > 0 ? things.map((thing) => thingName(project, thing)).join(" or ") : says}
      </button>
    );
  return (
    <span data-part={part} className="mx-0.5 inline-flex flex-wrap items-center gap-1 border border-accent bg-sheet px-1 align-middle leading-normal">
      {things.map((thing) => (
        <span key={`${thing.of} ${thing.id}`} className="inline-flex items-center gap-1 bg-accent-soft pl-1.5 text-[12.5px] font-semibold">
          {thingName(project, thing)}
          <button
            type="button"
            aria-label={`Take out ${thingName(project, thing)}`}
            className="min-h-6 min-w-6 text-ink-2 hover:text-ink"
            onClick={() => onRemove(thing)}
          >
            ×
          </button>
        </span>
      ))}
      <PartField
        project={project}
        label={label}
        placesAlone={placesAlone}
        onPick={onPick}
        onNext={onNext}
        onTakeBack={() => {
          const last = things.at(-1);
          if (last) onRemove(last);
        }}
      />
    </span>
  );
}
