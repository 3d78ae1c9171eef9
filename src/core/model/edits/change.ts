import { nameOf } from "../lookup.ts";
import type { Container, Element, Entrance, Fact, Leg, Project, Screen } from "../schema.ts";
import { type Edit, quoted } from "./edit.ts";
import { legName } from "./remove.ts";

/** Changes fields of a screen. A field given as undefined is left out of the document. */
export function changeScreen(project: Project, id: string, change: Partial<Screen>, what = describeChange(change)): Edit {
  return {
    name: `${what} of ${quoted(nameOf(project, id))}`,
    apply: (p) => ({ ...p, screens: p.screens.map((s) => (s.id === id ? trimmed({ ...s, ...change }) : s)) }),
  };
}

export function changeContainer(project: Project, id: string, change: Partial<Container>, what = describeChange(change)): Edit {
  return {
    name: `${what} of ${quoted(nameOf(project, id))}`,
    apply: (p) => ({ ...p, containers: p.containers.map((c) => (c.id === id ? trimmed({ ...c, ...change } as Container) : c)) }),
  };
}

export function changeElement(project: Project, placeId: string, elementId: string, change: Partial<Element>): Edit {
  const changed = (list: Element[]) => list.map((e) => (e.id === elementId ? trimmed({ ...e, ...change }) : e));
  return {
    name: `${describeChange(change)} on ${quoted(nameOf(project, placeId))}`,
    apply: (p) => ({
      ...p,
      screens: p.screens.map((s) => (s.id === placeId ? { ...s, elements: changed(s.elements) } : s)),
      containers: p.containers.map((c) => (c.id === placeId && c.elements ? { ...c, elements: changed(c.elements) } : c)),
    }),
  };
}

export function changeLeg(project: Project, leg: Leg, change: Partial<Leg>, what = describeChange(change)): Edit {
  return {
    name: `${what} of leg ${legName(project, leg)}`,
    apply: (p) => ({ ...p, legs: p.legs.map((l) => (l.id === leg.id ? trimmed({ ...l, ...change }) : l)) }),
  };
}

/** Changes fields of a fact; what its type does not allow for then follows: its values, and the one that it begins with. */
export function changeFact(id: string, change: Partial<Fact>): Edit {
  return {
    name: `${describeChange(change)} of fact ${quoted(id)}`,
    apply: (p) => ({ ...p, facts: p.facts.map((f) => (f.id === id ? consistent({ ...f, ...change }) : f)) }),
  };
}

function consistent(fact: Fact): Fact {
  if (fact.type === "boolean") return trimmed({ ...fact, values: undefined, initial: fact.initial === true });
  const values = fact.values && fact.values.length > 0 ? fact.values : ["one", "other"];
  const known = typeof fact.initial === "string" && values.includes(fact.initial);
  return trimmed({ ...fact, values, initial: known ? fact.initial : (values[0] ?? "one") });
}

export function changeEntrance(project: Project, id: string, change: Partial<Entrance>): Edit {
  return {
    name: `${describeChange(change)} of way in ${quoted(nameOf(project, id))}`,
    apply: (p) => ({ ...p, entrances: p.entrances.map((e) => (e.id === id ? trimmed({ ...e, ...change }) : e)) }),
  };
}

export function changeProject(change: Partial<Pick<Project, "name" | "about" | "root">>): Edit {
  return { name: `${describeChange(change)} of the project`, apply: (p) => trimmed({ ...p, ...change }) };
}

/** What the fields of the document are called where an edit is named; others say it themselves. */
const WORDS: Record<string, string> = {
  closeOn: "what closes it",
  onBack: "what Back does",
  chosenAgain: "what choosing it again does",
  keeps: "whether it stays as it was left",
  pinnedFrom: "when it is always there",
  pinnedAs: "where it stands",
  edgeWide: "the edge when wide",
  over: "whether it lies over the page",
  dims: "dimming",
  blocks: "what can be used beneath",
  params: "parameters",
  pages: "paging",
  up: "Up",
  when: "the condition",
  on: "the trigger",
  move: "the way",
  pass: "what is passed",
  set: "what is set",
  hub: "being a hub",
  once: "being gone through once",
  mayRepeat: "whether it may repeat",
  coversTabs: "covering the tabs",
  of: "the rows",
  to: "where it leads",
  warm: "what it does while the app runs",
  otherwise: "where it leads otherwise",
  resume: "whether it waits",
  resumes: "whether it goes on",
  pattern: "the address",
  path: "the address",
  code: "the name in code",
};

function describeChange(change: object): string {
  const keys = Object.keys(change);
  if (keys.includes("name") || keys.includes("label")) return "Rename";
  return `Change ${keys.map((key) => WORDS[key] ?? key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)).join(", ")}`;
}

/** Without the keys whose value is undefined: optional keys left out are not written. */
function trimmed<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;
}
