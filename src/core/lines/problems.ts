import type { At, LineProblem, Option } from "./ast.ts";
import { unquoted } from "./scan.ts";

/** What is wrong with some lines, as it is found. */
export class Problems {
  readonly list: LineProblem[] = [];

  wrong({ line, column }: At, message: string) {
    this.list.push({ line, column, message });
  }

  /** A thing with what one option says of it; an option that is not known, or says nothing of such a thing, is wrong. */
  worded<T>(
    option: Option,
    of: T,
    flags: ReadonlyArray<{ word: string; has: (of: T) => boolean; set: (of: T) => T }>,
    said: ReadonlyArray<{ word: string; expects?: string; set: (of: T, value: string) => T | undefined }>,
    expected: string,
    what = "this",
  ): T {
    // Tabs and drawers share some words; each sets what it is about.
    const known = flags.filter(({ word }) => word === option.text);
    if (known.length > 0) {
      const done = known.reduce((now, { set }) => set(now), of);
      if (!known.some(({ has }) => has(done))) this.wrong(option, `“${option.text}” says nothing of ${what}`);
      return done;
    }
    const saying = said.find(({ word }) => option.text.startsWith(`${word} `));
    const done = saying?.set(of, unquoted(option.text.slice(saying.word.length + 1).trim()));
    if (done !== undefined) return done;
    this.wrong(option, `found “${option.text}”, expected ${saying?.expects ?? expected}`);
    return of;
  }
}
