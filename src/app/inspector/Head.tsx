import { Button } from "../parts/Button.tsx";

/** What is selected: its kind, its name, its id, and the way to delete it. */
export function Head({ kind, name, id, onDelete }: { kind: string; name: string; id: string; onDelete: () => void }) {
  return (
    <header className="flex items-baseline gap-2">
      <h3 className="caption m-0 min-w-0 truncate text-[13px]">{name}</h3>
      <span className="shrink-0 text-[11.5px] text-ink-2">{kind}</span>
      <code className="min-w-0 flex-1 truncate text-right font-mono text-[10.5px] text-ink-2">{id}</code>
      <Button tone="quiet" className="!px-1 !py-0 text-urgent" onClick={onDelete}>
        Delete
      </Button>
    </header>
  );
}
