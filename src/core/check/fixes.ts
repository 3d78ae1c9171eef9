import { appOf } from "../insight/app.ts";
import { metStates } from "../insight/met.ts";
import { proposal } from "../insight/proposal.ts";
import { addElement, addLeg, addScreen, freshElementId, freshLegId, newScreen, together } from "../model/edits/add.ts";
import { moveInto, wrap } from "../model/edits/arrange.ts";
import { changeContainer, changeLeg, changeScreen } from "../model/edits/change.ts";
import { type Edit, fitting } from "../model/edits/edit.ts";
import { removeElement, removeEntrance, removeLegs } from "../model/edits/remove.ts";
import { sameValue } from "../model/json.ts";
import { elementIdOf, firstScreen, lookup, nameOf, ownersAround, targetOf, treeOf, upTarget } from "../model/lookup.ts";
import { moveSentence, takesPass, withPass } from "../model/propose.ts";
import type { Container, Leg, Move, Project } from "../model/schema.ts";
import { programOf } from "../plan/lower/moves.ts";
import { makeMove } from "../semantics/moves.ts";
import { bindInAddress, dropParameter, handIn, handOn, passFitting, sampleLiteral } from "./arguments.ts";
import type { Finding } from "./finding.ts";

/**
 * The repairs that are offered for a finding; the first is the one that most people want, one that deletes something comes last.
 * A repair that would change nothing is not offered.
 */
export function fixesFor(project: Project, finding: Pick<Finding, "code" | "subjects">): Edit[] {
  const useful = repairs(project, finding).filter((edit) => !sameValue(edit.apply(project), project));
  return [...useful.filter((edit) => !edit.deletes), ...useful.filter((edit) => edit.deletes)];
}

function repairs(project: Project, finding: Pick<Finding, "code" | "subjects">): Edit[] {
  const [first = "", second = "", third = ""] = finding.subjects;
  const { screens, legs, containers, entrances } = lookup(project);
  const leg = legs.get(first);
  const container = containers.get(first);
  switch (finding.code) {
    case "dead-end":
      return wayHome(project, first);
    case "back-only":
      return [showLead(project, first), ...wayHome(project, first)];
    case "idle-lead":
      return [showLead(project, first)];
    case "stuck-modal":
      return container?.kind === "modal" ? [{ ...closable(project, container), name: `Let ${q(project, first)} be closed by its button and Back` }] : [];
    case "unreachable":
      return screens.has(first) || container ? [wayTo(project, first)] : [];
    case "refused-move":
      return leg ? [...instead(project, leg), removeLegs(project, [leg.id])] : [];
    case "piled-copies":
      return leg?.move?.kind === "push"
        ? [named("Go back to the first copy instead of adding another", changeLeg(project, leg, { move: { ...leg.move, repeat: "rewind" } }))]
        : [];
    case "broken-target":
      if (entrances.has(first)) return [removeEntrance(project, first)];
      return leg
        ? [removeLegs(project, [leg.id]), ...missingScreen(project, leg)]
        : screens.has(first)
          ? [named(`Let Up of ${q(project, first)} lead as usual`, changeScreen(project, first, { up: "auto" }))]
          : [];
    case "returns-to-finished":
      return [leaveForGood(project, first)];
    case "no-way-up":
      return [wayUp(project, second)];
    case "no-owner":
      return placeSomewhere(project, first);
    case "no-start":
      return container ? [startOf(project, container)] : [];
    case "missing-argument":
      return leg ? handOn(project, leg, second, third) : handIn(project, first, second, third);
    case "wrong-type":
      return leg ? passFitting(project, leg) : [];
    case "unused-parameter":
      return dropParameter(project, first, second);
    case "link-arguments":
      return bindInAddress(project, first, second);
    case "idle-element":
      return [removeElement(project, first, second)];
    case "pages-push":
      return leg?.move?.kind === "push"
        ? [
            named(
              "Replace the page instead of going on top of it",
              changeLeg(project, leg, { move: withPass({ kind: "replace", to: leg.move.to }, leg.move.pass) }),
            ),
          ]
        : [];
    case "past-the-end":
      return leg ? [askNeighbour(project, leg)] : [];
    case "no-outside":
      return container?.kind === "modal"
        ? [
            named(
              `Close ${q(project, first)} by its × button instead`,
              changeContainer(project, first, {
                closeOn: [...container.closeOn.filter((way) => way !== "outside"), ...(container.closeOn.includes("button") ? [] : ["button" as const])],
              }),
            ),
          ]
        : [];
    case "up-arguments":
      return [named(`Show no Up on ${q(project, first)}`, changeScreen(project, first, { up: "none" }))];
    case "no-menu-control":
      return [named(`Show the menu button in the bar of ${q(project, first)}`, changeContainer(project, first, { bar: { show: true, lead: "menu" } }))];
    default:
      return [];
  }
}

/** An edit under another name. */
const named = (name: string, edit: Edit): Edit => ({ ...edit, name });
const q = (project: Project, id: string) => `"${nameOf(project, id)}"`;

/** A screen that can be gone to without arguments: a hub, or where the app starts. */
function homeOf(project: Project, not: string): string | undefined {
  const free = (id: string) =>
    id !== not &&
    lookup(project)
      .screens.get(id)
      ?.params.every((p) => !p.required || p.default !== undefined);
  const marked = project.screens.find((s) => s.hub && free(s.id));
  if (marked) return marked.id;
  let id: string | undefined = project.root;
  for (let i = 0; i < 20 && id !== undefined && !lookup(project).screens.has(id); i++) id = lookup(project).containers.get(id)?.start;
  return id !== undefined && free(id) ? id : project.screens.find((s) => free(s.id))?.id;
}

/** A button that leads from a screen that nobody gets out of to a hub. */
function wayHome(project: Project, screenId: string): Edit[] {
  const home = homeOf(project, screenId);
  if (home === undefined) return [];
  const label = `To ${nameOf(project, home)}`;
  return [button(project, screenId, label, { kind: "replace", to: home }, `Add a button "${label}" to ${q(project, screenId)}`)];
}

function button(project: Project, placeId: string, label: string, move: NonNullable<Leg["move"]>, name: string): Edit {
  const element = freshElementId(project, placeId, label);
  const leg: Leg = { id: freshLegId(project, `${placeId} ${element}`), from: placeId, on: { kind: "tap", element }, move };
  return together(name, [addElement(placeId, { id: element, kind: "button", label: fitting(label) }), addLeg(project, leg)]);
}

function showLead(project: Project, screenId: string): Edit {
  return { ...changeScreen(project, screenId, { bar: { show: true, lead: "auto" } }), name: `Show Back in the bar of ${q(project, screenId)}` };
}

function closable(project: Project, modal: Extract<Container, { kind: "modal" }>): Edit {
  return changeContainer(project, modal.id, { closeOn: [...new Set([...modal.closeOn, "button" as const, "back" as const])] });
}

/** A button on a hub that leads to a place that nobody gets to. */
function wayTo(project: Project, placeId: string): Edit {
  const from = homeOf(project, placeId) ?? project.screens[0]?.id ?? "";
  const { owners, containers, screens } = lookup(project);
  const isModal = containers.get(placeId)?.kind === "modal";
  const owner = owners.get(placeId);
  const inLane = owner?.kind === "tabs" || owner?.kind === "drawer";
  const pass = Object.fromEntries(
    (screens.get(placeId)?.params ?? []).filter((p) => p.required && p.default === undefined).map((p) => [p.name, sampleLiteral(p.type)]),
  );
  const passing = Object.keys(pass).length > 0 ? { pass } : {};
  const stacked = owner?.kind === "stack" && owners.get(from) === owner;
  const move: NonNullable<Leg["move"]> = isModal
    ? { kind: "open", to: placeId }
    : inLane
      ? { kind: "select", to: placeId }
      : stacked
        ? { kind: "push", to: placeId, ...passing }
        : { kind: "replace", to: placeId, ...passing };
  const label = nameOf(project, placeId);
  return button(project, from, label, move, `Add a button "${label}" to ${q(project, from)} that leads there`);
}

/** Ways for a leg that is refused: another that works where its source is met, a stack put around its source, and showing its target instead. */
function instead(project: Project, leg: Leg): Edit[] {
  const { move } = leg;
  if (!move || !("to" in move)) return [];
  const to = move.kind === "open" ? (move.show ?? move.to) : move.to;
  const proposed = proposal(project, leg.from, elementIdOf(leg), to);
  const moves = [proposed.move, ...(takesPass(move) ? [withPass({ kind: "replace", to }, move.pass)] : [{ kind: "replace", to } as const])];
  const works = (p: Project, one: Move) =>
    metStates(p, leg.from).every(({ state, branch }) => makeMove(appOf(p), state, branch, programOf(p, one), {}).is === "moved");
  const others = moves
    .filter((one) => !sameValue(one, move) && lookup(project).places.has(to) && works(project, one))
    .map((one) => ({ ...changeLeg(project, leg, { move: one }), name: `${moveSentence(project, leg.from, one)}` }));
  return [...others, ...stackAround(project, leg).filter((edit) => works(edit.apply(project), move))];
}

/** A stack around the screen that a leg starts from, for a move that puts something on top where there is no stack. */
function stackAround(project: Project, leg: Leg): Edit[] {
  const { screens } = lookup(project);
  if (!screens.has(leg.from) || ownersAround(project, leg.from).some((c) => c.kind === "stack")) return [];
  if (leg.move?.kind !== "push" && leg.move?.kind !== "reset") return [];
  const name = `${nameOf(project, leg.from)} steps`;
  return [{ ...wrap(project, [leg.from], "stack", name), name: `Put a stack around ${q(project, leg.from)}, so that others go on top of it` }];
}

function missingScreen(project: Project, leg: Leg): Edit[] {
  const to = targetOf(leg);
  if (to === undefined || lookup(project).places.has(to) || leg.move?.kind === "open" || leg.move?.kind === "select") return [];
  return [{ ...addScreen(newScreen(to, to), lookup(project).owners.get(leg.from)?.id), name: `Make the screen "${to}"` }];
}

function placeSomewhere(project: Project, placeId: string): Edit[] {
  const others = project.containers.filter((c) => c.members.includes(placeId));
  const [keep] = others;
  if (keep && others.length > 1) return [{ ...moveInto(project, placeId, keep.id), name: `Keep ${q(project, placeId)} in ${q(project, keep.id)} only` }];
  const stack = lookup(project).owners.get(lookup(project).legs.size > 0 ? (project.legs.find((leg) => targetOf(leg) === placeId)?.from ?? "") : "");
  const home = stack ?? project.containers.find((c) => c.kind === "stack" && c.id !== placeId);
  return home ? [moveInto(project, placeId, home.id)] : [];
}

function fill(project: Project, container: Container): Edit {
  const screen = newScreen(container.start, nameOf(project, container.start));
  const known = lookup(project).places.has(container.start);
  return known
    ? moveInto(project, container.start, container.id)
    : { ...addScreen(screen, container.id), name: `Add a first screen to ${q(project, container.id)}` };
}

function askNeighbour(project: Project, leg: Leg): Edit {
  const sources = JSON.stringify(leg.move ?? {}) + JSON.stringify(leg.set ?? {});
  const used = (["next", "prev"] as const).flatMap((name) => {
    const field = new RegExp(`\\b${name}\\.(\\w+)`).exec(sources)?.[1];
    return field !== undefined && !new RegExp(`has\\(\\s*${name}\\.`).test(leg.when ?? "") ? [`has(${name}.${field})`] : [];
  });
  return {
    ...changeLeg(project, leg, { when: [...(leg.when === undefined ? [] : [`(${leg.when})`]), ...used].join(" && ") }),
    name: `Ask ${used.join(" and ")} first`,
  };
}

/**
 * Leads away from what is gone through once for good: the history is replaced instead of lain on, and a leg that goes over to
 * another tab or stack takes what it leaves off its own. Where that is done the tabs are covered meanwhile, so that nobody goes
 * over by hand and leaves it standing there.
 */
function leaveForGood(project: Project, onceId: string): Edit {
  const inside = new Set(treeOf(project, onceId));
  const upwards = project.screens.filter((screen) => !inside.has(screen.id) && inside.has(upTarget(project, screen.id) ?? ""));
  const tidy = lookup(project).screens.has(onceId) ? "source" : "stack";
  const away = project.legs.flatMap((leg): Edit[] => {
    const { move } = leg;
    if (!inside.has(leg.from) || !move || !("to" in move) || inside.has(move.to)) return [];
    if (move.kind === "select" || (move.kind === "push" && move.in !== undefined && move.in !== "beneath"))
      return [changeLeg(project, leg, { move: { ...move, tidy: move.tidy ?? tidy } })];
    return move.kind === "push" ? [changeLeg(project, leg, { move: withPass({ kind: "reset", to: move.to }, move.pass) })] : [];
  });
  const goesOver = project.legs.some((leg) => inside.has(leg.from) && leg.move?.kind === "select" && !inside.has(leg.move.to));
  const tabbed = project.screens.filter((s) => goesOver && inside.has(s.id) && !s.coversTabs && ownersAround(project, s.id).some((c) => c.kind === "tabs"));
  return together(`Let nothing lead back to ${q(project, onceId)}`, [
    ...away,
    ...tabbed.map((screen) => changeScreen(project, screen.id, { coversTabs: true })),
    ...upwards.map((screen) => changeScreen(project, screen.id, { up: "none" })),
  ]);
}

/** Something beneath a screen that a way in lands on: its stack's start; where there is none, the screen becomes a hub. */
function wayUp(project: Project, screenId: string): Edit {
  const owner = lookup(project).owners.get(screenId);
  if (owner?.kind === "stack" && owner.start !== screenId)
    return { ...changeScreen(project, screenId, { up: "auto" }), name: `Let Up from ${q(project, screenId)} lead as usual` };
  const hubs = project.screens.some((screen) => screen.hub) ? [screenId] : [screenId, firstScreen(project, project.root)?.id ?? screenId];
  return together(
    `Make ${q(project, screenId)} a hub`,
    hubs.map((id) => changeScreen(project, id, { hub: true })),
  );
}

/** A start that is a member: by taking in the one that is named, or by the first member. */
function startOf(project: Project, container: Container): Edit {
  const free = lookup(project).places.has(container.start) && !lookup(project).owners.has(container.start) && container.start !== project.root;
  if (free) return moveInto(project, container.start, container.id);
  const [first] = container.members;
  return first === undefined
    ? fill(project, container)
    : named(`Start ${q(project, container.id)} with ${q(project, first)}`, changeContainer(project, container.id, { start: first }));
}
