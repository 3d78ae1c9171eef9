import * as z from "zod";
import { nameOf } from "../lookup.ts";
import { alikePictures, areaProblem, controlNamed, isShared, withAreas } from "../pictures.ts";
import { type Area, PARTS, type Picture, type Project, type Screen } from "../schema.ts";
import { changed, type Edit, editKind, quoted } from "./edit.ts";

/** A picture by its screen and file. */
export interface PictureNamed {
  screen: string;
  file: string;
}
/** The pictures that an area is on. */
const On = z.array(z.strictObject({ screen: z.string(), file: z.string() }));

export const putsPicture = editKind(
  "putPicture",
  z.strictObject({ screen: z.string(), picture: PARTS.Picture, instead: z.string().optional() }),
  (p, args) => ({
    ...p,
    screens: changed(p.screens, args.screen, (screen) => ({ ...screen, pictures: put(screen.pictures ?? [], args.picture, args.instead) })),
  }),
);
function put(pictures: readonly Picture[], picture: Picture, instead: string | undefined): Picture[] {
  const known = pictures.some(({ file }) => file === instead);
  return known ? pictures.map((one) => (one.file === instead ? picture : one)) : [...pictures, picture];
}
/** Gives a screen a picture, in the place of the one in the file `instead`, where there is such a one. */
export function putPicture(project: Project, screen: string, picture: Picture, instead?: string): Edit {
  const word = instead === undefined ? "Add a picture of" : instead === picture.file ? "Change the picture of" : "Replace the picture of";
  return putsPicture.make(`${word} ${quoted(nameOf(project, screen))}`, { screen, picture, ...(instead === undefined ? {} : { instead }) });
}

export const removesPicture = editKind(
  "removePicture",
  z.strictObject({ screen: z.string(), file: z.string() }),
  (p, { screen, file }) => ({
    ...p,
    screens: changed(p.screens, screen, (s) => {
      const { pictures = [], ...rest } = s;
      const left = pictures.filter((picture) => picture.file !== file);
      return left.length > 0 ? { ...s, pictures: left } : rest;
    }),
  }),
  true,
);
export function removePicture(project: Project, screen: string, file: string): Edit {
  return removesPicture.make(`Delete the picture ${quoted(file)} of ${quoted(nameOf(project, screen))}`, { screen, file });
}

/**
 * The picture of a screen in another version: its file and size. Areas stay where they are, made larger or smaller with the picture
 * where its shape is the same; those that then lie outside are told by the checker.
 */
export function newVersion(picture: Picture, file: string, size: readonly [number, number]): Picture {
  const scale = size[0] / picture.size[0];
  const scaled = (area: Area): Area => ({ ...area, at: area.at.map((n) => Math.round(n * scale * 100) / 100) as Area["at"] });
  return { ...picture, file, size: [...size], areas: scale === 1 ? picture.areas : picture.areas.map(scaled) };
}

/** The areas of a screen's picture that stand for nothing, or lie outside it. */
export function lostAreas(project: Project, screen: string, picture: Picture): Area[] {
  return picture.areas.filter((area) => areaProblem(project, screen, picture, area) !== undefined);
}

export const putsArea = editKind("putArea", z.strictObject({ on: On, area: PARTS.Area, was: PARTS.Area.optional() }), (p, { on, area, was }) =>
  onPictures(p, on, (areas) => {
    if (!was) return [...areas, area];
    // Where it is no longer, somebody else has moved it meanwhile: it does not come back beside itself.
    const at = areas.findIndex((one) => isSame(one, was));
    return areas.map((one, i) => (i === at ? area : one));
  }),
);
export const removesArea = editKind("removeArea", z.strictObject({ on: On, area: PARTS.Area }), (p, { on, area }) =>
  onPictures(p, on, (areas) => areas.filter((one) => !isSame(one, area))),
);

/**
 * Adds an area to a picture and to the screen's others of the same size, such as the dark one. With a container, to all pictures in it that
 * are like it and whose screens have the same control, once each.
 */
export function addArea(project: Project, screen: string, picture: Picture, area: Area, within?: string): Edit {
  const control = controlNamed(project, screen, area.control);
  const others = alikePictures(project, screen, picture, within).filter((one) => {
    if (one.picture.file === picture.file) return false;
    if (one.screen === screen) return !one.picture.areas.some((known) => isSame(known, area));
    const there = controlNamed(project, one.screen, area.control);
    return there !== undefined && there.kind === control?.kind && !one.picture.areas.some((known) => known.control === area.control);
  });
  const on = [{ screen, file: picture.file }, ...others.map((one) => ({ screen: one.screen, file: one.picture.file }))];
  return putsArea.make(`Add an area for ${quoted(control?.label ?? area.control)}${on.length > 1 ? ` to ${on.length} pictures` : ""}`, { on, area });
}

/**
 * The pictures on which an area is kept together: those of the screen's own of that size that have it at the same place, and where its
 * control is shared those of other screens.
 */
export function keptTogether(project: Project, screen: string, picture: Picture, area: Area): PictureNamed[] {
  const control = controlNamed(project, screen, area.control);
  const shared = control !== undefined && isShared(control, screen);
  const same = (other: string) => {
    const there = controlNamed(project, other, area.control);
    return there !== undefined && there.kind === control?.kind && (there.kind !== "element" || there.on === control.on);
  };
  const others = project.screens
    .filter(({ id }) => id === screen || (shared && same(id)))
    .flatMap(({ id }) => alikePictures(project, id, picture))
    .filter((one) => one.picture.file !== picture.file && one.picture.areas.some((a) => isSame(a, area)));
  return [{ screen, file: picture.file }, ...others.map((one) => ({ screen: one.screen, file: one.picture.file }))];
}

/** Moves an area, makes it larger or smaller, or has it stand for something else; together with the same on other pictures unless `alone`. */
export function changeArea(project: Project, screen: string, picture: Picture, was: Area, area: Area, alone = false): Edit {
  const on = alone ? [{ screen, file: picture.file }] : keptTogether(project, screen, picture, was);
  const label = controlNamed(project, screen, area.control)?.label ?? area.control;
  return putsArea.make(`${area.control === was.control ? "Move" : "Change"} the area for ${quoted(label)}`, { on, area, was });
}

export function removeArea(project: Project, screen: string, picture: Picture, area: Area, alone = false): Edit {
  const on = alone ? [{ screen, file: picture.file }] : keptTogether(project, screen, picture, area);
  const label = controlNamed(project, screen, area.control)?.label ?? area.control;
  return removesArea.make(`Delete the area for ${quoted(label)}`, { on, area });
}

export const removesAreas = editKind("removeAreas", z.strictObject({ screen: z.string(), control: z.string() }), (p, { screen, control }) => ({
  ...p,
  screens: changed(p.screens, screen, (s) =>
    withAreas(s, (area, picture) => (area.control === control && areaProblem(p, screen, picture, area) !== undefined ? undefined : area)),
  ),
}));
/** Deletes the areas of a screen that are lost and stand for a control. */
export function removeAreas(project: Project, screen: string, control: string): Edit {
  return removesAreas.make(`Delete the area for ${quoted(control)} on ${quoted(nameOf(project, screen))}`, { screen, control });
}

function isSame(a: Area, b: Area): boolean {
  return a.control === b.control && a.at.every((n, i) => n === b.at[i]);
}

function onPictures(project: Project, on: readonly PictureNamed[], change: (areas: Area[]) => Area[]): Project {
  const files = new Map<string, Set<string>>();
  for (const { screen, file } of on) files.set(screen, (files.get(screen) ?? new Set()).add(file));
  const inside = (screen: Screen) => {
    const wanted = files.get(screen.id);
    return wanted && screen.pictures
      ? { ...screen, pictures: screen.pictures.map((p) => (wanted.has(p.file) ? { ...p, areas: change(p.areas) } : p)) }
      : screen;
  };
  return { ...project, screens: project.screens.map(inside) };
}
