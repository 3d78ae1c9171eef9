import { emptyProject, newScreen } from "../../model/edits/add.ts";
import { freshId } from "../../model/edits/edit.ts";
import { firstScreen, lookup, ownersAround } from "../../model/lookup.ts";
import { suitedMove } from "../../model/propose.ts";
import { SIZE_LIMIT } from "../../model/read.ts";
import type { Container, Element, Fact, Leg, Move, Project, Screen } from "../../model/schema.ts";
import { type Assign, type Chart, type ChartState, chartOf, type Transition } from "./chart.ts";
import { conditionOf, type Facts, literalOf } from "./conditions.ts";
import type { ImportResult } from "./imported.ts";

/**
 * A project from a state chart (W3C SCXML): a state without states in it is a screen, one with some is a stack of them, a parallel one is
 * a tab set; data that is yes or no, or one of a few texts, is a fact, with the conditions and assignments that speak of it. Transitions
 * with an event are buttons, or happen after a while where the state sends the event to itself; those without are taken on arriving.
 */
export function fromScxml(text: string, name = "Imported"): ImportResult {
  if (text.length > SIZE_LIMIT)
    return { ok: false, problems: [{ message: `The file has ${text.length} characters; at most ${SIZE_LIMIT} (20 MiB) are expected.` }] };
  const chart = chartOf(text);
  if ("problem" in chart) return { ok: false, problems: [chart.problem] };
  if (chart.root.children.length === 0) return { ok: false, problems: [{ message: "There is no state in the chart; expected at least one <state>." }] };
  const building = new Building(chart, chart.name ?? name);
  return { ok: true, project: building.project, lost: building.lost };
}

class Building {
  project: Project;
  readonly lost: string[];
  private readonly ids = new Map<string, string>();
  private readonly states = new Map<string, ChartState>();
  private readonly places = new Map<ChartState, string>();
  private readonly facts: Facts;
  private readonly legs = new Set<string>();

  constructor(
    private readonly chart: Chart,
    name: string,
  ) {
    this.lost = [...chart.lost];
    this.visit(chart.root, new Set(), 0);
    const all = [...this.places.keys()];
    const at = (state: ChartState) => this.places.get(state) ?? "";
    const containers: Container[] = all.filter((state) => state.children.length > 0).map((state) => containerOf(state, at, this.ids));
    const screens: Screen[] = all.filter((state) => state.children.length === 0).map((state) => newScreen(at(state), state.label ?? state.id));
    const facts = this.factsOf(all);
    this.facts = new Map(facts.map(({ data, fact }) => [data, { fact: fact.id, ...(fact.values ? { values: fact.values } : {}) }]));
    this.project = { ...emptyProject(name), root: at(chart.root), facts: facts.map(({ fact }) => fact), containers, screens };
    this.startWith();
    for (const state of all) for (const transition of state.transitions) this.leg(state, transition);
  }

  private visit(state: ChartState, taken: Set<string>, depth: number) {
    if (this.ids.has(state.id)) this.lost.push(`a second state ${state.id}`);
    const id = freshId(state.id === "" ? "main" : state.id, taken, "place");
    taken.add(id);
    this.places.set(state, id);
    if (!this.ids.has(state.id)) {
      this.ids.set(state.id, id);
      this.states.set(state.id, state);
    }
    if (depth > 60) {
      this.lost.push(`the states in ${state.id}, which stand too deep`);
      state.children = [];
    }
    for (const child of state.children) this.visit(child, taken, depth + 1);
  }

  /** Data that begins as yes or no, or as a text, and that gets nothing but such values. */
  private factsOf(all: readonly ChartState[]): Array<{ data: string; fact: Fact }> {
    const taken = new Set<string>();
    const assigns = all.flatMap((state) => [...state.enters, ...state.transitions.flatMap((one) => one.assigns)]);
    return this.chart.data.flatMap(({ location, expr }): Array<{ data: string; fact: Fact }> => {
      const initial = literalOf(expr);
      const given = assigns.filter((assign) => assign.location === location).map((assign) => literalOf(assign.expr));
      if (initial === undefined || given.some((value) => typeof value !== typeof initial)) {
        this.lost.push(`the data ${location}, which is not only yes or no, or one of a few texts`);
        return [];
      }
      const id = freshId(location, taken, "fact");
      taken.add(id);
      const named = id === location ? {} : { name: location };
      if (typeof initial === "boolean") return [{ data: location, fact: { id, ...named, type: "boolean", initial, source: "app" } }];
      const values = [...new Set([initial, ...(given as string[])])];
      return [{ data: location, fact: { id, ...named, type: "choice", values: values.length > 1 ? values : [...values, "other"], initial, source: "app" } }];
    });
  }

  /** What the states set that the chart begins with is what their facts begin with. */
  private startWith() {
    const first = firstScreen(this.project, this.project.root)?.id;
    const begins = [...this.places].filter(([, id]) => id === first || ownersAround(this.project, first ?? "").some((one) => one.id === id));
    const initial = new Map(begins.flatMap(([state]) => this.set(state.enters).map(([fact, value]) => [fact, literalOf(value)] as const)));
    const starts = (fact: Fact): Fact => ({ ...fact, initial: initial.get(fact.id) ?? fact.initial });
    this.project = { ...this.project, facts: this.project.facts.map(starts) };
  }

  /** What some assignments set, as Etape says it; others are named. */
  private set(assigns: readonly Assign[]): Array<[fact: string, value: string]> {
    return assigns.flatMap(({ location, expr, line }): Array<[string, string]> => {
      const known = this.facts.get(location);
      const value = literalOf(expr);
      if (!known || value === undefined) {
        const says = `line ${line}: the assignment of ${location.slice(0, 60)}`;
        if (!this.lost.includes(says)) this.lost.push(says);
        return [];
      }
      return [[known.fact, typeof value === "boolean" ? String(value) : `'${value}'`]];
    });
  }

  private leg(state: ChartState, { event, target, cond, assigns, line }: Transition) {
    const where = `line ${line}`;
    const from = this.places.get(state) ?? "";
    const [first, ...others] = target?.split(/\s+/) ?? [];
    if (others.length > 0) this.lost.push(`${where}: further targets ${others.join(", ")}`);
    const history = first === undefined ? undefined : this.chart.histories.get(first);
    const to = first === undefined ? undefined : this.ids.get(history ?? first);
    if (first !== undefined && to === undefined) return void this.lost.push(`${where}: a transition to ${first}, which is no state of the chart`);
    const entered = to === undefined ? [] : this.entered(history ?? first ?? "", state);
    const set = Object.fromEntries(this.set([...assigns, ...entered]));
    if (to === undefined && Object.keys(set).length === 0) return void this.lost.push(`${where}: a transition without a target`);
    const screens = this.startsOf(state, event);
    const when = cond === undefined ? undefined : conditionOf(cond, this.facts);
    if (cond !== undefined && when === undefined) this.lost.push(`${where}: the condition ${cond.slice(0, 80)}, which the leg has as a note`);
    if (screens.length === 0) return void this.lost.push(`${where}: a transition without an event from ${state.id}, which holds others`);
    for (const { place, on, id } of screens) {
      const byItself = on.kind !== "tap";
      const move = to === undefined ? undefined : this.move(byItself ? place : from, to, { byItself, history: history !== undefined });
      const leg: Leg = { id, from: place, on, ...(move ? { move } : {}) };
      this.project.legs.push({
        ...leg,
        ...(when === undefined ? {} : { when }),
        ...(Object.keys(set).length > 0 ? { set } : {}),
        ...(cond === undefined || when !== undefined ? {} : { note: `only if ${cond}`.slice(0, 2000) }),
      });
    }
  }

  /** What is set on entering a state and those that it begins with; of the states around it, those that are not left. */
  private entered(id: string, from: ChartState): Assign[] {
    const target = this.states.get(id);
    const all: Assign[] = [];
    for (const [state] of this.places) if (target && state !== target && holds(state, target) && !holds(state, from)) all.push(...state.enters);
    for (let at = target; at; at = at.children.find((child) => child.id === at?.initial?.split(/\s+/)[0]) ?? at.children[0]) all.push(...at.enters);
    return all;
  }

  /** Where the legs of a transition begin, and by what. */
  private startsOf(state: ChartState, event: string | undefined): Array<{ place: string; on: Leg["on"]; id: string }> {
    const from = this.places.get(state) ?? "";
    const fresh = (says: string) => {
      const id = freshId(says, this.legs, "leg");
      this.legs.add(id);
      return id;
    };
    const screen = lookup(this.project).screens.get(from);
    const delay = event === undefined ? undefined : state.delays.get(event);
    if (event === undefined || (delay !== undefined && screen))
      return screen
        ? [{ place: from, on: delay === undefined ? { kind: "arrive" } : { kind: "after", ms: delay }, id: fresh(event ?? `${from} arrives`) }]
        : [];
    // A state is done when it has come to a final one.
    const finals = event === `done.state.${state.id}` ? state.children.filter(({ kind, children }) => kind === "final" && children.length === 0) : [];
    if (finals.length > 0) return finals.map((one) => ({ place: this.places.get(one) ?? "", on: { kind: "arrive" }, id: fresh(`${one.id} done`) }));
    const id = fresh(event);
    const element: Element = { id, kind: "button", label: event };
    if (screen) screen.elements.push(element);
    else {
      const container = lookup(this.project).containers.get(from);
      if (container) container.elements = [...(container.elements ?? []), element];
    }
    return [{ place: from, on: { kind: "tap", element: id }, id }];
  }

  /** What is around already is gone back to, as far as it is left; what is passed through on arriving is replaced. */
  private move(from: string, to: string, { byItself, history }: { byItself: boolean; history: boolean }): Move {
    const around = ownersAround(this.project, from);
    const shown = firstScreen(this.project, to)?.id ?? to;
    // A target that is around, or that something around begins with, stands beneath.
    const outer = around.slice(1).find((one) => one.kind === "stack" && (one.id === to || one.start === to));
    const own = around[0]?.kind === "stack" && (around[0].id === to || around[0].start === to) && from !== to;
    const owner = lookup(this.project).owners.get(to);
    if ((own || outer) && shown !== from) return { kind: "return", to: shown, orElse: byItself ? "replace" : "push" };
    // As it was left, it may still lie beneath.
    if (history && owner?.kind === "stack") return { kind: "push", to, in: owner.id, repeat: "rewind" };
    if (history && (owner?.kind === "tabs" || owner?.kind === "drawer")) return { kind: "select", to };
    return byItself ? { kind: "replace", to } : suitedMove(this.project, from, to);
  }
}

function holds(state: ChartState, other: ChartState): boolean {
  return state === other || state.children.some((child) => holds(child, other));
}

function containerOf(state: ChartState, at: (state: ChartState) => string, ids: ReadonlyMap<string, string>): Container {
  const members = state.children.map(at);
  const wanted = ids.get(state.initial?.split(/\s+/)[0] ?? "");
  const common = { id: at(state), name: state.id || "Main", start: wanted !== undefined && members.includes(wanted) ? wanted : (members[0] ?? ""), members };
  return state.kind === "parallel"
    ? { kind: "tabs", ...common, edge: "bottom", onBack: "leave", chosenAgain: "root", keeps: true }
    : { kind: "stack", ...common };
}
