import { useState } from "react";
import { TEXT_LIMIT } from "../../core/model/schema.ts";
import { useOnce } from "./useOnce.ts";

interface Props {
  label: string;
  name: string;
  /** Is told the name, or undefined where it is to stay as it was. */
  onName: (name: string | undefined) => void;
  className: string;
}

/** A name that is written in its place: Enter and leaving it take it, Escape leaves it as it was. */
export function NameField({ label, name, onName, className }: Props) {
  const [draft, setDraft] = useState(name);
  const answer = useOnce(onName);
  return (
    <input
      autoFocus
      aria-label={label}
      value={draft}
      maxLength={TEXT_LIMIT}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => answer(draft.trim())}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") answer(draft.trim());
        if (event.key === "Escape") answer(undefined);
      }}
      className={`border border-accent bg-paper ${className}`}
    />
  );
}
