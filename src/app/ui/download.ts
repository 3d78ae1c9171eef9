import type { Project } from "../../core/model/schema.ts";
import { writeProject } from "../../core/model/write.ts";

/** Hands the document to the browser as a file, `NAME.etape.json`. */
export function download(project: Project) {
  save(`${fileName(project.name)}.etape.json`, writeProject(project), "application/json");
}

/** Hands a file to the browser. */
export function save(name: string, content: string | Uint8Array<ArrayBuffer>, type: string) {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as a file may have it. */
export function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "") || "project"
  );
}
