import { useState } from "react";
import { factLabel } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { ruleScope } from "../../../core/model/scope.ts";
import { ExpressionField } from "../../ui/ExpressionField.tsx";
import { conditionOf, ticksOf } from "./condition.ts";

interface Props {
  project: Project;
  value: string;
  onChange: (value: string) => void;
}

/** The condition of a rule: facts by tick, or written out where it says more than ticks can. */
export function ConditionTicks({ project, value, onChange }: Props) {
  const ticks = ticksOf(project, value);
  const [written, setWritten] = useState(ticks === undefined);
  const set = (id: string, next: string) => {
    const { [id]: _, ...others } = ticks ?? {};
    const known = project.facts.find((fact) => fact.id === id)?.type === "boolean" ? next === "is" : next;
    onChange(conditionOf(next === "" ? others : { ...others, [id]: known }));
  };
  if (written || ticks === undefined)
    return (
      <span className="inline-flex items-center gap-2 align-middle">
        <span className="inline-block w-72">
          <ExpressionField
            label=""
            accessibleLabel="The condition"
            value={value}
            onCommit={onChange}
            scope={ruleScope(project)}
            condition
            placeholder="!fact.member"
          />
        </span>
        {ticks !== undefined && (
          <button type="button" className="min-h-6 text-[12px] text-ink-2 hover:text-ink" onClick={() => setWritten(false)}>
            by tick
          </button>
        )}
      </span>
    );
  const select =
    "h-7 border border-hairline bg-paper px-1 text-[12.5px] text-ink data-[set=true]:border-accent data-[set=true]:bg-accent-soft data-[set=true]:font-semibold";
  return (
    <span className="inline-flex flex-wrap items-center gap-x-3 gap-y-1 align-middle">
      {project.facts.map((fact) => {
        const now = ticks[fact.id];
        const options = fact.type === "boolean" ? ["is", "is not"] : (fact.values ?? []);
        return (
          <label key={fact.id} className="inline-flex items-center gap-1 text-[12.5px]">
            {factLabel(fact)}
            <select
              aria-label={`${factLabel(fact)}, while the rule holds`}
              value={now === undefined ? "" : typeof now === "boolean" ? (now ? "is" : "is not") : now}
              data-set={now !== undefined}
              onChange={(event) => set(fact.id, event.target.value)}
              className={select}
            >
              <option value="">whichever</option>
              {options.map((option) => (
                <option key={option} value={option}>
                  {fact.type === "boolean" ? (option === "is" ? "yes" : "no") : option}
                </option>
              ))}
            </select>
          </label>
        );
      })}
      <label className="inline-flex items-center gap-1 text-[12.5px]">
        window
        <select
          aria-label="How wide the window is, while the rule holds"
          value={String(ticks.width ?? "")}
          data-set={ticks.width !== undefined}
          onChange={(event) => set("width", event.target.value)}
          className={select}
        >
          <option value="">whichever</option>
          {["narrow", "middle", "wide"].map((option) => (
            <option key={option}>{option}</option>
          ))}
        </select>
      </label>
      <button type="button" className="min-h-6 text-[12px] text-ink-2 hover:text-ink" onClick={() => setWritten(true)}>
        write it
      </button>
    </span>
  );
}
