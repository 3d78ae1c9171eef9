import type { Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import type { Node } from "./state.ts";

/** What looks deeper into a stack than its top goes through here, so that a search may hide what lies beneath. */

/** The items up to the topmost one that `find` gives something for, that taking its place; undefined where there is none. */
export function cutAt(project: Project, items: readonly Node[], find: (item: Node) => Node | undefined): readonly Node[] | undefined {
  const { rests } = compiled(project);
  for (let i = items.length - 1; i >= 0; i--) {
    const item = items[i] as Node;
    if (rests?.isHidden(item)) return rests.cut(item, find);
    const found = find(item);
    if (found) return found === item ? items.slice(0, i + 1) : [...items.slice(0, i), found];
  }
  return undefined;
}

/** The lowest item alone. */
export function lowest(project: Project, items: readonly Node[]): readonly Node[] {
  const [first] = items;
  const { rests } = compiled(project);
  return first && rests?.isHidden(first) ? rests.lowest(first) : items.slice(0, 1);
}

/** The items without the top one. */
export function withoutTop(project: Project, items: readonly Node[]): readonly Node[] {
  const rest = items.slice(0, -1);
  const last = rest[rest.length - 1];
  const { rests } = compiled(project);
  return last && rests?.isHidden(last) ? rests.uncover(last) : rest;
}

/** The items with the top one known, where a search has hidden it. */
export function withTopKnown(project: Project, items: readonly Node[]): readonly Node[] {
  const top = items[items.length - 1];
  const { rests } = compiled(project);
  return top && rests?.isHidden(top) ? rests.known(top) : items;
}
