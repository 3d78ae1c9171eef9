import { Suspense } from "react";
import { useSelection } from "../../session/hooks.ts";
import { Later, preload } from "../../ui/preloaded.tsx";

const Chosen = preload(async () => (await import("./Chosen.tsx")).Chosen);
const ProjectForm = preload(async () => (await import("./ProjectForm.tsx")).ProjectForm);

/** What is chosen, to be read and changed; the project itself where nothing is. */
export function Inspector() {
  const selected = useSelection((s) => s.selected);
  return (
    <section aria-label="Inspector" className={`overflow-y-auto border-t-2 border-ink/60 p-3 ${selected ? "h-[56vh]" : ""}`}>
      {selected ? (
        <Suspense>
          <Later part={Chosen} />
        </Suspense>
      ) : (
        // As high as what it says while it is folded.
        <div className="min-h-9">
          <Suspense>
            <Later part={ProjectForm} />
          </Suspense>
        </div>
      )}
    </section>
  );
}
