import type { StackAccess } from "./types.ts";

/** Looks down stacks as they are: nothing in them is hidden. */
export const plainStacks: StackAccess = {
  top: (items) => items,
  pop: (items) => items.slice(0, -1),
  cut(items, find) {
    for (let i = items.length - 1; i >= 0; i--) {
      const item = items[i];
      const found = item && find(item);
      if (found) return found === item ? items.slice(0, i + 1) : [...items.slice(0, i), found];
    }
    return undefined;
  },
  has: (items, place) => items.some((item) => item.at === place),
  bottom: (items) => items.slice(0, 1),
  look: (node) => node,
  previous: ({ active, visited }) => visited.filter((id) => id !== active).at(-1),
  waiting: (state) => state.waiting,
};
