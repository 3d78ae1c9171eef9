import { DropdownMenu } from "radix-ui";
import { addWayIn } from "../../session/actions/arranging.ts";
import { contextOf } from "../../session/context.ts";
import { useSession } from "../../session/hooks.ts";

const KINDS = [
  { kind: "link", says: "A deep link" },
  { kind: "notification", says: "A notification" },
  { kind: "shortcut", says: "A shortcut" },
] as const;

/** The menu of ways in that can be added, open. */
export function AddWayIn({ button, onClose }: { button: React.ReactNode; onClose: () => void }) {
  const session = useSession();
  return (
    <DropdownMenu.Root modal={false} defaultOpen onOpenChange={(open) => !open && onClose()}>
      <DropdownMenu.Trigger asChild>{button}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-50 w-60 border border-ink bg-sheet p-1 text-[12.5px] shadow-[0_6px_16px_var(--lift)]">
          {KINDS.map(({ kind, says }) => (
            <DropdownMenu.Item
              key={kind}
              onSelect={() => addWayIn(contextOf(session), kind)}
              className="flex min-h-7 cursor-default items-center px-2 outline-none data-[highlighted]:bg-accent-soft"
            >
              {says}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
