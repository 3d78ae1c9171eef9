/**
 * Which parameters may ever have a value. The search does not follow arguments, so it cannot tell whether one is there; but of one that
 * nobody hands over, or only from another that is never there, it is certain that it is not. What needs its value then never happens.
 */

import { once } from "../../model/once.ts";
import type { Program, Route, Template, Tree } from "../../plan/data.ts";
import type { Leg, Plan } from "../../plan/plan.ts";

/** Answers for one plan whether an expression may have a value on a screen; on any, where no screen is given. */
export class Valued {
  /** By screen the parameters that may have a value. */
  private readonly there = new Map<string, Set<string>>();
  private readonly anywhere = new Set<string>();
  /** Screens that have gained a parameter: what leads on from them is looked at again. */
  private readonly grown = new Set<string>();
  /** By leg, and by screen for its Up, the screens to which it hands its arguments. */
  private readonly served = new Map<Program, readonly string[]>();

  constructor(private readonly plan: Plan) {
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
  }

  /** Whether an expression may have a value; one that may not never has. */
  mayBe(tree: Tree, screen: string | undefined): boolean {
    switch (tree[0]) {
      case "value":
      case "has":
        return true;
      case "name":
        return !isPaged(tree[1]) || this.mayBePaged(screen);
      case "member":
        return tree[1][0] === "name" && tree[1][1] === "param" ? this.mayHave(screen, tree[2]) : this.mayBe(tree[1], screen);
      case "!":
      case "negative":
        return this.mayBe(tree[1], screen);
      case "&&":
      case "||":
        return this.mayBe(tree[1], screen) || this.mayBe(tree[2], screen);
      case "?:":
        return this.mayBe(tree[1], screen) && (this.mayBe(tree[2], screen) || this.mayBe(tree[3], screen));
      default:
        return this.mayBe(tree[1], screen) && this.mayBe(tree[2], screen);
    }
  }

  /** The screen that a leg is taken from, where it is one and the same each time. */
  private readonly sourceOf = ({ from }: Leg): string | undefined => (this.plan.screens.has(from) ? from : undefined);

  /** Of what a leg hands on or back the expressions that may lack a value wherever it is taken from. */
  lacks(leg: Leg, tree: Tree): boolean {
    const source = this.sourceOf(leg);
    return source === undefined ? namesScreen(tree) : !this.mayBe(tree, source);
  }

  private mayHave(screen: string | undefined, name: string): boolean {
    return screen === undefined ? this.anywhere.has(name) : (this.there.get(screen)?.has(name) ?? false);
  }

  /** Whether a screen may have a row after or before its own: one that is told by a parameter. */
  private mayBePaged(screen: string | undefined): boolean {
    if (screen === undefined) return this.plan.pages.size > 0;
    const by = this.plan.pages.get(screen)?.by;
    return by !== undefined && this.mayHave(screen, by);
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

/** The answers for a plan, worked out once. */
export function valuedOf(plan: Plan): Valued {
  return once(plan, makeValued);
}

const makeValued = (plan: Plan) => new Valued(plan);

const isPaged = (name: string) => name === "next" || name === "prev";

/** Whether an expression asks for what depends on the screen that it is asked on. */
function namesScreen(tree: Tree): boolean {
  if (tree[0] === "value") return false;
  if (tree[0] === "name") return tree[1] === "param" || isPaged(tree[1]);
  return tree.slice(1).some((part) => Array.isArray(part) && namesScreen(part as unknown as Tree));
}

/** The screens that a program may hand its arguments to. */
function inProgram(plan: Plan, program: Program): string[] {
  return program.flatMap((operation): string[] => {
    switch (operation.op) {
      case "stay":
      case "push":
      case "replace":
      case "open":
        return inTemplate(operation.make);
      case "fill":
        return operation.make.flatMap(inTemplate);
      case "rebuild":
        return inRoute(operation.route);
      case "stack":
      case "bring":
        return inProgram(plan, operation.otherwise ?? []);
      case "pop":
        // What a container shows by then may be any screen.
        return operation.pass ? (plan.screens.has(operation.to) ? [operation.to] : [...plan.screens.keys()]) : [];
      default:
        return [];
    }
  });
}

function inRoute(route: Route): string[] {
  return inTemplate("base" in route ? route.base : route.shows);
}

function inTemplate(template: Template): string[] {
  if (typeof template === "string") return [template];
  return "stack" in template ? template.items.flatMap(inTemplate) : inTemplate(template.shows);
}
