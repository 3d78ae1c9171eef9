import type { Bar } from "../../../core/model/schema.ts";
import type { Lead } from "../../../core/semantics/bar.ts";

interface Props {
  bar: Bar;
  lead: Lead;
  title: string;
  backTo: string | undefined;
  /** Undefined where something that lies above has the lead. */
  onLead: (() => void) | undefined;
  children: React.ReactNode;
}

/** The bar of a screen: its lead as behaviour has it, its title, and the elements that stand in it. */
export function BarView({ bar, lead, title, backTo, onLead, children }: Props) {
  if (!bar.show) return null;
  return (
    <header className="flex h-10 shrink-0 items-center gap-1 border-b border-hairline px-2">
      <div className="flex w-[30%] min-w-0 items-center">
        {lead !== "none" && (
          <button
            type="button"
            data-lead={lead}
            aria-label={leadName(lead, backTo)}
            onClick={onLead}
            disabled={!onLead}
            className={`relative z-10 flex min-h-7 min-w-7 items-center truncate text-[12px] ${lead === "idle" ? "text-ink-2 line-through" : "text-accent"}`}
          >
            <LeadSign lead={lead} />
            {lead === "back" && <span className="truncate">{bar.backLabel ?? backTo ?? "Back"}</span>}
          </button>
        )}
      </div>
      <h3 className="m-0 min-w-0 flex-1 truncate text-center font-semibold text-[13px]">{title}</h3>
      <div className="flex w-[30%] items-center justify-end gap-1 pr-1">{children}</div>
    </header>
  );
}

function leadName(lead: Lead, backTo: string | undefined): string {
  switch (lead) {
    case "back":
      return `Back${backTo ? ` to ${backTo}` : ""}`;
    case "up":
      return "Up";
    case "menu":
      return "Menu";
    case "idle":
    case "none":
      return "Does nothing";
  }
}

function LeadSign({ lead }: { lead: Lead }) {
  const d = { back: "M8 2 3 7l5 5", up: "M2 8l5-5 5 5M7 3v9", menu: "M1 4h12M1 10h12", idle: "M2 7h10", none: "" }[lead];
  return (
    <svg width={14} height={14} className="mr-1 shrink-0" aria-hidden="true">
      <path d={d} fill="none" stroke="currentColor" strokeWidth={1.6} />
    </svg>
  );
}
