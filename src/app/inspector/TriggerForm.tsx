import { lookup } from "../../core/model/lookup.ts";
import type { Leg, Project, Trigger } from "../../core/model/schema.ts";
import { Choice, isDuration, TextField } from "../parts/Field.tsx";

const KINDS: ReadonlyArray<{ value: Trigger["kind"]; label: string }> = [
  { value: "tap", label: "tap on" },
  { value: "submit", label: "submit of" },
  { value: "hold", label: "long press on" },
  { value: "swipe", label: "swipe" },
  { value: "after", label: "time passing" },
  { value: "arrive", label: "arriving" },
  { value: "depart", label: "departing" },
];

/** What needs an element to happen on. */
const ON_ELEMENTS: readonly Trigger["kind"][] = ["tap", "submit", "hold"];

/** By what a leg is taken. */
export function TriggerForm({ project, leg, onChange }: { project: Project; leg: Leg; onChange: (on: Trigger) => void }) {
  const place = lookup(project).places.get(leg.from);
  const elements = (place?.kind === "screen" ? place.screen.elements : place?.container.elements) ?? [];
  const on = leg.on;
  const kinds = KINDS.filter(
    ({ value }) =>
      value === on.kind || ((place?.kind === "screen" || (value !== "after" && value !== "arrive")) && (elements.length > 0 || !ON_ELEMENTS.includes(value))),
  );
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice label="By" value={on.kind} options={kinds} onChange={(kind) => onChange(triggerOf(kind, on, elements[0]?.id))} />
      {"element" in on && on.kind !== "swipe" && on.element !== undefined && (
        <Choice
          label="Element"
          value={on.element}
          options={elements.map((e) => ({ value: e.id, label: e.label || e.id }))}
          onChange={(element) => onChange({ ...on, element })}
        />
      )}
      {(on.kind === "tap" || on.kind === "submit" || on.kind === "hold") && (
        <TextField
          label="When it comes out as"
          value={on.outcome ?? ""}
          placeholder="anything"
          onCommit={(outcome) => onChange({ kind: on.kind, element: on.element, ...(outcome === "" ? {} : { outcome }) })}
        />
      )}
      {on.kind === "swipe" && (
        <Choice
          label="Towards"
          value={on.to}
          options={(["left", "right", "up", "down"] as const).map((to) => ({ value: to, label: to }))}
          onChange={(to) => onChange({ ...on, to })}
        />
      )}
      {on.kind === "after" && (
        <TextField label="Milliseconds" value={String(on.ms)} onCommit={(text) => isDuration(text) && onChange({ kind: "after", ms: Number(text) })} />
      )}
    </div>
  );
}

function triggerOf(kind: Trigger["kind"], before: Trigger, first: string | undefined): Trigger {
  const element = "element" in before && before.element !== undefined ? before.element : (first ?? "element");
  switch (kind) {
    case "tap":
    case "submit":
    case "hold":
      return { kind, element };
    case "swipe":
      return { kind, to: "left" };
    case "after":
      return { kind, ms: 1000 };
    case "arrive":
    case "depart":
      return { kind };
  }
}
