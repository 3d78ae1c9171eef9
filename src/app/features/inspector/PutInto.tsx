import { lookup, nameOf } from "../../../core/model/lookup.ts";
import { commandsOf } from "../../session/commands/table.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSession } from "../../session/hooks.ts";

const ROW = [
  { id: "wrapStack", says: "stack" },
  { id: "wrapTabs", says: "tabs" },
  { id: "wrapDrawer", says: "drawer" },
  { id: "wrapModal", says: "modal" },
  { id: "into", says: "existing…" },
];

/** What is chosen goes into a new container, or into one that is there, at a click; and whether its container shows it first. */
export function PutInto({ place }: { place: string }) {
  const project = useDocument((d) => d.project);
  const owner = lookup(project).owners.get(place);
  const first = owner ? owner.start === place : project.root === place;
  const movable = lookup(project).containers.get(place)?.kind !== "modal";
  return (
    <p className="m-0 flex flex-wrap items-center gap-1 text-[11.5px] text-ink-2">
      Into
      {ROW.map(({ id, says }) => (
        <Small key={id} id={id} says={says} />
      ))}
      {movable &&
        (first ? (
          <span>shows first{owner ? ` in ${nameOf(project, owner.id)}` : ": the app starts here"}</span>
        ) : (
          <Small id="startHere" says="show it first" />
        ))}
      <Small id="pattern" says="a pattern here…" />
    </p>
  );
}

/** A command as a small button, with its whole name and key on hover. */
function Small({ id, says }: { id: string; says: string }) {
  const session = useSession();
  const [command] = commandsOf(id);
  return (
    <button
      type="button"
      title={`${command?.name}: ${command?.shown}`}
      aria-label={command?.name}
      className="min-h-6 border border-hairline bg-paper px-1.5 text-[11.5px] text-ink hover:border-ink"
      onClick={() => command?.run(contextOf(session))}
    >
      {says}
    </button>
  );
}
