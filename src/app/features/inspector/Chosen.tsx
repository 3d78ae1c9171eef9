import { elementOf, lookup } from "../../../core/model/lookup.ts";
import { useDocument, useSelection } from "../../session/hooks.ts";

import { ContainerForm } from "./ContainerForm.tsx";
import { ElementForm } from "./ElementForm.tsx";
import { EntranceForm } from "./EntranceForm.tsx";
import { LegStrip } from "./LegStrip.tsx";
import { ManyForm } from "./ManyForm.tsx";
import { ProjectForm } from "./ProjectForm.tsx";
import { ScreenForm } from "./ScreenForm.tsx";

/** What is chosen, with its fields. */
export function Chosen() {
  const project = useDocument((d) => d.project);
  const { selected, also } = useSelection();
  if (!selected) return <ProjectForm />;
  if (also.length > 0) return <ManyForm chosen={[...also, selected]} />;
  switch (selected.kind) {
    case "leg": {
      const leg = lookup(project).legs.get(selected.id);
      return leg ? <LegStrip key={leg.id} leg={leg} /> : <ProjectForm />;
    }
    case "element": {
      const element = elementOf(project, selected.place, selected.id);
      return element ? <ElementForm key={`${selected.place} ${element.id}`} place={selected.place} element={element} /> : <ProjectForm />;
    }
    case "entrance": {
      const entrance = lookup(project).entrances.get(selected.id);
      return entrance ? <EntranceForm key={entrance.id} entrance={entrance} /> : <ProjectForm />;
    }
    case "place": {
      const place = lookup(project).places.get(selected.id);
      if (!place) return <ProjectForm />;
      return place.kind === "screen" ? <ScreenForm key={place.id} screen={place.screen} /> : <ContainerForm key={place.id} container={place.container} />;
    }
  }
}
