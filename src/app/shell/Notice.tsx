import { useNotices } from "../session/hooks.ts";

/** What the last command has to say, above the foot, until it is closed. */
export function Notice() {
  const { title, lines, close } = useNotices();
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 bottom-14 z-30 flex justify-center">
      {title !== undefined && (
        <div className="pointer-events-auto flex max-w-[640px] items-start gap-3 border border-ink bg-sheet px-3 py-2 text-[12.5px] shadow-[0_8px_24px_var(--lift)]">
          <div className="min-w-0">
            <p className="m-0 font-semibold">{title}</p>
            {lines.length > 0 && (
              <ul className="m-0 max-h-32 list-none overflow-y-auto p-0 text-ink-2">
                {lines.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            )}
          </div>
          <button type="button" className="min-h-6 min-w-6 text-ink-2 hover:text-ink" aria-label="Close the notice" onClick={close}>
            ×
          </button>
        </div>
      )}
    </div>
  );
}
