import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Leg, Project, Trigger } from "../../../core/model/schema.ts";
import { Check, Choice, isDuration, TextField } from "../../ui/Field.tsx";

const KINDS: ReadonlyArray<{ value: Trigger["kind"]; label: string }> = [
  { value: "tap", label: "tap on" },
  { value: "submit", label: "submit of" },
  { value: "hold", label: "long press on" },
  { value: "swipe", label: "swipe" },
  { value: "after", label: "time passing" },
  { value: "arrive", label: "arriving" },
  { value: "depart", label: "departing" },
];

type Departures = NonNullable<Extract<Trigger, { kind: "depart" }>["by"]>;
/** What a screen can be left by. */
const DEPARTURES: ReadonlyArray<{ by: Departures[number]; says: string }> = [
  { by: "back", says: "the system's Back" },
  { by: "lead", says: "Back or Up in the bar" },
  { by: "tab", says: "another tab" },
  { by: "pick", says: "the menu" },
  { by: "close", says: "closing the modal" },
  { by: "link", says: "a way in" },
];

/** What needs an element to happen on. */
const ON_ELEMENTS: readonly Trigger["kind"][] = ["tap", "submit", "hold"];

interface Props {
  project: Project;
  leg: Leg;
  onChange: (on: Trigger) => void;
  onFrom: (place: string) => void;
}

/** By what a leg is taken, and where one without an element starts. */
export function TriggerForm({ project, leg, onChange, onFrom }: Props) {
  const place = lookup(project).places.get(leg.from);
  const elements = (place?.kind === "screen" ? place.screen.elements : place?.container.elements) ?? [];
  const on = leg.on;
  const kinds = KINDS.filter(
    ({ value }) =>
      value === on.kind || ((place?.kind === "screen" || (value !== "after" && value !== "arrive")) && (elements.length > 0 || !ON_ELEMENTS.includes(value))),
  );
  return (
    <div className="grid grid-cols-2 gap-2">
      {!("element" in on && on.element !== undefined) && (
        <Choice
          label="Starts from"
          value={leg.from}
          options={startsOf(project, on).map((id) => ({ value: id, label: nameOf(project, id) }))}
          onChange={onFrom}
        />
      )}
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
      {on.kind === "swipe" && (
        <Choice
          label="On"
          value={on.element ?? ""}
          options={[{ value: "", label: "the whole screen" }, ...elements.map((e) => ({ value: e.id, label: e.label || e.id }))]}
          onChange={(element) => onChange({ kind: "swipe", to: on.to, ...(element === "" ? {} : { element }) })}
        />
      )}
      {on.kind === "depart" && (
        <fieldset className="col-span-2 m-0 border-0 p-0">
          <legend className="p-0 text-[11.5px] text-ink-2">When it is left by {on.by === undefined ? "anything" : "these alone"}</legend>
          <div className="grid grid-cols-2">
            {DEPARTURES.map(({ by, says }) => (
              <Check key={by} label={says} value={on.by?.includes(by) ?? true} onChange={(ticked) => onChange(departure(on.by, by, ticked))} />
            ))}
          </div>
        </fieldset>
      )}
      {on.kind === "after" && (
        <TextField label="Milliseconds" value={String(on.ms)} onCommit={(text) => isDuration(text) && onChange({ kind: "after", ms: Number(text) })} />
      )}
    </div>
  );
}

/** Places that a leg without an element can start from. */
function startsOf(project: Project, on: Trigger): string[] {
  const containers = on.kind === "after" || on.kind === "arrive" ? [] : project.containers;
  return [...project.screens, ...containers].map(({ id }) => id);
}

/** A departure by one way more or less; by none or by all of them means by anything. */
function departure(known: Departures | undefined, by: Departures[number], ticked: boolean): Trigger {
  const had = known ?? DEPARTURES.map((one) => one.by);
  const now = DEPARTURES.map((one) => one.by).filter((one) => (one === by ? ticked : had.includes(one)));
  return { kind: "depart", ...(now.length === 0 || now.length === DEPARTURES.length ? {} : { by: now }) };
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
