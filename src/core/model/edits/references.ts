import { firstScreen, lookup, treeOf } from "../lookup.ts";
import { controlNamed, withAreas } from "../pictures.ts";
import { withParts } from "../rules.ts";
import type { Element, Entrance, Leg, Motion, Move, NavEvent, Project, Rule, What } from "../schema.ts";
import { renameInExpression, renameInTemplate } from "./spelling.ts";

type Ids = ReadonlyMap<string, string>;

/** New ids for old ones, by kind; what is left out stays as it is. */
export interface Renames {
  places?: Ids;
  facts?: Ids;
  types?: Ids;
  legs?: Ids;
  entrances?: Ids;
  rules?: Ids;
  /** Elements by the (old) id of the place that they are on. */
  elements?: ReadonlyMap<string, Ids>;
  /** Parameters by the (old) id of their screen. */
  params?: ReadonlyMap<string, Ids>;
}

const NONE: Ids = new Map();

/** The project with other ids, wherever they are named: members, legs, expressions, walks and their state lines, rules, what is accepted. */
export function renamed(project: Project, names: Renames): Project {
  return new Renamer(project, names).project();
}

class Renamer {
  constructor(
    private readonly of: Project,
    private readonly names: Renames,
  ) {}

  project(): Project {
    const p = this.of;
    return {
      ...p,
      root: this.place(p.root),
      facts: p.facts.map((f) => ({ ...f, id: this.fact(f.id) })),
      types: p.types.map((t) => ({ ...t, id: this.type(t.id), fields: t.fields.map((f) => ({ ...f, type: this.type(f.type) })) })),
      containers: p.containers.map((c) => ({
        ...c,
        id: this.place(c.id),
        start: this.place(c.start),
        members: c.members.map((m) => this.place(m)),
        ...(c.elements ? { elements: c.elements.map((e) => this.element(c.id, e)) } : {}),
        ...(c.motion ? { motion: this.motion(c.motion, c.id, c.start) } : {}),
      })),
      screens: p.screens.map((s) => ({
        ...s,
        id: this.place(s.id),
        ...(s.title === undefined ? {} : { title: this.template(s.title, s.id) }),
        params: s.params.map((q) => ({ ...q, name: this.param(s.id, q.name), type: this.type(q.type) })),
        up: this.place(s.up),
        elements: s.elements.map((e) => this.element(s.id, e)),
        ...(s.pages ? { pages: { ...s.pages, over: this.type(s.pages.over), by: this.param(s.id, s.pages.by) } } : {}),
        ...(s.pictures ? { pictures: withAreas(s, (area) => ({ ...area, control: this.control(s.id, area.control) })).pictures } : {}),
      })),
      legs: p.legs.map((leg) => this.leg(leg)),
      entrances: p.entrances.map((e) => this.entrance(e)),
      walks: p.walks.map((w) => ({
        ...w,
        events: w.events.map((event) => this.event(event)),
        ...(w.expect ? { expect: w.expect.map((x) => ({ ...x, shows: this.line(x.shows) })) } : {}),
      })),
      ...(p.rules ? { rules: p.rules.map((rule) => this.rule(rule)) } : {}),
      ...(p.accepted ? { accepted: p.accepted.map((a) => ({ ...a, subjects: this.subjects(a.subjects) })) } : {}),
      ...(p.mapOrder
        ? { mapOrder: Object.fromEntries(Object.entries(p.mapOrder).map(([id, order]) => [this.place(id), order.map((m) => this.place(m))])) }
        : {}),
    };
  }

  private place = (id: string): string => this.names.places?.get(id) ?? id;
  private fact = (id: string): string => this.names.facts?.get(id) ?? id;
  private type = (id: string): string => this.names.types?.get(id) ?? id;
  private elementId = (placeId: string, id: string): string => this.names.elements?.get(placeId)?.get(id) ?? id;
  private param = (screenId: string, name: string): string => this.names.params?.get(screenId)?.get(name) ?? name;

  private element(placeId: string, e: Element): Element {
    return {
      ...e,
      id: this.elementId(placeId, e.id),
      ...(e.of === undefined ? {} : { of: this.type(e.of) }),
      ...(e.text === undefined ? {} : { text: this.template(e.text, placeId) }),
      ...(e.shown === undefined ? {} : { shown: this.expression(e.shown, placeId) }),
      ...(e.enabled === undefined ? {} : { enabled: this.expression(e.enabled, placeId) }),
      ...(e.except ? { except: e.except.map((s) => this.place(s)) } : {}),
    };
  }

  /** What an area stands for. */
  private control(screenId: string, control: string): string {
    const [kind, place] = control.split(":");
    if (place !== undefined) return `${kind}:${this.place(place)}`;
    const on = controlNamed(this.of, screenId, control)?.on;
    return on === undefined ? control : this.elementId(on, control);
  }

  private leg(leg: Leg): Leg {
    const { from } = leg;
    return {
      ...leg,
      id: this.names.legs?.get(leg.id) ?? leg.id,
      from: this.place(from),
      on: "element" in leg.on && leg.on.element !== undefined ? { ...leg.on, element: this.elementId(from, leg.on.element) } : leg.on,
      ...(leg.when === undefined ? {} : { when: this.expression(leg.when, from) }),
      ...(leg.move ? { move: this.move(leg.move, from) } : {}),
      ...(leg.set ? { set: Object.fromEntries(Object.entries(leg.set).map(([id, source]) => [this.fact(id), this.expression(source, from)])) } : {}),
      ...(leg.motion ? { motion: this.motion(leg.motion, from, leg.move && "to" in leg.move ? leg.move.to : from) } : {}),
    };
  }

  private rule(rule: Rule): Rule {
    const { id, ...rest } = withParts(rule, (what) => this.what(what));
    const named = { id: this.names.rules?.get(id) ?? id, ...rest } as Rule;
    return named.kind === "only" ? { ...named, while: this.expression(named.while, undefined) } : named;
  }

  private what({ places, legs, entrances }: What): What {
    return {
      ...(places ? { places: places.map(this.place) } : {}),
      ...(legs ? { legs: legs.map((id) => this.names.legs?.get(id) ?? id) } : {}),
      ...(entrances ? { entrances: entrances.map((id) => this.names.entrances?.get(id) ?? id) } : {}),
    };
  }

  private move(move: Move, from: string): Move {
    switch (move.kind) {
      case "push":
      case "reset":
        return { ...move, to: this.place(move.to), ...this.pass(move.pass, move.to, from), ...(move.in === undefined ? {} : { in: this.place(move.in) }) };
      case "replace":
        return { ...move, to: this.place(move.to), ...this.pass(move.pass, move.to, from) };
      case "return":
        return { ...move, to: this.place(move.to), ...this.pass(move.pass, move.to, from), ...this.give(move, from) };
      case "open":
        return {
          ...move,
          to: this.place(move.to),
          ...(move.show === undefined ? {} : { show: this.place(move.show) }),
          ...this.pass(move.pass, move.show ?? move.to, from),
        };
      case "close":
        return { ...move, ...(move.modal === undefined ? {} : { modal: this.place(move.modal) }), ...this.give(move, from) };
      case "select":
        return { ...move, to: this.place(move.to) };
      case "menu":
        return move.drawer === undefined ? move : { ...move, drawer: this.place(move.drawer) };
      case "back":
        return { ...move, ...this.give(move, from) };
      case "up":
      case "proceed":
      case "leave":
        return move;
    }
  }

  /** What is handed back: to the screen that is named, else to every screen that declares the name. */
  private give(move: Move, from: string): { give?: Record<string, string> } {
    if (!("give" in move) || !move.give) return {};
    const name = (old: string): string => {
      if (move.kind === "return" && lookup(this.of).screens.has(move.to)) return this.param(move.to, old);
      const takers = this.of.screens.filter((screen) => screen.params.some((param) => param.name === old)).map(({ id }) => this.param(id, old));
      const [first] = takers;
      return first !== undefined && takers.every((one) => one === first) ? first : old;
    };
    return { give: Object.fromEntries(Object.entries(move.give).map(([old, source]) => [name(old), this.expression(source, from)])) };
  }

  private pass(pass: Record<string, string> | undefined, target: string, from: string | undefined): { pass?: Record<string, string> } {
    if (!pass) return {};
    const screen = firstScreen(this.of, target)?.id ?? target;
    return { pass: Object.fromEntries(Object.entries(pass).map(([name, source]) => [this.param(screen, name), this.expression(source, from)])) };
  }

  private entrance(e: Entrance): Entrance {
    return {
      ...e,
      id: this.names.entrances?.get(e.id) ?? e.id,
      to: this.place(e.to),
      ...this.pass(e.pass, e.to, undefined),
      ...(e.when === undefined ? {} : { when: this.expression(e.when, undefined) }),
      ...(e.otherwise === undefined ? {} : { otherwise: this.place(e.otherwise) }),
    };
  }

  private motion(motion: Motion, from: string, to: string): Motion {
    if (!motion.carries) return motion;
    const shown = firstScreen(this.of, to)?.id ?? to;
    return { ...motion, carries: motion.carries.map((c) => ({ from: this.elementId(from, c.from), to: this.elementId(shown, c.to) })) };
  }

  private event(event: NavEvent): NavEvent {
    switch (event.do) {
      case "leg": {
        const from = lookup(this.of).legs.get(event.leg)?.from ?? "";
        const fields = event.fields && Object.fromEntries(Object.entries(event.fields).map(([id, v]) => [this.seenFrom(from, "elements").get(id) ?? id, v]));
        return { ...event, leg: this.names.legs?.get(event.leg) ?? event.leg, ...(fields ? { fields } : {}) };
      }
      case "tab":
      case "pick":
        return { ...event, to: this.place(event.to) };
      case "enter":
        return { ...event, entrance: this.names.entrances?.get(event.entrance) ?? event.entrance };
      case "fact":
        return { ...event, fact: this.fact(event.fact) };
      case "lead":
      case "close":
      case "back":
      case "launch":
      case "width":
        return event;
    }
  }

  /** Place ids in a state line. */
  private line(shows: string): string {
    return shows.replace(/[A-Za-z][A-Za-z0-9]*/g, (id) => this.place(id));
  }

  private subjects([first, ...rest]: string[]): string[] {
    if (first === undefined) return [];
    const whole = (id: string) =>
      this.names.places?.get(id) ??
      this.names.legs?.get(id) ??
      this.names.entrances?.get(id) ??
      this.names.facts?.get(id) ??
      this.names.types?.get(id) ??
      this.names.rules?.get(id) ??
      id;
    return [whole(first), ...rest.map((id) => this.names.elements?.get(first)?.get(id) ?? this.names.params?.get(first)?.get(id) ?? whole(id))];
  }

  private expression(source: string, at: string | undefined): string {
    return renameInExpression(source, this.scope(at));
  }
  private template(text: string, at: string): string {
    return renameInTemplate(text, this.scope(at));
  }

  private scope(at: string | undefined): Record<string, Ids> {
    return {
      fact: this.names.facts ?? NONE,
      ...(at === undefined ? {} : { field: this.seenFrom(at, "elements"), param: this.seenFrom(at, "params") }),
    };
  }

  /** New names of the elements or parameters that a place's expressions can mean: its own, those around it and those inside it. */
  private seenFrom(at: string, kind: "elements" | "params"): Ids {
    const all = this.names[kind];
    if (!all || all.size === 0) return NONE;
    const out = new Map<string, string>();
    for (const [placeId, ids] of all)
      if (placeId === at || treeOf(this.of, at).includes(placeId) || treeOf(this.of, placeId).includes(at)) for (const [old, next] of ids) out.set(old, next);
    return out;
  }
}
