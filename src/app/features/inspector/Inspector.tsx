import { Suspense } from "react";
import { useSelection } from "../../session/hooks.ts";
import { Later, preload } from "../../ui/preloaded.tsx";
import { ProjectForm } from "./ProjectForm.tsx";

const Chosen = preload(async () => (await import("./Chosen.tsx")).Chosen);

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
        <ProjectForm />
      )}
    </section>
  );
}
