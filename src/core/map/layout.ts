import type { Project } from "../model/schema.ts";
import { layoutFar, USUAL_ROOM } from "./layouts/far.ts";
import { layoutRows } from "./layouts/rows.ts";
import type { Drawing, MapLayout, Room } from "./types.ts";

/**
 * Lays a project out as one of the drawings, for a room in pixels. Rows are the same in every room. The same project and room always
 * give the same map.
 * @param far names: whether all has to fit into the room, if need be as dots; else every name can be read, and the map may be higher
 */
export function layoutMap(project: Project, drawing: Drawing = "rows", room: Room = USUAL_ROOM, far = true): MapLayout {
  return drawing === "rows" ? layoutRows(project) : layoutFar(project, drawing, room, far);
}
