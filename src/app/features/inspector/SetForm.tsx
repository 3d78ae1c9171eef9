import type { Scope } from "../../../core/model/expression.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Leg, Project } from "../../../core/model/schema.ts";
import type { Values } from "../../../core/plan/expression.ts";
import { useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { ExpressionField } from "../../ui/ExpressionField.tsx";
import { Choice } from "../../ui/Field.tsx";

interface Props {
  project: Project;
  leg: Leg;
  scope: Scope;
  values: Values;
  onChange: (set: Leg["set"]) => void;
}

/** The facts that a leg sets. */
export function SetForm({ project, leg, scope, values, onChange }: Props) {
  const app = [...lookup(project).facts.values()];
  const open = useSheets((s) => s.open);
  if (app.length === 0)
    return (
      <Button tone="link" className="self-start" onClick={() => open({ is: "facts" })}>
        Set something: make a fact first…
      </Button>
    );
  const set = leg.set ?? {};
  const free = app.filter((fact) => set[fact.id] === undefined);
  const put = (next: Record<string, string>) => onChange(Object.keys(next).length > 0 ? next : undefined);
  return (
    <div>
      <h4 className="caption m-0 mb-1">Sets</h4>
      {Object.entries(set).map(([id, source]) => (
        <ExpressionField
          key={id}
          label={`${lookup(project).facts.get(id)?.name ?? id} =`}
          value={source}
          scope={scope}
          fact={id}
          values={values}
          wants={lookup(project).facts.get(id)?.type === "choice" ? "text" : "boolean"}
          onCommit={(text) => {
            const { [id]: _, ...rest } = set;
            put(text === "" ? rest : { ...rest, [id]: text });
          }}
        />
      ))}
      {free.length > 0 && (
        <Choice
          label="Set another fact"
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
