import { useMemo } from "react";
import { placeValues } from "../../../core/insight/sample.ts";
import { changeElement } from "../../../core/model/edits/change.ts";
import { together } from "../../../core/model/edits/kinds.ts";
import { addNamedType } from "../../../core/model/edits/paging.ts";
import type { Scope } from "../../../core/model/expression.ts";
import { elementIdOf, lookup, nameOf, typeLabel } from "../../../core/model/lookup.ts";
import { moveSentence } from "../../../core/model/propose.ts";
import { ELEMENT_KINDS, type Element } from "../../../core/model/schema.ts";
import { placeScope } from "../../../core/model/scope.ts";
import { useDocument, useSelection, useSheets } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { ExpressionField } from "../../ui/ExpressionField.tsx";
import { Choice, TextField } from "../../ui/Field.tsx";
import { TemplateField } from "../../ui/TemplateField.tsx";

import { Head } from "./Head.tsx";
import { Sharing } from "./Shared.tsx";

/** The choice that stands for a record type that is yet to be made. */
const NEW_TYPE = "new record type";

/** What one row of a list is called: "Plots" gives "Plot". */
const oneOf = (label: string) => label.replace(/ies$/, "y").replace(/([^s])s$/, "$1") || "Row";

export function ElementForm({ place, element }: { place: string; element: Element }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const { select, link } = useSelection();
  const open = useSheets((s) => s.open);
  const change = (part: Partial<Element>) => apply(changeElement(project, place, element.id, part));
  const rowsOfNewType = () => {
    const made = addNamedType(project, oneOf(element.label));
    apply(together(made.edit.name, [made.edit, changeElement(project, place, element.id, { of: made.id })]));
  };
  const legs = (lookup(project).legsFrom.get(place) ?? []).filter((leg) => elementIdOf(leg) === element.id);
  const scope = placeScope(project, place);
  const values = useMemo(() => placeValues(project, place), [project, place]);
  const row = element.of === undefined ? undefined : lookup(project).types.get(element.of);
  const fields = row && scope.records[row.id];
  const textScope: Scope = row && fields ? { ...scope, names: { ...scope.names, item: { type: `record:${row.id}`, fields } } } : scope;
  const textValues = row ? { ...values, item: row.samples[0] } : values;
  return (
    <div className="flex flex-col gap-2">
      <Head
        kind={`${element.kind} on ${nameOf(project, place)}`}
        name={element.label || element.id}
        what={{ kind: "element", place, id: element.id }}
        onDelete={() => open({ is: "delete", asked: [{ kind: "element", place, id: element.id }] })}
      />
      {legs.map((leg) => (
        <button
          key={leg.id}
          type="button"
          className="border-l-2 border-accent pl-2 text-left text-[12.5px] hover:bg-band"
          onClick={() => select({ kind: "leg", id: leg.id })}
        >
          {leg.move ? moveSentence(project, place, leg.move) : "Only sets facts."}
        </button>
      ))}
      <Button tone="main" className="self-start" onClick={() => link({ place, element: element.id })}>
        {legs.length === 0 ? "Lead somewhere…" : "Lead elsewhere…"}
      </Button>
      <Sharing place={place} element={element} />
      <div className="grid grid-cols-2 gap-2">
        <TextField label="Label" value={element.label} onCommit={(label) => change({ label })} />
        <Choice label="Kind" value={element.kind} options={ELEMENT_KINDS.map((kind) => ({ value: kind, label: kind }))} onChange={(kind) => change({ kind })} />
        <Choice
          label="Stands in the"
          value={element.at ?? "body"}
          options={[
            { value: "bar", label: "bar" },
            { value: "body", label: "body" },
            { value: "foot", label: "foot" },
          ]}
          onChange={(at) => change({ at: at === "body" ? undefined : at })}
        />
        {element.kind === "list" && (
          <Choice
            label="Rows of"
            value={element.of ?? ""}
            options={[
              { value: "", label: "nothing in particular" },
              ...project.types.map((t) => ({ value: t.id, label: typeLabel(t) })),
              { value: NEW_TYPE, label: `a new record type “${oneOf(element.label)}”` },
            ]}
            onChange={(of) => (of === NEW_TYPE ? rowsOfNewType() : change({ of: of === "" ? undefined : of }))}
          />
        )}
      </div>
      <TemplateField
        label="Text; {item.name} and the like take values in"
        value={element.text ?? ""}
        placeholder={element.label}
        scope={textScope}
        values={textValues}
        onCommit={(text) => change({ text: text === "" ? undefined : text })}
      />
      <ExpressionField
        label="Shown if"
        condition
        value={element.shown ?? ""}
        placeholder="always"
        scope={scope}
        values={values}
        onCommit={(shown) => change({ shown: shown === "" ? undefined : shown })}
      />
      <ExpressionField
        label="Usable if"
        condition
        value={element.enabled ?? ""}
        placeholder="always"
        scope={scope}
        values={values}
        onCommit={(enabled) => change({ enabled: enabled === "" ? undefined : enabled })}
      />
    </div>
  );
}
