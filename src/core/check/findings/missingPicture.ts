import type { PictureFiles } from "../../model/pictures.ts";
import type { Picture, Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const missingPicture: FindingKind = {
  code: "missing-picture",
  severity: "warning",
  says: "a picture whose file is missing or is another",
  help: "The file is not in the folder of the pictures, is no picture that is known (PNG, JPEG, WebP or AVIF), or has another size than the areas were drawn for. Put it there again, or drop the right one onto the screen; the screen is drawn as a sketch until then.",
  subjects: "the screen",
  inDocument: find,
};

/** Pictures whose file is not there, is of no known kind or of another size. Says nothing where no one looked. */
function find(project: Project, _: ReadonlySet<string>, files?: PictureFiles): Found[] {
  if (!files) return [];
  return project.screens.flatMap((screen) => {
    const wrong = (screen.pictures ?? []).flatMap((picture) => problemOf(picture, files) ?? []);
    if (wrong.length === 0) return [];
    const more = wrong.length > 1 ? ` The same goes for ${wrong.length - 1} more of its pictures.` : "";
    return [{ subjects: [screen.id], message: `A picture of ${quote(project, screen.id)} is missing: ${wrong[0]}.${more}` }];
  });
}

function problemOf({ file, size: [width, height] }: Picture, files: PictureFiles): string | undefined {
  const found = Object.hasOwn(files, file) ? files[file] : undefined;
  if (!found) return `"${file}" is not there`;
  if (!found.size) return `"${file}" is no PNG, JPEG, WebP or AVIF`;
  if (found.size[0] === width && found.size[1] === height) return undefined;
  return `"${file}" is ${found.size[0]} × ${found.size[1]} pixels, and its areas were drawn on ${width} × ${height}`;
}
