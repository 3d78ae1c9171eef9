import { lookup } from "../../../core/model/lookup.ts";
import { moveSentence } from "../../../core/model/propose.ts";
import { WayPicker } from "../../parts/WayPicker.tsx";
import { useDocument, useSelection } from "../../session/hooks.ts";
import { freshLeg } from "../../session/selection.ts";

/** What the leg that was just drawn will do, and how to have it otherwise: a digit, or Escape. */
export function LinkMade() {
  const project = useDocument((d) => d.project);
  const selection = useSelection();
  const leg = lookup(project).legs.get(freshLeg(selection, project)?.leg ?? "");
  if (!leg?.move) return null;
  return (
    <section
      aria-label="The leg that was just made"
      className="absolute bottom-3 left-1/2 z-20 w-[min(600px,94%)] -translate-x-1/2 border border-accent bg-sheet p-3 text-[12.5px] shadow-[0_8px_24px_var(--lift)]"
    >
      <p className="m-0 mb-2 font-semibold" role="status">
        {moveSentence(project, leg.from, leg.move)} <span className="font-normal text-ink-2">Escape takes it back; a digit goes another way.</span>
      </p>
      <WayPicker leg={leg} />
    </section>
  );
}
