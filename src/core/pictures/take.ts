import { freshPlaceId } from "../model/edits/add.ts";
import { changeScreen } from "../model/edits/change.ts";
import { type Edit, quoted } from "../model/edits/edit.ts";
import { applyEdit } from "../model/edits/kinds.ts";
import { addScreenBeside } from "../model/edits/link.ts";
import { lostAreas, newVersion, putPicture } from "../model/edits/pictures.ts";
import { renameId } from "../model/edits/rename.ts";
import { difference } from "../model/edits/revise.ts";
import { lookup, nameOf } from "../model/lookup.ts";
import { pictureFiles } from "../model/pictures.ts";
import type { Picture, Project } from "../model/schema.ts";
import { ENDINGS, type PictureKind } from "./header.ts";
import { freshPictureFile, plainName, screenNamed } from "./naming.ts";

/** A picture that comes in: what its file was called, and what it is. */
export interface Incoming {
  name: string;
  kind: PictureKind;
  size: [width: number, height: number];
}

/** What comes of pictures that come in: one edit, the file that each is kept in, the screens, and what has to be said. */
export interface Taken {
  edit: Edit;
  /** In the order of what came in. */
  files: string[];
  /** Screens that were made. */
  made: string[];
  /** Screens that have a new picture now. */
  given: string[];
  says: string[];
}

/** Where pictures are put: onto a screen, and there in the place of the picture in a file. */
export interface Where {
  onto?: string | undefined;
  instead?: string | undefined;
}

/**
 * Pictures for a project: each for the screen that it is put onto or named for, as a new version where that has one for the same
 * width and theme, else for a new screen of its name, beside `beside`. A single picture put onto a screen can be a new version `instead` of
 * one that the screen has. `taken` are the files that are kept already, for whichever version.
 */
export function takePictures(
  project: Project,
  pictures: readonly Incoming[],
  { onto, instead, beside, taken = [] }: Where & { beside?: string | undefined; taken?: Iterable<string> } = {},
): Taken {
  const known = new Set([...taken, ...pictureFiles(project)]);
  const out: Omit<Taken, "edit"> = { files: [], made: [], given: [], says: [] };
  let now = project;
  const apply = (edit: Edit) => {
    now = applyEdit(now, edit);
  };
  // The files come back in the order in which they were given.
  const files = new Map<Incoming, string>();
  for (const incoming of isBare(project) ? startFirst(pictures) : pictures) {
    const { name, kind, size } = incoming;
    const named = screenNamed(now, name);
    let screen = onto === undefined || pictures.length > 1 ? named.screen : lookup(now).screens.get(onto);
    if (!screen && isBare(now)) {
      // The first picture of an empty project is its first screen.
      const [home] = now.screens;
      const id = freshPlaceId({ ...now, screens: [] }, named.name);
      if (home) apply(changeScreen(now, home.id, { name: named.name }));
      if (home && id !== home.id) apply(renameId({ kind: "place", id: home.id }, id));
      screen = now.screens[0];
    }
    if (!screen) {
      const { edit, screenId } = addScreenBeside(now, beside ?? now.root, named.name);
      apply(edit);
      out.made.push(screenId);
      screen = lookup(now).screens.get(screenId);
    } else if (!out.given.includes(screen.id)) out.given.push(screen.id);
    if (!screen) continue;
    const asked = onto !== undefined && pictures.length === 1 ? screen.pictures?.find((p) => p.file === instead) : undefined;
    const kept = asked ?? keyOf(screen.pictures ?? [], named, size);
    const file = freshPictureFile(known, screen, kept, ENDINGS[kind]);
    known.add(file);
    files.set(incoming, file);
    const old = asked ?? screen.pictures?.find((p) => p.for === kept.for && (p.dark ?? false) === (kept.dark ?? false));
    const picture: Picture = old
      ? newVersion(old, file, size)
      : {
          file,
          size: [...size],
          ...(kept.for === undefined ? {} : { for: kept.for }),
          ...(kept.dark ? { dark: true } : {}),
          ...likeOf(screen.pictures ?? [], size),
        };
    if (old) {
      const lost = lostAreas(now, screen.id, picture).length - lostAreas(now, screen.id, old).length;
      if (lost > 0)
        out.says.push(
          `${lost === 1 ? "One area" : `${lost} areas`} of ${quoted(nameOf(now, screen.id))} no longer ${lost === 1 ? "fits" : "fit"} its new picture.`,
        );
    }
    apply(putPicture(now, screen.id, picture, old?.file));
  }
  out.files = pictures.flatMap((one) => files.get(one) ?? []);
  return { edit: difference(project, now, nameFor(now, out)), ...out };
}

function nameFor(project: Project, { files, made, given }: Omit<Taken, "edit">): string {
  if (files.length === 1) return `${made.length > 0 ? "Add screen" : "Set the picture of"} ${quoted(nameOf(project, made[0] ?? given[0] ?? ""))}`;
  return made.length === files.length ? `Add ${files.length} screens from pictures` : `Take in ${files.length} pictures`;
}

/** A project in which nothing was done yet: one screen without anything. */
function isBare({ screens, containers, legs }: Project): boolean {
  const [only] = screens;
  return screens.length === 1 && containers.length === 0 && legs.length === 0 && only?.name === "Home" && only.elements.length === 0 && !only.pictures;
}

/** What another picture of the same shape, such as the light one, hands on: its areas, and what it holds. */
function likeOf(pictures: readonly Picture[], size: readonly [number, number]): Pick<Picture, "holds" | "areas"> {
  const like = pictures.find((p) => Math.abs(p.size[0] * size[1] - p.size[1] * size[0]) <= Math.max(p.size[0], size[0]));
  return { holds: (like ?? pictures[0])?.holds ?? "screen", areas: like ? newVersion(like, like.file, size).areas : [] };
}

/** What the screen is called that an app begins with, the likeliest first. */
const STARTS: readonly RegExp[] = [/^(launch|splash)/i, /^(welcome|start|onboarding|intro)/i, /^(sign ?in|log ?in)$/i, /^(home|index|main)$/i];

/** Pictures that are not numbered come by name: the one that is called like a beginning goes first, and with it those of the same screen. */
function startFirst(pictures: readonly Incoming[]): readonly Incoming[] {
  if (pictures.every(({ name }) => /^\d/.test(name))) return pictures;
  for (const start of STARTS) {
    const first = pictures.find(({ name }) => start.test(plainName(name)));
    if (first) return [first, ...pictures.filter((one) => one !== first)];
  }
  return pictures;
}

type Shape = NonNullable<Picture["for"]>;

/** Which of a screen's pictures it is: by its name, else by its shape where there is one of another shape. */
function keyOf(pictures: readonly Picture[], named: Pick<Picture, "for" | "dark">, size: readonly [number, number]): Pick<Picture, "for" | "dark"> {
  const dark = named.dark ? { dark: true } : {};
  if (named.for) return { for: named.for, ...dark };
  const shape = shapeOf(size);
  const alike = pictures.find((p) => p.for === shape) ?? pictures.find((p) => p.for === undefined && shapeOf(p.size) === shape);
  if (alike || pictures.length === 0) return { ...(alike?.for === undefined ? {} : { for: alike.for }), ...dark };
  return { for: shape, ...dark };
}

/** The class of widths that a picture has the shape of. */
export function shapeOf([width, height]: readonly [number, number]): Shape {
  const ratio = width / height;
  return ratio < 0.7 ? "narrow" : ratio < 1.2 ? "middle" : "wide";
}
