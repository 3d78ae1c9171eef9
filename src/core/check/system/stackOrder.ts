/** What the order of a stack can be told from the moves alone, without a search. */

import { once } from "../../model/once.ts";
import type { Operation, Program, Route, Template } from "../../plan/data.ts";
import type { Plan } from "../../plan/plan.ts";

/**
 * Whether in every stack a place lies only above a screen, and never beneath it: it is put there from that screen alone, and the screen is never
 * put on a stack that has it already: either the stack is cut back to it then, or it lies only above another screen in the same way, as the steps
 * of a flow do. So the place is not in the stack when the screen is on top. False where the moves alone do not tell.
 */
export function liesOnlyAbove(plan: Plan, place: string, screen: string): boolean {
  const known = once(plan, noAnswers);
  const key = `${place} ${screen}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  // Two that lead to each other tell nothing of each other.
  known.set(key, false);
  const made = new Order(plan, place, screen).isKept();
  known.set(key, made);
  return made;
}

const noAnswers = (_: Plan) => new Map<string, boolean>();

/** By id the programs of moves and of Up that name it, with the place that they start from: all others leave it where it is. */
function programsNaming(plan: Plan): ReadonlyMap<string, ReadonlyArray<{ from: string; program: Program }>> {
  const out = new Map<string, Array<{ from: string; program: Program }>>();
  const add = (from: string, program: Program | undefined) => {
    if (!program) return;
    for (const id of new Set(JSON.stringify(program).match(/(?<=")[^"\\]+(?=")/g))) {
      const known = out.get(id);
      if (known) known.push({ from, program });
      else out.set(id, [{ from, program }]);
    }
  };
  for (const { from, move } of plan.legs.values()) add(from, move);
  for (const [from, { up }] of plan.screens) add(from, up);
  return out;
}

class Order {
  constructor(
    private readonly plan: Plan,
    private readonly place: string,
    private readonly screen: string,
  ) {}

  isKept(): boolean {
    const { plan } = this;
    // Who uses a leg of a container may be anywhere in it, on top of the place too; and a container is not put somewhere by its name alone.
    if (this.place === this.screen || !plan.screens.has(this.screen) || !plan.screens.has(this.place)) return false;
    const lanes = [...plan.containers.values()].flatMap(({ kind, members }) => (kind === "tabs" || kind === "drawer" ? members : []));
    if (lanes.some((id) => this.isEither(id))) return false;
    const made = [plan.launch, ...plan.lanes.values()];
    const naming = once(plan, programsNaming);
    const programs = [this.place, this.screen].flatMap((id) => naming.get(id) ?? []);
    // Ways in start the app over: what one would put on top of a running app is not among the states that are checked.
    const routes = [...plan.entrances.values()].flatMap(({ route, otherwise }) => [route, otherwise?.route].flatMap((one) => one ?? []));
    return (
      made.every((one) => this.inOrder(one)) && routes.every((one) => this.inRoute(one)) && programs.every(({ from, program }) => this.keeps(from, program))
    );
  }

  private isEither(id: string): boolean {
    return id === this.place || id === this.screen;
  }

  private keeps(from: string, program: Program): boolean {
    return program.every((operation, i) => this.keepsBy(from, program.slice(0, i), operation));
  }

  private keepsBy(from: string, before: Program, operation: Operation): boolean {
    switch (operation.op) {
      case "push":
        if (operation.make === this.place) return from === this.screen && before.every(isOnTheSpot);
        if (operation.make !== this.screen) return this.inOrder(operation.make);
        return this.cutsBack(before) || (before.every(isOnTheSpot) && liesOnlyAbove(this.plan, this.screen, from));
      case "replace":
        return (typeof operation.make !== "string" || !this.isEither(operation.make)) && this.inOrder(operation.make);
      case "fill":
        return this.areInOrder(operation.make);
      case "open":
        return this.inOrder(operation.make);
      case "rebuild":
        return this.inRoute(operation.route);
      case "stack":
      case "bring":
        return this.keeps(from, operation.otherwise ?? []);
      default:
        return true;
    }
  }

  /** Whether a stack is cut back to the screen where it has it, before it is put on top. */
  private cutsBack(before: Program): boolean {
    return before.some((operation) => operation.op === "pop" && operation.to === this.screen);
  }

  private inRoute(route: Route): boolean {
    return this.inOrder("base" in route ? route.base : route.shows);
  }

  private inOrder(template: Template): boolean {
    if (typeof template === "string") return true;
    if ("stack" in template) return this.areInOrder(template.items);
    return (typeof template.shows !== "string" || !this.isEither(template.shows)) && this.inOrder(template.shows);
  }

  private areInOrder(items: readonly Template[]): boolean {
    const [at, beneath] = [items.indexOf(this.place), items.indexOf(this.screen)];
    const kept = at < 0 || (beneath >= 0 && beneath < at && items.lastIndexOf(this.screen) < at);
    return kept && items.every((item) => this.inOrder(item));
  }
}

/** Whether what follows an operation is still put on the stack that the move is made from. */
function isOnTheSpot(operation: Operation): boolean {
  return operation.op === "unless" || operation.op === "pop" || operation.op === "stay" || (operation.op === "stack" && operation.of === "nearest");
}
