import { addElement, addLeg, freshElementId, freshLegId } from "../../model/edits/add.ts";
import { changeScreen } from "../../model/edits/change.ts";
import { type Edit, fitting } from "../../model/edits/edit.ts";
import { together } from "../../model/edits/kinds.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { quote } from "../findings/parts.ts";

/** An edit under another name. */
export const named = (name: string, edit: Edit): Edit => ({ ...edit, name });

/** A screen that can be gone to without arguments: a hub, or where the app starts. */
export function homeOf(project: Project, not: string): string | undefined {
  const free = (id: string) =>
    id !== not &&
    lookup(project)
      .screens.get(id)
      ?.params.every((p) => !p.required || p.default !== undefined);
  const marked = project.screens.find((s) => s.hub && free(s.id));
  if (marked) return marked.id;
  let id: string | undefined = project.root;
  for (let i = 0; i < 20 && id !== undefined && !lookup(project).screens.has(id); i++) id = lookup(project).containers.get(id)?.start;
  return id !== undefined && free(id) ? id : project.screens.find((s) => free(s.id))?.id;
}

/** A button that leads from a screen that nobody gets out of to a hub. */
export function wayHome(project: Project, screenId: string): Edit[] {
  const home = homeOf(project, screenId);
  if (home === undefined) return [];
  const label = `To ${nameOf(project, home)}`;
  return [button(project, screenId, label, { kind: "replace", to: home }, `Add a button "${label}" to ${quote(project, screenId)}`)];
}

export function button(project: Project, placeId: string, label: string, move: NonNullable<Leg["move"]>, name: string): Edit {
  const element = freshElementId(project, placeId, label);
  const leg: Leg = { id: freshLegId(project, `${placeId} ${element}`), from: placeId, on: { kind: "tap", element }, move };
  return together(name, [addElement(placeId, { id: element, kind: "button", label: fitting(label) }), addLeg(project, leg)]);
}

export function showLead(project: Project, screenId: string): Edit {
  return { ...changeScreen(project, screenId, { bar: { show: true, lead: "auto" } }), name: `Show Back in the bar of ${quote(project, screenId)}` };
}
