import { useEffect, useState } from "react";
import { buildAddress } from "../../../core/model/address.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { currentScreen } from "../../../core/semantics/state.ts";
import type { State } from "../../../core/semantics/types.ts";

/** The address of the screen that the base shows; another can be typed, and is gone to as a link. */
export function AddressBar({ project, state, onGo }: { project: Project; state: State; onGo: (address: string) => void }) {
  const screen = currentScreen(state, 0);
  const path = lookup(project).screens.get(screen.at)?.path;
  const address = (path === undefined ? undefined : buildAddress(path, screen.args)) ?? "";
  const [typed, setTyped] = useState(address);
  useEffect(() => setTyped(address), [address]);
  return (
    <form
      className="mb-2 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        onGo(typed);
      }}
    >
      <input
        aria-label="Address"
        value={typed}
        placeholder="this screen has no address"
        onChange={(event) => setTyped(event.target.value)}
        className="h-7 w-full border border-hairline bg-band px-3 font-mono text-[12px]"
      />
    </form>
  );
}
