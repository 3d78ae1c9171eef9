import type { Args, Json } from "../plan/data.ts";
import { sameValue } from "../plan/expression.ts";
import type { Plan } from "../plan/plan.ts";
import { stateLine } from "../semantics/line.ts";
import { branchNode, currentScreen, screensIn, topBranch, updateBranch, visiblePath } from "../semantics/state.ts";
import type { Shown, State } from "../semantics/types.ts";
import type { Entry } from "./entry.ts";
import type { Meant } from "./screens.ts";

/** What an entry says of the state after it. */
export interface Told {
  /** What it says that shows, and the screens that it may mean by it. Undefined where it does not say which screen shows. */
  readonly shows: string | undefined;
  readonly meant: Meant | undefined;
  readonly args: Args;
  readonly line: string | undefined;
}

const NO_ARGS: Args = {};

export function toldBy(entry: Entry, meant: Meant | undefined): Told {
  const inName = meant && Object.keys(meant.args).length > 0 ? meant.args : undefined;
  return { shows: entry.shows, meant, args: inName ? { ...inName, ...entry.args } : (entry.args ?? NO_ARGS), line: entry.line };
}

/** Whether an entry says anything of the state after it. */
export function tells({ meant, line }: Told): boolean {
  return meant !== undefined || line !== undefined;
}

/**
 * Arguments of which some were made up, because the log has not told them yet: by the arguments of a screen the names. They go with
 * the screen wherever it is moved to, until an entry tells them.
 */
export type MadeUp = WeakMap<Args, ReadonlySet<string>>;

/**
 * The state as an entry tells it, or undefined where that contradicts it. Arguments in `free` come from what the log does not tell,
 * such as which row was used: they become what the entry says that they are, or stay made up.
 */
export function agreed(plan: Plan, state: State, told: Told, free: ReadonlySet<string>, madeUp: MadeUp): State | undefined {
  const screen = currentScreen(state);
  // A place that is not there is shown as an empty screen of its id.
  if (told.meant && !told.meant.screens.has(screen.at) && told.shows !== screen.at) return undefined;
  if (told.line !== undefined && stateLine(plan, state) !== told.line) return undefined;
  const before = madeUp.get(screen.args);
  if (!before && free.size === 0) return agrees(plan, screen, told.args) ? state : undefined;
  const learned: Record<string, Json> = {};
  const still = new Set([...(before ?? []), ...free].filter((name) => Object.hasOwn(screen.args, name)));
  for (const { name } of plan.screens.get(screen.at)?.params ?? []) {
    const value = Object.hasOwn(told.args, name) ? told.args[name] : undefined;
    if (value === undefined || value === null) continue;
    if (!sameValue(value, screen.args[name])) {
      if (!free.has(name) && !before?.has(name)) return undefined;
      learned[name] = value;
    }
    still.delete(name);
  }
  if (Object.keys(learned).length === 0 && still.size === (before?.size ?? 0)) return state;
  const args = { ...screen.args, ...learned };
  if (still.size > 0) madeUp.set(args, still);
  const branch = topBranch(state);
  return updateBranch(state, branch, visiblePath(branchNode(state, branch)).length - 1, { ...screen, args });
}

/** Whether a screen of which nothing is made up has the arguments that are told. */
function agrees(plan: Plan, screen: Shown, told: Args): boolean {
  for (const { name } of plan.screens.get(screen.at)?.params ?? []) {
    const value = Object.hasOwn(told, name) ? told[name] : undefined;
    if (value !== undefined && value !== null && !sameValue(value, screen.args[name])) return false;
  }
  return true;
}

/** Notes that the arguments of every screen that an event made are made up: what an address leaves out goes to all that it lays down. */
export function noteMadeUp(madeUp: MadeUp, before: State, after: State) {
  const old = new Set(screensIn(before).map(({ args }) => args));
  for (const { args } of screensIn(after)) if (!old.has(args)) madeUp.set(args, new Set(Object.keys(args)));
}
