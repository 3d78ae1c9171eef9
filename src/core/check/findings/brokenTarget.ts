import { addScreen, newScreen } from "../../model/edits/add.ts";
import { changeScreen } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { removeEntrance, removeLegs } from "../../model/edits/remove.ts";
import { lookup, targetOf } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { placesExist } from "../../plan/lower/moves.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const brokenTarget: FindingKind = {
  code: "broken-target",
  severity: "blocker",
  says: "something names a place that is not there, or of the wrong kind",
  help: 'A leg, a way in, a start, an Up or an "otherwise" leads to what is not in the project, or to a kind of place that its move cannot lead to.',
  subjects: "the leg, way in or place",
  inDocument: find,
  fixes: (project, [id = ""]) => {
    const { legs, screens, entrances } = lookup(project);
    const leg = legs.get(id);
    if (entrances.has(id)) return [removeEntrance(project, id)];
    if (leg) return [...missingScreen(project, leg), removeLegs(project, [leg.id])];
    return screens.has(id) ? [named(`Let Up of ${quote(project, id)} lead as usual`, changeScreen(project, id, { up: "auto" }))] : [];
  },
};

/** Legs, entrances, starts, Ups and `otherwise` that name no place or the wrong kind of place. */
function find(project: Project): Found[] {
  const { places, screens } = lookup(project);
  const legs = project.legs.flatMap((leg) => {
    const to = leg.move && "to" in leg.move ? leg.move.to : undefined;
    if (!places.has(leg.from)) return [{ subjects: [leg.id], message: `A leg (${leg.id}) starts from "${leg.from}", which is no place of the project.` }];
    if (!leg.move || placesExist(project, leg.move)) return [];
    const target = to === undefined ? "a place" : `"${to}"`;
    return [
      {
        subjects: [leg.id],
        message: `The leg from ${quote(project, leg.from)} leads to ${target}, but a place it names is not there or is of the wrong kind for "${leg.move.kind}".`,
      },
    ];
  });
  const entrances = project.entrances.flatMap((e) => {
    if (!screens.has(e.to)) return [{ subjects: [e.id], message: `The way in ${quote(project, e.id)} leads to "${e.to}", which is no screen of the project.` }];
    return e.otherwise !== undefined && !places.has(e.otherwise)
      ? [{ subjects: [e.id], message: `The way in ${quote(project, e.id)} leads otherwise to "${e.otherwise}", which is no place of the project.` }]
      : [];
  });
  const starts = project.containers.flatMap((c) =>
    places.has(c.start) ? [] : [{ subjects: [c.id], message: `${quote(project, c.id)} starts with "${c.start}", which is no place of the project.` }],
  );
  const ups = project.screens.flatMap((s) =>
    s.up === "auto" || s.up === "none" || screens.has(s.up)
      ? []
      : [{ subjects: [s.id], message: `Up from ${quote(project, s.id)} leads to "${s.up}", which is no screen of the project.` }],
  );
  return [...legs, ...entrances, ...starts, ...ups];
}

function missingScreen(project: Project, leg: Leg): Edit[] {
  const to = targetOf(leg);
  if (to === undefined || lookup(project).places.has(to) || leg.move?.kind === "open" || leg.move?.kind === "select") return [];
  return [{ ...addScreen(newScreen(to, to), lookup(project).owners.get(leg.from)?.id), name: `Make the screen "${to}"` }];
}
