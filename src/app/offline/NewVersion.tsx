import { Button } from "../ui/Button.tsx";

/** Tells that there is a new version of the application; nothing changes before somebody wants it. */
export function NewVersion({ onUse, onLater }: { onUse: () => void; onLater: () => void }) {
  return (
    <div
      role="status"
      className="fixed right-4 bottom-14 z-40 flex max-w-[420px] items-center gap-3 border border-ink bg-sheet px-3 py-2 text-[12.5px] shadow-[0_8px_24px_var(--lift)]"
    >
      <p className="m-0 min-w-0">
        <span className="block font-semibold">A new version of Etape is ready.</span>
        <span className="block text-ink-2">Everything you did is saved; the page opens again where it is.</span>
      </p>
      <Button tone="main" onClick={onUse}>
        Use it
      </Button>
      <Button tone="quiet" onClick={onLater}>
        Later
      </Button>
    </div>
  );
}
