import * as z from "zod";
import { elementIdOf, elementOf, lookup } from "../lookup.ts";
import { withSources } from "../moves.ts";
import type { Element, Leg, Project, Row, Screen } from "../schema.ts";
import { templateParts } from "../template.ts";
import { type Edit, editKind, quoted } from "./edit.ts";
import { renameInExpression } from "./spelling.ts";

export const renamesField = editKind("renameField", z.strictObject({ type: z.string(), from: z.string(), to: z.string() }), (project, { type, from, to }) =>
  renamedField(project, type, from, to),
);
/** Gives a field of a record type another name: in the type, its samples, and every expression that reads it from a row, a neighbour or a parameter. */
export function renameField(type: string, from: string, to: string): Edit {
  return renamesField.make(`Rename field ${quoted(from)} of ${quoted(type)} to ${quoted(to)}`, { type, from, to });
}

function renamedField(project: Project, typeId: string, from: string, to: string): Project {
  const names = new Map([[from, to]]);
  const { screens } = lookup(project);
  /** What of this type can be read on a place: rows where `item` is one, neighbours of a screen that pages through it, its parameters. */
  const within = (screen: Screen | undefined, item: boolean) => (source: string) => {
    const paged = screen?.pages?.over === typeId;
    const renamed = renameInExpression(source, { ...(item ? { item: names } : {}), ...(paged ? { next: names, prev: names } : {}) });
    const params = (screen?.params ?? []).filter((param) => param.type === typeId);
    return params.reduce((now, param) => afterParam(now, param.name, from, to), renamed);
  };
  const element = (e: Element, screen: Screen | undefined): Element => {
    const plain = within(screen, false);
    return {
      ...e,
      ...(e.text === undefined ? {} : { text: inHoles(e.text, within(screen, e.of === typeId)) }),
      ...(e.shown === undefined ? {} : { shown: plain(e.shown) }),
      ...(e.enabled === undefined ? {} : { enabled: plain(e.enabled) }),
    };
  };
  const leg = (l: Leg): Leg => {
    const id = elementIdOf(l);
    const change = within(screens.get(l.from), id !== undefined && elementOf(project, l.from, id)?.of === typeId);
    const values = (record: Record<string, string>) => Object.fromEntries(Object.entries(record).map(([name, source]) => [name, change(source)]));
    return {
      ...l,
      ...(l.when === undefined ? {} : { when: change(l.when) }),
      ...(l.move ? { move: withSources(l.move, values) } : {}),
      ...(l.set ? { set: values(l.set) } : {}),
    };
  };
  return {
    ...project,
    types: project.types.map((t) =>
      t.id === typeId
        ? {
            ...t,
            fields: t.fields.map((f) => (f.name === from ? { ...f, name: to } : f)),
            samples: t.samples.map((row): Row => Object.fromEntries(Object.entries(row).map(([name, value]) => [name === from ? to : name, value]))),
          }
        : t,
    ),
    containers: project.containers.map((c) => (c.elements ? { ...c, elements: c.elements.map((e) => element(e, undefined)) } : c)),
    screens: project.screens.map((s) => ({
      ...s,
      ...(s.title === undefined ? {} : { title: inHoles(s.title, within(s, false)) }),
      elements: s.elements.map((e) => element(e, s)),
      ...(s.pages?.over === typeId && s.pages.order === from ? { pages: { ...s.pages, order: to } } : {}),
    })),
    legs: project.legs.map(leg),
  };
}

/** `param.NAME.from` with the other field, outside of quotes. */
function afterParam(source: string, param: string, from: string, to: string): string {
  return source.replace(/("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')|(?<![\w.])param(\s*\.\s*)(\w+)(\s*\.\s*)(\w+)/g, (all, quotes, dot, name, second, field) =>
    quotes === undefined && name === param && field === from ? `param${dot}${name}${second}${to}` : all,
  );
}

function inHoles(template: string, change: (source: string) => string): string {
  return templateParts(template)
    .map((part) => ("hole" in part ? `{${change(part.hole)}}` : part.text))
    .join("");
}
