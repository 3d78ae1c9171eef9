import { addEntrance } from "../../../core/model/edits/add.ts";
import { moveInto, orderOnMap, unwrap, unwrapProblem, unwrapped, wrap, wrapProblem, wrapped } from "../../../core/model/edits/arrange.ts";
import { changeContainer, changeElement, changeProject, changeScreen } from "../../../core/model/edits/change.ts";
import { fitting, freshId } from "../../../core/model/edits/edit.ts";
import { moveHere } from "../../../core/model/edits/into.ts";
import { applyEdit } from "../../../core/model/edits/kinds.ts";
import { setPlanned } from "../../../core/model/edits/planned.ts";
import { legName } from "../../../core/model/edits/remove.ts";
import type { Repointed } from "../../../core/model/edits/repoint.ts";
import { copiesOf, shareElement, spreadElement } from "../../../core/model/edits/share.ts";
import { sameValue } from "../../../core/model/json.ts";
import { lookup, nameOf, treeOf } from "../../../core/model/lookup.ts";
import type { Container, Entrance, Project } from "../../../core/model/schema.ts";
import type { Context } from "../context.ts";
import { PROJECT_NAME } from "../renaming.ts";
import { keyOf } from "../selection.ts";
import type { Session } from "../session.ts";

const NAMES: Record<Container["kind"], string> = { stack: "Steps", tabs: "Tabs", drawer: "Menu", modal: "Sheet" };

/** Puts the chosen places into a new container, chooses it and lets it be named at once. */
export function wrapChosen({ session, project, apply, places: chosen }: Context, kind: Container["kind"]) {
  const order = lookup(project).owners.get(chosen[0] ?? "")?.members ?? [];
  const places = [...chosen].sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const { say } = session.notices.getState();
  const problem = wrapProblem(project, places, kind);
  if (problem !== undefined) {
    say(`That can not be done. ${problem}`);
    return;
  }
  const name = kind === "modal" && places.length === 1 ? `${nameOf(project, places[0] ?? "")} sheet` : NAMES[kind];
  const made = wrapped(project, places, kind, name);
  const what = places.length === 1 ? `“${nameOf(project, places[0] ?? "")}”` : `${places.length} places`;
  apply(wrap(project, places, kind, name, made.id));
  session.selection.getState().select({ kind: "place", id: made.id });
  session.renaming.getState().begin(made.id);
  sayLegs(session, `${what} ${places.length === 1 ? "is" : "are"} in a ${kind === "tabs" ? "tab set" : kind} now.`, made);
}

/** Of some places those that can go into another container; what is inside something else that goes, goes with it. */
export function movable(project: Project, places: readonly string[]): string[] {
  const able = places.filter((id) => id !== project.root && lookup(project).containers.get(id)?.kind !== "modal");
  return able.filter((id) => !able.some((other) => other !== id && treeOf(project, other).includes(id)));
}

/** Moves places into a container that is there, and says which legs go another way because of it. */
export function moveTo(
  { session, project, apply }: Pick<Context, "session" | "project" | "apply">,
  places: readonly string[],
  container: string,
  before?: string,
) {
  const edit = moveHere(project, places, container, before);
  const after = applyEdit(project, edit);
  apply(edit);
  const changed = after.legs.filter((leg) => !sameValue(leg.move, lookup(project).legs.get(leg.id)?.move)).map((leg) => legName(after, leg));
  const what = places.length === 1 ? `“${nameOf(project, places[0] ?? "")}”` : `${places.length} places`;
  if (changed.length > 0) sayLegs(session, `${what} ${places.length === 1 ? "is" : "are"} in “${nameOf(project, container)}” now.`, { changed, lost: [] });
}

/** Takes the chosen container away and keeps what is in it. */
export function unwrapChosen({ session, project, apply, selected }: Context) {
  if (selected?.kind !== "place") return;
  const problem = unwrapProblem(project, selected.id);
  if (problem !== undefined) {
    session.notices.getState().say(`That can not be done. ${problem}`);
    return;
  }
  const made = unwrapped(project, selected.id);
  const name = nameOf(project, selected.id);
  const id = selected.id;
  apply(unwrap(project, id));
  session.selection.getState().select(undefined);
  sayLegs(session, `“${name}” is gone, and what was in it is kept.`, made);
}

function sayLegs(session: Session, title: string, { changed, lost }: Pick<Repointed, "changed" | "lost">) {
  const counted = (n: number) => (n === 1 ? "One leg" : `${n} legs`);
  session.notices
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
export function shareChosen({ session, project, apply, selected }: Context) {
  if (selected?.kind !== "element") return;
  const { containers, owners } = lookup(project);
  if (containers.has(selected.place)) {
    apply(spreadElement(project, selected.place, selected.id));
    session.selection.getState().select({ kind: "place", id: selected.place });
    return;
  }
  const group = copiesOf(project).find((copies) => copies.on.some((one) => one.place === selected.place && one.element === selected.id));
  const container = group?.within ?? owners.get(selected.place)?.id;
  if (container === undefined) {
    session.notices.getState().say("That can not be done. The screen is in no container that could show it on others too.");
    return;
  }
  share({ session, project, apply }, selected, container, group?.without ?? []);
}

/** Makes an element the container's, except on screens that never had it, and chooses it there. */
export function share(
  { session, project, apply }: Pick<Context, "session" | "project" | "apply">,
  from: { place: string; id: string },
  container: string,
  except: string[],
) {
  const edit = shareElement(project, from.place, from.id, container, except);
  const before = new Set(
    lookup(project)
      .containers.get(container)
      ?.elements?.map((e) => e.id),
  );
  const made = lookup(applyEdit(project, edit))
    .containers.get(container)
    ?.elements?.find((e) => !before.has(e.id));
  apply(edit);
  if (made) session.selection.getState().select({ kind: "element", place: container, id: made.id });
  session.notices
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
export function addWayIn({ session, project, apply, places }: Context, kind: Entrance["kind"]) {
  const to = places.find((id) => lookup(project).screens.has(id)) ?? project.screens[0]?.id;
  if (to === undefined) return;
  const name = fitting(`${kind.charAt(0).toUpperCase()}${kind.slice(1)} to ${nameOf(project, to)}`);
  const id = freshId(name, lookup(project).entrances, "wayIn");
  const entrance: Entrance = { id, name, kind, to, warm: "rebuild" };
  apply(addEntrance(entrance));
  session.selection.getState().select({ kind: "entrance", id });
}

/** Begins to write another name where the name stands. */
export function renameChosen({ session, selected }: Context) {
  const { begin } = session.renaming.getState();
  if (selected?.kind === "place" || selected?.kind === "element") begin(keyOf(selected));
  else if (!selected) begin(PROJECT_NAME);
}

/** What is chosen is what its container shows first, and so on outwards; a place by itself is where the app starts. */
export function startHere({ project, apply, places }: Context) {
  const id = places.at(-1);
  if (id === undefined) return;
  const { owners } = lookup(project);
  const owner = owners.get(id);
  if (owner) apply(changeContainer(project, owner.id, { start: id }));
  else if (lookup(project).containers.get(id)?.kind !== "modal") apply(changeProject({ root: id }));
}
