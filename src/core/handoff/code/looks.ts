/** What generated code carries of how things look: titles, elements, motions. */

import { motionsOf } from "../../insight/motion.ts";
import { compile, type Scope } from "../../model/expression.ts";
import type { Element, Project, Screen } from "../../model/schema.ts";
import { placeScope } from "../../model/scope.ts";
import { templateParts } from "../../model/template.ts";
import { elementConditions } from "../../plan/lower/legs.ts";
import { treeOf } from "../../plan/lower/trees.ts";
import type { ElementData, LooksData, TextData } from "../typescript/runtime/looks.ts";

/** The looks of a project as plain data. */
export function looksData(project: Project): LooksData {
  const places = [...project.containers, ...project.screens].filter(({ elements }) => elements && elements.length > 0);
  return {
    titles: Object.fromEntries(project.screens.map((screen) => [screen.id, titleData(project, screen)])),
    elements: Object.fromEntries(
      places.map(({ id, elements = [] }) => [id, Object.fromEntries(elements.map((element) => [element.id, elementData(project, id, element)]))]),
    ),
    motions: motionsOf(project),
  };
}

function titleData(project: Project, { id, name, title }: Screen): TextData {
  return title === undefined ? [name || id] : textData(title, placeScope(project, id));
}

function elementData(project: Project, placeId: string, element: Element): ElementData {
  // Text of a list is that of its rows, which the app draws itself.
  const text = element.text === undefined || element.kind === "list" ? {} : { text: textData(element.text, placeScope(project, placeId)) };
  return { ...elementConditions(project, placeId, element), ...text };
}

/** A template as text and trees; a hole that is not well typed has no value, and so is a dash. */
function textData(template: string, scope: Scope): TextData {
  return templateParts(template).map((part) => {
    if ("text" in part) return part.text;
    const compiled = compile(part.hole, scope);
    return compiled.ok ? treeOf(compiled.ast) : (["name", "nothing"] as const);
  });
}
