import { lookup } from "../../../core/model/lookup.ts";
import type { Context } from "../context.ts";

/** What has to be chosen for a command to be of use. */
export const hasPlace = ({ places }: Context) => places.length > 0;
export const hasChosen = ({ chosen }: Context) => chosen.length > 0;
export const hasScreen = ({ project, places }: Context) => lookup(project).screens.has(places.at(-1) ?? "");
export const hasElement = ({ selected }: Context) => selected?.kind === "element";
export const hasLeg = ({ selected }: Context) => selected?.kind === "leg";
export const isContainer = ({ project, selected }: Context) => selected?.kind === "place" && lookup(project).containers.has(selected.id);
