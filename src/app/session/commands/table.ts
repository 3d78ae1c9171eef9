import { ARRANGE } from "./arrange.ts";
import type { Command } from "./command.ts";
import { WALK_AND_DOCUMENT } from "./document.ts";
import { LOOK } from "./look.ts";
import { MAKE } from "./make.ts";

/** Everything that can be done by key or by name: the keys, the sheet of keys and the palette are made from this. */
export const COMMANDS: readonly Command[] = [...MAKE, ...ARRANGE, ...LOOK, ...WALK_AND_DOCUMENT];

const byId = new Map(COMMANDS.map((command) => [command.id, command]));

/** The commands of some ids, in that order. Throws where there is none of an id. */
export function commandsOf(...ids: readonly string[]): Command[] {
  return ids.map((id) => {
    const command = byId.get(id);
    if (!command) throw new Error(`commandsOf: there is no command "${id}".`);
    return command;
  });
}
