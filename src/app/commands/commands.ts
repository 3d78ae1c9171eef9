import { ENDS } from "../../core/map/form.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import { useDeletion } from "../shell/deletion.ts";
import { download } from "../shell/download.ts";
import { useDocument } from "../store/document.ts";
import { useFocus } from "../store/focus.ts";
import { useNotices } from "../store/notices.ts";
import { freshLeg, useSelection } from "../store/selection.ts";
import { useTheme } from "../store/theme.ts";
import { useWalk } from "../store/walk.ts";
import { addWayIn, moveChosen, orderChosen, plannedChosen, renameChosen, shareChosen, unwrapChosen, wrapChosen } from "./arranging.ts";
import { duplicate } from "./clipboard.ts";
import type { Command, Context } from "./context.ts";
import { useOpened } from "./opened.ts";

const hasPlace = ({ places }: Context) => places.length > 0;
const hasChosen = ({ chosen }: Context) => chosen.length > 0;
const hasElement = ({ selected }: Context) => selected?.kind === "element";
const isContainer = ({ project, selected }: Context) => selected?.kind === "place" && lookup(project).containers.has(selected.id);
const { getState: walk } = useWalk;
const { getState: focus } = useFocus;

/** The words for the forms of lines, as in "show only what goes …". */
export const FORM_WORDS: Record<keyof typeof ENDS, string> = {
  push: "on top",
  replace: "instead",
  open: "over the page",
  lane: "over to another lane",
  back: "back or out",
};

/** Everything that can be done by key or by name: the keys, the sheet of keys and the palette are made from this. */
export const COMMANDS: readonly Command[] = [
  { group: "Make", name: "Find or add a screen", keys: ["/"], shown: "/", run: () => document.getElementById("find")?.focus() },
  { group: "Make", name: "Put something on the screen", keys: ["e"], shown: "E", can: hasPlace, run: () => document.getElementById("new-element")?.focus() },
  {
    group: "Make",
    name: "Lead the element somewhere",
    keys: ["l"],
    shown: "L",
    can: hasElement,
    run: ({ selected }) => selected?.kind === "element" && useSelection.getState().link({ place: selected.place, element: selected.id }),
  },
  { group: "Make", name: "A notification that leads here", keys: ["n"], shown: "N", run: (context) => addWayIn(context, "notification") },
  { group: "Make", name: "A link that leads here", run: (context) => addWayIn(context, "link") },
  { group: "Make", name: "A shortcut that leads here", run: (context) => addWayIn(context, "shortcut") },
  { group: "Make", name: "Facts of the app", keys: ["f"], shown: "F", run: () => useOpened.getState().open("facts") },

  { group: "Arrange", name: "Put into tabs", keys: ["g t"], shown: "G T", can: hasPlace, run: (context) => wrapChosen(context, "tabs") },
  { group: "Arrange", name: "Put into a stack", keys: ["g s"], shown: "G S", can: hasPlace, run: (context) => wrapChosen(context, "stack") },
  { group: "Arrange", name: "Put into a drawer", keys: ["g d"], shown: "G D", can: hasPlace, run: (context) => wrapChosen(context, "drawer") },
  { group: "Arrange", name: "Put into a modal", keys: ["g m"], shown: "G M", can: hasPlace, run: (context) => wrapChosen(context, "modal") },
  { group: "Arrange", name: "Take the container away, keep what is in it", keys: ["g u"], shown: "G U", can: isContainer, run: unwrapChosen },
  { group: "Arrange", name: "On every screen in here, or on each by itself", keys: ["g e"], shown: "G E", can: hasElement, run: shareChosen },
  { group: "Arrange", name: "Earlier", keys: ["Alt+ArrowUp"], shown: "Alt ↑", can: hasPlace, run: (context) => moveChosen(context, "earlier") },
  { group: "Arrange", name: "Later", keys: ["Alt+ArrowDown"], shown: "Alt ↓", can: hasPlace, run: (context) => moveChosen(context, "later") },
  { group: "Arrange", name: "Out of its container", keys: ["Alt+ArrowLeft"], shown: "Alt ←", can: hasPlace, run: (context) => moveChosen(context, "out") },
  {
    group: "Arrange",
    name: "Into the container before it",
    keys: ["Alt+ArrowRight"],
    shown: "Alt →",
    can: hasPlace,
    run: (context) => moveChosen(context, "in"),
  },
  {
    group: "Arrange",
    name: "Earlier on the map only",
    keys: ["Alt+Shift+ArrowUp"],
    shown: "Alt Shift ↑",
    can: hasPlace,
    run: (context) => orderChosen(context, -1),
  },
  {
    group: "Arrange",
    name: "Later on the map only",
    keys: ["Alt+Shift+ArrowDown"],
    shown: "Alt Shift ↓",
    can: hasPlace,
    run: (context) => orderChosen(context, 1),
  },
  { group: "Arrange", name: "Rename", keys: ["F2"], shown: "F2", run: renameChosen },
  { group: "Arrange", name: "Only planned, or real", keys: ["p"], shown: "P", can: hasChosen, run: plannedChosen },
  { group: "Arrange", name: "Duplicate", keys: ["$mod+d"], shown: "Ctrl D", can: hasChosen, run: duplicate },
  { group: "Arrange", name: "Delete", keys: ["Delete"], shown: "Delete", can: hasChosen, run: ({ chosen }) => useDeletion.getState().ask(...chosen) },

  {
    group: "Look",
    name: "Only the legs of what is chosen",
    keys: ["v l"],
    shown: "V L",
    can: hasPlace,
    run: ({ places }) => focus().show({ kind: "legs", place: places.at(-1) ?? "" }),
  },
  {
    group: "Look",
    name: "Only a path between the two that are chosen",
    keys: ["v p"],
    shown: "V P",
    can: ({ places }) => places.length === 2,
    run: ({ places }) => focus().show({ kind: "path", from: places[0] ?? "", to: places[1] ?? "" }),
  },
  {
    group: "Look",
    name: "Only this lane",
    keys: ["v c"],
    shown: "V C",
    can: hasPlace,
    run: ({ project, places }) => {
      const place = places.at(-1) ?? "";
      focus().show({ kind: "lane", place: lookup(project).containers.has(place) ? place : (lookup(project).owners.get(place)?.id ?? place) });
    },
  },
  ...(Object.keys(ENDS) as Array<keyof typeof ENDS>).map(
    (form): Command => ({ group: "Look", name: `Only what goes ${FORM_WORDS[form]}`, run: () => focus().show({ kind: "form", form }) }),
  ),
  { group: "Look", name: "Everything", keys: ["v a"], shown: "V A", run: () => focus().show(undefined) },
  {
    group: "Look",
    name: "What if the leg went another way",
    keys: ["i"],
    shown: "I",
    can: ({ selected }) => selected?.kind === "leg",
    run: () => useOpened.getState().open("whatIf"),
  },
  { group: "Look", name: "Light or dark", run: () => useTheme.getState().toggle() },
  { group: "Look", name: "Choose everything of this kind", keys: ["$mod+a"], shown: "Ctrl A", run: chooseAll },
  { group: "Look", name: "Choose nothing, or take back what was just made", keys: ["Escape"], shown: "Escape", run: takeBack },

  { group: "Walk", name: "From the start again", keys: ["r"], shown: "R", run: () => walk().restart() },
  { group: "Walk", name: "Back on the device", keys: ["b"], shown: "B", run: () => void walk().send({ do: "back" }) },
  { group: "Walk", name: "A step back", keys: ["["], shown: "[", run: () => walk().goTo(walk().at - 1) },
  { group: "Walk", name: "A step on", keys: ["]"], shown: "]", run: () => walk().goTo(walk().at + 1) },

  { group: "Document", name: "Undo", keys: ["$mod+z"], shown: "Ctrl Z", run: () => useDocument.getState().undo() },
  { group: "Document", name: "Redo", keys: ["$mod+Shift+z"], shown: "Ctrl Shift Z", run: () => useDocument.getState().redo() },
  { group: "Document", name: "Do or find anything by name", keys: ["$mod+k"], shown: "Ctrl K", run: () => useOpened.getState().open("palette") },
  { group: "Document", name: "All keys", keys: ["Shift+?", "?"], shown: "?", run: () => useOpened.getState().open("keys") },
  { group: "Document", name: "Export the document", run: ({ project }) => download(project) },
];

/** Escape takes back the leg that was just made; else it chooses nothing and shows everything. */
function takeBack() {
  const { selected, select } = useSelection.getState();
  const { project, undo } = useDocument.getState();
  const fresh = freshLeg(useSelection.getState(), project);
  if (fresh) {
    for (let i = 0; i < fresh.edits; i++) undo();
    select(undefined);
    return;
  }
  useNotices.getState().close();
  if (selected) select(undefined);
  else focus().show(undefined);
}

function chooseAll({ project, selected }: Context) {
  const { selectAll } = useSelection.getState();
  if (selected?.kind === "leg") selectAll(project.legs.map((leg) => ({ kind: "leg", id: leg.id })));
  else if (selected?.kind === "element") {
    const screen = lookup(project).screens.get(selected.place);
    selectAll((screen?.elements ?? []).map((e) => ({ kind: "element", place: selected.place, id: e.id })));
  } else selectAll(project.screens.map((screen) => ({ kind: "place", id: screen.id })));
}

/** What a focus shows, in words. */
export function focusSays(project: Context["project"]): string | undefined {
  const { focus: now } = useFocus.getState();
  switch (now?.kind) {
    case undefined:
      return undefined;
    case "legs":
      return `only the legs of “${nameOf(project, now.place)}”`;
    case "path":
      return `only the path from “${nameOf(project, now.from)}” to “${nameOf(project, now.to)}”`;
    case "form":
      return `only what goes ${FORM_WORDS[now.form]}`;
    case "value":
      return `only where ${now.param} of “${nameOf(project, now.screen)}” comes from and goes`;
    case "lane":
      return `only the lane “${nameOf(project, now.place)}”`;
  }
}
