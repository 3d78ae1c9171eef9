import { changeContainer } from "../../model/edits/change.ts";
import { lookup, ownersAround, treeOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const noMenuControl: FindingKind = {
  code: "no-menu-control",
  severity: "warning",
  says: "a drawer that nothing opens",
  help: "It is never pinned, no bar in it shows a menu button, and no leg opens it.",
  subjects: "the drawer",
  inDocument: find,
  open: (project, [id = ""]) => treeOf(project, id).every((place) => (lookup(project).legsFrom.get(place) ?? []).length === 0),
  fixes: (project, [id = ""]) => [
    named(`Show the menu button in the bar of ${quote(project, id)}`, changeContainer(project, id, { bar: { show: true, lead: "menu" } })),
  ],
};

/** Drawers that nothing opens: never pinned, no bar with a menu on a screen in them, no leg to them. */
function find(project: Project): Found[] {
  return project.containers.flatMap((drawer) => {
    if (drawer.kind !== "drawer" || drawer.pinnedFrom !== "never") return [];
    const inside = treeOf(project, drawer.id);
    const around = new Set([...inside, ...ownersAround(project, drawer.id).map((c) => c.id)]);
    const opens = project.legs.some(
      (leg) =>
        leg.move?.kind === "menu" && leg.move.action !== "close" && (leg.move.drawer === undefined ? around.has(leg.from) : leg.move.drawer === drawer.id),
    );
    const shows = inside.some((id) => lookup(project).screens.has(id) && leadIsMenu(project, id));
    return opens || shows
      ? []
      : [{ subjects: [drawer.id], message: `Nothing opens the drawer ${quote(project, drawer.id)}: no bar in it shows a menu and no leg opens it.` }];
  });
}

function leadIsMenu(project: Project, screenId: string): boolean {
  const own = lookup(project).screens.get(screenId)?.bar;
  const bar = own ?? ownersAround(project, screenId).find((c) => c.bar)?.bar;
  return bar?.show === true && bar.lead === "menu";
}
