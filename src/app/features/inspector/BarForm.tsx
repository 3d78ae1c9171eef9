import type { Bar } from "../../../core/model/schema.ts";
import { Choice, TextField } from "../../ui/Field.tsx";

type Lead = Bar["lead"];
const LEADS: ReadonlyArray<{ value: Lead | "inherit" | "hidden"; label: string }> = [
  { value: "inherit", label: "as around it" },
  { value: "auto", label: "Back where there is one, else Up" },
  { value: "back", label: "Back" },
  { value: "up", label: "Up" },
  { value: "menu", label: "the menu" },
  { value: "none", label: "nothing" },
  { value: "hidden", label: "no bar at all" },
];

/** What the bar shows at its start. */
export function BarForm({ bar, onChange }: { bar: Bar | undefined; onChange: (bar: Bar | undefined) => void }) {
  const value = bar === undefined ? "inherit" : bar.show ? bar.lead : "hidden";
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="The bar starts with"
        value={value}
        options={LEADS}
        onChange={(next) =>
          onChange(next === "inherit" ? undefined : next === "hidden" ? { ...bar, show: false, lead: "none" } : { ...bar, show: true, lead: next })
        }
      />
      {bar?.show && (
        <TextField
          label="Words beside Back"
          value={bar.backLabel ?? ""}
          onCommit={(text) => onChange({ show: bar.show, lead: bar.lead, ...(text === "" ? {} : { backLabel: text }) })}
        />
      )}
    </div>
  );
}
