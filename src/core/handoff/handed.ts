import type { Project } from "../model/schema.ts";

/** A file of a hand-off. */
export interface HandedFile {
  name: string;
  text: string;
}

/** What a hand-off needs beside the project: what the checker says, and what was built beforehand. */
export interface Checked {
  findings: ReadonlyArray<{ severity: string; code: string; message: string }>;
  /** What is proved, as a sentence. */
  proof: string;
  /** By rule of the team's how it stands, as a sentence. */
  rules?: Readonly<Record<string, string>>;
  /** The page of a prototype without a project, as it was built. */
  frame: string;
  /** With TypeScript the file for React apps as well. */
  react?: boolean;
  /** The pictures of screens as data addresses, by their files; a screen without one is drawn as a sketch. */
  pictures?: Readonly<Record<string, string>>;
  /** The package of the Kotlin file, or the name of the enum that is the namespace of the Swift file. */
  packageName?: string;
}

/** Something that can be handed off: a name for the command line, words for people, and the files. */
export interface Target {
  id: string;
  name: string;
  says: string;
  /** The same project always gives the same bytes. */
  files: (project: Project, checked: Checked) => HandedFile[];
}
