import { Button } from "../ui/Button.tsx";

/** Tells that there is a new version of the application; nothing changes before somebody wants it. */
export function NewVersion({ onUse, onLater }: { onUse: () => void; onLater: () => void }) {
  return (
    <div
      role="status"
      className="fixed top-14 left-1/2 z-40 flex max-w-[440px] -translate-x-1/2 items-center gap-3 border border-ink bg-sheet px-3 py-2 text-[12.5px] shadow-[0_8px_24px_var(--lift)]"
    >
      <p className="m-0 min-w-0">
        <span className="block font-semibold">A new version of Etape is ready.</span>
        <span className="block text-ink-2">The page opens again where it is.</span>
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
