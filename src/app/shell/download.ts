import type { Project } from "../../core/model/schema.ts";
import { writeProject } from "../../core/model/write.ts";

/** Hands the document to the browser as a file, `NAME.etape.json`. */
export function download(project: Project) {
  const url = URL.createObjectURL(new Blob([writeProject(project)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${fileName(project.name)}.etape.json`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "") || "project"
  );
}
