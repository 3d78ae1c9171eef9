import { changeScreen } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { together } from "../../model/edits/kinds.ts";
import { firstScreen, lookup, ownersAround } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { trailOf } from "../../plan/lower/templates.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const noWayUp: FindingKind = {
  code: "no-way-up",
  severity: "warning",
  says: "a way in lands with nothing beneath",
  help: "Somebody who comes in by a link has no Back and no Up to the rest of the app.",
  subjects: "the way in and the screen",
  inDocument: find,
  fixes: (project, [, screen = ""]) => [wayUp(project, screen)],
};

/** Entrances that land on a screen with nothing beneath it that is not a hub. */
function find(project: Project, hubs: ReadonlySet<string>): Found[] {
  return project.entrances.flatMap((entrance) => {
    const screen = lookup(project).screens.get(entrance.to);
    if (!screen || hubs.has(screen.id)) return [];
    const owners = ownersAround(project, screen.id);
    if (owners.at(-1)?.kind === "modal") return [];
    const beneath = owners[0]?.kind === "stack" ? trailOf(project, screen.id).length - 1 : 0;
    return beneath > 0
      ? []
      : [
          {
            subjects: [entrance.id, screen.id],
            message: `${quote(project, entrance.id)} lands on ${quote(project, screen.id)} with nothing beneath it to go back or up to.`,
          },
        ];
  });
}

/** Something beneath a screen that a way in lands on: its stack's start; where there is none, the screen becomes a hub. */
function wayUp(project: Project, screenId: string): Edit {
  const owner = lookup(project).owners.get(screenId);
  if (owner?.kind === "stack" && owner.start !== screenId)
    return { ...changeScreen(project, screenId, { up: "auto" }), name: `Let Up from ${quote(project, screenId)} lead as usual` };
  const hubs = project.screens.some((screen) => screen.hub) ? [screenId] : [screenId, firstScreen(project, project.root)?.id ?? screenId];
  return together(
    `Make ${quote(project, screenId)} a hub`,
    hubs.map((id) => changeScreen(project, id, { hub: true })),
  );
}
