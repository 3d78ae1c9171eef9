import { lookup } from "../model/lookup.ts";
import type { Container, Project } from "../model/schema.ts";
import { ordered } from "./order.ts";
import { type Modal, modalSays } from "./sheets.ts";

/** The screens that stand on one ground: those of one stack or modal, or one screen that is a lane by itself; every drawing of the map is laid out from these. */
export interface Section {
  id: string;
  container: Container | undefined;
  name: string;
  /** What the ground is, in words: "tab 1, own history". */
  says: string;
  /** Ids of the screens on it, in the map's order. */
  screens: string[];
  start: string | undefined;
  /** It is a modal's: drawn lifted off the ground. */
  modal: Modal | undefined;
  /** How many containers around it are drawn. */
  level: number;
}

/** A container whose members are sections of their own: tabs, a drawer, a stack that holds containers. */
export interface Group {
  container: Exclude<Container, Modal>;
  level: number;
  /** The first of its sections, and the one after the last. */
  from: number;
  to: number;
  /** Sections that are members of it: where they hang on its line. */
  hung: number[];
}

export interface Sections {
  sections: Section[];
  groups: Group[];
  /** Where the modals begin. */
  modals: number;
  /** Where what is in no container begins. */
  loose: number;
}

/** What the ground of a container says whose only rows are those it shares. */
export const SHARED = "on every screen in here";

/** The sections of a project in the order in which they are drawn: the tree from its root, the modals, then what is in no container. */
export function sectionsOf(project: Project): Sections {
  const sections: Section[] = [];
  const groups: Group[] = [];
  const seen = new Set<string>();
  const { places, screens } = lookup(project);

  const add = (section: Omit<Section, "modal"> & { modal?: Modal }) => sections.push({ modal: undefined, ...section });
  const place = (id: string, level: number, says: string) => {
    const found = places.get(id);
    if (seen.has(id) || !found || (found.kind === "container" && found.container.kind === "modal")) return;
    seen.add(id);
    if (found.kind === "screen") {
      add({ id, container: undefined, name: found.screen.name, says: says || "a screen by itself", screens: [id], start: id, level });
      return;
    }
    const { container } = found;
    if (container.kind === "modal") return;
    const from = sections.length;
    if (container.kind === "stack") stack(container, level, says || "history");
    else lanes(container, level);
    group(container, level, from);
  };
  const stack = (container: Container, level: number, says: string, modal?: Modal) => {
    const named = modal ?? container;
    const members = ordered(project, container);
    const own = members.filter((id) => screens.has(id) && !seen.has(id));
    for (const id of own) seen.add(id);
    add({ id: named.id, container: named, name: named.name, says, screens: own, start: container.start, level, ...(modal ? { modal } : {}) });
    for (const id of members) if (!screens.has(id)) place(id, level + 1, "");
  };
  const lanes = (container: Extract<Container, { kind: "tabs" | "drawer" }>, level: number) => {
    const members = ordered(project, container);
    const shares = (container.elements?.length ?? 0) > 0 || (lookup(project).legsFrom.get(container.id)?.length ?? 0) > 0;
    if (members.length === 0 || shares) {
      const says = members.length === 0 ? "nothing in it yet" : SHARED;
      add({ id: container.id, container, name: container.name, says, screens: [], start: undefined, level });
    }
    members.forEach((id, i) => {
      place(id, level + 1, container.kind === "tabs" ? `tab ${i + 1}, own history` : `in the drawer ${container.name}`);
    });
  };
  const group = (container: Exclude<Container, Modal>, level: number, from: number) => {
    const holds = container.kind !== "stack" || container.members.some((id) => !screens.has(id) && places.has(id));
    const within = sections.slice(from).flatMap((section, i) => (container.kind === "stack" && section.id === container.id ? [] : [{ section, i: from + i }]));
    if (!holds || sections.length === from) return;
    const hung = within.filter(({ section }) => container.members.includes(section.id));
    groups.push({ container, level, from, to: sections.length, hung: (hung.length > 0 ? hung : within.slice(0, 1)).map(({ i }) => i) });
  };

  place(project.root, 0, "");
  const modals = sections.length;
  for (const modal of project.containers) {
    if (modal.kind !== "modal") continue;
    seen.add(modal.id);
    const inner = innerStack(project, modal);
    if (inner) seen.add(inner.id);
    const from = sections.length;
    stack(inner ?? modal, 0, modalSays(modal, inner !== undefined), modal);
    if (inner && inner.kind !== "modal") group(inner, 0, from);
  }
  const loose = sections.length;
  for (const one of [...project.containers, ...project.screens]) place(one.id, 0, "in no container");
  return { sections, groups, modals, loose };
}

/** The stack that a modal holds where it holds nothing else: the two are drawn as one. */
function innerStack(project: Project, modal: Modal): Container | undefined {
  const [only, ...others] = ordered(project, modal).map((id) => lookup(project).places.get(id));
  return others.length === 0 && only?.kind === "container" && only.container.kind === "stack" ? only.container : undefined;
}
