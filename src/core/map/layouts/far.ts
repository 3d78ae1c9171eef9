import type { Project } from "../../model/schema.ts";
import type { Drawing, MapLayout, Room } from "../types.ts";
import { layoutFaces } from "./faces.ts";
import { layoutNames } from "./names.ts";

/** The map's room in a window of 1280 by 800 with both sides folded away; drawings in files are laid for it. */
export const USUAL_ROOM: Room = { width: 1280, height: 700 };

/** Lays a project out as faces or as names, for a room in pixels. */
export function layoutFar(project: Project, drawing: Exclude<Drawing, "rows">, room: Room, far: boolean): MapLayout {
  return drawing === "faces" ? layoutFaces(project, room) : layoutNames(project, room, far);
}
