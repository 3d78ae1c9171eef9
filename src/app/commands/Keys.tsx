import { Dialog } from "../parts/Dialog.tsx";
import { COMMANDS } from "./commands.ts";
import type { Command } from "./context.ts";
import { useOpened } from "./opened.ts";

const GROUPS: ReadonlyArray<Command["group"]> = ["Make", "Arrange", "Look", "Walk", "Document"];
/** Keys that belong to a part of the page and not to a command. */
const ELSEWHERE: ReadonlyArray<{ keys: string; says: string; group: Command["group"] }> = [
  { group: "Make", keys: "1 … 9", says: "another way for the leg that is chosen" },
  { group: "Look", keys: "↑ ↓", says: "through the outline; with Shift, several" },
  { group: "Arrange", keys: "Ctrl C, Ctrl X, Ctrl V", says: "copy, cut and paste, between projects too" },
];

/** The sheet of all keys. */
export function Keys() {
  const { sheet, close } = useOpened();
  return (
    <Dialog title="Keys" open={sheet === "keys"} onClose={close} widest>
      <div className="columns-3 gap-8">
        {GROUPS.map((group) => (
          <section key={group} className="mb-4 break-inside-avoid">
            <h3 className="caption m-0 mb-1 text-[12px]">{group}</h3>
            <dl className="m-0 grid grid-cols-[96px_1fr] gap-y-1 text-[12.5px]">
              {[
                ...COMMANDS.flatMap((c) => (c.group === group && c.shown ? [{ keys: c.shown, says: c.name }] : [])),
                ...ELSEWHERE.filter((one) => one.group === group),
              ].map(({ keys, says }) => (
                <div key={keys} className="contents">
                  <dt className="font-mono text-[11.5px]">{keys}</dt>
                  <dd className="m-0">{says}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
