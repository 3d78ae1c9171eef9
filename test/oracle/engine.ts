/**
 * A second reading of the behaviour, written from its rules alone and apart from the engine: it shares with it only how expressions are
 * worked out. Plain and slow: every event works on a copy of the whole state. What it and the engine come to is compared on random documents.
 */
import { evaluate } from "../../src/core/insight/evaluate.ts";
import { compile, fits, type Scope, type ValueType, valueType } from "../../src/core/model/expression.ts";
import { isTaken } from "../../src/core/model/expressions.ts";
import type { Container, Element, Entrance, Json, Leg, Move, NavEvent, Project, Row, Screen, Width } from "../../src/core/model/schema.ts";
import { compileCondition, entranceScope, legScope, placeScope } from "../../src/core/model/scope.ts";
import { patternVariables } from "../../src/core/model/template.ts";

type Args = Record<string, Json>;
export interface ShownNode {
  kind: "shown";
  at: string;
  args: Args;
  spent: string[];
  /** Which making of it this is. */
  made: number;
}
export interface Pile {
  kind: "stack";
  at: string;
  items: Tree[];
}
export interface Lanes {
  kind: "tabs" | "drawer";
  at: string;
  active: string;
  lanes: Record<string, Tree>;
  visited: string[];
  open: boolean;
}
export type Tree = ShownNode | Pile | Lanes;
export interface World {
  base: Tree;
  layers: Array<{ at: string; content: Tree }>;
  facts: Args;
  width: Width;
  waiting?: { entrance: string; args: Args };
  held?: { event: NavEvent; depth: number };
}
export interface Result {
  is: "moved" | "ignored" | "refused" | "left";
  why?: string;
  world: World;
}

/** What ends the carrying out of an event; the state is then as before. */
class Ends extends Error {
  constructor(
    readonly is: "ignored" | "refused" | "left",
    readonly why?: string,
  ) {
    super(why);
  }
}
const ignored = (why = "nothing-to-do") => new Ends("ignored", why);
const refused = (why: string) => new Ends("refused", why);

const WIDTHS: readonly Width[] = ["narrow", "middle", "wide"];
let makings = 0;

export class SecondReading {
  private readonly screens: Map<string, Screen>;
  private readonly containers: Map<string, Container>;
  private readonly owners = new Map<string, Container>();

  constructor(private readonly project: Project) {
    this.screens = new Map(project.screens.map((one) => [one.id, one]));
    this.containers = new Map(project.containers.map((one) => [one.id, one]));
    for (const one of project.containers) for (const member of one.members) if (!this.owners.has(member)) this.owners.set(member, one);
  }

  // ————— Making

  private declared(screen: string, args: Args): Args {
    const out: Args = {};
    for (const param of this.screens.get(screen)?.params ?? []) {
      const value = args[param.name] ?? param.default;
      if (value !== undefined) out[param.name] = value as Json;
    }
    return out;
  }

  make(place: string, args: Args = {}, around: readonly string[] = []): Tree {
    const container = around.includes(place) ? undefined : this.containers.get(place);
    if (!container) return { kind: "shown", at: place, args: this.declared(place, args), spent: [], made: ++makings };
    if (container.kind === "modal") return this.make(container.start, args, [...around, place]);
    if (container.kind === "stack") return { kind: "stack", at: place, items: [this.make(container.start, args, [...around, place])] };
    return this.lanesOf(container, container.start, this.make(container.start, args, [...around, place]));
  }

  private lanesOf(container: Container, lane: string, content: Tree): Lanes {
    return { kind: container.kind as "tabs", at: container.id, active: lane, lanes: { [lane]: content }, visited: [lane], open: false };
  }

  beginning(width: Width, facts: Args = {}): World {
    return {
      base: this.make(this.project.root),
      layers: [],
      facts: Object.fromEntries(
        this.project.facts.map((fact) => [fact.id, (fact.persists || fact.source === "outside" ? facts[fact.id] : undefined) ?? fact.initial]),
      ),
      width,
    };
  }

  launch(): World {
    return this.afterwards(undefined, this.beginning("narrow"), true).world;
  }

  // ————— Looking

  private branches(world: World): Tree[] {
    return [world.base, ...world.layers.map(({ content }) => content)];
  }

  private path(branch: Tree): Tree[] {
    if (branch.kind === "shown") return [branch];
    const next = branch.kind === "stack" ? branch.items.at(-1) : branch.lanes[branch.active];
    return [branch, ...(next ? this.path(next) : [])];
  }

  private current(branch: Tree): ShownNode {
    return this.path(branch).at(-1) as ShownNode;
  }

  private top(world: World): number {
    return world.layers.length;
  }

  private branch(world: World, i: number): Tree {
    return this.branches(world)[i] as Tree;
  }

  private nearest(branch: Tree): Pile | undefined {
    return this.path(branch).findLast((node): node is Pile => node.kind === "stack");
  }

  private pinned(id: string, world: World): boolean {
    const drawer = this.containers.get(id);
    return drawer?.kind === "drawer" && drawer.pinnedFrom !== "never" && WIDTHS.indexOf(world.width) >= WIDTHS.indexOf(drawer.pinnedFrom);
  }

  private openDrawer(world: World, branch: Tree): Lanes | undefined {
    return this.path(branch).find((node): node is Lanes => node.kind === "drawer" && node.open && !this.pinned(node.at, world));
  }

  private inReach(world: World): number[] {
    const out = [this.top(world)];
    for (let i = world.layers.length; i > 0; i--) {
      const modal = this.containers.get(world.layers[i - 1]?.at ?? "");
      if (modal?.kind !== "modal" || modal.blocks) break;
      out.push(i - 1);
    }
    return out;
  }

  line(world: World, marks = true): string {
    const text = (node: Tree): string => {
      if (node.kind === "shown") return node.at;
      if (node.kind === "stack") return `${node.at}[${node.items.map(text).join(",")}]`;
      const members = [...new Set([...(this.containers.get(node.at)?.members ?? []), ...Object.keys(node.lanes)])].filter((id) => node.lanes[id]);
      return `${node.at}{${members.map((id) => `${id === node.active ? "*" : ""}${text(node.lanes[id] as Tree)}`).join(",")}}${node.open && marks ? "!" : ""}`;
    };
    return [text(world.base), ...world.layers.map(({ at, content }) => `${at}(${text(content)})`)].join(" + ");
  }

  // ————— Values

  private values(world: World, screen: ShownNode, event: NavEvent | undefined, element: Element | undefined): Record<string, unknown> {
    const type = this.project.types.find(({ id }) => id === element?.of);
    const key = type?.fields[0]?.name ?? "";
    const asked = event?.do === "leg" ? event.item : undefined;
    const rows = type?.samples ?? [];
    const item =
      typeof asked === "object" && asked !== null
        ? asked
        : asked === undefined
          ? undefined
          : (rows.find((row) => row[key] === asked) ?? (typeof asked === "number" ? rows[asked] : undefined));
    return {
      fact: world.facts,
      width: world.width,
      param: screen.args,
      field: (event?.do === "leg" ? event.fields : undefined) ?? {},
      ...(item ? { item } : {}),
      ...this.neighbours(screen),
    };
  }

  private neighbours({ at, args }: ShownNode): { next?: Row; prev?: Row } {
    const pages = this.screens.get(at)?.pages;
    const type = this.project.types.find(({ id }) => id === pages?.over);
    if (!pages || !type) return {};
    const key = type.fields[0]?.name ?? "";
    const { order } = pages;
    const rows = [...type.samples];
    if (order !== undefined) rows.sort((a, b) => compared(a[order], b[order]));
    const i = rows.findIndex((row) => row[key] === args[pages.by]);
    const [next, prev] = i < 0 ? [] : [rows[i + 1], rows[i - 1]];
    return { ...(next ? { next } : {}), ...(prev ? { prev } : {}) };
  }

  private value(source: string, scope: Scope, values: Record<string, unknown>): Json | undefined {
    const compiled = compile(source, scope);
    return compiled.ok ? (evaluate(compiled, values as never) as Json | undefined) : undefined;
  }

  private holds(source: string | undefined, scope: Scope, values: Record<string, unknown>): boolean {
    if (source === undefined) return true;
    const compiled = compileCondition(source, scope);
    return compiled.ok && evaluate(compiled, values as never) === true;
  }

  // ————— Which legs can fire

  private elementOf(leg: Leg): Element | undefined {
    const id = "element" in leg.on ? leg.on.element : undefined;
    const place = this.screens.get(leg.from) ?? this.containers.get(leg.from);
    return id === undefined ? undefined : place?.elements?.find((one) => one.id === id);
  }

  /** The branch in reach on which a leg can be used, if it is on one. */
  private branchOf(world: World, leg: Leg): number | undefined {
    return this.inReach(world).find((i) => this.isOn(world, leg, i));
  }

  private isOn(world: World, leg: Leg, i: number): boolean {
    const branch = this.branch(world, i);
    const path = this.path(branch);
    const open = this.openDrawer(world, branch);
    if (open) return open.at === leg.from;
    const node = path.find(({ at }) => at === leg.from);
    if (node?.kind === "drawer") return this.pinned(node.at, world);
    return node !== undefined || (i > 0 && world.layers[i - 1]?.at === leg.from);
  }

  private canFire(world: World, leg: Leg, i: number, event: NavEvent | undefined, by?: string): boolean {
    if (!this.isOn(world, leg, i) || !this.fits(world, leg, i, event, by)) return false;
    return !this.project.legs
      .slice(0, this.project.legs.indexOf(leg))
      .some((one) => one.from === leg.from && sameTrigger(one, leg) && this.fits(world, one, i, event, by));
  }

  /** A leg but for those before it. */
  private fits(world: World, leg: Leg, i: number, event: NavEvent | undefined, by: string | undefined): boolean {
    const screen = this.current(this.branch(world, i));
    if (leg.on.kind === "depart" && leg.on.by && !leg.on.by.includes(by as "back")) return false;
    if (leg.on.kind === "after" && screen.spent.includes(leg.id)) return false;
    const element = this.elementOf(leg);
    if ("element" in leg.on && leg.on.element !== undefined && !element) return false;
    const values = this.values(world, screen, event, element);
    if (event?.do === "leg" && event.item !== undefined && element?.of !== undefined && values.item === undefined) return false;
    if (element) {
      const scope = placeScope(this.project, leg.from);
      for (const condition of [element.shown, element.enabled]) {
        const compiled = condition === undefined ? undefined : compileCondition(condition, scope);
        if (compiled?.ok && evaluate(compiled, values as never) !== true) return false;
      }
      if (element.except?.includes(screen.at)) return false;
    }
    return this.isWellTyped(leg) && this.holds(leg.when, legScope(this.project, leg), values);
  }

  private isWellTyped(leg: Leg): boolean {
    const scope = legScope(this.project, leg);
    const { move } = leg;
    const fitting = (source: string, wanted: ValueType | undefined) => {
      const compiled = compile(source, scope);
      return compiled.ok && (wanted === undefined || fits(compiled.type, wanted));
    };
    const set = Object.entries(leg.set ?? {}).every(([id, source]) => {
      const fact = this.project.facts.find((one) => one.id === id);
      return fact !== undefined && fitting(source, fact.type === "boolean" ? "boolean" : "text");
    });
    const to = move?.kind === "open" ? (move.show ?? move.to) : move && "to" in move ? move.to : undefined;
    const params = to === undefined ? [] : (this.screens.get(this.current(this.make(to)).at)?.params ?? []);
    const pass = Object.entries(move && "pass" in move ? (move.pass ?? {}) : {}).every(([name, source]) => {
      const param = params.find((one) => one.name === name);
      return fitting(source, param && valueType(param.type));
    });
    const give = Object.entries(move && "give" in move ? (move.give ?? {}) : {}).every(([name, source]) => {
      const compiled = compile(source, scope);
      return compiled.ok && isTaken(this.project, name, compiled.type);
    });
    return (leg.when === undefined || compileCondition(leg.when, scope).ok) && set && pass && give;
  }

  // ————— Events

  step(before: World, event: NavEvent): Result {
    try {
      const world = structuredClone(before);
      const done = this.carriedOut(world, event);
      const end = this.afterwards(before, done, false);
      if (end.is !== "moved") return { ...end, world: before };
      const { held } = end.world;
      if (held && end.world.layers.length <= held.depth) delete end.world.held;
      return end;
    } catch (error) {
      if (error instanceof Ends) return { is: error.is, ...(error.why === undefined ? {} : { why: error.why }), world: before };
      throw error;
    }
  }

  private carriedOut(world: World, event: NavEvent): World {
    const before = structuredClone(world);
    switch (event.do) {
      case "leg":
        return this.legEvent(world, event);
      case "tab":
      case "pick":
      case "lead":
      case "close":
      case "back":
        return this.departing(before, event, this.tried(before, event));
      case "enter":
        return event.cold ? this.enter(world, event) : this.departing(before, event, this.tried(before, event));
      case "launch":
        return this.beginning(world.width, world.facts);
      case "fact": {
        const fact = this.project.facts.find(({ id }) => id === event.fact);
        const values = fact?.type === "boolean" ? [true, false] : (fact?.values ?? []);
        if (fact?.source !== "outside" || !values.includes(event.value as never)) throw ignored("no-such-control");
        if (world.facts[fact.id] === event.value) throw ignored();
        world.facts[fact.id] = event.value;
        return world;
      }
      case "width": {
        if (world.width === event.to) throw ignored();
        world.width = event.to;
        const close = (node: Tree): void => {
          if (node.kind === "drawer") node.open = false;
          if (node.kind === "stack") node.items.forEach(close);
          else if (node.kind !== "shown") Object.values(node.lanes).forEach(close);
        };
        this.branches(world).forEach(close);
        return world;
      }
    }
  }

  /** What an event that may be departed by comes to, without asking. */
  private tried(before: World, event: NavEvent): World | Ends {
    const world = structuredClone(before);
    try {
      return this.plainly(world, event);
    } catch (error) {
      if (error instanceof Ends) return error;
      throw error;
    }
  }

  private plainly(world: World, event: NavEvent): World {
    switch (event.do) {
      case "tab":
      case "pick":
        return this.byHand(world, event.do, event.to, false);
      case "lead":
        return this.lead(world);
      case "close":
        return this.closeEvent(world, event.via);
      case "back":
        return this.back(world, this.top(world));
      case "enter":
        return this.enter(world, event);
      default:
        throw ignored();
    }
  }

  private departing(before: World, event: NavEvent, tried: World | Ends): World {
    const goOn = (facts?: Args): World => {
      if (tried instanceof Ends) throw tried;
      if (facts) tried.facts = { ...tried.facts, ...facts };
      return tried;
    };
    const leaves = tried instanceof Ends ? tried.is === "left" : this.line(tried, false) !== this.line(before, false);
    if (!leaves) return goOn();
    const i = event.do === "tab" || event.do === "pick" ? (this.handOf(before, event.do, event.to, false)?.branch ?? this.top(before)) : this.top(before);
    const asked = structuredClone(before);
    for (const node of this.path(this.branch(asked, i))) if (node.kind === "drawer") node.open = false;
    const around = this.path(this.branch(asked, i))
      .map(({ at }) => at)
      .reverse();
    const places = [...around, ...(i > 0 ? [asked.layers[i - 1]?.at ?? ""] : [])];
    const by = event.do === "enter" ? "link" : event.do;
    const leg = places
      .flatMap((place) => this.project.legs.filter((one) => one.on.kind === "depart" && one.from === place))
      .find((one) => this.canFire(asked, one, i, undefined, by));
    if (!leg) return goOn();
    const screen = this.current(this.branch(before, i));
    const set = (): Args => this.settings(leg, this.values(before, screen, undefined, undefined));
    if (!leg.move) {
      try {
        return goOn(set());
      } catch (error) {
        if (error instanceof Ends && error !== tried) return goOn();
        throw error;
      }
    }
    try {
      const world = this.fire(structuredClone(before), leg, i, undefined);
      if (world.layers.length > before.layers.length) world.held = { event, depth: before.layers.length };
      return world;
    } catch (error) {
      if (error instanceof Ends && error.is !== "left") return goOn();
      throw error;
    }
  }

  private legEvent(world: World, event: NavEvent & { do: "leg" }): World {
    const leg = this.project.legs.find(({ id }) => id === event.leg);
    if (!leg || leg.on.kind === "arrive" || leg.on.kind === "depart") throw ignored("no-such-control");
    const i = this.branchOf(world, leg);
    if (i === undefined || !this.canFire(world, leg, i, event)) throw ignored("no-such-control");
    return this.fire(world, leg, i, event);
  }

  /** A leg that fires on a branch. */
  private fire(world: World, leg: Leg, i: number, event: NavEvent | undefined): World {
    const before = structuredClone(world);
    const screen = this.current(this.branch(world, i));
    const values = this.values(before, screen, event, this.elementOf(leg));
    const { made } = screen;
    const spend = (after: World): World => {
      if (leg.on.kind === "after") this.each(after, (node) => node.kind === "shown" && node.made === made && node.spent.push(leg.id));
      return after;
    };
    const waiting = leg.resumes && world.waiting ? this.project.entrances.find(({ id }) => id === world.waiting?.entrance) : undefined;
    if (waiting && world.waiting) {
      const facts = { ...world.facts, ...this.settings(leg, values) };
      const { args } = world.waiting;
      const scope = entranceScope(this.project, waiting);
      if (this.holds(waiting.when, scope, { fact: facts, width: world.width, link: args })) {
        world.facts = facts;
        const done = this.rebuilt(world, waiting.to, this.entranceArgs(world, waiting, args));
        delete done.waiting;
        return spend(done);
      }
    }
    if (leg.move) this.mustExist(leg.move);
    const pass = leg.move && "pass" in leg.move ? this.passed(leg, leg.move, values) : {};
    const give = leg.move && "give" in leg.move ? this.given(leg, leg.move.give ?? {}, values) : {};
    const set = this.settings(leg, values);
    const drawer = this.openDrawer(world, this.branch(world, i));
    const closes = drawer !== undefined && drawer.at === leg.from && leg.move?.kind !== "menu";
    if (closes) drawer.open = false;
    const applied = (after: World): World => {
      after.facts = { ...after.facts, ...set };
      return spend(after);
    };
    if (!leg.move) {
      if (!closes && Object.entries(set).every(([id, value]) => world.facts[id] === value)) throw ignored();
      return applied(world);
    }
    try {
      const { after, back } = this.move(structuredClone(world), leg.move, pass, i);
      if (back) {
        const taking = this.current(this.branch(after, this.top(after)));
        const names = (this.screens.get(taking.at)?.params ?? []).map(({ name }) => name);
        for (const [name, value] of Object.entries(give)) if (names.includes(name)) taking.args = { ...taking.args, [name]: value };
      }
      return applied(after);
    } catch (error) {
      if (error instanceof Ends && error.is === "ignored" && closes) return spend(world);
      throw error;
    }
  }

  private each(world: World, visit: (node: Tree) => void) {
    const all = (node: Tree): void => {
      visit(node);
      if (node.kind === "stack") node.items.forEach(all);
      else if (node.kind !== "shown") Object.values(node.lanes).forEach(all);
    };
    this.branches(world).forEach(all);
  }

  private settings(leg: Leg, values: Record<string, unknown>): Args {
    const scope = legScope(this.project, leg);
    return Object.fromEntries(
      Object.entries(leg.set ?? {}).map(([fact, source]) => {
        const value = this.value(source, scope, values);
        if (value === undefined) throw refused("no-value");
        return [fact, value];
      }),
    );
  }

  private given(leg: Leg, give: Record<string, string>, values: Record<string, unknown>): Args {
    const scope = legScope(this.project, leg);
    return Object.fromEntries(
      Object.entries(give).map(([name, source]) => {
        const value = this.value(source, scope, values);
        if (value === undefined) throw refused("no-value");
        return [name, value];
      }),
    );
  }

  private passed(leg: Leg, move: Move, values: Record<string, unknown>): Args {
    const scope = legScope(this.project, leg);
    const sources = "pass" in move ? (move.pass ?? {}) : {};
    const to = move.kind === "open" ? (move.show ?? move.to) : "to" in move ? move.to : "";
    const first = this.current(this.make(to)).at;
    const out: Args = {};
    for (const [name, source] of Object.entries(sources)) {
      const value = this.value(source, scope, values);
      const param = this.screens.get(first)?.params.find((one) => one.name === name);
      if (value !== undefined) out[name] = value;
      else if (param?.required && param.default === undefined) throw refused("no-value");
    }
    return out;
  }

  private mustExist(move: Move) {
    if (!namesRightKinds(this.project, move)) throw refused("no-place");
  }

  // ————— Moves

  private move(world: World, move: Move, pass: Args, i: number): { after: World; back?: boolean } {
    const line = this.line(world);
    if ((move.kind === "push" && move.in !== undefined && move.in !== "beneath") || move.kind === "select") {
      if (move.tidy) {
        const can = this.trial(() => this.plainMove(structuredClone(world), move, pass, i));
        if (can instanceof Ends && can.is === "refused") throw can;
        const stack = this.nearest(this.branch(world, i));
        if (stack && move.tidy === "stack") stack.items.splice(1);
        else if (stack && stack.items.length > 1) stack.items.pop();
      }
    }
    return this.plainMove(world, move, pass, i, line);
  }

  private trial<T>(what: () => T): T | Ends {
    try {
      return what();
    } catch (error) {
      if (error instanceof Ends) return error;
      throw error;
    }
  }

  private plainMove(world: World, move: Move, pass: Args, i: number, before = this.line(world)): { after: World; back?: boolean } {
    switch (move.kind) {
      case "push":
        return { after: this.push(world, move, pass, i, before) };
      case "replace":
        return { after: this.replace(world, move.to, pass, i) };
      case "reset": {
        const found = this.targetStack(world, move.in, i);
        if (!found && (move.in === undefined || (move.in === "beneath" && i === 0))) return { after: this.replace(world, move.to, pass, i) };
        if (!found) throw refused("no-stack");
        this.notInside(move.to, found.around);
        found.stack.items = [this.make(move.to, pass)];
        return { after: world };
      }
      case "return":
        return this.return(world, move, pass, i);
      case "open":
        return { after: this.open(world, move, pass, i) };
      case "close": {
        const at = move.modal === undefined ? i - 1 : world.layers.findIndex((layer) => layer.at === move.modal);
        if (at < 0) throw ignored();
        world.layers.splice(at);
        return { after: world, back: true };
      }
      case "select": {
        const owner = this.owners.get(move.to) as Container;
        const found = this.activate(world, owner.id);
        if (!found || found.node.kind === "stack" || found.node.kind === "shown") throw refused("not-showing");
        this.choose(found.node, move.to, move.fresh === true);
        found.node.open = false;
        if (!move.fresh && this.line(world) === before) throw ignored();
        return { after: world };
      }
      case "menu": {
        const path = this.path(this.branch(world, i));
        const drawer = path.findLast((node): node is Lanes => node.kind === "drawer" && (move.drawer === undefined || node.at === move.drawer));
        if (!drawer || this.pinned(drawer.at, world)) throw ignored();
        const open = move.action === "open" ? true : move.action === "close" ? false : !drawer.open;
        if (drawer.open === open) throw ignored();
        drawer.open = open;
        return { after: world };
      }
      case "back":
        return { after: this.back(world, i), back: true };
      case "up":
        return { after: this.up(world, i) };
      case "leave":
        throw new Ends("left");
      case "proceed": {
        const { held } = world;
        if (!held) throw ignored();
        world.layers.splice(held.depth);
        delete world.held;
        const { event } = held;
        return { after: event.do === "pick" ? this.byHand(world, "pick", event.to, true) : this.plainly(world, event) };
      }
    }
  }

  /** The stack in which a push or a reset takes place, made ready, and what is around its items. */
  private targetStack(world: World, within: string | undefined, i: number): { stack: Pile; around: string[] } | undefined {
    if (within === undefined || (within === "beneath" && i === 0)) return this.nearestWith(this.branch(world, i));
    if (within === "beneath") {
      world.layers.splice(i - 1);
      return this.nearestWith(this.branch(world, i - 1));
    }
    const found = this.activate(world, within);
    if (found?.node.kind !== "stack") throw refused("not-showing");
    return { stack: found.node, around: found.around };
  }

  private nearestWith(branch: Tree): { stack: Pile; around: string[] } | undefined {
    const path = this.path(branch);
    const at = path.findLastIndex((node) => node.kind === "stack");
    return at < 0 ? undefined : { stack: path[at] as Pile, around: path.slice(0, at + 1).map((node) => node.at) };
  }

  private notInside(to: string, around: readonly string[]) {
    const tree = (id: string, within: readonly string[] = []): string[] => {
      const container = within.includes(id) ? undefined : this.containers.get(id);
      return [id, ...new Set(container ? [container.start, ...container.members] : [])].flatMap((one) => (one === id ? [id] : tree(one, [...within, id])));
    };
    if (tree(to).some((id) => this.containers.has(id) && around.includes(id))) throw refused("inside-itself");
  }

  /** Brings up a container that is there: what lies above goes, lanes are selected, layers above close. */
  private activate(world: World, id: string): { node: Tree; around: string[] } | undefined {
    for (let i = this.top(world); i >= 0; i--) {
      const found = this.search(this.branch(world, i), id);
      if (!found) continue;
      world.layers.splice(i);
      found.ready();
      return found;
    }
    return undefined;
  }

  private search(node: Tree, id: string): { node: Tree; around: string[]; ready: () => void } | undefined {
    if (node.at === id && node.kind !== "shown") return { node, around: [node.at], ready: () => undefined };
    if (node.kind === "shown") return undefined;
    if (node.kind === "stack") {
      for (let i = node.items.length - 1; i >= 0; i--) {
        const found = this.search(node.items[i] as Tree, id);
        if (found)
          return {
            ...found,
            around: [node.at, ...found.around],
            ready: () => {
              node.items.splice(i + 1);
              found.ready();
            },
          };
      }
      return undefined;
    }
    const members = this.containers.get(node.at)?.members ?? [];
    for (const lane of [node.active, ...members.filter((one) => one !== node.active)]) {
      const content = node.lanes[lane] ?? this.make(lane);
      const found = this.search(content, id);
      if (found)
        return {
          ...found,
          around: [node.at, ...found.around],
          ready: () => {
            node.lanes[lane] = content;
            this.choose(node, lane, false);
            node.open = false;
            found.ready();
          },
        };
    }
    return undefined;
  }

  /** Makes a lane the active one. */
  private choose(node: Lanes, lane: string, fresh: boolean) {
    const container = this.containers.get(node.at);
    const left = node.active;
    if (fresh || !node.lanes[lane]) node.lanes[lane] = this.make(lane);
    node.active = lane;
    node.visited = [...node.visited.filter((one) => one !== lane), lane];
    if (left !== lane && container && "keeps" in container && !container.keeps) delete node.lanes[left];
  }

  private push(world: World, move: Move & { kind: "push" }, pass: Args, i: number, before: string): World {
    const found = this.targetStack(world, move.in, i);
    if (!found) throw refused("no-stack");
    const { stack, around } = found;
    const done = (): World => {
      if (this.line(world) === before) throw ignored();
      return world;
    };
    const top = stack.items.at(-1);
    if (move.repeat === "stay" && top?.at === move.to) {
      if (top.kind !== "shown" || same(top.args, this.declared(move.to, pass))) return done();
    }
    const at = move.repeat === "rewind" ? stack.items.findLastIndex((item) => item.at === move.to) : -1;
    if (at >= 0) {
      const isTop = at === stack.items.length - 1;
      stack.items.splice(at + 1);
      if (move.pass) {
        const shown = this.current(stack.items[at] as Tree);
        shown.args = this.declared(shown.at, pass);
        return world;
      }
      return isTop ? done() : world;
    }
    this.notInside(move.to, around);
    stack.items.push(this.make(move.to, pass));
    return world;
  }

  private replace(world: World, to: string, pass: Args, i: number): World {
    const path = this.path(this.branch(world, i));
    this.notInside(
      to,
      path.slice(0, -1).map(({ at }) => at),
    );
    const parent = path.at(-2);
    const made = this.make(to, pass);
    if (parent?.kind === "stack") parent.items[parent.items.length - 1] = made;
    else if (parent && parent.kind !== "shown") parent.lanes[parent.active] = made;
    else if (i > 0) (world.layers[i - 1] as World["layers"][number]).content = made;
    else world.base = made;
    return world;
  }

  private return(world: World, move: Move & { kind: "return" }, pass: Args, i: number): { after: World; back?: boolean } {
    const branch = this.branch(world, i);
    if (this.current(branch).at === move.to) throw ignored();
    for (const stack of this.path(branch)
      .filter((node): node is Pile => node.kind === "stack")
      .reverse()) {
      const at = stack.items.slice(0, -1).findLastIndex((item) => this.current(item).at === move.to);
      if (at < 0) continue;
      stack.items.splice(at + 1);
      return { after: world, back: true };
    }
    if (move.orElse === "nothing") throw ignored();
    if (move.orElse === "replace") return { after: this.replace(world, move.to, pass, i) };
    return { after: this.push(world, { kind: "push", to: move.to, ...(move.pass ? { pass: move.pass } : {}) }, pass, i, this.line(world)) };
  }

  private open(world: World, move: Move & { kind: "open" }, pass: Args, i: number): World {
    const at = world.layers.findIndex((layer) => layer.at === move.to);
    if (at === world.layers.length - 1 && at >= 0) throw ignored();
    const drawer = this.openDrawer(world, this.branch(world, i));
    if (at >= 0) {
      world.layers.splice(at + 1);
      return world;
    }
    if (drawer) drawer.open = false;
    if (move.instead) world.layers.pop();
    const modal = this.containers.get(move.to) as Container;
    world.layers.push({ at: move.to, content: this.make(move.show ?? modal.start, pass) });
    return world;
  }

  // ————— What the user and the system do

  /** The tab set or drawer that somebody can choose a member of by hand, and the branch that it is on. */
  private handOf(world: World, how: "tab" | "pick", to: string, anyhow: boolean): { node: Lanes; branch: number } | undefined {
    for (const i of this.inReach(world)) {
      const branch = this.branch(world, i);
      const open = this.openDrawer(world, branch);
      for (const node of this.path(branch)) {
        if (node.kind !== (how === "tab" ? "tabs" : "drawer") || !this.containers.get(node.at)?.members.includes(to)) continue;
        const lanes = node as Lanes;
        const ok =
          how === "tab"
            ? !open && this.screens.get(this.current(branch).at)?.coversTabs !== true
            : anyhow || this.pinned(node.at, world) || (open !== undefined && lanes.open);
        if (ok) return { node: lanes, branch: i };
      }
    }
    return undefined;
  }

  private byHand(world: World, how: "tab" | "pick", to: string, anyhow: boolean): World {
    const found = this.handOf(world, how, to, anyhow);
    if (!found) throw ignored("no-such-control");
    const { node } = found;
    const container = this.containers.get(node.at);
    if (node.active === to) {
      if (container?.kind === "tabs" && container.chosenAgain === "root") {
        const lane = node.lanes[to];
        if (lane?.kind !== "stack" || lane.items.length < 2) throw ignored();
        lane.items.splice(1);
        return world;
      }
      if (!node.open) throw ignored();
      node.open = false;
      return world;
    }
    this.choose(node, to, false);
    node.open = false;
    return world;
  }

  private barOf(world: World): { show: boolean; lead: string } {
    const i = this.top(world);
    const path = this.path(this.branch(world, i));
    const screen = this.screens.get(path.at(-1)?.at ?? "");
    const around = path
      .slice(0, -1)
      .reverse()
      .map(({ at }) => this.containers.get(at)?.bar);
    const modal = i > 0 ? this.containers.get(world.layers[i - 1]?.at ?? "")?.bar : undefined;
    return [screen?.bar, ...around, modal].find((bar) => bar !== undefined) ?? { show: true, lead: "auto" };
  }

  private upTarget(id: string): string | undefined {
    const up = this.screens.get(id)?.up ?? "none";
    if (up === "none") return undefined;
    if (up !== "auto") return up;
    const owner = this.owners.get(id);
    return owner?.kind === "stack" && owner.start !== id ? owner.start : undefined;
  }

  private leadIs(world: World): "back" | "up" | "menu" | "idle" | "nothing" {
    const i = this.top(world);
    const branch = this.branch(world, i);
    const { show, lead } = this.barOf(world);
    const back = (this.nearest(branch)?.items.length ?? 0) > 1;
    const up = i === 0 && this.upTarget(this.current(branch).at) !== undefined;
    if (!show) return "nothing";
    switch (lead) {
      case "auto":
        return back ? "back" : up ? "up" : "nothing";
      case "back":
        return back ? "back" : "nothing";
      case "up":
        return i === 0 ? (up ? "up" : "idle") : back ? "back" : "idle";
      case "menu": {
        const drawer = this.path(branch).findLast(({ kind }) => kind === "drawer");
        return !drawer ? "idle" : this.pinned(drawer.at, world) ? "nothing" : "menu";
      }
      default:
        return "nothing";
    }
  }

  private lead(world: World): World {
    const branch = this.branch(world, this.top(world));
    const open = this.openDrawer(world, branch);
    const is = this.leadIs(world);
    const drawer = this.path(branch).findLast((node): node is Lanes => node.kind === "drawer");
    // While a drawer is open it is in the way of every lead but its own.
    if (open && (is !== "menu" || open !== drawer)) throw ignored(is === "nothing" ? "no-such-control" : "nothing-to-do");
    switch (is) {
      case "back":
        this.nearest(branch)?.items.pop();
        return world;
      case "up":
        return this.up(world, this.top(world));
      case "menu": {
        const container = this.containers.get(drawer?.at ?? "");
        if (!drawer || (drawer.open && !(container?.kind === "drawer" && !container.over))) throw ignored();
        drawer.open = !drawer.open;
        return world;
      }
      default:
        throw ignored(is === "idle" ? "nothing-to-do" : "no-such-control");
    }
  }

  private closeEvent(world: World, via: "outside" | "swipe" | "button" | "back"): World {
    if (via === "back") throw ignored("no-such-control");
    const drawer = this.openDrawer(world, this.branch(world, this.top(world)));
    const layer = world.layers.at(-1);
    const container = this.containers.get(drawer?.at ?? layer?.at ?? "");
    const listed = container && "closeOn" in container && container.closeOn.includes(via);
    if (!listed || (via === "outside" && container.kind === "modal" && container.shape === "full")) throw ignored("no-such-control");
    if (drawer) drawer.open = false;
    else world.layers.pop();
    return world;
  }

  private back(world: World, i: number): World {
    const branch = this.branch(world, i);
    const drawer = this.openDrawer(world, branch);
    if (drawer) {
      const container = this.containers.get(drawer.at);
      if (!(container?.kind === "drawer" && container.closeOn.includes("back"))) throw ignored();
      drawer.open = false;
      return world;
    }
    for (const node of this.path(branch).reverse()) {
      if (node.kind === "shown") continue;
      if (node.kind === "stack") {
        if (node.items.length < 2) continue;
        node.items.pop();
        return world;
      }
      const container = this.containers.get(node.at);
      if (container?.kind !== "tabs" && container?.kind !== "drawer") continue;
      if (container.onBack === "start" && node.active !== container.start) {
        this.choose(node, container.start, false);
        return world;
      }
      if (container.onBack === "previous" && node.visited.length > 1) {
        const left = node.active;
        const visited = node.visited.filter((one) => one !== left);
        const latest = visited.at(-1);
        if (latest === undefined) continue;
        this.choose(node, latest, false);
        node.visited = visited;
        return world;
      }
    }
    if (i === 0) throw new Ends("left");
    const modal = this.containers.get(world.layers[i - 1]?.at ?? "");
    if (!(modal?.kind === "modal" && modal.closeOn.includes("back"))) throw ignored();
    world.layers.splice(i - 1);
    return world;
  }

  private matches(item: Tree, target: string): boolean {
    return item.at === target || (this.screens.has(target) && this.current(item).at === target);
  }

  private up(world: World, i: number): World {
    const branch = this.branch(world, i);
    const stack = this.nearest(branch);
    if (i > 0) {
      if (!stack || stack.items.length < 2) throw ignored();
      stack.items.pop();
      return world;
    }
    const source = this.current(branch);
    const target = this.upTarget(source.at);
    if (target === undefined) throw ignored();
    if (stack) {
      const at = stack.items.slice(0, -1).findLastIndex((item) => this.matches(item, target));
      if (at >= 0) {
        stack.items.splice(at + 1);
        return world;
      }
    }
    const owner = this.owners.get(target);
    const probe = structuredClone(world);
    if (!owner || !this.activate(probe, owner.id)) return this.rebuilt(world, target, source.args);
    if (stack && stack.items.length > 1) stack.items.pop();
    const found = this.activate(world, owner.id);
    if (!found) return this.rebuilt(world, target, source.args);
    const { node } = found;
    if (node.kind === "stack") {
      const at = node.items.findLastIndex((item) => this.matches(item, target));
      if (at >= 0) node.items.splice(at + 1);
      else node.items = this.trail(target, source.args);
    } else if (node.kind !== "shown") {
      this.choose(node, target, false);
      node.open = false;
    }
    return world;
  }

  private trail(place: string, args: Args): Tree[] {
    const out: Tree[] = [];
    const seen = new Set<string>();
    const owner = this.owners.get(place);
    for (let at: string | undefined = place; at !== undefined && !seen.has(at) && this.owners.get(at) === owner; at = this.upTarget(at)) {
      seen.add(at);
      out.unshift(this.make(at, args));
    }
    return out;
  }

  private entranceArgs(world: World, entrance: Entrance, link: Args): Args {
    if (!entrance.pass) {
      const names = entrance.pattern === undefined ? [] : patternVariables(entrance.pattern);
      const first = this.current(this.make(entrance.to)).at;
      // An address is text: what is no value of the parameter's type is left out.
      return Object.fromEntries(
        Object.entries(link).flatMap(([name, value]) => {
          const type = this.screens.get(first)?.params.find((param) => param.name === name)?.type;
          const typed = names.includes(name) && type !== undefined ? asType(String(value), type) : undefined;
          return typed === undefined ? [] : [[name, typed]];
        }),
      );
    }
    const scope = entranceScope(this.project, entrance);
    const values = { fact: world.facts, width: world.width, link };
    const out: Args = {};
    for (const [name, source] of Object.entries(entrance.pass)) {
      const value = this.value(source, scope, values);
      if (value !== undefined) out[name] = value;
    }
    return out;
  }

  private enter(world: World, event: NavEvent & { do: "enter" }): World {
    const entrance = this.project.entrances.find(({ id }) => id === event.entrance);
    if (!entrance) throw ignored("no-such-control");
    const cold = event.cold === true;
    let start = world;
    if (cold) {
      const { facts } = this.beginning(world.width, world.facts);
      start = { ...world, facts };
      delete start.waiting;
      delete start.held;
    }
    const args = (event.args ?? {}) as Args;
    const scope = entranceScope(this.project, entrance);
    const compiled = entrance.when === undefined || compileCondition(entrance.when, scope).ok;
    const open = compiled && this.holds(entrance.when, scope, { fact: start.facts, width: start.width, link: args });
    if (!open) {
      if (entrance.otherwise === undefined) {
        if (!cold) throw refused("not-allowed");
        return this.beginning(world.width, world.facts);
      }
      const there = this.rebuilt(start, entrance.otherwise, {});
      if (entrance.resume) there.waiting = { entrance: entrance.id, args };
      return there;
    }
    if (!this.screens.has(entrance.to) && !this.containers.has(entrance.to)) throw refused("no-place");
    const passed = this.entranceArgs(start, entrance, args);
    if (cold || entrance.warm === "rebuild") return this.rebuilt(start, entrance.to, passed);
    start.layers = [];
    for (const node of this.path(start.base)) if (node.kind === "drawer") node.open = false;
    const stack = this.nearest(start.base);
    if (!stack) return this.rebuilt(start, entrance.to, passed);
    stack.items.push(this.make(entrance.to, passed));
    return start;
  }

  /** The base as the containers from the root to a place, with its trail. */
  private rebuilt(world: World, place: string, args: Args): World {
    if (!this.screens.has(place) && !this.containers.has(place)) throw refused("no-place");
    const itself = this.containers.get(place);
    if (itself?.kind === "modal") return { ...world, base: this.make(this.project.root), layers: [{ at: place, content: this.make(itself.start, args) }] };
    const chain: Container[] = [];
    for (let owner = this.owners.get(place); owner; owner = this.owners.get(owner.id)) chain.unshift(owner);
    const wrap = (containers: readonly Container[]): Tree => {
      const [first, ...rest] = containers;
      if (!first) return this.make(place, args);
      const child = rest[0]?.id ?? place;
      if (first.kind === "modal") return wrap(rest);
      if (first.kind === "stack") return { kind: "stack", at: first.id, items: rest.length === 0 ? this.trail(place, args) : [wrap(rest)] };
      return this.lanesOf(first, child, wrap(rest));
    };
    const [outer] = chain;
    const modal = outer?.kind === "modal" ? outer : undefined;
    if (modal) return { ...world, base: this.make(this.project.root), layers: [{ at: modal.id, content: wrap(chain) }] };
    return { ...world, base: wrap(chain), layers: [] };
  }

  // ————— Afterwards

  private afterwards(before: World | undefined, start: World, launching: boolean): Result {
    let world = start;
    const chain = before ? [before, start] : [start];
    for (let fired = 0; ; fired++) {
      const i = this.top(world);
      const screen = this.current(this.branch(world, i));
      const was = before && this.branches(before)[i];
      const uncovered = chain.some(({ layers }) => layers.length > i);
      if (uncovered && was && this.current(was).made === screen.made) return { is: "moved", world };
      const leg = this.project.legs.find((one) => one.from === screen.at && one.on.kind === "arrive" && this.canFire(world, one, i, undefined));
      if (!leg) return { is: "moved", world };
      if (fired === 32) return launching ? { is: "moved", world: start } : { is: "refused", why: "redirect-loop", world: start };
      const next = this.trial(() => this.fire(structuredClone(world), leg, i, undefined));
      if (next instanceof Ends) return { is: "moved", world };
      world = next;
      chain.push(world);
    }
  }
}

function asType(text: string, type: string): Json | undefined {
  const number = text.trim() !== "" && Number.isFinite(Number(text)) ? Number(text) : undefined;
  if (type === "integer") return Number.isInteger(number) ? number : undefined;
  if (type === "number") return number;
  if (type === "boolean") return text === "true" ? true : text === "false" ? false : undefined;
  return type === "text" || type === "date" ? text : undefined;
}

/** Whether the places that a move names are there, and of the kind that it is for. */
export function namesRightKinds({ screens, containers }: Project, move: Move): boolean {
  const isScreen = (id: string) => screens.some((one) => one.id === id);
  const kind = (id: string) => containers.find((one) => one.id === id)?.kind;
  const page = (id: string) => isScreen(id) || (kind(id) !== undefined && kind(id) !== "modal");
  switch (move.kind) {
    case "push":
    case "reset":
      return page(move.to) && (move.in === undefined || move.in === "beneath" || kind(move.in) === "stack");
    case "replace":
      return page(move.to);
    case "return":
      return isScreen(move.to);
    case "open":
      return kind(move.to) === "modal" && (move.show === undefined || page(move.show));
    case "close":
      return move.modal === undefined || kind(move.modal) === "modal";
    case "select":
      // A place in two containers belongs to the first.
      return (
        ["tabs", "drawer"].includes(containers.find(({ members }) => members.includes(move.to))?.kind ?? "") &&
        (isScreen(move.to) || kind(move.to) !== undefined)
      );
    case "menu":
      return move.drawer === undefined || kind(move.drawer) === "drawer";
    default:
      return true;
  }
}

function sameTrigger(a: Leg, b: Leg): boolean {
  const { on: x } = a;
  const { on: y } = b;
  if (x.kind !== y.kind) return false;
  if (x.kind === "depart" || x.kind === "arrive") return true;
  return same({ ...x }, { ...y });
}

function same(a: unknown, b: unknown): boolean {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return a === b;
  const [x, y] = [Object.entries(a), Object.entries(b)].map((list) => list.filter(([, value]) => value !== undefined)) as [
    Array<[string, unknown]>,
    Array<[string, unknown]>,
  ];
  return x.length === y.length && x.every(([key, value]) => Object.hasOwn(b, key) && same(value, (b as Record<string, unknown>)[key]));
}

function compared(a: unknown, b: unknown): number {
  return typeof a === "number" && typeof b === "number" ? a - b : String(a ?? "") < String(b ?? "") ? -1 : String(a ?? "") > String(b ?? "") ? 1 : 0;
}
