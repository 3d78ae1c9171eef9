import { lookup, nameOf } from "../../model/lookup.ts";
import type { Pattern } from "../pattern.ts";
import { kindsAround, onScreen, standsOnAnother } from "../places.ts";

export const MEMBERS: Pattern = {
  id: "members",
  name: "Only for members",
  says: "Who is no member yet comes to a sign-in in its place, and from there straight to the screen; who would rather not goes back.",
  words: ["gate", "guard", "paywall", "purchase", "login required", "protected", "subscribe", "premium", "age"],
  asks: [
    { id: "gate", label: "The screen in its place", usual: "For members only", of: "place" },
    { id: "enter", label: "The button on it", usual: "Sign in", of: "label" },
    { id: "no", label: "The way back", usual: "Not now", of: "label" },
    { id: "leave", label: "To leave again", usual: "Sign out", of: "label" },
  ],
  where: (project, place) => {
    const arrives = lookup(project)
      .legsFrom.get(place)
      ?.some(({ on }) => on.kind === "arrive");
    return arrives || !onScreen(project, place) ? undefined : `before “${nameOf(project, place)}”`;
  },
  put: (making) => {
    const { project, place } = making;
    const fact = making.fact("member", ({ state }) => state.facts.member === false);
    const no = kindsAround(project, place)[0] === "modal" || (kindsAround(project, place).includes("modal") && !standsOnAnother(project, place));
    const back = no ? "close" : standsOnAnother(project, place) ? "back" : undefined;
    const gate = making.name("gate");
    const { declared, passed } = making.needed(true);
    making.put([
      making.factLine(fact, " (persists)"),
      `${making.at()}: on arriving > ${gate}${passed} (replace, if !fact.${fact}), ${making.name("leave")} link > ${gate}${passed} (replace, set ${fact} = false)`,
      `${gate}${declared}: ${making.name("enter")} > ${making.at()}${passed} (replace, set ${fact} = true)${back ? `, ${making.name("no")} link > ${back}` : ""}`,
    ]);
  },
};
