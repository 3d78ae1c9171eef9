import { elementsOf, lookup, nameOf, ownersAround, treeOf } from "./lookup.ts";
import type { Area, Bar, Element, Picture, Project, Screen, Width } from "./schema.ts";

/** A control of a screen that an area of its picture can stand for. */
export interface Control {
  /** As areas name it: an element's id, "lead", "close", "tab:PLACE" or "pick:PLACE". */
  control: string;
  kind: "element" | "lead" | "close" | "tab" | "pick";
  label: string;
  /** The place that it belongs to: the screen itself or a container around it. */
  on: string;
  element?: Element;
}

/**
 * Every control of a screen, its own first: elements, those of the containers around it, the lead of its bar, the × of the modal, tabs
 * and members of drawers. An id that several have means the first, so an element that is called `close` comes before the ×.
 */
export function controlsOf(project: Project, screenId: string): Control[] {
  const screen = lookup(project).screens.get(screenId);
  if (!screen) return [];
  const around = ownersAround(project, screenId);
  const elements = (on: string): Control[] =>
    elementsOf(project, on)
      .filter(({ except }) => !except?.includes(screenId))
      .map((element) => ({ control: element.id, kind: "element", label: element.label || element.id, on, element }));
  const members = (kind: "tab" | "pick", on: string, ids: readonly string[]): Control[] =>
    ids.map((id) => ({ control: `${kind}:${id}`, kind, label: nameOf(project, id), on }));
  const bar = barAround(project, screenId);
  const all: Control[] = [
    ...elements(screenId),
    ...around.filter(({ kind }) => kind !== "drawer").flatMap(({ id }) => elements(id)),
    ...(bar?.show !== false && bar?.lead !== "none" ? [{ control: "lead", kind: "lead" as const, label: "Back, Up or the menu", on: screenId }] : []),
    ...around.flatMap((c): Control[] =>
      c.kind === "modal" && c.closeOn.includes("button") ? [{ control: "close", kind: "close", label: `Close ${c.name}`, on: c.id }] : [],
    ),
    ...around.flatMap((c) => (c.kind === "tabs" && !screen.coversTabs ? members("tab", c.id, c.members) : [])),
    ...around.flatMap((c) => (c.kind === "drawer" ? members("pick", c.id, c.members) : [])),
  ];
  const known = new Set<string>();
  return all.filter(({ control }) => !known.has(control) && known.add(control));
}

/** The control of a screen that areas call by a name. */
export function controlNamed(project: Project, screenId: string, control: string): Control | undefined {
  return controlsOf(project, screenId).find((one) => one.control === control);
}

/** The bar as the document has it: the screen's own, else that of the innermost container with one. */
function barAround(project: Project, screenId: string): Bar | undefined {
  return lookup(project).screens.get(screenId)?.bar ?? ownersAround(project, screenId).find(({ bar }) => bar)?.bar;
}

/**
 * The picture of a screen that is shown: of those for the class of widths, else of those for any, else of the others; and of these the
 * one for the dark or the light, where there is one.
 */
export function pictureFor(screen: Screen, { width, dark }: { width: Width; dark: boolean }): Picture | undefined {
  const all = screen.pictures ?? [];
  const fitting = [all.filter((p) => p.for === width), all.filter((p) => p.for === undefined), all].find((list) => list.length > 0) ?? [];
  return fitting.find((p) => (p.dark ?? false) === dark) ?? fitting[0];
}

/** What is wrong with an area, as the end of a sentence; undefined where nothing is. */
export function areaProblem(project: Project, screenId: string, picture: Picture, area: Area): string | undefined {
  if (!controlNamed(project, screenId, area.control)) return `stands for "${area.control}", which is not on the screen`;
  const [x, y, width, height] = area.at;
  if (x < 0 || y < 0 || x + width > picture.size[0] || y + height > picture.size[1])
    return `lies outside the picture, which is ${picture.size[0]} × ${picture.size[1]}`;
  return undefined;
}

/** A screen with other areas; those for which nothing is given go. The same object where nothing changes. */
export function withAreas(screen: Screen, change: (area: Area, picture: Picture) => Area | undefined): Screen {
  let changed = false;
  const pictures = screen.pictures?.map((picture) => {
    const areas = picture.areas.flatMap((area) => {
      const next = change(area, picture);
      if (next !== area) changed = true;
      return next ? [next] : [];
    });
    return { ...picture, areas };
  });
  return changed && pictures ? { ...screen, pictures } : screen;
}

/** The screens without the areas of an element of a place. */
export function withoutControls(project: Project, place: string, element: string): Screen[] {
  return project.screens.map((screen) =>
    withAreas(screen, (area) => (area.control === element && controlNamed(project, screen.id, element)?.on === place ? undefined : area)),
  );
}

/** Whether a control is one thing on several screens: what a container has, and what every bar and modal has. */
export function isShared({ kind, on }: Control, screenId: string): boolean {
  return kind !== "element" || on !== screenId;
}

/** A picture with the screen that it is of. */
export interface PictureOn {
  screen: string;
  picture: Picture;
}

/** The pictures that look alike as far as areas go: of one size and holding the same, of the screens in a container; of one screen alone without. */
export function alikePictures(project: Project, screenId: string, picture: Picture, within?: string): PictureOn[] {
  const inside = new Set(within === undefined ? [] : treeOf(project, within));
  return project.screens
    .filter(({ id }) => id === screenId || inside.has(id))
    .flatMap(({ id, pictures = [] }) => pictures.map((one) => ({ screen: id, picture: one })))
    .filter(({ picture: one }) => one.holds === picture.holds && one.size[0] === picture.size[0] && one.size[1] === picture.size[1]);
}

/** The containers around a screen in which other screens have a picture like one of its own, innermost first; with how many screens it is in all. */
export function alikeWithin(project: Project, screenId: string, picture: Picture): Array<{ container: string; screens: number }> {
  return ownersAround(project, screenId).flatMap(({ id }) => {
    const screens = new Set(alikePictures(project, screenId, picture, id).map(({ screen }) => screen)).size;
    return screens > 1 ? [{ container: id, screens }] : [];
  });
}

/** All files that the pictures of a document are in, each once. */
export function pictureFiles(project: Project): string[] {
  return [...new Set(project.screens.flatMap((s) => (s.pictures ?? []).map(({ file }) => file)))];
}

/** What is known of the file of a picture: its size in pixels; none where it is of no kind that is known. */
export interface PictureFile {
  readonly size?: readonly [width: number, height: number];
}
/** Files by their paths below the folder of the pictures; those that are not there are left out. */
export type PictureFiles = Readonly<Record<string, PictureFile>>;
