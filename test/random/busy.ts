import { readProjectData } from "../../src/core/model/read.ts";
import type { Container, Leg, Move, Project, Screen, Trigger } from "../../src/core/model/schema.ts";
import { assembledApp } from "./assembled.ts";
import { pick, seeded } from "./documents.ts";

type Of<K extends Container["kind"]> = Extract<Container, { kind: K }>;

/** An app to which is added what grows over the years: each addition reaches into many features at once. */
class Busy {
  readonly project: Project;
  readonly random: () => number;
  private readonly screens: Screen[];
  private readonly stacks: Of<"stack">[];
  private count = 0;

  constructor(seed: number, size: number) {
    this.project = structuredClone(assembledApp(seed, size));
    this.random = seeded(seed * 7919 + size);
    this.screens = [...this.project.screens];
    this.stacks = this.project.containers.filter((one): one is Of<"stack"> => one.kind === "stack");
  }

  id(name: string): string {
    this.count += 1;
    return `${name}Extra${this.count}`;
  }

  chance(share: number): boolean {
    return this.random() < share;
  }

  any(): Screen {
    return pick(this.random, this.screens);
  }

  /** One that needs no argument. */
  plain(): Screen {
    return pick(
      this.random,
      this.screens.filter(({ params }) => params.every(({ required }) => !required)),
    );
  }

  stack(): Of<"stack"> {
    return pick(this.random, this.stacks);
  }

  screen(into?: { start: string; members: string[] }, more: Partial<Screen> = {}): Screen {
    const id = this.id("page");
    const screen: Screen = { id, name: id, params: [], up: "auto", elements: [], ...more };
    this.project.screens.push(screen);
    into?.members.push(id);
    return screen;
  }

  modal(more: Partial<Of<"modal">> = {}): { modal: string; screen: Screen } {
    const screen = this.screen();
    const id = this.id("modal");
    const shape = { shape: "dialog", edge: "center", blocks: true, dims: true, closeOn: ["outside", "back"] } as const;
    this.project.containers.push({ kind: "modal", id, name: id, start: screen.id, members: [screen.id], ...shape, closeOn: [...shape.closeOn], ...more });
    return { modal: id, screen };
  }

  fact(more: object = {}): string {
    const id = this.id("fact");
    this.project.facts.push({ id, type: "boolean", initial: false, source: "app", ...more });
    return id;
  }

  element(place: Screen | Container): string {
    const id = this.id("control");
    place.elements = [...(place.elements ?? []), { id, kind: "button", label: id }];
    return id;
  }

  leg(from: string, on: Trigger, move: Move | undefined, more: Partial<Leg> = {}) {
    this.project.legs.push({ id: this.id("leg"), from, on, ...(move ? { move } : {}), ...more });
  }

  tap(from: Screen | Container, move: Move | undefined, more: Partial<Leg> = {}, element = this.element(from)): string {
    this.leg(from.id, { kind: "tap", element }, move, more);
    return element;
  }
}

type Addition = (app: Busy) => void;

/** A page of switches, each of which decides what a button elsewhere does. */
const switches: Addition = (app) => {
  const page = app.screen(app.stack());
  app.tap(app.plain(), { kind: "push", to: page.id });
  for (let i = 0; i < 6; i++) {
    const fact = app.fact(i % 2 > 0 ? { persists: true } : {});
    app.tap(page, undefined, { set: { [fact]: `!fact.${fact}` } });
    const from = app.any();
    const element = app.tap(from, { kind: "push", to: app.screen(app.stack()).id }, { when: `fact.${fact}` });
    app.tap(from, { kind: "open", to: app.modal().modal }, { when: `!fact.${fact}` }, element);
  }
};

/** Roles, and pages that only some of them see. */
const roles: Addition = (app) => {
  const values = ["guest", "member", "editor", "admin"];
  const role = app.fact({ type: "choice", values, initial: "guest", persists: true });
  for (const value of values) app.tap(app.any(), undefined, { set: { [role]: `"${value}"` } });
  for (let i = 0; i < 4; i++) app.tap(app.any(), { kind: "push", to: app.screen(app.stack()).id }, { when: `fact.${role} == "${pick(app.random, values)}"` });
};

/** Addresses of many screens, some of them for people who are signed in alone. */
const addresses: Addition = (app) => {
  for (let i = 0; i < 10; i++) {
    const to = app.any();
    const pattern = `/${app.id("path")}${to.params.map(({ name }) => `/{${name}}`).join("")}`;
    const [fact] = app.project.facts.filter(({ type, source }) => type === "boolean" && source === "app");
    const guard = fact && app.chance(0.5) ? { when: `fact.${fact.id}`, otherwise: app.plain().id, resume: app.chance(0.5) } : {};
    app.project.entrances.push({ id: app.id("link"), name: to.name, kind: "link", pattern, to: to.id, warm: "rebuild", ...guard });
  }
};

/** A message at the foot that goes away by itself, from many screens. */
const toast: Addition = (app) => {
  const { modal, screen } = app.modal({ blocks: false, dims: false, shape: "panel", edge: "bottom", closeOn: [] });
  app.leg(screen.id, { kind: "after", ms: 3000 }, { kind: "close", modal });
  for (let i = 0; i < 6; i++) app.tap(app.any(), { kind: "open", to: modal });
};

/** Help that is there on every page. */
const help: Addition = (app) => {
  const { modal, screen } = app.modal();
  app.tap(screen, { kind: "close" });
  const root = app.project.containers.find(({ id }) => id === app.project.root);
  if (root) app.tap(root, { kind: "open", to: modal });
};

/** Shortcuts from anywhere into another feature, on top or in its own stack. */
const shortcuts: Addition = (app) => {
  for (let i = 0; i < 6; i++) {
    const to = app.plain().id;
    const home = app.project.containers.find(({ kind, members }) => kind === "stack" && members.includes(to))?.id;
    if (home !== undefined)
      app.tap(app.any(), { kind: "push", to, ...(app.chance(0.6) ? { in: home } : {}), ...(app.chance(0.4) ? { repeat: "rewind" as const } : {}) });
  }
};

/** Buttons that change the tab or the member of the drawer. */
const changes: Addition = (app) => {
  const around = app.project.containers.find(({ kind }) => kind === "tabs" || kind === "drawer");
  for (let i = 0; around && i < 4; i++)
    app.tap(app.any(), { kind: "select", to: pick(app.random, around.members), ...(app.chance(0.3) ? { tidy: "source" as const } : {}) });
};

/** Tabs within a page, each with a history of its own. */
const inner: Addition = (app) => {
  const id = app.id("tabs");
  const members = [0, 1, 2].map(() => {
    const stack: Of<"stack"> = { kind: "stack", id: app.id("lane"), name: "lane", start: "", members: [] };
    const [list, item] = [app.screen(stack), app.screen(stack, { mayRepeat: true })];
    app.tap(list, { kind: "push", to: item.id });
    app.tap(item, { kind: "push", to: item.id });
    app.project.containers.push({ ...stack, start: list.id });
    return stack.id;
  });
  const manners = { edge: "top", onBack: pick(app.random, ["leave", "start"] as const), chosenAgain: "root", keeps: app.chance(0.5) } as const;
  app.project.containers.push({ kind: "tabs", id, name: id, start: members[0] ?? "", members, ...manners });
  app.stack().members.push(id);
  app.tap(app.plain(), { kind: "push", to: id });
};

const ADDITIONS: readonly Addition[] = [switches, roles, addresses, toast, help, shortcuts, changes, inner];

/** An app of about so many screens to which some of that was added. */
export function busyApp(seed: number, size: number): Project {
  const app = new Busy(seed, size);
  for (const add of ADDITIONS) if (app.chance(0.5)) add(app);
  const read = readProjectData(JSON.parse(JSON.stringify(app.project)));
  if (!read.ok) throw new Error(`${seed}: ${JSON.stringify(read.problems.slice(0, 3))}`);
  return read.project;
}
