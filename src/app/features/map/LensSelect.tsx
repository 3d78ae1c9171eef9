import type { LensChoice, LensId } from "../../../core/map/lenses/lens.ts";
import { LENSES } from "../../../core/map/lenses/names.ts";
import { useLensing } from "../../session/hooks.ts";

/** Which lens is on, and another. */
export function LensSelect() {
  const { choice, choose } = useLensing();
  return (
    <label className="flex items-center gap-1">
      lens
      <select
        aria-label="Lens"
        value={choice.lens}
        className="h-6 border border-hairline bg-sheet text-[11.5px] text-ink"
        onChange={(event) => choose(begun(event.target.value as LensId))}
      >
        {LENSES.map(({ id, name, asks }) => (
          <option key={id} value={id} title={asks}>
            {name.toLowerCase()}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A lens as it is first looked through. */
function begun(lens: LensId): LensChoice {
  return lens === "changed" ? { lens, against: "" } : { lens };
}
