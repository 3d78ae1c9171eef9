import { controlsOf } from "../../src/core/model/pictures.ts";
import type { Picture, Project } from "../../src/core/model/schema.ts";
import { pick, type Random } from "./documents.ts";

/** A picture with areas for some of the controls of a screen. */
export function randomPicture(random: Random, project: Project, screen: string, file: string): Picture {
  const [width, height] = pick(random, [
    [390, 844],
    [390, 844],
    [1040, 720],
  ] as const);
  const width4 = pick(random, [undefined, undefined, "narrow", "wide"] as const);
  return {
    file,
    size: [width, height],
    ...(width4 === undefined ? {} : { for: width4 }),
    ...(random() < 0.3 ? { dark: true } : {}),
    holds: pick(random, ["screen", "screen", "body"]),
    areas: controlsOf(project, screen)
      .filter(() => random() < 0.7)
      .map(({ control }, i) => ({ at: [10, 10 + 30 * (i % 20), 100, 20], control })),
  };
}

/** The same document with a picture or two on most of its screens. */
export function withPictures(random: Random, project: Project): Project {
  return {
    ...project,
    screens: project.screens.map((screen) => {
      const pictures = ["", "-2"].filter(() => random() < 0.6).map((end) => randomPicture(random, project, screen.id, `${screen.id}${end}.png`));
      return pictures.length > 0 ? { ...screen, pictures } : screen;
    }),
  };
}
