import type { Motion } from "../../../core/model/schema.ts";
import { Choice, isDuration, TextField } from "../../ui/Field.tsx";
import { MotionPreview } from "./MotionPreview.tsx";

const KINDS: ReadonlyArray<{ value: Motion["kind"] | "usual"; label: string }> = [
  { value: "usual", label: "as usual" },
  { value: "none", label: "none" },
  { value: "slide", label: "slides" },
  { value: "rise", label: "rises" },
  { value: "fade", label: "fades" },
  { value: "grow", label: "grows" },
];
const SIDES: ReadonlyArray<{ value: NonNullable<Motion["from"]> | "usual"; label: string }> = [
  { value: "usual", label: "its usual side" },
  { value: "start", label: "the start" },
  { value: "end", label: "the end" },
  { value: "top", label: "the top" },
  { value: "bottom", label: "the bottom" },
];

interface Props {
  motion: Motion | undefined;
  /** What happens where nothing is set. */
  usual: Motion | undefined;
  onChange: (motion: Motion | undefined) => void;
  children?: React.ReactNode;
}

/** How what comes moves in; going back plays it backwards. */
export function MotionForm({ motion, usual, onChange, children }: Props) {
  const sided = motion?.kind === "slide" || motion?.kind === "rise";
  return (
    <fieldset className="m-0 flex flex-col gap-2 border-0 p-0">
      <legend className="sr-only">Motion</legend>
      <div className="grid grid-cols-3 gap-2">
        <Choice
          label="What comes"
          value={motion?.kind ?? "usual"}
          options={KINDS.map((kind) => (kind.value === "usual" ? { ...kind, label: `as usual: ${motionSays(usual)}` } : kind))}
          onChange={(kind) => onChange(kind === "usual" ? undefined : { ...motion, kind, from: undefined })}
        />
        {sided && (
          <Choice
            label="From"
            value={motion.from ?? "usual"}
            options={SIDES}
            onChange={(from) => onChange({ ...motion, from: from === "usual" ? undefined : from })}
          />
        )}
        {motion && motion.kind !== "none" && (
          <TextField
            label="Milliseconds"
            value={motion.ms === undefined ? "" : String(motion.ms)}
            placeholder="260"
            onCommit={(text) => {
              const ms = Number(text);
              if (text.trim() === "") onChange({ ...motion, ms: undefined });
              else if (isDuration(text)) onChange({ ...motion, ms });
            }}
          />
        )}
      </div>
      {children}
      <MotionPreview motion={motion ?? usual} />
    </fieldset>
  );
}

/** A motion in words. */
export function motionSays(motion: Motion | undefined): string {
  if (!motion || motion.kind === "none") return "none";
  const word = KINDS.find((kind) => kind.value === motion.kind)?.label ?? motion.kind;
  const side = motion.from && (motion.kind === "slide" || motion.kind === "rise") ? ` from ${SIDES.find((s) => s.value === motion.from)?.label}` : "";
  return `${word}${side}`;
}

/** A motion without the keys that say nothing. */
export function trimmedMotion(motion: Motion | undefined): Motion | undefined {
  if (!motion) return undefined;
  const { kind, from, ms, carries } = motion;
  return { kind, ...(from === undefined ? {} : { from }), ...(ms === undefined ? {} : { ms }), ...(carries && carries.length > 0 ? { carries } : {}) };
}
