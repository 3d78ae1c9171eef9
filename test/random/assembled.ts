import { readProjectData } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { pick, type Random, seeded } from "./documents.ts";

type Data = Record<string, unknown>;

/** An app while it is put together: its parts, and where the next feature goes. */
class Assembly {
  readonly screens: Data[] = [];
  readonly containers: Data[] = [];
  readonly legs: Data[] = [];
  readonly facts: Data[] = [];
  readonly entrances: Data[] = [];
  /** Screens of other features that may be led to, each with its stack. */
  readonly known: Array<{ screen: string; stack: string }> = [];
  readonly members = new Map<string, string[]>();
  private count = 0;

  constructor(readonly random: Random) {}

  chance(share: number) {
    return this.random() < share;
  }

  id(name: string) {
    this.count += 1;
    return `${name}${this.count}`;
  }

  screen(stack: string, name: string, more: Data = {}): string {
    const id = this.id(name);
    this.screens.push({ id, name: id, params: [], up: "auto", elements: [], ...more });
    this.add(stack, id);
    return id;
  }

  add(container: string, member: string) {
    this.members.set(container, [...(this.members.get(container) ?? []), member]);
  }

  container(kind: string, id: string, more: Data = {}) {
    this.containers.push({ kind, id, name: id, ...more });
  }

  modal(name: string, more: Data = {}): { modal: string; stack: string } {
    const [modal, stack] = [this.id(name), this.id("flow")];
    this.container("modal", modal, { shape: "sheet", edge: "bottom", blocks: true, dims: true, closeOn: ["swipe", "outside", "back"], ...more });
    this.container("stack", stack);
    this.add(modal, stack);
    return { modal, stack };
  }

  fact(name: string, more: Data = {}): string {
    const id = this.id(name);
    this.facts.push({ id, type: "boolean", initial: false, source: "app", ...more });
    return id;
  }

  element(place: string, kind = "button", more: Data = {}): string {
    const id = this.id("el");
    const found = [...this.screens, ...this.containers].find((one) => one.id === place);
    if (found) found.elements = [...((found.elements as Data[] | undefined) ?? []), { id, kind, label: id, ...more }];
    return id;
  }

  tap(from: string, move: Data | undefined, more: Data = {}, element = this.element(from)) {
    this.leg(from, { kind: "tap", element }, move, more);
    return element;
  }

  leg(from: string, on: Data, move: Data | undefined, more: Data = {}) {
    this.legs.push({ id: this.id("leg"), from, on, ...(move ? { move } : {}), ...more });
  }

  done(name: string, root: string): Project {
    const containers = this.containers.map((c) => {
      const members = this.members.get(String(c.id)) ?? [];
      return { ...c, start: members[0] ?? "", members };
    });
    const { screens, legs, facts, entrances } = this;
    const read = readProjectData({ format: "etape/1", name, root, facts, types: [], containers, screens, legs, entrances, walks: [] });
    if (!read.ok) throw new Error(`${name}: ${JSON.stringify(read.problems.slice(0, 3))}`);
    return read.project;
  }
}

const ID = { params: [{ name: "id", type: "text", required: true }] };
const passId = { pass: { id: "'x'" } };

/** A feature in a stack, begun from one of its screens. */
type Feature = (app: Assembly, stack: string, from: string) => void;

/** Lists, details and details like them. */
const catalogue: Feature = (app, stack, from) => {
  const list = app.screen(stack, "list");
  const detail = app.screen(stack, "detail", { ...ID, mayRepeat: true });
  app.tap(from, { kind: "push", to: list });
  app.tap(list, { kind: "push", to: detail, ...passId }, {}, app.element(list, "list"));
  if (app.chance(0.7)) app.tap(detail, { kind: "push", to: detail, ...passId });
  if (app.chance(0.3)) app.tap(detail, { kind: "return", to: list });
  if (app.chance(0.4)) linkIn(app, detail, stack);
  app.known.push({ screen: detail, stack });
};

/** Profiles, their posts, and whoever follows them: each leads to the others without end. */
const social: Feature = (app, stack, from) => {
  const [profile, post, people] = ["profile", "post", "people"].map((name) => app.screen(stack, name, { ...ID, mayRepeat: true })) as [string, string, string];
  app.tap(from, { kind: "push", to: profile, ...passId });
  app.tap(profile, { kind: "push", to: post, ...passId });
  app.tap(post, { kind: "push", to: profile, ...passId });
  app.tap(profile, { kind: "push", to: people, ...passId });
  app.tap(people, { kind: "push", to: profile, ...passId });
  if (app.chance(0.5)) confirmation(app, post);
  app.known.push({ screen: profile, stack });
};

/** Folders in folders. */
const folders: Feature = (app, stack, from) => {
  const folder = app.screen(stack, "folder", { ...ID, mayRepeat: true });
  const file = app.screen(stack, "file", ID);
  app.tap(from, { kind: "push", to: folder, ...passId });
  app.tap(folder, { kind: "push", to: folder, ...passId });
  app.tap(folder, { kind: "push", to: file, ...passId });
  if (app.chance(0.5)) app.tap(file, { kind: "reset", to: folder, ...passId });
};

/** A question in a dialog, answered by closing it or by going back from where it was asked. */
function confirmation(app: Assembly, from: string) {
  const { modal, stack } = app.modal("confirm", { shape: "dialog", edge: "center", closeOn: app.chance(0.5) ? ["back"] : ["outside", "back"] });
  const sure = app.screen(stack, "sure");
  app.tap(from, { kind: "open", to: modal });
  app.tap(sure, { kind: "close", modal });
  if (app.chance(0.5)) app.tap(sure, { kind: "close" });
}

/** An edit in a modal that asks before changes are lost. */
const editing: Feature = (app, stack, from) => {
  const view = app.screen(stack, "view", ID);
  app.tap(from, { kind: "push", to: view, ...passId });
  const { modal, stack: flow } = app.modal("edit", { shape: app.chance(0.5) ? "sheet" : "full", closeOn: ["swipe", "back", "button"] });
  const form = app.screen(flow, "form");
  const more = app.screen(flow, "more");
  app.tap(view, { kind: "open", to: modal });
  app.tap(form, { kind: "push", to: more });
  const changed = app.fact("changed");
  app.tap(form, undefined, { set: { [changed]: "true" } });
  app.tap(more, { kind: "close", modal }, { set: { [changed]: "false" } });
  const { modal: ask, stack: asking } = app.modal("ask", { shape: "dialog", edge: "center", closeOn: ["outside", "back"] });
  const sure = app.screen(asking, "unsaved");
  app.leg(flow, { kind: "depart" }, { kind: "open", to: ask }, { when: `fact.${changed}` });
  app.tap(sure, { kind: "proceed" }, { set: { [changed]: "false" } });
  app.tap(sure, { kind: "close", modal: ask });
};

/** Steps one after the other, the last of which ends them in one of the usual ways. */
const wizard: Feature = (app, stack, from) => {
  const steps = Array.from({ length: 2 + Math.floor(app.random() * 4) }, () => app.screen(stack, "step"));
  app.tap(from, { kind: "push", to: steps[0] });
  steps.slice(1).forEach((to, i) => {
    app.tap(steps[i] as string, { kind: "push", to });
  });
  const last = steps.at(-1) as string;
  const done = app.screen(stack, "done");
  const ends = pick(app.random, ["return", "replace", "reset"]);
  if (ends === "return") app.tap(last, { kind: "return", to: from, orElse: "push" });
  if (ends !== "return") app.tap(last, { kind: ends, to: done });
  app.tap(ends === "return" ? last : done, ends === "reset" ? { kind: "reset", to: from, ...argumentsOf(app, from) } : { kind: "push", to: done });
  if (ends !== "reset") app.tap(done, { kind: "return", to: from, orElse: "push", ...argumentsOf(app, from) });
};

function argumentsOf(app: Assembly, screen: string): Data {
  const params = app.screens.find(({ id }) => id === screen)?.params as unknown[] | undefined;
  return params && params.length > 0 ? passId : {};
}

/** A search over everything, whose results close it and lead into another feature. */
const search: Feature = (app, _, from) => {
  const { modal, stack } = app.modal("search", { shape: "full", closeOn: ["back", "button"] });
  const field = app.screen(stack, "query");
  const results = app.screen(stack, "results");
  app.tap(from, { kind: "open", to: modal }, {}, app.element(from, "icon"));
  app.tap(field, { kind: "push", to: results });
  const target = app.known.length > 0 ? pick(app.random, app.known) : undefined;
  if (target) app.tap(results, { kind: "push", to: target.screen, in: target.stack, ...argumentsOf(app, target.screen) });
  app.tap(results, { kind: "close", modal });
};

/** A choice in a modal that hands it back. */
const picking: Feature = (app, stack, from) => {
  const form = app.screen(stack, "order", { params: [{ name: "picked", type: "text", required: false }] });
  app.tap(from, { kind: "push", to: form });
  const { modal, stack: flow } = app.modal("picker", { shape: "panel", edge: "right" });
  const options = app.screen(flow, "options");
  app.tap(form, { kind: "open", to: modal });
  app.tap(options, { kind: "close", modal, give: { picked: "'x'" } });
  app.tap(form, { kind: "push", to: options2(app, stack) });
};

function options2(app: Assembly, stack: string): string {
  const options = app.screen(stack, "choices");
  app.tap(options, { kind: "back", give: { picked: "'y'" } });
  return options;
}

/** What only paying people see; others see an offer. */
const offer: Feature = (app, stack, from) => {
  const plan = app.facts.find(({ type }) => type === "choice")?.id ?? app.fact("plan", { type: "choice", values: ["free", "plus", "pro"], initial: "free" });
  const feature = app.screen(stack, "extra");
  const { modal, stack: flow } = app.modal("offer", { shape: "full", closeOn: ["button", "back"] });
  const plans = app.screen(flow, "plans");
  const element = app.tap(from, { kind: "push", to: feature }, { when: `fact.${plan} != "free"` });
  app.tap(from, { kind: "open", to: modal }, { when: `fact.${plan} == "free"` }, element);
  app.tap(plans, { kind: "close", modal }, { set: { [String(plan)]: '"plus"' } });
  app.tap(plans, { kind: "close", modal }, { set: { [String(plan)]: '"pro"' } });
};

/** A part that wants a permission or a connection that the app does not decide. */
const permission: Feature = (app, stack, from) => {
  const allowed = app.fact("allowed", { source: "outside" });
  const camera = app.screen(stack, "camera");
  const denied = app.screen(stack, "denied");
  const element = app.tap(from, { kind: "push", to: camera }, { when: `fact.${allowed}` });
  app.tap(from, { kind: "push", to: denied }, { when: `!fact.${allowed}` }, element);
  if (app.chance(0.5)) app.leg(denied, { kind: "arrive" }, { kind: "replace", to: camera }, { when: `fact.${allowed}` });
};

/** Panels that block nothing in one app. */
const MOST_PANELS = 2;

/** Something that plays in a panel over everything, and can be opened up. */
const player: Feature = (app, _, from) => {
  if (app.containers.filter(({ blocks }) => blocks === false).length >= MOST_PANELS) return;
  const small = app.modal("mini", { shape: "panel", edge: "bottom", blocks: false, dims: false, closeOn: ["swipe"] });
  const bar = app.screen(small.stack, "playing");
  const large = app.modal("player", { shape: "full", closeOn: ["swipe", "back", "button"] });
  const full = app.screen(large.stack, "track");
  const queue = app.screen(large.stack, "queue");
  app.tap(from, { kind: "open", to: small.modal });
  app.tap(bar, { kind: "open", to: large.modal });
  app.tap(full, { kind: "push", to: queue });
  app.tap(full, { kind: "close" });
};

/** Leaf pages, each of which knows only Back. */
const settings: Feature = (app, stack, from) => {
  const menu = app.screen(stack, "settings");
  app.tap(from, { kind: "push", to: menu });
  for (let i = 0; i < 2 + Math.floor(app.random() * 5); i++) app.tap(menu, { kind: "push", to: app.screen(stack, "page") });
};

/** Talks, their members, and calls from a member to somebody's profile elsewhere. */
const talks: Feature = (app, stack, from) => {
  const inbox = app.screen(stack, "inbox");
  const talk = app.screen(stack, "talk", ID);
  const info = app.screen(stack, "info");
  app.tap(from, { kind: "push", to: inbox });
  app.tap(inbox, { kind: "push", to: talk, ...passId, repeat: "rewind" });
  app.tap(talk, { kind: "push", to: info });
  linkIn(app, info, stack);
  app.tap(info, { kind: "return", to: inbox });
  app.entrances.push({ id: app.id("note"), name: "Message", kind: "notification", to: talk, ...passId, warm: app.chance(0.5) ? "onTop" : "rebuild" });
};

/** Tabs at the top of a page. */
const sections: Feature = (app, stack, from) => {
  const tabs = app.id("sections");
  app.container("tabs", tabs, { edge: "top", onBack: "leave", chosenAgain: "nothing", keeps: app.chance(0.5), swipes: true });
  app.add(stack, tabs);
  app.tap(from, { kind: "push", to: tabs });
  const lanes = Array.from({ length: 2 + Math.floor(app.random() * 2) }, () => app.screen(tabs, "section"));
  if (app.chance(0.6)) {
    const detail = app.screen(stack, "entry", ID);
    app.tap(lanes[0] as string, { kind: "push", to: detail, ...passId });
    if (app.chance(0.4)) app.tap(detail, { kind: "push", to: tabs }, {}, app.element(detail, "link"));
  }
};

/** A leg into a screen of another feature, in its own stack, on top of this one, or in place of it. */
function linkIn(app: Assembly, from: string, stack: string) {
  const others = app.known.filter((one) => one.stack !== stack);
  if (others.length === 0) return;
  const { screen, stack: home } = pick(app.random, others);
  app.tap(from, { kind: "push", to: screen, in: home, ...argumentsOf(app, screen) });
}

const FEATURES = [catalogue, catalogue, social, folders, editing, wizard, search, picking, offer, permission, player, settings, talks, sections];

/** The frame of an app: what stands around its features. */
type Shell = (app: Assembly) => { root: string; stacks: string[]; outer: string };

const tabbed: Shell = (app) => {
  const tabs = app.id("tabs");
  app.container("tabs", tabs, {
    edge: "bottom",
    onBack: pick(app.random, ["leave", "start", "previous"]),
    chosenAgain: pick(app.random, ["root", "nothing"]),
    keeps: app.chance(0.8),
  });
  return { root: tabs, stacks: lanesOf(app, tabs, 3 + Math.floor(app.random() * 3)), outer: tabs };
};

function lanesOf(app: Assembly, around: string, count: number): string[] {
  return Array.from({ length: count }, () => {
    const stack = app.id("lane");
    app.container("stack", stack);
    app.add(around, stack);
    return stack;
  });
}

const drawn: Shell = (app) => {
  const drawer = app.id("drawer");
  app.container("drawer", drawer, {
    side: "left",
    over: true,
    pinnedFrom: pick(app.random, ["never", "never", "middle", "wide"]),
    closeOn: ["outside", "swipe", "back"],
    onBack: pick(app.random, ["leave", "start"]),
    keeps: app.chance(0.5),
    bar: { show: true, lead: "menu" },
  });
  return { root: drawer, stacks: lanesOf(app, drawer, 3 + Math.floor(app.random() * 4)), outer: drawer };
};

const single: Shell = (app) => {
  const stack = app.id("stack");
  app.container("stack", stack);
  return { root: stack, stacks: [stack], outer: stack };
};

/** Tabs in a drawer beside other stacks. */
const both: Shell = (app) => {
  const inner = tabbed(app);
  const outer = drawn(app);
  app.members.set(outer.root, [inner.root, ...(app.members.get(outer.root) ?? []).slice(0, 2)]);
  const kept = new Set(app.members.get(outer.root));
  const dropped = outer.stacks.filter((stack) => !kept.has(stack));
  app.containers.splice(0, app.containers.length, ...app.containers.filter(({ id }) => !dropped.includes(String(id))));
  return { root: outer.root, stacks: [...inner.stacks, ...outer.stacks.filter((stack) => kept.has(stack))], outer: outer.root };
};

const SHELLS = [tabbed, tabbed, drawn, single, both];

/** What people see before the app itself: nothing, a tour, a sign-in, or a page that decides which. */
function before(app: Assembly, inner: string): { root: string; signedIn: string | undefined; signIn: string | undefined } {
  const way = pick(app.random, ["nothing", "tour", "sign-in", "splash"]);
  if (way === "nothing") return { root: inner, signedIn: undefined, signIn: undefined };
  const root = app.id("start");
  app.container("stack", root);
  if (way === "tour") {
    const pages = [1, 2, 3].map(() => app.screen(root, "tour", { once: true }));
    pages.forEach((page, i) => {
      const to = pages[i + 1];
      app.tap(page, to ? { kind: "push", to } : { kind: "reset", to: inner });
    });
    app.add(root, inner);
    return { root, signedIn: undefined, signIn: undefined };
  }
  const signedIn = app.fact("signedIn", { persists: true });
  const splash = way === "splash" ? app.screen(root, "splash", { once: true }) : undefined;
  const signIn = app.screen(root, "signIn", { once: true });
  if (splash) {
    app.leg(splash, { kind: "arrive" }, { kind: "replace", to: inner }, { when: `fact.${signedIn}` });
    app.leg(splash, { kind: "arrive" }, { kind: "replace", to: signIn }, { when: `!fact.${signedIn}` });
  }
  const join = app.screen(root, "join", { once: true });
  const inside = { set: { [signedIn]: "true" }, resumes: true };
  app.tap(signIn, { kind: "reset", to: inner }, inside);
  app.tap(signIn, { kind: "push", to: join });
  app.tap(join, { kind: "reset", to: inner }, inside);
  app.add(root, inner);
  return { root, signedIn, signIn };
}

/**
 * An app of about so many screens as one of many teams might build it: one of several frames, what people see before it, and features put in at random
 * that lead into each other. What they do wrong they do because of how the parts come together, not on purpose.
 */
export function assembledApp(seed: number, size: number): Project {
  const app = new Assembly(seeded(seed));
  const { root: inner, stacks } = pick(app.random, SHELLS)(app);
  const { root, signedIn, signIn } = before(app, inner);
  const homes = stacks.map((stack) => app.screen(stack, "home"));
  if (signedIn && signIn) app.tap(homes.at(-1) as string, { kind: "reset", to: signIn, in: root }, { set: { [signedIn]: "false" } });
  for (let i = 0; app.screens.length < size; i++) {
    const stack = stacks[i % stacks.length] as string;
    pick(app.random, FEATURES)(app, stack, homes[i % stacks.length] as string);
  }
  if (app.chance(0.7) && app.known.length > 0) {
    const { screen } = pick(app.random, app.known);
    const guard = signedIn && signIn ? { when: `fact.${signedIn}`, otherwise: signIn, resume: true } : {};
    app.entrances.push({
      id: app.id("link"),
      name: "Shared",
      kind: "link",
      pattern: "/shared/{id}",
      to: screen,
      warm: app.chance(0.5) ? "onTop" : "rebuild",
      ...guard,
    });
  }
  return app.done(`Assembled ${seed}`, root);
}
