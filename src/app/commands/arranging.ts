import { addEntrance } from "../../core/model/edits/add.ts";
import { moveInto, orderOnMap, unwrapProblem, unwrapped, wrapProblem, wrapped } from "../../core/model/edits/arrange.ts";
import { changeElement, changeScreen } from "../../core/model/edits/change.ts";
import { fitting, freshId } from "../../core/model/edits/edit.ts";
import { setPlanned } from "../../core/model/edits/planned.ts";
import type { Repointed } from "../../core/model/edits/repoint.ts";
import { copiesOf, shareElement, spreadElement } from "../../core/model/edits/share.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import type { Container, Entrance } from "../../core/model/schema.ts";
import { PROJECT_NAME } from "../shell/ProjectName.tsx";
import { useNotices } from "../store/notices.ts";
import { useRenaming } from "../store/renaming.ts";
import { keyOf, useSelection } from "../store/selection.ts";
import type { Context } from "./context.ts";

const NAMES: Record<Container["kind"], string> = { stack: "Steps", tabs: "Tabs", drawer: "Menu", modal: "Sheet" };

/** Puts the chosen places into a new container, chooses it and lets it be named at once. */
export function wrapChosen({ project, apply, places: chosen }: Context, kind: Container["kind"]) {
  const order = lookup(project).owners.get(chosen[0] ?? "")?.members ?? [];
  const places = [...chosen].sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const { say } = useNotices.getState();
  const problem = wrapProblem(project, places, kind);
  if (problem !== undefined) {
    say(`That can not be done. ${problem}`);
    return;
  }
  const name = kind === "modal" && places.length === 1 ? `${nameOf(project, places[0] ?? "")} sheet` : NAMES[kind];
  const made = wrapped(project, places, kind, name);
  const what = places.length === 1 ? `“${nameOf(project, places[0] ?? "")}”` : `${places.length} places`;
  apply({ name: `Put ${what} into a ${kind === "tabs" ? "tab set" : kind}`, apply: (p) => wrapped(p, places, kind, name).project });
  useSelection.getState().select({ kind: "place", id: made.id });
  useRenaming.getState().begin(made.id);
  sayLegs(`${what} ${places.length === 1 ? "is" : "are"} in a ${kind === "tabs" ? "tab set" : kind} now.`, made);
}

/** Takes the chosen container away and keeps what is in it. */
export function unwrapChosen({ project, apply, selected }: Context) {
  if (selected?.kind !== "place") return;
  const problem = unwrapProblem(project, selected.id);
  if (problem !== undefined) {
    useNotices.getState().say(`That can not be done. ${problem}`);
    return;
  }
  const made = unwrapped(project, selected.id);
  const name = nameOf(project, selected.id);
  const id = selected.id;
  apply({ name: `Take away “${name}” and keep what is in it`, apply: (p) => unwrapped(p, id).project });
  useSelection.getState().select(undefined);
  sayLegs(`“${name}” is gone, and what was in it is kept.`, made);
}

function sayLegs(title: string, { changed, lost }: Repointed) {
  const counted = (n: number) => (n === 1 ? "One leg" : `${n} legs`);
  useNotices
    .getState()
    .say(title, [
      ...(changed.length > 0 ? [`${counted(changed.length)} ${changed.length === 1 ? "goes" : "go"} another way now, as suits: ${changed.join(", ")}.`] : []),
      ...(lost.length > 0 ? [`${counted(lost.length)} had nothing left to do: ${lost.join(", ")}.`] : []),
    ]);
}

/** Moves the chosen place among its siblings, out of its container, or into the sibling before it. */
export function moveChosen({ project, apply, selected }: Context, way: "earlier" | "later" | "out" | "in") {
  if (selected?.kind === "element") {
    moveElement({ project, apply, selected }, way);
    return;
  }
  if (selected?.kind !== "place") return;
  const { owners, containers } = lookup(project);
  const owner = owners.get(selected.id);
  if (!owner) return;
  const at = owner.members.indexOf(selected.id);
  if (way === "earlier" || way === "later") {
    const next = at + (way === "earlier" ? -1 : 1);
    if (next >= 0 && next < owner.members.length) apply(moveInto(project, selected.id, owner.id, next));
  } else if (way === "out") {
    const around = owners.get(owner.id);
    if (around) apply(moveInto(project, selected.id, around.id, around.members.indexOf(owner.id) + 1));
  } else {
    const before = owner.members.slice(0, at).findLast((id) => containers.has(id));
    if (before !== undefined) apply(moveInto(project, selected.id, before));
  }
}

function moveElement({ project, apply, selected }: Pick<Context, "project" | "apply"> & { selected: { place: string; id: string } }, way: string) {
  const screen = lookup(project).screens.get(selected.place);
  if (!screen) return;
  const at = screen.elements.findIndex((e) => e.id === selected.id);
  const next = at + (way === "earlier" ? -1 : way === "later" ? 1 : 0);
  const element = screen.elements[at];
  if (next === at || !element || next < 0 || next >= screen.elements.length) return;
  const others = screen.elements.filter((e) => e !== element);
  apply(changeScreen(project, screen.id, { elements: [...others.slice(0, next), element, ...others.slice(next)] }, `Move “${element.label}”`));
}

/** Moves the chosen place on the map only. */
export function orderChosen({ project, apply, selected }: Context, by: -1 | 1) {
  if (selected?.kind !== "place") return;
  const owner = lookup(project).owners.get(selected.id);
  if (!owner) return;
  const kept = project.mapOrder?.[owner.id]?.filter((id) => owner.members.includes(id)) ?? [];
  const order = [...kept, ...owner.members.filter((id) => !kept.includes(id))];
  const at = order.indexOf(selected.id);
  const other = order[at + by];
  if (other === undefined) return;
  order[at + by] = selected.id;
  order[at] = other;
  apply(orderOnMap(project, owner.id, order));
}

/** Turns stand-ins real, or what is real into stand-ins. */
export function plannedChosen({ project, apply, chosen }: Context) {
  const screens = chosen.flatMap((one) => (one.kind === "place" && lookup(project).screens.has(one.id) ? [one.id] : []));
  const legs = chosen.flatMap((one) => (one.kind === "leg" ? [one.id] : []));
  const all = [...screens.map((id) => lookup(project).screens.get(id)?.planned), ...legs.map((id) => lookup(project).legs.get(id)?.planned)];
  if (all.length > 0) apply(setPlanned({ screens, legs }, !all.every((planned) => planned === true)));
}

/** One gesture for "on every screen in here", there and back. */
export function shareChosen({ project, apply, selected }: Context) {
  if (selected?.kind !== "element") return;
  const { containers, owners } = lookup(project);
  if (containers.has(selected.place)) {
    apply(spreadElement(project, selected.place, selected.id));
    useSelection.getState().select({ kind: "place", id: selected.place });
    return;
  }
  const group = copiesOf(project).find((copies) => copies.on.some((one) => one.place === selected.place && one.element === selected.id));
  const container = group?.within ?? owners.get(selected.place)?.id;
  if (container === undefined) {
    useNotices.getState().say("That can not be done. The screen is in no container that could show it on others too.");
    return;
  }
  share({ project, apply }, selected, container, group?.without ?? []);
}

/** Makes an element the container's, except on screens that never had it, and chooses it there. */
export function share({ project, apply }: Pick<Context, "project" | "apply">, from: { place: string; id: string }, container: string, except: string[]) {
  const edit = shareElement(project, from.place, from.id, container, except);
  const before = new Set(
    lookup(project)
      .containers.get(container)
      ?.elements?.map((e) => e.id),
  );
  const made = lookup(edit.apply(project))
    .containers.get(container)
    ?.elements?.find((e) => !before.has(e.id));
  apply(edit);
  if (made) useSelection.getState().select({ kind: "element", place: container, id: made.id });
  useNotices
    .getState()
    .say(
      `“${made?.label ?? ""}” is on every screen in “${nameOf(project, container)}” now, with its legs, once.`,
      except.length > 0 ? [`Not on: ${except.map((id) => nameOf(project, id)).join(", ")}.`] : [],
    );
}

/** Shows a shared element on a screen, or no longer. */
export function exceptOn({ project, apply }: Pick<Context, "project" | "apply">, container: string, element: string, screen: string, shown: boolean) {
  const known =
    lookup(project)
      .containers.get(container)
      ?.elements?.find((e) => e.id === element)?.except ?? [];
  const except = shown ? known.filter((id) => id !== screen) : [...known, screen];
  apply(changeElement(project, container, element, { except: except.length > 0 ? except : undefined }));
}

/** A way in to the chosen screen, named after it, and chosen. */
export function addWayIn({ project, apply, places }: Context, kind: Entrance["kind"]) {
  const to = places.find((id) => lookup(project).screens.has(id)) ?? project.screens[0]?.id;
  if (to === undefined) return;
  const name = fitting(`${kind.charAt(0).toUpperCase()}${kind.slice(1)} to ${nameOf(project, to)}`);
  const id = freshId(name, lookup(project).entrances, "wayIn");
  const entrance: Entrance = { id, name, kind, to, warm: "rebuild" };
  apply(addEntrance(entrance));
  useSelection.getState().select({ kind: "entrance", id });
}

/** Begins to write another name where the name stands. */
export function renameChosen({ selected }: Context) {
  const { begin } = useRenaming.getState();
  if (selected?.kind === "place" || selected?.kind === "element") begin(keyOf(selected));
  else if (!selected) begin(PROJECT_NAME);
}
