import { elementOf, firstScreen, lookup, mustBePassed, nameOf, ownersAround } from "./lookup.ts";
import { type GivingMove, takesPass } from "./moves.ts";
import { once } from "./once.ts";
import type { Container, Move, Param, Project } from "./schema.ts";

export interface Proposal {
  move: Move;
  /** What it will do, as a sentence. */
  sentence: string;
}

/**
 * The move that suits a leg from a place (and element) to a target, judged by where the target
 * lives: same stack, on top; a modal, over the page; another tab, over there. Arguments are
 * filled in by name and type where they are known. Unknown targets give a plain push.
 */
export function propose(project: Project, from: string, elementId: string | undefined, to: string): Proposal {
  const move = withArguments(project, from, elementId, suitedMove(project, from, to));
  return { move, sentence: moveSentence(project, from, move) };
}

/**
 * The way from a place to a target that suits where the target lives, without arguments. It is one that can be gone from there:
 * what is gone over to is showing for certain, and what may not be there is put on top, whole where it begins with the target.
 */
export function suitedMove(project: Project, from: string, to: string): Move {
  const { containers } = lookup(project);
  if (containers.get(to)?.kind === "modal") return { kind: "open", to };
  const [around, beyond] = [ownersAround(project, from), ownersAround(project, to)];
  const [modalHere, modalThere] = [around.find(isModal) ?? modalItself(project, from), beyond.find(isModal)];
  if (modalThere && modalThere !== modalHere)
    return firstScreen(project, modalThere.id)?.id === to ? { kind: "open", to: modalThere.id } : { kind: "open", to: modalThere.id, show: to };
  if (modalHere && !modalThere) return beyond[0]?.kind === "stack" ? { kind: "push", to, in: "beneath" } : { kind: "close", modal: modalHere.id };
  const there = showing(project, from);
  const host = beyond.find((c) => there.has(c.id));
  const stackHere = around.find((c) => c.kind === "stack");
  if (!host) return stackHere ? { kind: "push", to } : { kind: "replace", to };
  // What stands in the host on the way to the target: the target itself, or a container around it that may not be there yet.
  const entry = beyond[beyond.indexOf(host) - 1]?.id ?? to;
  // Going over to a lane hands nothing on; what needs to know something is put on top with it.
  const sure = there.get(host.id);
  if (host.kind === "tabs" || host.kind === "drawer")
    return stackHere && (needsArguments(project, to) || sure === "perhaps") ? { kind: "push", to } : { kind: "select", to };
  if (entry === to) return inStack(project, { from, to }, host, stackHere, sure);
  // A whole container goes onto the stack that holds it and not onto one inside: there it would stand inside itself.
  return firstScreen(project, entry)?.id === to ? { kind: "push", to: entry, in: host.id, repeat: "rewind" } : { kind: "push", to };
}

/**
 * A move of a kind that somebody named, in the stack that they mean. A reset clears the stack that holds its target, not one inside
 * it: signing out from a tab clears the whole app. What a modal without a stack pushes, resets or goes back to is on the page beneath it.
 * Moves that name their stack stay as they are, and so do all others.
 */
export function inStackMeant(project: Project, from: string, move: Move): Move {
  if (("in" in move && move.in !== undefined) || (move.kind !== "push" && move.kind !== "reset" && move.kind !== "return")) return move;
  const { containers } = lookup(project);
  const self = containers.get(from);
  const around = [...(self ? [self] : []), ...ownersAround(project, from)];
  const beyond = ownersAround(project, move.to);
  const nearest = around.find((c) => c.kind === "stack");
  const modal = around.find(isModal);
  if (modal && !beyond.some(isModal) && containers.get(move.to)?.kind !== "modal") return onPageBeneath(project, move, beyond, nearest !== undefined);
  const host = beyond.find((c) => around.includes(c));
  if (move.kind !== "reset" || !host) return move;
  if (host.kind === "stack") {
    const entry = beyond[beyond.indexOf(host) - 1]?.id ?? move.to;
    const to = firstScreen(project, entry)?.id === move.to ? entry : move.to;
    return { ...move, to, ...(host === nearest ? {} : { in: host.id }) };
  }
  const [owner] = beyond;
  return owner?.kind === "stack" && isLaneOf(project, owner, host) ? { ...move, in: owner.id } : move;
}

/** A move from a modal to what is not in it. A modal with a stack of its own keeps what it pushes. */
function onPageBeneath(project: Project, move: Extract<Move, { kind: "push" | "reset" | "return" }>, beyond: readonly Container[], hasStack: boolean): Move {
  if (move.kind === "push" && hasStack) return move;
  const sure = beyond.find((c) => c.kind === "stack" && isAlwaysThere(project, c.id));
  const within = sure?.id ?? ("beneath" as const);
  if (move.kind === "push") return { ...move, in: "beneath" };
  if (move.kind === "reset") {
    const entry = sure && beyond[beyond.indexOf(sure) - 1]?.id;
    return { ...move, to: entry !== undefined && firstScreen(project, entry)?.id === move.to ? entry : move.to, in: within };
  }
  if (Object.keys(move.give ?? {}).length > 0 || move.orElse === "nothing" || move.orElse === "replace") return move;
  const pass = move.pass ? { pass: move.pass } : {};
  return { kind: "push", to: move.to, ...pass, in: beyond[0] === sure ? within : "beneath", repeat: "rewind" };
}

/** Whether a container is on the page whatever is shown there: the outermost one, and the tabs and drawer entries in it. */
function isAlwaysThere(project: Project, id: string): boolean {
  const owner = lookup(project).owners.get(id);
  return id === project.root || (owner !== undefined && isLanes(owner) && isAlwaysThere(project, owner.id));
}

/** Whether nothing but tabs and drawers is between a stack and a container around it. */
function isLaneOf(project: Project, stack: Container, host: Container): boolean {
  const owner = lookup(project).owners.get(stack.id);
  return owner !== undefined && isLanes(owner) && (owner === host || isLaneOf(project, owner, host));
}

const isLanes = (c: Container): boolean => c.kind === "tabs" || c.kind === "drawer";

/** The way to a member of a stack that is there: on top of it, back to its start, over to the lane that it is. */
function inStack(
  project: Project,
  { from, to }: { from: string; to: string },
  host: Container,
  stackHere: Container | undefined,
  sure: Sureness | undefined,
): Move {
  if (stackHere === host) return host.start === to && from !== to ? { kind: "return", to, orElse: "replace" } : { kind: "push", to };
  const lane = lookup(project).owners.get(host.id);
  if (host.start === to && (lane?.kind === "tabs" || lane?.kind === "drawer"))
    return stackHere && (needsArguments(project, to) || sure === "perhaps") ? { kind: "push", to } : { kind: "select", to: host.id };
  return sure === "for certain" || !stackHere ? { kind: "push", to, in: host.id } : { kind: "push", to };
}

/** Screens that some leg or way in shows by themselves, outside the container that holds them. */
function shownAlone(project: Project): Set<string> {
  const { owners, screens } = lookup(project);
  const made = new Set<string>();
  for (const { from, move } of project.legs) {
    if (move?.kind !== "push" && move?.kind !== "replace" && move?.kind !== "reset") continue;
    const owner = owners.get(move.to);
    if (!owner || !screens.has(move.to) || ownersAround(project, from).includes(owner) || ("in" in move && move.in === owner.id)) continue;
    made.add(move.to);
  }
  for (const entrance of project.entrances) if (entrance.warm === "onTop") made.add(entrance.to);
  return made;
}

/** Whether the screen that a place shows first has to be told something. */
function needsArguments(project: Project, to: string): boolean {
  return firstScreen(project, to)?.params.some(mustBePassed) ?? false;
}

/**
 * The containers that are there while a place shows: those around it, and those that the app (or the modal that the place stands
 * in) begins with. All tabs and drawer members are there for certain, for a lane not visited yet is made when it is gone over to;
 * of a stack its start, as long as nothing took its place.
 */
function showing(project: Project, from: string): Map<string, Sureness> {
  const { containers } = lookup(project);
  const around = [...ownersAround(project, from), ...(containers.has(from) ? [containers.get(from) as Container] : [])];
  const modal = around.find(isModal);
  const out = new Map<string, Sureness>();
  const visit = (id: string, how: Sureness) => {
    const container = containers.get(id);
    if (!container || SURENESS.indexOf(out.get(id) ?? "perhaps") > SURENESS.indexOf(how) || out.get(id) === how) return;
    out.set(id, how);
    const lanes = container.kind === "tabs" || container.kind === "drawer";
    if (lanes) for (const member of container.members) visit(member, how);
    else visit(container.start, how === "perhaps" ? how : "at first");
  };
  for (const container of around) visit(container.id, once(project, shownAlone).has(from) ? "perhaps" : "for certain");
  visit(modal ? modal.start : project.root, "for certain");
  return out;
}

/** How sure it is that a container is there, least first: around a screen that is also shown by itself; as long as nothing took its place; always. */
const SURENESS = ["perhaps", "at first", "for certain"] as const;
type Sureness = (typeof SURENESS)[number];

function modalItself(project: Project, id: string): Container | undefined {
  const container = lookup(project).containers.get(id);
  return container && isModal(container) ? container : undefined;
}

const isModal = (c: Container): boolean => c.kind === "modal";

/** The move with what is known of the arguments that its target needs. */
export function withArguments(project: Project, from: string, elementId: string | undefined, move: Move): Move {
  if (!takesPass(move)) return move;
  const shown = move.kind === "open" ? (move.show ?? lookup(project).containers.get(move.to)?.start) : move.to;
  const params = shown === undefined ? [] : (firstScreen(project, shown)?.params ?? []);
  const pass: Record<string, string> = {};
  for (const param of params) {
    const source = sourceFor(project, from, elementId, param);
    if (source !== undefined) pass[param.name] = source;
  }
  return Object.keys(pass).length > 0 ? { ...move, pass } : move;
}

/** What is known of a value for a parameter where a leg starts: the row, one of its fields, a row that one of them names, a parameter of the same name. */
export function sourceFor(project: Project, from: string, elementId: string | undefined, param: Param): string | undefined {
  const { types, screens } = lookup(project);
  const row = types.get((elementId === undefined ? undefined : elementOf(project, from, elementId)?.of) ?? "");
  if (row && param.type === row.id) return "item";
  const key = row?.fields[0];
  if (row && key && param.name.toLowerCase() === `${row.id}${key.name}`.toLowerCase()) return `item.${key.name}`;
  const field = row?.fields.find((f) => f.name === param.name && f.type === param.type);
  if (field) return `item.${field.name}`;
  // A field that is called as a record type is, `hive`, says which row of it: for a parameter `hiveId`.
  const naming = row?.fields.find((f) => f.type === param.type && param.name.toLowerCase() === `${f.name}${types.get(f.name)?.fields[0]?.name}`.toLowerCase());
  if (naming) return `item.${naming.name}`;
  if (screens.get(from)?.params.some((p) => p.name === param.name && p.type === param.type)) return `param.${param.name}`;
  if (row && key && param.required && key.type === param.type) return `item.${key.name}`;
  return undefined;
}

/** What a move does, as a sentence for people: the trade's word first, then what it means for Back. */
export function moveSentence(project: Project, from: string, move: Move): string {
  const q = (id: string) => `“${nameOf(project, id)}”`;
  const here = q(from);
  switch (move.kind) {
    case "push":
      return `${pushSentence(move, q, here)}${tidySentence(move, here)}`;
    case "replace":
      return `Replaces ${here} with ${q(move.to)}; Back skips ${here}.`;
    case "reset":
      return move.in === "beneath"
        ? `Closes the modal, clears the history beneath it and starts over with ${q(move.to)}.`
        : `Clears the history${move.in === undefined ? "" : ` of ${q(move.in)}`} and starts over with ${q(move.to)}.`;
    case "return":
      return `Goes back to ${q(move.to)}, dropping what is above it${OR_ELSE[move.orElse ?? "push"]}.${giveSentence(move)}`;
    case "open":
      return `Opens ${q(move.to)} over the page${move.show === undefined ? "" : `, showing ${q(move.show)}`}${move.instead ? ", in place of the modal that is up" : ""}.`;
    case "close":
      return `Closes ${move.modal === undefined ? "the modal that is up" : q(move.modal)}.${giveSentence(move)}`;
    case "select":
      return `Switches to ${q(move.to)}, ${move.fresh ? "starting over there" : "as it was left"}.${tidySentence(move, here)}`;
    case "menu":
      return `${move.action === "open" ? "Opens" : move.action === "close" ? "Closes" : "Opens or closes"} the menu${move.drawer === undefined ? "" : ` ${q(move.drawer)}`}.`;
    case "back":
      return `Goes back, as the system's Back does.${giveSentence(move)}`;
    case "up":
      return "Goes up one level.";
    case "proceed":
      return "Continues with what the user was about to do.";
    case "leave":
      return move.url === undefined ? "Leaves the app." : `Leaves the app for ${move.url}.`;
  }
}

/** What a move hands back, by its names. */
function giveSentence({ give = {} }: GivingMove): string {
  const names = Object.keys(give);
  return names.length === 0 ? "" : ` Hands back ${names.join(", ")}.`;
}

const OR_ELSE = { push: "; pushes it if it is not beneath", replace: "; replaces this screen with it if it is not beneath", nothing: "" };

function pushSentence(move: Extract<Move, { kind: "push" }>, q: (id: string) => string, here: string): string {
  if (move.in === "beneath" && move.repeat === "rewind") return `Closes the modal and goes back to ${q(move.to)}; pushes it if it is not beneath.`;
  if (move.in === "beneath") return `Closes the modal and pushes ${q(move.to)} onto the page beneath.`;
  if (move.in !== undefined && move.repeat === "rewind") return `Goes to ${q(move.in)} and back to ${q(move.to)} there; pushes it if it is not there.`;
  if (move.in !== undefined) return `Goes to ${q(move.in)} and pushes ${q(move.to)} there.`;
  if (move.repeat === "rewind") return `Pushes ${q(move.to)}, or goes back to it if it is already beneath.`;
  return move.tidy === undefined ? `Pushes ${q(move.to)} on top of ${here}; Back comes back here.` : `Pushes ${q(move.to)}.`;
}

function tidySentence({ tidy }: { tidy?: "source" | "stack" | undefined }, here: string): string {
  return tidy === undefined ? "" : tidy === "source" ? ` ${here} is dropped from the history.` : " The stack that is left goes back to its start.";
}

/** A move in a word or two, as it stands beside a line of the map. */
export function moveWord(move: Move | undefined): string {
  switch (move?.kind) {
    case undefined:
      return "sets";
    case "push":
      return move.in === "beneath" ? "push beneath" : "push";
    case "return":
      return "back to";
    case "select":
      return "switch";
    case "proceed":
      return "continue";
    case "replace":
    case "reset":
    case "open":
    case "close":
    case "menu":
    case "back":
    case "up":
    case "leave":
      return move.kind;
  }
}
