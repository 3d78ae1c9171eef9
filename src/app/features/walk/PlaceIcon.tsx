import { Suspense } from "react";
import { lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { Later, preload } from "../../ui/preloaded.tsx";

const Icon = preload(async () => (await import("../../ui/icons.tsx")).IconView);

/** The icon of a tab or a menu entry, where it has one. */
export function PlaceIcon({ project, id }: { project: Project; id: string }) {
  const { containers, screens } = lookup(project);
  const name = containers.get(id)?.icon ?? screens.get(id)?.icon;
  if (name === undefined) return null;
  return (
    <Suspense>
      <Later part={Icon} name={name} size={15} />
    </Suspense>
  );
}
