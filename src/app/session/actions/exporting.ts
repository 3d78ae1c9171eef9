import type { Project } from "../../../core/model/schema.ts";
import { download } from "../../ui/download.ts";
import { db } from "../storage/db.ts";

/** Hands the document to the browser as a file, and remembers when. */
export function exported(id: string, project: Project) {
  download(project);
  void db.projects.update(id, { exportedAt: Date.now() });
}
