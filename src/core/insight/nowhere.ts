import { lookup, nameOf, ownersAround } from "../model/lookup.ts";
import type { Leg, Move, Project } from "../model/schema.ts";
import { programOf } from "../plan/lower/moves.ts";
import { makeMove } from "../semantics/moves.ts";
import type { State } from "../semantics/types.ts";
import { appOf } from "./app.ts";
import { metStates } from "./met.ts";

/** Something that a leg can do without leading to a place. */
export interface Doing {
  key: "back" | "close" | "menu" | "up" | "leave" | "proceed" | "set";
  name: string;
  /** Other words that people use for it. */
  words: readonly string[];
  /** What a button for it says. */
  label: string;
  /** What the leg does: its move, or what it sets where it moves nothing. */
  does: Pick<Leg, "move" | "set">;
}

/** What a leg from a place can do that is no place, as far as it works in the states in which the place is met; `at` is where somebody stands. */
export function doingsFrom(project: Project, from: string, at?: State): Doing[] {
  const around = [lookup(project).containers.get(from), ...ownersAround(project, from)].filter((c) => c !== undefined);
  const modal = around.find((c) => c.kind === "modal");
  const drawer = around.find((c) => c.kind === "drawer");
  const asked = modal && project.legs.some((leg) => leg.on.kind === "depart" && leg.move?.kind === "open" && leg.move.to === modal.id);
  const fact = project.facts.find((one) => one.source === "app");
  const all: Array<Doing | undefined> = [
    modal && {
      key: "close",
      label: "Close",
      name: `Close “${nameOf(project, modal.id)}”`,
      words: ["close", "dismiss", "cancel", "done", "hide", "close sheet", "close modal", "close dialog", "close popup"],
      does: { move: { kind: "close" } },
    },
    { key: "back", label: "Back", name: "Back", words: ["go back", "return", "pop", "previous screen", "cancel"], does: { move: { kind: "back" } } },
    drawer && {
      key: "menu",
      label: "Menu",
      name: `Menu “${nameOf(project, drawer.id)}”: open or close`,
      words: ["menu", "hamburger", "drawer", "side menu", "open menu", "navigation"],
      does: { move: { kind: "menu" } },
    },
    { key: "up", label: "Up", name: "Up", words: ["parent", "up one level"], does: { move: { kind: "up" } } },
    {
      key: "leave",
      label: "Exit",
      name: "Leave the app",
      words: ["leave", "exit", "quit", "external link", "website", "url"],
      does: { move: { kind: "leave" } },
    },
    asked
      ? {
          key: "proceed",
          label: "Go on",
          name: "Go on with what was held",
          words: ["go on", "continue", "proceed", "discard"],
          does: { move: { kind: "proceed" } },
        }
      : undefined,
    fact && {
      key: "set",
      label: fact.name ?? fact.id,
      name: "Only set a fact",
      words: ["set", "toggle", "change a fact", "state", "variable"],
      does: { set: { [fact.id]: fact.type === "boolean" ? "true" : `"${fact.values?.[0] ?? ""}"` } },
    },
  ];
  const met = metStates(project, from, at);
  const works = (move: Move | undefined) =>
    move === undefined ||
    move.kind === "proceed" ||
    met.some(({ state, branch }) => ["moved", "left"].includes(makeMove(appOf(project), state, branch, programOf(project, move), {}).is));
  return all.filter((one) => one !== undefined).filter(({ does }) => works(does.move));
}
