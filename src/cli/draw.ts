import { mapSvg } from "../core/map/svg.ts";
import { readDocument, writeOut } from "./files.ts";

/** `etape draw`: the map as an SVG file. */
export async function drawCommand(file: string, options: { out: string }): Promise<number> {
  const { project } = await readDocument(file);
  await writeOut(options.out, mapSvg(project));
  return 0;
}
