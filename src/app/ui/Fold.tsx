/** Rarely used fields under their name, with what they say while they are folded. */
export function Fold({ name, says, open, children }: { name: string; says?: string | undefined; open?: boolean; children: React.ReactNode }) {
  return (
    <details className="border-t border-hairline pt-1" open={open}>
      <summary className="flex min-h-6 cursor-default items-baseline gap-2 text-[12px] hover:text-ink">
        <span className="font-semibold">{name}</span>
        {says !== undefined && <span className="min-w-0 flex-1 truncate text-[11.5px] text-ink-2">{says}</span>}
      </summary>
      <div className="flex flex-col gap-2 pt-1 pb-1">{children}</div>
    </details>
  );
}
