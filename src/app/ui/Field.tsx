import { useEffect, useState } from "react";
import { TEXT_LIMIT } from "../../core/model/schema.ts";

interface Props {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  placeholder?: string;
  mono?: boolean;
  /** A problem with what is written, said below it. */
  problem?: string;
}

/** A text field that is written to the document when it is left or Enter is pressed; Escape takes back. */
export function TextField({ label, value, onCommit, placeholder, mono, problem }: Props) {
  const [draft, setDraft] = useState(value);
  useEffect(() => setDraft(value), [value]);
  const commit = () => {
    if (draft !== value) onCommit(draft);
  };
  return (
    <label className="block text-[11.5px] text-ink-2">
      {label}
      <input
        value={draft}
        placeholder={placeholder}
        maxLength={TEXT_LIMIT}
        data-clean={draft === value}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") setDraft(value);
        }}
        aria-invalid={problem !== undefined}
        className={`mt-0.5 block h-7 w-full border bg-paper px-1.5 text-[12.5px] text-ink ${mono ? "font-mono text-[11.5px]" : ""} ${problem ? "border-urgent" : "border-hairline"}`}
      />
      {problem && <span className="block text-urgent">{problem}</span>}
    </label>
  );
}

/** Whether a text is a time in milliseconds that a document can hold. */
export function isDuration(text: string): boolean {
  return text.trim() !== "" && Number.isFinite(Number(text)) && Number(text) >= 0;
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: ReadonlyArray<{ value: T; label: string }>;
  onChange: (value: T) => void;
}

export function Choice<T extends string>({ label, value, options, onChange }: ChoiceProps<T>) {
  return (
    <label className="block text-[11.5px] text-ink-2">
      {label}
      <select
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        className="mt-0.5 block h-7 w-full border border-hairline bg-paper px-1 text-[12.5px] text-ink"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </label>
  );
}

export function Check({ label, value, onChange }: { label: string; value: boolean; onChange: (value: boolean) => void }) {
  return (
    <label className="flex min-h-6 items-center gap-2 text-[12.5px]">
      <input type="checkbox" checked={value} onChange={(event) => onChange(event.target.checked)} className="h-3.5 w-3.5 accent-(--accent)" />
      {label}
    </label>
  );
}
