import type { Project } from "../model/schema.ts";
import { layoutFaces } from "./layouts/faces.ts";
import { layoutNames } from "./layouts/names.ts";
import { layoutRows } from "./layouts/rows.ts";
import type { Drawing, MapLayout, Room } from "./types.ts";

/** The map's room in a window of 1280 by 800 with both sides folded away; drawings in files are laid for it. */
export const USUAL_ROOM: Room = { width: 1280, height: 700 };

/**
 * Lays a project out as one of the drawings, for a room in pixels. Rows are the same in every room. The same project and room always
 * give the same map.
 * @param far names: whether all has to fit into the room, if need be as dots; else every name can be read, and the map may be higher
 */
export function layoutMap(project: Project, drawing: Drawing = "rows", room: Room = USUAL_ROOM, far = true): MapLayout {
  switch (drawing) {
    case "rows":
      return layoutRows(project);
    case "faces":
      return layoutFaces(project, room);
    case "names":
      return layoutNames(project, room, far);
  }
}
