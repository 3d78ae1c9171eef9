import { Dialog } from "../parts/Dialog.tsx";
import { KEYS } from "./useKeys.ts";

/** The sheet of all keys. */
export function Keys({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog title="Keys" open={open} onClose={onClose}>
      <dl className="m-0 grid grid-cols-[120px_1fr] gap-y-1.5 text-[13px]">
        {KEYS.map(({ keys, says }) => (
          <div key={keys} className="contents">
            <dt className="font-mono text-[12px]">{keys}</dt>
            <dd className="m-0">{says}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
