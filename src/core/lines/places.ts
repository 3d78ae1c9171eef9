import { newContainer, newScreen } from "../model/edits/add.ts";
import { freshId } from "../model/edits/edit.ts";
import { lookup, treeOf } from "../model/lookup.ts";
import { folded } from "../model/names.ts";
import type { Container, Element, Project, Screen } from "../model/schema.ts";
import type { ElementNode, LegNode, Lines, ParamNode, PlaceNode } from "./ast.ts";
import { startsOver } from "./elements.ts";
import type { Expressions, Here } from "./expressions.ts";
import type { Problems } from "./problems.ts";
import { placeAt, standingFor, standsFor } from "./standing.ts";
import { pathOf } from "./targets.ts";
import { hasSteps, NO_STACK } from "./usual.ts";
import {
  barOf,
  CONTAINER_FLAGS,
  CONTAINER_KINDS,
  ELEMENT_FLAGS,
  ELEMENT_SAID,
  modalPlace,
  SCREEN_FLAGS,
  SCREEN_SAID,
  type Shape,
  usualClosing,
  usualEdge,
} from "./words.ts";

/** A place as its lines make it. */
export interface Made {
  id: string;
  node: PlaceNode;
  owner: Made | undefined;
  container: Container | undefined;
  screen: Screen | undefined;
}

const NOWHERE: Omit<PlaceNode, "name" | "line" | "column"> = { params: [], options: [], elements: [], members: [] };

/** The parameters of a screen that is only led to: what is passed to it. */
function paramsFrom({ args = {}, line, column }: LegNode): ParamNode[] {
  const typeOf = (value: string) => (/^-?\d+(\.\d+)?$/.test(value) ? "number" : value === "true" || value === "false" ? "boolean" : "text");
  return Object.entries(args).map(([name, value]) => ({ name, type: typeOf(value), required: true, line, column }));
}

/** Screens and containers from their lines, and those that lines only lead to. */
export class Places {
  readonly made: Made[] = [];
  /** The stack that was put around what stands outermost, where that is more than one place. */
  wrapper: string | undefined;
  private readonly ids = new Set<string>();
  /** Places by their names as these are compared. */
  private readonly byName = new Map<string, Made[]>();

  constructor(
    private readonly problems: Problems,
    private readonly expressions: Expressions,
    /** What the rows of lists are that do not say it. */
    private readonly rows: ReadonlyMap<ElementNode, string> = new Map(),
    /** The project that the lines are for, where something is in it already. */
    private readonly known: Project | undefined = undefined,
  ) {}

  private fresh(name: string): string {
    const id = freshId(name, this.ids, "place");
    this.ids.add(id);
    return id;
  }

  place(told: PlaceNode, owner: Made | undefined): Made {
    const stands = this.stands(pathOf(told.name));
    const node = stands === undefined ? told : { ...told, name: stands };
    const id = this.fresh(node.name);
    const kind = CONTAINER_KINDS[node.options[0]?.text ?? ""] ?? (node.members.length > 0 ? { kind: "stack" as const } : undefined);
    const one: Made = { id, node, owner, container: undefined, screen: undefined };
    this.made.push(one);
    this.named(one);
    if (!kind) {
      one.screen = this.screen(node, id);
      return one;
    }
    if (node.params.length > 0) this.problems.wrong(node, `“${node.name}” is a container; only screens take parameters`);
    const alone = kind.kind === "modal" && node.members.length === 0;
    const at = { line: node.line, column: node.column };
    const inside = alone
      ? [{ ...NOWHERE, name: node.name, ...at, elements: node.elements }]
      : kind.kind === "modal" && hasSteps(node)
        ? [{ ...NOWHERE, name: `${node.name} steps`, ...at, members: node.members }]
        : node.members;
    if (alone) one.node = { ...node, elements: [] };
    const members = inside.map((member) => this.place(member, one));
    const own = members.filter(({ container }) => container?.kind !== "modal");
    const start = own.find((member) => member.node.options.some(({ text }) => text === "start")) ?? own[0];
    one.container = this.container(
      node,
      newContainer(
        kind.kind,
        id,
        node.name,
        own.map((member) => member.id),
      ),
      kind.shape,
      start?.id ?? id,
    );
    return one;
  }

  /** What stands for the place of a path in the project that the lines are for. */
  private stands(path: readonly string[]): string | undefined {
    const id = this.known && path.length > 1 ? placeAt(this.known, path) : undefined;
    return id === undefined ? undefined : standsFor(id);
  }

  private screen(node: PlaceNode, id: string): Screen {
    let screen: Screen = newScreen(id, node.name);
    screen.params = node.params.map(({ name, type, required, default: value }) => ({
      name,
      type,
      required,
      ...(value === undefined ? {} : { default: value as string }),
    }));
    for (const option of node.options) {
      const bar = barOf(option.text);
      if (bar) screen = { ...screen, bar };
      else if (option.text !== "start" && option.text !== "apart" && !option.text.startsWith("up "))
        screen = this.problems.worded(option, screen, SCREEN_FLAGS, SCREEN_SAID, "hub, once, planned, no bar, path /plots or title …");
    }
    return screen;
  }

  private container(node: PlaceNode, made: Container, shape: Shape | undefined, start: string): Container {
    let container: Container = { ...made, start };
    if (container.kind === "modal" && shape) {
      container = { ...container, shape, edge: usualEdge(shape), closeOn: usualClosing(shape) };
    }
    for (const option of node.options) {
      if (option.text === "start" || option.text === "apart" || CONTAINER_KINDS[option.text] || (option.text === NO_STACK && container.kind === "modal"))
        continue;
      const bar = barOf(option.text);
      const placed = container.kind === "modal" ? modalPlace(option.text) : undefined;
      if (bar) container = { ...container, bar };
      else if (placed) container = { ...container, ...placed } as Container;
      else
        container = this.problems.worded(
          option,
          container,
          CONTAINER_FLAGS,
          [],
          "the kind of container first (stack, tabs, drawer, sheet, dialog), then what is special of it",
          container.kind === "tabs" ? "tabs" : `a ${container.kind}`,
        );
    }
    return container;
  }

  /** Places that lines lead to and that none makes are made: beside where they are led to from; of ways in, beside nothing. */
  missing(ways: Lines["ways"]) {
    for (const one of [...this.made])
      for (const element of one.node.elements)
        for (const leg of element.legs) {
          const { target } = leg;
          if (target.is !== "place" || this.find(target.path)) continue;
          const [name = ""] = target.path;
          const stands = this.stands(target.path);
          if (stands !== undefined) this.place({ ...NOWHERE, name: stands, line: leg.line, column: leg.column }, undefined);
          if (target.path.length !== 1) continue;
          const there = this.known && placeAt(this.known, target.path);
          if (there !== undefined) {
            // It stands where it does in the project.
            const params = lookup(this.known as Project).screens.has(there) ? paramsFrom(leg) : [];
            this.place({ ...NOWHERE, name, params, line: leg.line, column: leg.column }, undefined);
            continue;
          }
          const kind = leg.options.map(({ text }) => CONTAINER_KINDS[text]).find((found) => found?.kind === "modal");
          const node: PlaceNode = { ...NOWHERE, name, params: kind ? [] : paramsFrom(leg), line: leg.line, column: leg.column };
          if (kind)
            this.place(
              { ...node, options: [{ text: leg.options.find(({ text }) => CONTAINER_KINDS[text])?.text ?? "sheet", line: leg.line, column: leg.column }] },
              undefined,
            );
          // Who signs out is outside of where that was done.
          else if (startsOver(element.label, name, false)) this.place(node, undefined);
          else this.beside(one, this.place(node, undefined));
        }
    for (const { leg } of ways) {
      const { target, line, column } = leg;
      const [name = ""] = target.is === "place" ? target.path : [];
      if (target.is !== "place" || this.find(target.path)) continue;
      const stands = this.stands(target.path);
      if (stands !== undefined) this.place({ ...NOWHERE, name: stands, line, column }, undefined);
      else if (target.path.length === 1) this.place({ ...NOWHERE, name, params: paramsFrom(leg), line, column }, undefined);
    }
  }

  /** Puts a new screen into the stack of another; where that stands in none, a stack is put around the two. */
  private beside(from: Made, made: Made) {
    const around = from.container && from.container.kind !== "modal" ? from : from.owner;
    made.owner = around;
    if (!around?.container) return;
    const { container } = around;
    if (container.kind === "stack" || from.container) {
      container.members.push(made.id);
      return;
    }
    const node: PlaceNode = { ...NOWHERE, name: from.node.name, line: from.node.line, column: from.node.column };
    const stack: Made = { id: this.fresh(`${from.node.name} stack`), node, owner: around, screen: undefined, container: undefined };
    stack.container = newContainer("stack", stack.id, from.node.name, [from.id, made.id]);
    around.container = {
      ...container,
      members: container.members.map((id) => (id === from.id ? stack.id : id)),
      start: container.start === from.id ? stack.id : container.start,
    };
    from.owner = stack;
    made.owner = stack;
    this.made.push(stack);
    this.named(stack);
  }

  private named(one: Made) {
    const key = folded(one.node.name);
    const known = this.byName.get(key);
    if (known) known.push(one);
    else this.byName.set(key, [one]);
  }

  root(): string {
    const top = this.made.filter(
      ({ owner, container, node }) => owner === undefined && container?.kind !== "modal" && !node.options.some(({ text }) => text === "apart"),
    );
    const [only, ...others] = top;
    if (only && others.length === 0) return only.id;
    if (!only) {
      const first = this.made.find(({ screen }) => screen);
      return first?.id ?? "home";
    }
    const id = this.fresh("App");
    const stack: Made = {
      id,
      node: { ...NOWHERE, name: "App", line: 1, column: 1 },
      owner: undefined,
      screen: undefined,
      container: newContainer(
        "stack",
        id,
        "App",
        top.map((one) => one.id),
      ),
    };
    for (const one of top) one.owner = stack;
    this.wrapper = id;
    this.made.unshift(stack);
    this.byName.set(folded("App"), [stack, ...(this.byName.get(folded("App")) ?? [])]);
    return id;
  }

  /** The place of a path: a name alone, or with names of containers around it before it. */
  find(path: readonly string[]): Made | undefined {
    const [name, ...around] = [...path].reverse();
    const fits = (one: Made) =>
      around.reduce<{ at: Made | undefined; ok: boolean }>(({ at, ok }, wanted) => ({ at: at?.owner, ok: ok && at?.owner?.node.name === wanted }), {
        at: one,
        ok: true,
      }).ok;
    const alike = (this.byName.get(folded(name ?? "")) ?? []).filter(fits);
    const exact = alike.filter((one) => one.node.name === name);
    const all = exact.length > 0 ? exact : alike;
    const stands = this.stands(path);
    return (
      all.find(({ screen }) => screen) ??
      all[0] ??
      (stands === undefined ? undefined : this.byName.get(folded(stands))?.find((one) => one.node.name === stands))
    );
  }

  /** The parameters that expressions on a place can name: its own, or those of the screens in it. */
  paramsOf(one: Made): ReadonlySet<string> {
    const { known } = this;
    const path = pathOf(one.node.name);
    const there = known && (standingFor(one.node.name) ?? placeAt(known, path));
    const screens = there === undefined ? [] : treeOf(known as Project, there).flatMap((id) => lookup(known as Project).screens.get(id) ?? []);
    const inside = (one.container ? this.made.filter(({ owner }) => owner === one) : []).flatMap((member) => [...this.paramsOf(member)]);
    return new Set([...one.node.params, ...screens.flatMap((screen) => screen.params)].map(({ name }) => name).concat(inside));
  }

  /** What plain words can name of a place and of what stands on it. */
  here(one: Made, node: ElementNode): Here {
    return { params: this.paramsOf(one), row: this.expressions.rowOf(node, this.rows.get(node)) };
  }

  /** What is chosen where a line switches to a place: the tab, or the entry of the menu, that is called like it or shows it first. */
  lane(to: Made): Made {
    const isLane = ({ owner }: Made) => owner?.container?.kind === "tabs" || owner?.container?.kind === "drawer";
    const around = isLane(to) ? undefined : to.owner;
    return around?.container?.kind === "stack" && isLane(around) && (around.node.name === to.node.name || around.container.start === to.id) ? around : to;
  }

  /** Elements, and what names other places. */
  contents(one: Made) {
    const up = one.node.options.find(({ text }) => text.startsWith("up "));
    if (one.screen && up) {
      const target = this.find(pathOf(up.text.slice(3).trim()));
      if (target?.screen) one.screen = { ...one.screen, up: target.id };
      else this.problems.wrong(up, `found “${up.text}”, expected up and the name of a screen`);
    }
    const taken = new Set<string>();
    const params = this.paramsOf(one);
    const elements = one.node.elements.flatMap((node): Element[] => {
      if (node.trigger) return [];
      const named = node.options.find(({ text }) => /^as [a-z]\w*$/.test(text))?.text.slice(3);
      const id = named ?? freshId(node.label, taken, "element");
      taken.add(id);
      const of = this.rows.get(node);
      const kind = node.legs.length === 0 ? (node.idle ?? node.kind) : node.kind;
      let element: Element = { id, kind, label: node.label, ...(of === undefined ? {} : { of }) };
      for (const option of this.expressions.options(node.options, { params })) {
        if (option.text === `as ${named}`) continue;
        if (option.text === "list" || option.text === "button" || option.text === "icon") element = { ...element, kind: option.text };
        else if (option.text.startsWith("not on ")) {
          const target = this.find(pathOf(option.text.slice(7).trim()));
          if (target) element = { ...element, except: [...(element.except ?? []), target.id] };
          else this.problems.wrong(option, `found “${option.text}”, expected not on and the name of a place`);
        } else element = this.problems.worded(option, element, ELEMENT_FLAGS, ELEMENT_SAID, "in bar, at foot, of plot, says …, shown if …, enabled if …");
      }
      return [element];
    });
    if (one.screen) one.screen = { ...one.screen, elements };
    else if (one.container && elements.length > 0) one.container = { ...one.container, elements };
  }
}
