import { elementIdOf, elementOf, firstScreen, keyField, lookup, mustBePassed, nameOf, passOf, passTarget, typeLabel } from "../lookup.ts";
import { takesPass, withPass } from "../moves.ts";
import type { Element, Leg, Param, Project, RecordType, Screen } from "../schema.ts";
import { addElement, addLeg, freshElementId, freshLegId } from "./add.ts";
import { changeLeg, changeScreen } from "./change.ts";
import { type Edit, freshId } from "./edit.ts";
import { applyEdit, together } from "./kinds.ts";
import { addType } from "./types.ts";

/** A record type with a key, a name and a few rows, so that lists of it show something at once. */
export function newRecordType(project: Project, name: string): RecordType {
  const id = freshId(name, lookup(project).types, "type");
  const samples = [1, 2, 3].map((n) => ({ id: `${id}${n}`, name: `${name} ${n}` }));
  return {
    id,
    name,
    fields: [
      { name: "id", type: "text" },
      { name: "name", type: "text" },
    ],
    samples,
  };
}

/** Adds such a record type; gives its id with the edit. */
export function addNamedType(project: Project, name: string): { edit: Edit; id: string } {
  const type = newRecordType(project, name);
  return { edit: addType(type), id: type.id };
}

/**
 * Makes a screen page through the rows of a record type, as one edit: Previous and Next with swipes, each off where there is no
 * neighbour. Where the screen does not know its row yet, it gets a parameter for the key, which the lists of that type that lead here pass.
 */
export function addPaging(project: Project, screenId: string, typeId: string): Edit {
  const { screens, types } = lookup(project);
  const [screen, type] = [screens.get(screenId), types.get(typeId)];
  if (!screen || !type) throw new Error(`addPaging: there is no screen "${screenId}" or no record type "${typeId}".`);
  const name = `Page ${typeLabel(type)} on "${nameOf(project, screenId)}"`;
  const param = rowParam(project, screen, type);
  const known = screen.params.some((one) => one.name === param.name);
  const edits: Edit[] = [
    changeScreen(project, screenId, {
      ...(known ? {} : { params: [...screen.params, param] }),
      pages: screen.pages?.over === typeId ? screen.pages : { over: typeId, by: param.name },
    }),
    ...(known ? [] : passedByLists(project, screenId, type, param.name)),
  ];
  let now = edits.reduce(applyEdit, project);
  for (const way of WAYS) {
    const made = pager(now, screenId, type, param.name, way);
    edits.push(...made);
    now = made.reduce(applyEdit, now);
  }
  return together(name, edits);
}

/** Lists whose legs show a screen and that have no rows of a type yet. */
export function listsLeadingTo(project: Project, screenId: string): Array<{ place: string; element: Element }> {
  const found = new Map<string, { place: string; element: Element }>();
  for (const leg of project.legs) {
    const id = elementIdOf(leg);
    const element = id === undefined ? undefined : elementOf(project, leg.from, id);
    const target = passTarget(project, leg);
    if (element?.kind === "list" && element.of === undefined && target !== undefined && firstScreen(project, target)?.id === screenId)
      found.set(`${leg.from} ${element.id}`, { place: leg.from, element });
  }
  return [...found.values()];
}

/** The record type that a screen most likely shows a row of: that of a list that leads here, else the only one that there is. */
export function pagedType(project: Project, screenId: string): string | undefined {
  const leading = project.types.find((type) => listLegs(project, screenId, type).length > 0);
  return leading?.id ?? (project.types.length === 1 ? project.types[0]?.id : undefined);
}

interface PagingWay {
  neighbour: "prev" | "next";
  label: string;
  swipe: "left" | "right";
  from: "start" | "end";
}
const WAYS: readonly PagingWay[] = [
  { neighbour: "prev", label: "Previous", swipe: "right", from: "start" },
  { neighbour: "next", label: "Next", swipe: "left", from: "end" },
];

/** A control and a swipe to one neighbour. */
function pager(project: Project, screenId: string, type: RecordType, by: string, { neighbour, label, swipe, from }: PagingWay): Edit[] {
  const key = keyField(type);
  const there = `has(${neighbour}.${key})`;
  const element = freshElementId(project, screenId, label);
  const others = (lookup(project).screens.get(screenId)?.params ?? []).filter((param) => param.name !== by && mustBePassed(param));
  const pass = Object.fromEntries([[by, `${neighbour}.${key}`], ...others.map((param) => [param.name, valueFor(param, type, neighbour)])]);
  const leg = (id: string, on: Leg["on"]): Leg => ({
    id,
    from: screenId,
    on,
    when: there,
    move: { kind: "replace", to: screenId, pass },
    motion: { kind: "slide", from },
  });
  const tap = addLeg(project, leg(freshLegId(project, `${screenId} ${label}`), { kind: "tap", element }));
  const added = [addElement(screenId, { id: element, kind: "pager", label, enabled: there }), tap];
  const after = added.reduce(applyEdit, project);
  return [...added, addLeg(after, leg(freshLegId(after, `${screenId} swipe ${label}`), { kind: "swipe", to: swipe }))];
}

/** What else the screen needs to know comes from the neighbour, where that has a field of the same name; else it stays. */
function valueFor(param: Param, type: RecordType, neighbour: "prev" | "next"): string {
  return type.fields.some((field) => field.name === param.name && field.type === param.type) ? `${neighbour}.${param.name}` : `param.${param.name}`;
}

/** The parameter that says which row a screen shows: one that is passed the key of a row, one that is called for it, or a new one. */
function rowParam(project: Project, screen: Screen, type: RecordType): Param {
  const key = keyField(type);
  const called = `${type.id}${key.charAt(0).toUpperCase()}${key.slice(1)}`;
  const passed = listLegs(project, screen.id, type).flatMap((leg) => Object.entries(passOf(leg) ?? {}));
  const given = passed.find(([, source]) => source === `item.${key}`)?.[0];
  const byName = [screen.pages?.over === type.id ? screen.pages.by : undefined, given, called, key];
  const found = byName.map((name) => screen.params.find((param) => param.name === name)).find((param) => param !== undefined);
  return found ?? { name: called, type: type.fields[0]?.type ?? "text", required: true };
}

/** Legs from lists of a type that show a screen. */
function listLegs(project: Project, screenId: string, type: RecordType): Leg[] {
  return project.legs.filter((leg) => {
    const element = elementIdOf(leg);
    const target = passTarget(project, leg);
    return (
      element !== undefined && elementOf(project, leg.from, element)?.of === type.id && target !== undefined && firstScreen(project, target)?.id === screenId
    );
  });
}

function passedByLists(project: Project, screenId: string, type: RecordType, name: string): Edit[] {
  return listLegs(project, screenId, type).flatMap((leg) => {
    const { move } = leg;
    if (!move || !takesPass(move)) return [];
    return [changeLeg(project, leg, { move: withPass(move, { ...move.pass, [name]: `item.${keyField(type)}` }) })];
  });
}
