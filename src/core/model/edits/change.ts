import * as z from "zod";
import { nameOf } from "../lookup.ts";
import { type Container, type Element, type Entrance, type Fact, type Leg, PARTS, type Project, type Screen } from "../schema.ts";
import { changed, type Edit, editKind, merged, parts, quoted, split } from "./edit.ts";
import { legName } from "./remove.ts";

export const changesScreen = editKind("changeScreen", parts(PARTS.Screen.partial()), (p, { id, ...change }) => ({
  ...p,
  screens: changed(p.screens, id, (s) => merged(s, change)),
}));
/** Changes fields of a screen. A field given as undefined is left out of the document. */
export function changeScreen(project: Project, id: string, change: Partial<Screen>, what = describeChange(change)): Edit {
  return changesScreen.make(`${what} of ${quoted(nameOf(project, id))}`, { id, ...split(change) });
}

/** The fields of all kinds of containers; which of them a container can have is for the reader of the document to say. */
const anyContainer = z.record(z.string(), z.json());

export const changesContainer = editKind("changeContainer", parts(anyContainer), (p, { id, ...change }) => ({
  ...p,
  containers: changed(p.containers, id, (c) => merged(c, change)),
}));
export function changeContainer(project: Project, id: string, change: Partial<Container>, what = describeChange(change)): Edit {
  const { change: fields, without } = split(change);
  return changesContainer.make(`${what} of ${quoted(nameOf(project, id))}`, { id, change: fields as z.infer<typeof anyContainer>, without });
}

export const changesElement = editKind("changeElement", parts(PARTS.Element.partial()).extend({ place: z.string() }), (p, { place, id, ...change }) => {
  const list = (elements: Element[]) => changed(elements, id, (e) => merged(e, change));
  return {
    ...p,
    screens: changed(p.screens, place, (s) => ({ ...s, elements: list(s.elements) })),
    containers: changed(p.containers, place, (c) => (c.elements ? { ...c, elements: list(c.elements) } : c)),
  };
});
export function changeElement(project: Project, place: string, id: string, change: Partial<Element>): Edit {
  return changesElement.make(`${describeChange(change)} on ${quoted(nameOf(project, place))}`, { place, id, ...split(change) });
}

export const changesLeg = editKind("changeLeg", parts(PARTS.Leg.partial()), (p, { id, ...change }) => ({
  ...p,
  legs: changed(p.legs, id, (leg) => merged(leg, change)),
}));
export function changeLeg(project: Project, leg: Leg, change: Partial<Leg>, what = describeChange(change)): Edit {
  return changesLeg.make(`${what} of leg ${legName(project, leg)}`, { id: leg.id, ...split(change) });
}

export const changesFact = editKind("changeFact", parts(PARTS.Fact.partial()), (p, { id, ...change }) => ({
  ...p,
  facts: changed(p.facts, id, (fact) => consistent(merged(fact, change))),
}));
/** Changes fields of a fact; what its type does not allow for then follows: its values, and the one that it begins with. */
export function changeFact(id: string, change: Partial<Fact>): Edit {
  return changesFact.make(`${describeChange(change)} of fact ${quoted(id)}`, { id, ...split(change) });
}

function consistent(fact: Fact): Fact {
  if (fact.type === "boolean") return merged({ ...fact, initial: fact.initial === true }, { change: {}, without: ["values"] });
  const values = fact.values && fact.values.length > 0 ? fact.values : ["one", "other"];
  const known = typeof fact.initial === "string" && values.includes(fact.initial);
  return { ...fact, values, initial: known ? fact.initial : (values[0] ?? "one") };
}

export const changesEntrance = editKind("changeEntrance", parts(PARTS.Entrance.partial()), (p, { id, ...change }) => ({
  ...p,
  entrances: changed(p.entrances, id, (entrance) => merged(entrance, change)),
}));
export function changeEntrance(project: Project, id: string, change: Partial<Entrance>): Edit {
  return changesEntrance.make(`${describeChange(change)} of way in ${quoted(nameOf(project, id))}`, { id, ...split(change) });
}

const ofProject = z.strictObject({ name: z.string().optional(), about: z.string().optional(), root: z.string().optional() });
export const changesProject = editKind("changeProject", z.strictObject({ change: ofProject, without: z.array(z.string()) }), (p, change) => merged(p, change));
export function changeProject(change: Partial<Pick<Project, "name" | "about" | "root">>): Edit {
  return changesProject.make(`${describeChange(change)} of the project`, split(change));
}

/** What the fields of the document are called where an edit is named; others say it themselves. */
const WORDS: Record<string, string> = {
  start: "what shows first",
  root: "where the app starts",
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
