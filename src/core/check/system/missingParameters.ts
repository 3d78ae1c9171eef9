/**
 * The parameters of which a search follows whether they are there: those that a screen needs and some leg does not hand over. A design
 * without such a mistake has none, and its search is the same as if there were no parameters. Where one is followed, the search knows on which copies
 * of the screen it is missing, so that what needs it fails there and nowhere else.
 */

import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { Program, Tree } from "../../plan/data.ts";
import type { Entrance, Plan } from "../../plan/plan.ts";
import { inRoute } from "./madeScreens.ts";

/** By screen the parameters that are followed, each with whether it is there anyway, by its default. */
export type Followed = ReadonlyMap<string, ReadonlyMap<string, "may be missing" | "has a default">>;

/** What is followed of a plan; `screensOf` gives the screens that a program hands its arguments to. */
export function followedOf(plan: Plan, project: Project, screensOf: (program: Program) => readonly string[]): Followed {
  const followed = new Map<string, Map<string, "may be missing" | "has a default">>();
  const { screens } = lookup(project);
  const param = (screen: string, name: string) => screens.get(screen)?.params.find((one) => one.name === name);
  const add = (screen: string, name: string) => {
    const known = followed.get(screen) ?? new Map();
    followed.set(screen, known.set(name, param(screen, name)?.default === undefined ? "may be missing" : "has a default"));
  };
  for (const { move, pass } of plan.legs.values())
    for (const screen of move ? screensOf(move) : [])
      for (const { name, required, default: value } of screens.get(screen)?.params ?? [])
        if (required && value === undefined && !pass.some((one) => one.name === name)) add(screen, name);
  // Nothing is followed of which it cannot be told at each step whether it is there; what it comes from is followed as well.
  const cannot = (screen: string, name: string) => !isToldByAll(plan, screen, name, param(screen, name)?.type === "text", screensOf);
  const ups = [...plan.screens].flatMap(([from, { up }]) => (up ? [{ from, to: screensOf(up) }] : []));
  const dropped = new Set<string>();
  for (let changed = followed.size > 0; changed; ) {
    changed = false;
    for (const [screen, names] of followed)
      for (const name of [...names.keys()]) {
        const sources = ups.filter(({ to }) => to.includes(screen)).flatMap(({ from }) => (param(from, name) && from !== screen ? [from] : []));
        const lost = sources.some((from) => dropped.has(`${from} ${name}`) || (!param(from, name)?.required && param(from, name)?.default === undefined));
        if (lost || cannot(screen, name)) {
          names.delete(name);
          dropped.add(`${screen} ${name}`);
          changed = true;
        } else
          for (const from of sources)
            if (!followed.get(from)?.has(name)) {
              add(from, name);
              changed = true;
            }
      }
  }
  return new Map([...followed].filter(([, names]) => names.size > 0));
}

/** Whether it is plain, of each leg and way in that shows a screen, if it hands something over. */
function isToldByAll(plan: Plan, screen: string, name: string, isText: boolean, screensOf: (program: Program) => readonly string[]): boolean {
  for (const { move, pass } of plan.legs.values()) {
    const found = move && pass.find((one) => one.name === name);
    if (found && !found.required && found.value.tree[0] !== "value" && screensOf(move).includes(screen)) return false;
  }
  return [...plan.entrances.values()].every((entrance) => {
    if (!entrance.route || !inRoute(entrance.route).includes(screen)) return true;
    const found = handedIn(entrance).get(name);
    return found === undefined || (isText && found === "something");
  });
}

/** What a way in hands over, by name: for certain something, or perhaps nothing. */
export function handedIn({ pass, takes }: Entrance): ReadonlyMap<string, "something" | "perhaps"> {
  if (!pass) return new Map((takes ?? []).map(({ name }) => [name, "something"]));
  return new Map(pass.map(({ name, value }) => [name, isPlain(value.tree) ? "something" : "perhaps"]));
}

const isPlain = (tree: Tree) => tree[0] === "value" || (tree[0] === "member" && tree[1][0] === "name" && tree[1][1] === "link");
