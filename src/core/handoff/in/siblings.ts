import { singular } from "../../text/singular.ts";

/** Siblings from which on they are taken for pages of one kind. */
const ENOUGH = 3;
/** Stands for a part that differs, until all are found and named. */
const DIFFERS = "{}";

/** An address as it is so far, one that it came from, and how many it stands for. */
interface Path {
  segments: readonly string[];
  example: readonly string[];
  count: number;
}

/**
 * Addresses of which those that differ in one part became one with a variable, as `/shoes/{shoe}` of `/shoes/red`, `/shoes/blue` and
 * `/shoes/green`: where there are three or more of them below the same words. What stands at the top are pages of different kinds, and
 * stays; so do words that come again below others, such as the pages of every shop. Gives a value of each variable, and what became of
 * which addresses in words.
 */
export function withVariables(all: ReadonlyArray<readonly string[]>): { paths: string[][]; examples: Map<string, string>; says: string[] } {
  let paths: Path[] = all.map((segments) => ({ segments, example: segments, count: 1 }));
  for (let groups = groupsOf(paths); groups.length > 0; groups = groupsOf(paths)) {
    const gone = new Set<Path>();
    const made: Path[] = [];
    for (const { group, at } of groups) {
      const left = group.filter((path) => !gone.has(path));
      const [one] = left;
      if (!one || left.length < ENOUGH) continue;
      for (const path of left) gone.add(path);
      const segments = one.segments.map((segment, i) => (i === at ? DIFFERS : segment));
      made.push({ segments, example: one.example, count: left.reduce((sum, { count }) => sum + count, 0) });
    }
    if (made.length === 0) break;
    paths = [...paths.filter((path) => !gone.has(path)), ...made];
  }
  const examples = new Map<string, string>();
  const named = paths.map((path) => ({ ...path, segments: withNames(path, examples) }));
  const says = named.flatMap(({ segments, example, count }) =>
    count > 1 ? [`${count} addresses such as /${example.join("/")}, each by itself: they became one screen, /${segments.join("/")}`] : [],
  );
  return { paths: named.map(({ segments }) => segments), examples, says };
}

interface Group {
  group: Path[];
  at: number;
}

/** Addresses that differ in one part alone, which is not their first; the largest group first. */
function groupsOf(paths: readonly Path[]): Group[] {
  const groups = new Map<string, Group>();
  const others = ({ segments }: Path, at: number) => segments.map((segment, i) => (i === at ? "\0" : segment)).join("/");
  for (const path of paths)
    for (let at = 1; at < path.segments.length; at++) {
      if (path.segments[at]?.startsWith("{")) continue;
      const known = groups.get(others(path, at));
      if (known) known.group.push(path);
      else groups.set(others(path, at), { group: [path], at });
    }
  // In how many groups a word stands in that part of addresses of that length.
  const uses = new Map<string, number>();
  const use = ({ segments }: Path, at: number) => `${segments.length} ${at} ${segments[at]}`;
  for (const { group, at } of groups.values()) for (const path of group) uses.set(use(path, at), (uses.get(use(path, at)) ?? 0) + 1);
  const fits = ({ group, at }: Group) => {
    if (group.length < ENOUGH) return false;
    const words = group.filter((path) => !/\d/.test(path.segments[at] ?? ""));
    if (words.length <= group.length / 2) return true;
    // Below each of several, words are names of pages; where they come again below others, only the first part that differs is a value.
    if (group[0]?.segments[at - 1] === DIFFERS) return false;
    const again = words.filter((path) => (uses.get(use(path, at)) ?? 0) > 1).length > group.length / 2;
    const earlier = (path: Path) => path.segments.some((_, before) => before > 0 && before < at && (groups.get(others(path, before))?.group.length ?? 0) > 1);
    return !again || !group.some(earlier);
  };
  return [...groups.values()].filter(fits).sort((a, b) => b.group.length - a.group.length || b.at - a.at);
}

/** The segments with names for the parts that differ, each called for the word before it, as people would: of `/shoes/…` a `shoe`. */
function withNames({ segments, example }: Path, examples: Map<string, string>): string[] {
  const taken = new Set(segments.flatMap((segment) => /^\{\+?(\w+)\}$/.exec(segment)?.[1] ?? []));
  return segments.map((segment, at) => {
    if (segment !== DIFFERS) return segment;
    const word = segments.slice(0, at).findLast((one) => !one.startsWith("{")) ?? "";
    const usual = variableFor(word);
    let name = usual;
    for (let i = 2; taken.has(name); i++) name = `${usual}${i}`;
    taken.add(name);
    if (!examples.has(name)) examples.set(name, example[at] ?? "");
    return `{${name}}`;
  });
}

function variableFor(word: string): string {
  const parts = singular(word)
    .split(/[^A-Za-z0-9]+/)
    .filter((part) => part !== "");
  const name = parts.map((part, i) => (i === 0 ? part.toLowerCase() : part.charAt(0).toUpperCase() + part.slice(1).toLowerCase())).join("");
  return /^[a-z]/.test(name) ? name.slice(0, 40) : "part";
}
