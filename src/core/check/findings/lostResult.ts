import { changeLeg, changeScreen } from "../../model/edits/change.ts";
import { type Edit, quoted } from "../../model/edits/edit.ts";
import { compile, type ValueType } from "../../model/expression.ts";
import { giveOf, lookup, nameOf } from "../../model/lookup.ts";
import { withGive } from "../../model/moves.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { legScope } from "../../model/scope.ts";
import { type Candidate, type Graph, note, shownAfter } from "../reach/graph.ts";
import { isHidden } from "../system/hiding.ts";
import type { FindingKind } from "./kind.ts";
import { allEdges } from "./parts.ts";

export const lostResult: FindingKind = {
  code: "lost-result",
  severity: "warning",
  says: "a result that the screen it comes back to does not take",
  help: "A picker hands back what was picked, and the screen that shows then declares no parameter of that name: what the user chose is lost. Declare the parameter there, or hand it back under the name that the screen has for it.",
  subjects: "the leg and the parameter",
  inSearch: find,
  shows: ({ subjects: [id, name = ""] }, { result, project }) =>
    result.log.handed.some(({ leg, names, to }) => leg === id && names.includes(name) && !declares(project, to, name)),
  fixes: (project, [id = "", name = ""]) => {
    const leg = lookup(project).legs.get(id);
    return leg ? [...takenByTarget(project, leg, name), keptBack(project, leg, name)] : [];
  },
};

/** Legs that, in some state, hand back what the screen that shows then does not declare. */
function find(graph: Graph): Candidate[] {
  const { project, nodes, name } = graph;
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ handed }) => handed.length > 0))
    for (const { leg, names, to } of edge.handed) {
      const from = lookup(project).legs.get(leg)?.from ?? "";
      const screens = isHidden({ kind: "shown", at: to, args: {} }) ? shownAfter(nodes, edge).map(({ screen }) => screen) : [to];
      for (const screen of screens)
        for (const lost of names)
          if (!declares(project, screen, lost))
            note(found, [leg, lost], at, () => `${name(from)} hands back "${lost}", but ${name(screen)}, which shows then, has no parameter of that name.`);
    }
  return [...found.values()];
}

function declares(project: Project, screen: string, name: string): boolean {
  return (
    lookup(project)
      .screens.get(screen)
      ?.params.some((param) => param.name === name) === true
  );
}

/** The screen that the leg says it goes back to declares what it is handed. */
function takenByTarget(project: Project, leg: Leg, name: string): Edit[] {
  const screen = leg.move?.kind === "return" ? lookup(project).screens.get(leg.move.to) : undefined;
  const compiled = compile(giveOf(leg)?.[name] ?? "", legScope(project, leg));
  if (!screen || !compiled.ok || screen.params.some((param) => param.name === name)) return [];
  const params = [...screen.params, { name, type: typeName(compiled.type), required: false }];
  return [{ ...changeScreen(project, screen.id, { params }), name: `Let ${quoted(nameOf(project, screen.id))} take ${name}` }];
}

/** A type of values as parameters name it. */
function typeName(type: ValueType): string {
  return type.startsWith("record:") ? type.slice("record:".length) : type;
}

/** Nothing is handed back by that name. */
function keptBack(project: Project, leg: Leg, name: string): Edit {
  const { [name]: _, ...rest } = giveOf(leg) ?? {};
  return { ...changeLeg(project, leg, { move: leg.move && withGive(leg.move, rest) }), name: `Hand back no ${name}` };
}
