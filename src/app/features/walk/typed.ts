import type { Json } from "../../../core/model/schema.ts";
import { branchNode, visiblePath } from "../../../core/semantics/state.ts";
import type { Node, Shown, State } from "../../../core/semantics/types.ts";

/** What was typed on the device: by where the screen (or the container with the field) stands, and there by element. */
export type Typed = Readonly<Record<string, Readonly<Record<string, Json>>>>;

/** A place that is made: a key for where it stands and with which arguments, and, of a screen, what is shown. */
interface Slot {
  key: string;
  place: string;
  shown?: Shown;
}

/** What was typed on the screen of a branch and on the containers around it; the innermost counts where two share an id. */
export function typedOn(typed: Typed, state: State, branch: number): Record<string, Json> {
  return Object.assign({}, ...slotsOn(state, branch).map(({ key }) => typed[key]));
}

/** Types into a field that stands on a place of a branch. */
export function typeInto(typed: Typed, state: State, at: { branch: number; place: string }, field: string, value: Json): Typed {
  const slot = slotsOn(state, at.branch).findLast(({ place }) => place === at.place);
  return slot ? { ...typed, [slot.key]: { ...typed[slot.key], [field]: value } } : typed;
}

/** Keeps what was typed on screens that are still there after an event, and forgets it with those that went or were made again. */
export function keepTyped(typed: Typed, before: State, after: State): Typed {
  const was = new Map(allSlots(before).map(({ key, shown }) => [key, shown]));
  const out: Record<string, Readonly<Record<string, Json>>> = {};
  for (const { key, shown } of allSlots(after)) {
    const entry = typed[key];
    if (entry && (!shown || stays(was.get(key), shown))) out[key] = entry;
  }
  return out;
}

/** Whether a screen is the one from before: also where it was noted on it that a leg fired after a time. */
function stays(before: Shown | undefined, after: Shown): boolean {
  return before === after || (before !== undefined && (after.spent?.length ?? 0) > (before.spent?.length ?? 0));
}

/** The places on the visible path of a branch, outermost first; those of a layer begin with its modal. */
function slotsOn(state: State, branch: number): Slot[] {
  const out = modalSlot(state, branch);
  let where = `${branch}`;
  for (const node of visiblePath(branchNode(state, branch))) {
    out.push(slotOf(node, where));
    if (node.kind === "stack") where += `/${node.items.length - 1}`;
    else if (node.kind !== "shown") where += `/${node.active}`;
  }
  return out;
}

function allSlots(state: State): Slot[] {
  const out: Slot[] = [];
  const visit = (node: Node, where: string) => {
    out.push(slotOf(node, where));
    if (node.kind === "stack") for (const [i, item] of node.items.entries()) visit(item, `${where}/${i}`);
    else if (node.kind !== "shown") for (const [lane, inner] of Object.entries(node.lanes)) visit(inner, `${where}/${lane}`);
  };
  for (let branch = 0; branch <= state.layers.length; branch++) {
    out.push(...modalSlot(state, branch));
    visit(branchNode(state, branch), `${branch}`);
  }
  return out;
}

function modalSlot(state: State, branch: number): Slot[] {
  const layer = state.layers[branch - 1];
  return layer ? [{ key: `${branch} over ${layer.at}`, place: layer.at }] : [];
}

function slotOf(node: Node, where: string): Slot {
  return node.kind === "shown"
    ? { key: `${where} ${node.at} ${JSON.stringify(node.args)}`, place: node.at, shown: node }
    : { key: `${where} ${node.at}`, place: node.at };
}
