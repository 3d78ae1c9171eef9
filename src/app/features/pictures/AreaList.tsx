import { keptTogether } from "../../../core/model/edits/pictures.ts";
import { drawerOf, isPinned, nameOf } from "../../../core/model/lookup.ts";
import { areaProblem, type Control, controlsOf, isShared } from "../../../core/model/pictures.ts";
import type { Area, Picture, Project } from "../../../core/model/schema.ts";
import { Button } from "../../ui/Button.tsx";
import { Check } from "../../ui/Field.tsx";
import { noteOf } from "./AreaForm.tsx";

interface Props {
  project: Project;
  screen: string;
  picture: Picture;
  chosen: number | undefined;
  area: Area | undefined;
  /** Changes are made on this picture alone. */
  alone: boolean;
  onAlone: (alone: boolean) => void;
  onChoose: (area: number | undefined) => void;
  onChange: (was: Area, area: Area) => void;
  onRemove: (area: Area) => void;
  onPlace: (control: string) => void;
}

/** The areas of a picture by name, what the chosen one stands for, and the controls that the picture has no area for. */
export function AreaList({ project, screen, picture, chosen, area, alone, onAlone, onChoose, onChange, onRemove, onPlace }: Props) {
  const controls = controlsOf(project, screen);
  const label = (control: string) => controls.find((one) => one.control === control)?.label ?? control;
  const has = new Set(picture.areas.map(({ control }) => control));
  // A drawer that is not pinned slides in with its members, and a layer has its ×.
  const others = controls.filter(
    ({ control, kind, on }) => !has.has(control) && kind !== "close" && !(kind === "pick" && !isPinned(drawerOf(project, on), picture.for ?? "narrow")),
  );
  const together = area ? new Set(keptTogether(project, screen, picture, area).map((one) => one.screen)).size : 0;
  return (
    <>
      <h3 className="caption m-0 mb-1 text-[12px]">Areas</h3>
      {picture.areas.length === 0 && <p className="m-0 text-[12px] text-ink-2">None yet: drag over a button in the picture.</p>}
      <ul className="m-0 list-none p-0">
        {picture.areas.map((one, i) => {
          const lost = areaProblem(project, screen, picture, one);
          return (
            <li key={`${one.control} ${one.at.join(" ")}`}>
              <button
                type="button"
                aria-pressed={i === chosen}
                className={`min-h-6 w-full truncate px-1 text-left ${i === chosen ? "bg-accent-soft font-semibold" : "hover:bg-band"} ${lost ? "text-urgent" : ""}`}
                title={lost}
                onClick={() => onChoose(i)}
              >
                {label(one.control)}
              </button>
            </li>
          );
        })}
      </ul>
      {area && (
        <div className="mt-2 border-accent border-l-2 pl-2">
          <label className="block text-[11.5px] text-ink-2">
            It stands for
            <select
              value={area.control}
              onChange={(event) => onChange(area, { ...area, control: event.target.value })}
              className="mt-0.5 block h-7 w-full border border-hairline bg-paper text-[12px] text-ink"
            >
              {!controls.some(({ control }) => control === area.control) && <option value={area.control}>{area.control} (not on the screen)</option>}
              {controls.map((one) => (
                <option key={one.control} value={one.control}>
                  {optionOf(project, screen, one)}
                </option>
              ))}
            </select>
          </label>
          <Numbers area={area} onChange={(at) => onChange(area, { ...area, at })} />
          {(together > 1 || alone) && <Check label={together > 1 ? `Only here, not on ${together - 1} more` : "Only here"} value={alone} onChange={onAlone} />}
          <Button tone="quiet" className="!px-0" onClick={() => onRemove(area)}>
            Delete area
          </Button>
        </div>
      )}
      {others.length > 0 && (
        <>
          <h3 className="caption m-0 mt-3 mb-1 text-[12px]">Not on the picture</h3>
          <ul className="m-0 list-none p-0">
            {others.map((one) => (
              <li key={one.control} className="flex items-center gap-1">
                <span className="min-w-0 flex-1 truncate text-ink-2" title={one.label}>
                  {one.label} {one.kind !== "element" && one.kind !== "lead" && <span className="text-[11px]">{noteOf(project, one)}</span>}
                </span>
                <Button
                  tone="link"
                  aria-label={`Give ${one.label} an area`}
                  title="Puts an area in the middle, to be dragged to its place"
                  onClick={() => onPlace(one.control)}
                >
                  place
                </Button>
              </li>
            ))}
          </ul>
          <p className="m-0 mt-1 text-[11px] text-ink-2">On the device they stand beneath the picture.</p>
        </>
      )}
    </>
  );
}

function optionOf(project: Project, screen: string, one: Control): string {
  if (one.kind === "tab") return `${one.label} (tab)`;
  if (one.kind === "pick") return `${one.label} (in ${nameOf(project, one.on)})`;
  return isShared(one, screen) && one.kind === "element" ? `${one.label} (of ${nameOf(project, one.on)})` : one.label;
}

const SIDES = ["x", "y", "width", "height"] as const;

/** Where an area lies, in pixels of the picture. */
function Numbers({ area, onChange }: { area: Area; onChange: (at: Area["at"]) => void }) {
  return (
    <div className="mt-1 grid grid-cols-4 gap-1">
      {SIDES.map((side, i) => (
        <label key={side} className="text-[10.5px] text-ink-2">
          {side}
          <input
            key={area.at[i]}
            type="number"
            step={1}
            defaultValue={area.at[i]}
            className="block h-6 w-full border border-hairline bg-paper px-0.5 text-[11px] text-ink"
            onBlur={(event) => {
              const value = Number(event.target.value);
              if (!Number.isFinite(value) || value === area.at[i] || (i > 1 && value <= 0)) return;
              onChange(area.at.map((n, at) => (at === i ? value : n)) as Area["at"]);
            }}
          />
        </label>
      ))}
    </div>
  );
}
