import { Dialog as Radix } from "radix-ui";

interface Props {
  title: string;
  open: boolean;
  onClose: () => void;
  children: React.ReactNode;
  wide?: boolean;
  widest?: boolean;
  /** Something is written in it that a click outside must not lose. */
  written?: boolean;
}

/** A dialog on a sheet of its own; Escape and, unless something is written in it, a click outside close it. */
export function Dialog({ title, open, onClose, children, wide, widest, written }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Radix.Content
          aria-describedby={undefined}
          onInteractOutside={(event) => written && event.preventDefault()}
          className={`fixed top-[10vh] left-1/2 z-50 max-h-[82vh] -translate-x-1/2 overflow-y-auto border border-ink bg-sheet p-5 shadow-xl ${widest ? "w-[min(1000px,94vw)]" : wide ? "w-[640px]" : "w-[440px]"}`}
        >
          <Radix.Title className="caption m-0 mb-3 text-[15px]">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
