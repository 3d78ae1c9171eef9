import * as z from "zod";
import { elementIdOf, elementOf, lookup, nameOf, ownersAround, treeOf } from "../lookup.ts";
import { controlNamed, withAreas } from "../pictures.ts";
import type { Element, Leg, Project } from "../schema.ts";
import { freshElementId } from "./add.ts";
import { type Edit, editKind, freshId, quoted } from "./edit.ts";

/** A control that stands on several screens in the same form. */
export interface Copies {
  label: string;
  /** Where it stands. */
  on: Array<{ place: string; element: string }>;
  /** The innermost container around all of them. */
  within: string;
  /** Screens in that container that do not have it. */
  without: string[];
}

/** Controls that were copied from screen to screen, most copies first: same kind, label and legs on two screens or more. */
export function copiesOf(project: Project): Copies[] {
  const groups = new Map<string, Copies["on"]>();
  for (const screen of project.screens)
    for (const element of screen.elements) {
      const legs = legsOn(project, screen.id, element.id);
      if (legs.length === 0) continue;
      const key = formOf(element, legs);
      groups.set(key, [...(groups.get(key) ?? []), { place: screen.id, element: element.id }]);
    }
  return [...groups.values()]
    .flatMap((on): Copies[] => {
      const [first] = on;
      const places = [...new Set(on.map((one) => one.place))];
      const within = first && places.length > 1 ? containerAround(project, places) : undefined;
      if (!first || within === undefined) return [];
      const screens = screensIn(project, within);
      return [
        {
          label: elementOf(project, first.place, first.element)?.label ?? first.element,
          on,
          within,
          without: screens.filter((id) => !places.includes(id)),
        },
      ];
    })
    .sort((a, b) => b.on.length - a.on.length);
}

function containerAround(project: Project, places: string[]): string | undefined {
  const [first, ...rest] = places.map((id) => ownersAround(project, id).map((c) => c.id));
  return first?.find((id) => rest.every((around) => around.includes(id)));
}

function screensIn(project: Project, containerId: string): string[] {
  return treeOf(project, containerId).filter((id) => lookup(project).screens.has(id));
}

function legsOn(project: Project, placeId: string, elementId: string): Leg[] {
  return (lookup(project).legsFrom.get(placeId) ?? []).filter((leg) => elementIdOf(leg) === elementId);
}

/** What makes two controls the same: everything but ids and where they stand. */
function formOf({ id: _, except: __, ...element }: Element, legs: Leg[]): string {
  const forms = legs.map(({ id: _id, from: _from, on, ...leg }) => JSON.stringify([{ ...on, element: "" }, leg])).sort();
  return JSON.stringify([element, forms]);
}

/**
 * Makes an element and its legs the container's: it is then on every screen inside, once.
 * Copies on other screens inside are taken away with their legs; screens in `except` go without.
 */
export function shareElement(project: Project, place: string, element: string, container: string, except: string[] = []): Edit {
  const label = elementOf(project, place, element)?.label ?? element;
  const name = `Share ${quoted(label)} on every screen in ${quoted(nameOf(project, container))}`;
  return sharesElement.make(name, { place, element, container, except });
}
export const sharesElement = editKind(
  "shareElement",
  z.strictObject({ place: z.string(), element: z.string(), container: z.string(), except: z.array(z.string()) }),
  (p, { place, element, container, except }) => shared(p, place, element, container, except),
);

function shared(project: Project, placeId: string, elementId: string, containerId: string, except: string[]): Project {
  const element = elementOf(project, placeId, elementId);
  const container = lookup(project).containers.get(containerId);
  if (!element || !container) return project;
  const form = formOf(element, legsOn(project, placeId, elementId));
  const id = freshElementId(project, containerId, element.id);
  const inside = new Set(screensIn(project, containerId));
  const copies = new Set<string>();
  const gone = new Set<string>();
  for (const screen of project.screens) {
    if (!inside.has(screen.id) || screen.id === placeId) continue;
    for (const other of screen.elements) {
      const legs = legsOn(project, screen.id, other.id);
      if (formOf(other, legs) !== form) continue;
      copies.add(`${screen.id} ${other.id}`);
      for (const leg of legs) gone.add(leg.id);
    }
  }
  copies.add(`${placeId} ${elementId}`);
  const { except: _, ...plain } = element;
  const made: Element = { ...plain, id, ...(except.length > 0 ? { except } : {}) };
  return {
    ...project,
    screens: project.screens
      .map((s) => withAreas(s, (area) => (copies.has(`${s.id} ${area.control}`) ? { ...area, control: id } : area)))
      .map((s) => ({ ...s, elements: s.elements.filter((e) => !copies.has(`${s.id} ${e.id}`)) })),
    containers: project.containers.map((c) => (c.id === containerId ? { ...c, elements: [...(c.elements ?? []), made] } : c)),
    legs: project.legs
      .filter((leg) => !gone.has(leg.id))
      .map((leg) => (leg.from === placeId && elementIdOf(leg) === elementId ? ontoElement(leg, containerId, id) : leg)),
  };
}

function ontoElement(leg: Leg, from: string, element: string): Leg {
  return { ...leg, from, on: "element" in leg.on ? { ...leg.on, element } : leg.on };
}

/** The other way round: a copy of a container's element, with its legs, on each screen inside that shows it. */
export function spreadElement(project: Project, container: string, element: string): Edit {
  const label = elementOf(project, container, element)?.label ?? element;
  return spreadsElement.make(`Put ${quoted(label)} on each screen in ${quoted(nameOf(project, container))}`, { container, element });
}
export const spreadsElement = editKind("spreadElement", z.strictObject({ container: z.string(), element: z.string() }), (p, { container, element }) =>
  spread(p, container, element),
);

function spread(project: Project, containerId: string, elementId: string): Project {
  const element = elementOf(project, containerId, elementId);
  if (!element) return project;
  const { except = [], ...plain } = element;
  const legs = legsOn(project, containerId, elementId);
  const onto = screensIn(project, containerId).filter((id) => !except.includes(id));
  const ids = new Map(onto.map((id) => [id, freshElementId(project, id, elementId)]));
  const taken = new Set(lookup(project).legs.keys());
  const copied = legs.flatMap((leg) =>
    onto.map((screenId, i) => {
      const id = i === 0 ? leg.id : freshId(`${leg.id} ${screenId}`, taken, "leg");
      taken.add(id);
      return { ...ontoElement(leg, screenId, ids.get(screenId) ?? elementId), id };
    }),
  );
  return {
    ...project,
    screens: project.screens.map((s) => {
      const own = ids.get(s.id);
      if (own === undefined) return s;
      const known = (control: string) => control === elementId && controlNamed(project, s.id, control)?.on === containerId;
      return { ...withAreas(s, (area) => (known(area.control) ? { ...area, control: own } : area)), elements: [...s.elements, { ...plain, id: own }] };
    }),
    containers: project.containers.map((c) => (c.id === containerId ? withoutElement(c, elementId) : c)),
    legs: [...project.legs.filter((leg) => !legs.includes(leg)), ...copied],
  };
}

function withoutElement<C extends Project["containers"][number]>(container: C, elementId: string): C {
  const elements = container.elements?.filter((e) => e.id !== elementId) ?? [];
  if (elements.length > 0) return { ...container, elements };
  const { elements: _, ...rest } = container;
  return rest as C;
}

/** Everything that a container shares, put on each screen inside: its elements, the legs that need none, its bar. */
export function spreadAll(project: Project, containerId: string): Project {
  const container = lookup(project).containers.get(containerId);
  if (!container) return project;
  const spreadElements = (container.elements ?? []).reduce((p, e) => spread(p, containerId, e.id), project);
  const inside = screensIn(project, containerId);
  const taken = new Set(lookup(spreadElements).legs.keys());
  const legs = spreadElements.legs.flatMap((leg): Leg[] => {
    if (leg.from !== containerId) return [leg];
    return inside.map((from, i) => {
      const id = i === 0 ? leg.id : freshId(`${leg.id} ${from}`, taken, "leg");
      taken.add(id);
      return { ...leg, id, from };
    });
  });
  const { bar } = container;
  const screens = bar ? spreadElements.screens.map((s) => (inside.includes(s.id) && !s.bar ? { ...s, bar } : s)) : spreadElements.screens;
  return { ...spreadElements, screens, legs };
}
