/**
 * Which parameters may ever have a value. The search does not follow arguments, so it cannot tell whether one is there; but of one that
 * nobody hands over, or only from another that is never there, it is certain that it is not. What needs its value then never happens. And of
 * one that some leg does not hand over though it must, it is followed whether it is there (`missingParameters.ts`).
 */

import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { Args, Program, Tree } from "../../plan/data.ts";
import type { Leg, Plan } from "../../plan/plan.ts";
import { planOf } from "../../plan/planOf.ts";
import { inProgram, inRoute } from "./madeScreens.ts";
import { type Followed, followedOf } from "./missingParameters.ts";

/** Answers for one plan whether an expression may have a value on a screen; on any, where no screen is given. */
export class Valued {
  /** By screen the parameters that may have a value. */
  private readonly there = new Map<string, Set<string>>();
  private readonly anywhere = new Set<string>();
  /** Screens that have gained a parameter: what leads on from them is looked at again. */
  private readonly grown = new Set<string>();
  /** By leg, and by screen for its Up, the screens to which it hands its arguments. */
  private readonly served = new Map<Program, readonly string[]>();
  /** By screen the parameters of which it is followed whether they are there. */
  readonly followed: Followed;

  constructor(
    private readonly plan: Plan,
    project: Project,
  ) {
    for (const [screen, { params }] of plan.screens) for (const { name, default: value } of params) if (value !== undefined) this.add(screen, name);
    for (const { route, pass, takes } of plan.entrances.values()) {
      const names = pass?.map(({ name }) => name) ?? takes?.map(({ name }) => name) ?? [];
      if (route) for (const screen of inRoute(route)) for (const name of names) this.add(screen, name);
    }
    for (const screen of plan.screens.keys()) this.grown.add(screen);
    // A leg of a container goes on from whatever shows in it.
    const around = [...plan.legs.values()].filter(({ from }) => plan.containers.has(from));
    while (this.grown.size > 0) {
      for (const screen of this.grown) this.leaveFrom(screen);
      for (const leg of around) this.follow(leg, undefined);
    }
    this.followed = followedOf(plan, project, (program) => this.screensOf(program));
  }

  /** Whether an expression may have a value on a screen, on which the parameters that are followed are `param`; one that may not never has. */
  mayBe(tree: Tree, screen: string | undefined, param?: Args): boolean {
    const sub = (part: Tree) => this.mayBe(part, screen, param);
    switch (tree[0]) {
      case "value":
      case "has":
        return true;
      case "name":
        return !isPaged(tree[1]) || this.mayBePaged(screen, param);
      case "member":
        return tree[1][0] === "name" && tree[1][1] === "param" ? this.mayHave(screen, tree[2], param) : sub(tree[1]);
      case "!":
      case "negative":
        return sub(tree[1]);
      case "&&":
      case "||":
        return sub(tree[1]) || sub(tree[2]);
      case "?:":
        return sub(tree[1]) && (sub(tree[2]) || sub(tree[3]));
      default:
        return sub(tree[1]) && sub(tree[2]);
    }
  }

  /** Whether what a leg hands on or back by an expression may lack its value for certain, at least at some times. */
  lacks({ from }: Leg, tree: Tree): boolean {
    if (!this.plan.screens.has(from)) return namesScreen(tree);
    return !this.mayBe(tree, from) || !this.mayBe(tree, from, {});
  }

  /** What a leg hands on that matters to the search: what may lack its value though it must have one, and what is followed. */
  keeps(leg: Leg): Leg["pass"] {
    if (leg.pass.length === 0) return leg.pass;
    const wanted = new Set((leg.move ? this.screensOf(leg.move) : []).flatMap((screen) => [...(this.followed.get(screen)?.keys() ?? [])]));
    return leg.pass.filter(({ name, required, value }) => wanted.has(name) || (required && this.lacks(leg, value.tree)));
  }

  private mayHave(screen: string | undefined, name: string, param?: Args): boolean {
    if (screen === undefined) return this.anywhere.has(name);
    if (param && this.followed.get(screen)?.has(name)) return Object.hasOwn(param, name);
    return this.there.get(screen)?.has(name) ?? false;
  }

  /** Whether a screen may have a row after or before its own: one that is told by a parameter. */
  private mayBePaged(screen: string | undefined, param?: Args): boolean {
    if (screen === undefined) return this.plan.pages.size > 0;
    const by = this.plan.pages.get(screen)?.by;
    return by !== undefined && this.mayHave(screen, by, param);
  }

  private add(screen: string, name: string) {
    if (!this.plan.screens.get(screen)?.params.some((param) => param.name === name)) return;
    const known = this.there.get(screen) ?? new Set();
    if (known.has(name)) return;
    this.there.set(screen, known.add(name));
    this.anywhere.add(name);
    this.grown.add(screen);
  }

  private leaveFrom(screen: string) {
    this.grown.delete(screen);
    const { events = [], arrive = [], depart = [] } = this.plan.from.get(screen) ?? {};
    for (const leg of [...events, ...arrive, ...depart]) this.follow(leg, screen);
    const up = this.plan.screens.get(screen)?.up;
    // Up builds what is above a screen with the screen's own arguments.
    if (up) for (const to of this.screensOf(up)) for (const name of this.there.get(screen) ?? []) this.add(to, name);
  }

  /** Adds what a leg hands on and back, if it can be taken at all. */
  private follow({ move, pass, give, set, when, shown, enabled }: Leg, screen: string | undefined) {
    const needed = [when, shown, enabled, ...pass.flatMap(({ required, value }) => (required ? [value] : [])), ...give.map(({ value }) => value)];
    if (![...needed, ...set.map(({ value }) => value)].every((one) => one === undefined || this.mayBe(one.tree, screen))) return;
    const passed = pass.filter(({ value }) => this.mayBe(value.tree, screen));
    if (move && passed.length > 0) for (const to of this.screensOf(move)) for (const { name } of passed) this.add(to, name);
    // Whatever shows after going back takes what it declares.
    for (const { name } of give) for (const to of this.plan.screens.keys()) this.add(to, name);
  }

  private screensOf(program: Program): readonly string[] {
    const known = this.served.get(program) ?? [...new Set(inProgram(this.plan, program))];
    this.served.set(program, known);
    return known;
  }
}

/** The answers for a project, worked out once. */
export function valuedOf(project: Project): Valued {
  return once(project, makeValued);
}

const makeValued = (project: Project) => new Valued(planOf(project), project);

const isPaged = (name: string) => name === "next" || name === "prev";

/** Whether an expression asks for what depends on the screen that it is asked on. */
function namesScreen(tree: Tree): boolean {
  if (tree[0] === "value") return false;
  if (tree[0] === "name") return tree[1] === "param" || isPaged(tree[1]);
  return tree.slice(1).some((part) => Array.isArray(part) && namesScreen(part as unknown as Tree));
}
