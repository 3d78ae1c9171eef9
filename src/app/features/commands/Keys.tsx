import type { Group } from "../../session/commands/command.ts";
import { COMMANDS } from "../../session/commands/table.ts";
import { useSheets } from "../../session/hooks.ts";
import { Dialog } from "../../ui/Dialog.tsx";
import { Check } from "../../ui/Field.tsx";
import { usePreferences } from "../../ui/preferences.ts";

const GROUPS: ReadonlyArray<Group> = ["Make", "Arrange", "Look", "Walk", "Document"];
/** Keys that belong to a part of the page and not to a command. */
const ELSEWHERE: ReadonlyArray<{ keys: string; says: string; group: Group }> = [
  { group: "Make", keys: "Enter", says: "in the outline: lead the element somewhere, or add one to the screen" },
  { group: "Make", keys: "1 … 9", says: "another way for the leg that is chosen" },
  { group: "Look", keys: "↑ ↓", says: "through the outline; with Shift, several" },
  { group: "Arrange", keys: "Ctrl C, Ctrl X, Ctrl V", says: "copy, cut and paste, between projects too" },
];

/** The one place that lists all keys, and switches single letters off. */
export function Keys() {
  const { sheet, close } = useSheets();
  const { singleKeys, set } = usePreferences();
  return (
    <Dialog title="Keys" open={sheet?.is === "keys"} onClose={close} widest>
      <div className="mb-3 border-l-2 border-accent pl-3">
        <Check label="Single letters are keys" value={singleKeys} onChange={(on) => set({ singleKeys: on })} />
        <p className="m-0 text-[12px] text-ink-2">They work while the outline, the map or the device has the focus, and never while you write.</p>
      </div>
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
