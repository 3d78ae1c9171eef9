import { useDeferredValue, useMemo } from "react";
import { copiesOf } from "../../../core/model/edits/share.ts";
import { lookup, nameOf, ownersAround, treeOf } from "../../../core/model/lookup.ts";
import type { Element, Screen } from "../../../core/model/schema.ts";
import { exceptOn, share, shareChosen } from "../../session/actions/arranging.ts";
import { contextOf } from "../../session/context.ts";
import { useDocument, useSession } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Check } from "../../ui/Field.tsx";

/** What the containers around a screen show on it, each to be left out here. */
export function Shared({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const apply = useDocument((d) => d.apply);
  const around = ownersAround(project, screen.id).flatMap((container) => (container.elements ?? []).map((element) => ({ container, element })));
  if (around.length === 0) return null;
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="p-0 text-[11.5px] text-ink-2">On every screen around here; shown on this one:</legend>
      {around.map(({ container, element }) => (
        <Check
          key={`${container.id} ${element.id}`}
          label={`${element.label || element.id} (${container.name || container.id})`}
          value={!element.except?.includes(screen.id)}
          onChange={(shown) => exceptOn({ project, apply }, container.id, element.id, screen.id, shown)}
        />
      ))}
    </fieldset>
  );
}

/** For a container's element, the screens that show it; for a screen's, the gesture that puts it on all, and its copies elsewhere. */
export function Sharing({ place, element }: { place: string; element: Element }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  // Looked for after the edit is on the screen: it looks at every control of the app.
  const settled = useDeferredValue(project);
  const copiesNow = useMemo(() => copiesOf(settled), [settled]);
  const apply = useDocument((d) => d.apply);
  const { containers, screens } = lookup(project);
  if (containers.has(place)) {
    const inside = treeOf(project, place).filter((id) => screens.has(id));
    return (
      <fieldset className="m-0 border-0 p-0">
        <legend className="p-0 text-[11.5px] text-ink-2">Shown on every screen in {nameOf(project, place)}, except for those left out:</legend>
        <div className="grid max-h-28 grid-cols-2 overflow-y-auto">
          {inside.map((id) => (
            <Check
              key={id}
              label={nameOf(project, id)}
              value={!element.except?.includes(id)}
              onChange={(shown) => exceptOn({ project, apply }, place, element.id, id, shown)}
            />
          ))}
        </div>
        <Button onClick={() => shareChosen(contextOf(session))}>Put it on each screen by itself</Button>
      </fieldset>
    );
  }
  const copies = copiesNow.find((group) => group.on.some((one) => one.place === place && one.element === element.id));
  const around = ownersAround(project, place);
  if (around.length === 0) return null;
  return (
    <div className="text-[12px]">
      {copies && (
        <p className="m-0 mb-1">
          The same stands on {copies.on.length - 1} other {copies.on.length === 2 ? "screen" : "screens"}:{" "}
          <button type="button" className="min-h-6 font-semibold text-accent hover:underline" onClick={() => shareChosen(contextOf(session))}>
            describe it once, in {nameOf(project, copies.within)}
          </button>
        </p>
      )}
      <span className="text-ink-2">On every screen in</span>{" "}
      {around.map((container) => (
        <button
          key={container.id}
          type="button"
          className="mr-2 min-h-6 font-semibold text-accent hover:underline"
          onClick={() => share({ session, project, apply }, { place, id: element.id }, container.id, [])}
        >
          {container.name || container.id}
        </button>
      ))}
    </div>
  );
}
