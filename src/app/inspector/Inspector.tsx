import { elementOf, lookup } from "../../core/model/lookup.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { ContainerForm } from "./ContainerForm.tsx";
import { ElementForm } from "./ElementForm.tsx";
import { EntranceForm } from "./EntranceForm.tsx";
import { LegStrip } from "./LegStrip.tsx";
import { ManyForm } from "./ManyForm.tsx";
import { ScreenForm } from "./ScreenForm.tsx";

/** What is selected, to be read and changed. */
export function Inspector() {
  const project = useDocument((d) => d.project);
  const { selected, also } = useSelection();
  const body = (() => {
    if (!selected) return <Hint />;
    if (also.length > 0) return <ManyForm chosen={[...also, selected]} />;
    switch (selected.kind) {
      case "leg": {
        const leg = lookup(project).legs.get(selected.id);
        return leg ? <LegStrip key={leg.id} leg={leg} /> : <Hint />;
      }
      case "element": {
        const element = elementOf(project, selected.place, selected.id);
        return element ? <ElementForm key={`${selected.place} ${element.id}`} place={selected.place} element={element} /> : <Hint />;
      }
      case "entrance": {
        const entrance = lookup(project).entrances.get(selected.id);
        return entrance ? <EntranceForm key={entrance.id} entrance={entrance} /> : <Hint />;
      }
      case "place": {
        const place = lookup(project).places.get(selected.id);
        if (!place) return <Hint />;
        return place.kind === "screen" ? <ScreenForm key={place.id} screen={place.screen} /> : <ContainerForm key={place.id} container={place.container} />;
      }
    }
  })();
  return (
    <section aria-label="Inspector" className={`overflow-y-auto border-t-2 border-ink/60 p-3 ${selected ? "h-[56vh]" : ""}`}>
      {body}
    </section>
  );
}

function Hint() {
  return (
    <p className="m-0 text-[12px] text-ink-2">Pick a screen, a row or a line on the map to read and change it. Drag from a row to a screen to lead there.</p>
  );
}
