import { Popover } from "radix-ui";
import { useState } from "react";
import { ICONS, IconView } from "./icons.tsx";

/** An icon from the set that comes along, or none; found by its name and by other words for it. */
export function IconField({ value, onChange }: { value: string | undefined; onChange: (icon: string | undefined) => void }) {
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState("");
  const typed = query.trim().toLowerCase();
  const shown = Object.entries(ICONS).filter(([name, { words }]) => typed === "" || [name, ...words].some((word) => word.startsWith(typed)));
  const take = (icon: string | undefined) => {
    onChange(icon);
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <span className="block text-[11.5px] text-ink-2">
        Icon
        <Popover.Trigger
          aria-label={`Icon: ${value ?? "none"}`}
          className="mt-0.5 flex h-7 w-full items-center gap-2 border border-hairline bg-paper px-1.5 text-left text-[12.5px] text-ink"
        >
          {value !== undefined && <IconView name={value} />}
          <span className="truncate">{value ?? "none"}</span>
        </Popover.Trigger>
      </span>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={4} collisionPadding={8} className="z-50 w-64 border border-ink bg-sheet p-2 shadow-[0_6px_16px_var(--lift)]">
          <input
            aria-label="Find an icon"
            placeholder="Find: settings, cart…"
            value={query}
            onChange={(event) => setQuery(event.target.value)}
            className="mb-2 h-7 w-full border border-hairline bg-paper px-1.5 text-[12.5px]"
          />
          <div className="grid max-h-48 grid-cols-6 gap-1 overflow-y-auto">
            {shown.map(([name]) => (
              <button
                key={name}
                type="button"
                title={name}
                aria-label={name}
                aria-pressed={name === value}
                onClick={() => take(name)}
                className={`flex h-8 items-center justify-center border ${name === value ? "border-accent bg-accent-soft" : "border-transparent hover:border-hairline"}`}
              >
                <IconView name={name} size={18} />
              </button>
            ))}
          </div>
          {shown.length === 0 && <p className="m-0 text-[12px] text-ink-2">No icon is called that.</p>}
          <button type="button" className="mt-2 min-h-6 text-[12px] font-semibold text-accent" onClick={() => take(undefined)}>
            No icon
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
