import type { Focus } from "../../../core/map/focus.ts";
import { ENDS } from "../../../core/map/form.ts";
import { LENSES } from "../../../core/map/lenses/names.ts";
import { DRAWINGS, type Drawing } from "../../../core/map/types.ts";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { usePreferences } from "../../ui/preferences.ts";
import { useTheme } from "../../ui/theme.ts";
import type { Context } from "../context.ts";
import { freshLeg } from "../selection.ts";
import { hasLeg, hasPlace } from "./can.ts";
import type { Command } from "./command.ts";

/** The words for the forms of lines, as in "only pushes". */
const FORM_WORDS: Record<keyof typeof ENDS, string> = {
  push: "pushes",
  replace: "replaces and resets",
  open: "what opens over the page",
  lane: "switches of tab or menu entry",
  back: "ways back or out",
};

/** The drawings as commands. */
const DRAWING_NAMES: Record<Drawing, { name: string; key: string; words: string[] }> = {
  rows: { name: "Draw the map as rows", key: "v r", words: ["cards", "near", "zoom in", "elements", "details"] },
  faces: { name: "Draw the map as faces", key: "v f", words: ["pictures", "thumbnails", "screens", "previews"] },
  names: { name: "Draw the map as names", key: "v n", words: ["overview", "far", "zoom out", "whole app", "index", "list"] },
};

const show = (context: Context, focus: Focus | undefined) => context.session.focus.getState().show(focus);

/** What changes only how things are seen. */
export const LOOK: readonly Command[] = [
  {
    id: "onlyLegs",
    group: "Look",
    name: "Only the legs of what is chosen",
    words: ["filter", "connections", "links of"],
    keys: ["v l"],
    shown: "V L",
    can: hasPlace,
    run: (context) => show(context, { kind: "legs", place: context.places.at(-1) ?? "" }),
  },
  {
    id: "onlyPath",
    group: "Look",
    name: "Only a path between the two that are chosen",
    words: ["route between", "way from"],
    keys: ["v p"],
    shown: "V P",
    can: ({ places }) => places.length === 2,
    run: (context) => show(context, { kind: "path", from: context.places[0] ?? "", to: context.places[1] ?? "" }),
  },
  {
    id: "onlyLane",
    group: "Look",
    name: "Only this lane",
    words: ["only this tab", "only this stack"],
    keys: ["v c"],
    shown: "V C",
    can: hasPlace,
    run: (context) => {
      const { project, places } = context;
      const place = places.at(-1) ?? "";
      show(context, { kind: "lane", place: lookup(project).containers.has(place) ? place : (lookup(project).owners.get(place)?.id ?? place) });
    },
  },
  ...(Object.keys(ENDS) as Array<keyof typeof ENDS>).map(
    (form): Command => ({
      id: `only ${form}`,
      group: "Look",
      name: `Only ${FORM_WORDS[form]}`,
      words: [form, "filter"],
      run: (context) => show(context, { kind: "form", form }),
    }),
  ),
  {
    id: "showAll",
    group: "Look",
    name: "Everything",
    words: ["show all", "reset filter"],
    keys: ["v a"],
    shown: "V A",
    run: (context) => show(context, undefined),
  },
  ...DRAWINGS.map(
    (drawing): Command => ({
      id: `draw ${drawing}`,
      group: "Look",
      name: DRAWING_NAMES[drawing].name,
      words: DRAWING_NAMES[drawing].words,
      keys: [DRAWING_NAMES[drawing].key],
      shown: DRAWING_NAMES[drawing].key.toUpperCase(),
      run: ({ session }) => {
        session.seeing.getState().draw(drawing);
        usePreferences.getState().set({ drawing });
        session.go("map");
      },
    }),
  ),
  {
    id: "whole",
    group: "Look",
    name: "The whole app",
    words: ["fit", "zoom to fit", "overview", "show all", "everything at once"],
    keys: ["v w"],
    shown: "V W",
    run: ({ session }) => session.seeing.getState().seeWhole(),
  },
  ...LENSES.map(
    ({ id, name, words }): Command => ({
      id: `lens ${id}`,
      group: "Look",
      name: id === "findings" ? "Lens: findings (no other lens)" : `Lens: ${name.toLowerCase()}`,
      words: ["lens", "colour", "heat map", ...words],
      run: ({ session }) => {
        session.lensing.getState().choose(id === "changed" ? { lens: id, against: "" } : { lens: id });
        session.go("map");
      },
    }),
  ),
  {
    id: "whatIf",
    group: "Look",
    name: "What if the leg went another way",
    words: ["compare", "alternatives", "preview", "push or replace"],
    keys: ["i"],
    shown: "I",
    can: hasLeg,
    run: ({ session }) => session.sheets.getState().open({ is: "whatIf" }),
  },
  {
    id: "foldLeft",
    group: "Look",
    name: "Fold the outline away, or back",
    words: ["hide sidebar", "left panel", "collapse", "full map"],
    keys: ["Alt+Shift+ArrowLeft"],
    shown: "Alt Shift ←",
    run: () => usePreferences.getState().fold("left"),
  },
  {
    id: "foldRight",
    group: "Look",
    name: "Fold the walk away, or back",
    words: ["hide device", "right panel", "collapse", "full map"],
    keys: ["Alt+Shift+ArrowRight"],
    shown: "Alt Shift →",
    run: () => usePreferences.getState().fold("right"),
  },
  { id: "theme", group: "Look", name: "Light or dark", words: ["dark mode", "light mode", "theme", "appearance"], run: () => useTheme.getState().toggle() },
  { id: "chooseAll", group: "Look", name: "Choose everything of this kind", words: ["select all"], keys: ["$mod+a"], shown: "Ctrl A", run: chooseAll },
  {
    id: "escape",
    group: "Look",
    name: "Choose nothing, or take back what was just made",
    words: ["deselect", "cancel"],
    keys: ["Escape"],
    shown: "Escape",
    run: takeBack,
  },
];

/** Escape takes back the leg that was just made; else it chooses nothing and shows everything. */
function takeBack({ session }: Context) {
  const selection = session.selection.getState();
  const { project, undo } = session.document.getState();
  const fresh = freshLeg(selection, project);
  if (fresh) {
    for (let i = 0; i < fresh.edits; i++) undo();
    selection.select(undefined);
    return;
  }
  session.notices.getState().close();
  if (selection.selected) selection.select(undefined);
  else session.focus.getState().show(undefined);
}

function chooseAll({ session, project, selected }: Context) {
  const { selectAll } = session.selection.getState();
  if (selected?.kind === "leg") selectAll(project.legs.map((leg) => ({ kind: "leg", id: leg.id })));
  else if (selected?.kind === "element") {
    const screen = lookup(project).screens.get(selected.place);
    selectAll((screen?.elements ?? []).map((e) => ({ kind: "element", place: selected.place, id: e.id })));
  } else selectAll(project.screens.map((screen) => ({ kind: "place", id: screen.id })));
}

/** What a focus shows, in words. */
export function focusSays(project: Project, now: Focus | undefined): string | undefined {
  switch (now?.kind) {
    case undefined:
      return undefined;
    case "legs":
      return `only the legs of “${nameOf(project, now.place)}”`;
    case "path":
      return `only the path from “${nameOf(project, now.from)}” to “${nameOf(project, now.to)}”`;
    case "form":
      return `only ${FORM_WORDS[now.form]}`;
    case "value":
      return `only where ${now.param} of “${nameOf(project, now.screen)}” comes from and goes`;
    case "lane":
      return `only the lane “${nameOf(project, now.place)}”`;
  }
}
