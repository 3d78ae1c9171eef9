import { lookup } from "../model/lookup.ts";
import type { Picture, Project, Screen } from "../model/schema.ts";

/**
 * A file name for a picture, from what it shows: `home.png`, `home-dark.png`; with a number where it is taken, so that what an earlier
 * version of the document shows stays.
 */
export function freshPictureFile(
  taken: { has(file: string): boolean },
  screen: Pick<Screen, "id">,
  picture: Pick<Picture, "for" | "dark">,
  kind: string,
): string {
  const base = [screen.id, ...(picture.for === undefined ? [] : [picture.for]), ...(picture.dark ? ["dark"] : [])].join("-");
  return freshFile(taken, `${base}.${kind}`);
}

/** A file of a name, with a number where it is taken. */
export function freshFile(taken: { has(file: string): boolean }, file: string): string {
  if (!taken.has(file)) return file;
  const end = file.lastIndexOf(".");
  const [base, ending] = end > 0 ? [file.slice(0, end), file.slice(end)] : [file, ""];
  for (let n = 2; ; n++) if (!taken.has(`${base}-${n}${ending}`)) return `${base}-${n}${ending}`;
}

/** A file's name without its folder, ending, density and number: `01 Start@2x.png` is `Start`. */
export function plainName(file: string): string {
  const whole = (file.split(/[/\\]/).at(-1) ?? file).replace(/\.[A-Za-z0-9]+$/, "").replace(/@\d+(\.\d+)?x$/i, "");
  // Pictures are often numbered, so that they lie in order.
  return whole.replace(/^\d{1,3}[\s._-]+(?=\S)/, "");
}

/** The screen that a picture's file is named for, by name or id; what the name says of width and dark is told apart. */
export function screenNamed(project: Project, file: string): { name: string; screen: Screen | undefined; for?: Picture["for"]; dark?: true } {
  const bare = plainName(file);
  const exact = project.screens.find((s) => plain(s.name) === plain(bare) || plain(s.id) === plain(bare));
  if (exact) return { name: bare, screen: exact };
  let rest = bare;
  let width: Picture["for"];
  let dark = false;
  for (let found = true; found; ) {
    const [ending, word] = /[\s_.-]+(dark|night|light|narrow|phone|mobile|middle|tablet|wide|desktop|web)$/i.exec(rest) ?? [];
    found = ending !== undefined && rest.length > ending.length;
    if (!found || ending === undefined || word === undefined) break;
    const says = word.toLowerCase();
    if (says === "dark" || says === "night") dark = true;
    else if (says !== "light") width = WIDTH_WORDS[says];
    rest = rest.slice(0, -ending.length);
  }
  const name = rest.replace(/[_-]+/g, " ").trim() || bare;
  const screen = [...lookup(project).screens.values()].find((s) => plain(s.name) === plain(name) || plain(s.id) === plain(name));
  return { name: name.charAt(0).toUpperCase() + name.slice(1), screen, ...(width === undefined ? {} : { for: width }), ...(dark ? { dark: true } : {}) };
}

const WIDTH_WORDS: Record<string, NonNullable<Picture["for"]>> = {
  narrow: "narrow",
  phone: "narrow",
  mobile: "narrow",
  middle: "middle",
  tablet: "middle",
  wide: "wide",
  desktop: "wide",
  web: "wide",
};

/** Names without what files and people write differently, kept: a project's names are asked again for each of many pictures. */
const PLAIN = new Map<string, string>();
/** Names that are kept at most. */
const MOST_PLAIN = 5_000;

function plain(name: string): string {
  const known = PLAIN.get(name);
  if (known !== undefined) return known;
  if (PLAIN.size >= MOST_PLAIN) PLAIN.clear();
  const made = name
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "");
  PLAIN.set(name, made);
  return made;
}
