import { elementIdOf, lookup } from "../../../core/model/lookup.ts";
import { addWayIn } from "../actions/arranging.ts";
import { type TriggerKind, triggerOf } from "../actions/triggers.ts";
import type { Context } from "../context.ts";
import { hasPlace, hasScreen } from "./can.ts";
import type { Command } from "./command.ts";

const focusOn = (id: string) => () => document.getElementById(id)?.focus();

/** What makes something new: screens, what is on them, where it leads, ways in. */
export const MAKE: readonly Command[] = [
  {
    id: "find",
    group: "Make",
    name: "Find or add a screen",
    words: ["new screen", "page", "search", "view", "create"],
    keys: ["/"],
    shown: "/",
    run: focusOn("find"),
  },
  {
    id: "addElement",
    group: "Make",
    name: "Add a button, a list… to the screen",
    words: ["element", "control", "field", "image", "text", "icon", "put something on the screen", "widget"],
    keys: ["e"],
    shown: "E",
    can: hasPlace,
    run: focusOn("new-element"),
  },
  {
    id: "lead",
    group: "Make",
    name: "Lead somewhere from here",
    words: ["link", "connect", "leg", "navigate", "push", "go to", "transition", "route", "open", "back", "close", "exit"],
    keys: ["l"],
    shown: "L",
    can: ({ selected }) => selected !== undefined && selected.kind !== "entrance",
    run: leadFrom,
  },
  {
    id: "pattern",
    group: "Make",
    name: "Put in a pattern: tabs, a sign-in, a search…",
    words: ["template", "shape", "snippet", "insert", "recipe", "wizard", "flow"],
    keys: ["a"],
    shown: "A",
    run: ({ session }) => {
      session.go("map");
      session.selection.getState().link(undefined);
      session.sheets.getState().open({ is: "patterns" });
    },
  },
  {
    id: "leadAfter",
    group: "Make",
    name: "Lead on after a while",
    words: ["delay", "timer", "timeout", "splash", "wait", "milliseconds", "automatically"],
    keys: ["w"],
    shown: "W",
    can: hasScreen,
    run: leadBy("after"),
  },
  {
    id: "leadArrive",
    group: "Make",
    name: "Lead on as soon as it shows",
    words: ["redirect", "on arriving", "on load", "guard", "automatically"],
    can: hasScreen,
    run: leadBy("arrive"),
  },
  { id: "leadSwipe", group: "Make", name: "Lead somewhere by a swipe", words: ["gesture", "drag"], can: hasPlace, run: leadBy("swipe") },
  {
    id: "leadDepart",
    group: "Make",
    name: "Ask when it is left",
    words: ["unsaved changes", "confirm", "guard", "before leaving", "on departing", "discard"],
    can: hasPlace,
    run: leadBy("depart"),
  },
  {
    id: "pageThrough",
    group: "Make",
    name: "Page through a list's rows: Previous and Next",
    words: ["pager", "previous", "next", "carousel", "swipe through"],
    can: hasScreen,
    run: async (context) => {
      const { pageThroughUsual } = await import("../actions/paging.ts");
      pageThroughUsual(context, context.places.at(-1) ?? "");
    },
  },
  {
    id: "addNotification",
    group: "Make",
    name: "A notification that leads here",
    words: ["push notification", "alert", "way in", "entrance"],
    keys: ["n"],
    shown: "N",
    run: (context) => addWayIn(context, "notification"),
  },
  {
    id: "addLink",
    group: "Make",
    name: "A link that leads here",
    words: ["deep link", "url", "address", "universal link", "way in", "entrance"],
    run: (context) => addWayIn(context, "link"),
  },
  {
    id: "addShortcut",
    group: "Make",
    name: "A shortcut that leads here",
    words: ["quick action", "widget", "way in", "entrance"],
    run: (context) => addWayIn(context, "shortcut"),
  },
  {
    id: "facts",
    group: "Make",
    name: "Facts of the app",
    words: ["state", "flag", "variable", "condition", "signed in", "logged in", "role"],
    keys: ["f"],
    shown: "F",
    run: ({ session }) => session.sheets.getState().open({ is: "facts" }),
  },
];

/** Asks where what is chosen leads: an element, a leg that is led elsewhere, or a button yet to be made on a place. */
function leadFrom({ session, project, selected }: Context) {
  const { link } = session.selection.getState();
  if (selected?.kind === "element") link({ place: selected.place, element: selected.id });
  else if (selected?.kind === "place") link({ place: selected.id });
  else if (selected?.kind === "leg") {
    const leg = lookup(project).legs.get(selected.id);
    if (leg) link({ place: leg.from, element: elementIdOf(leg), leg: leg.id });
  }
}

/** Asks where a place leads without an element. */
function leadBy(kind: TriggerKind) {
  return ({ session, places }: Context) => {
    const place = places.at(-1);
    if (place !== undefined) session.selection.getState().link({ place, on: triggerOf(kind) });
  };
}
