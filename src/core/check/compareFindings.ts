/** What tells a finding from others over the versions of a document: its code and its subjects. */
interface Told {
  code: string;
  subjects: readonly string[];
}

/** Which findings came and which went between two checks of a document. */
export function since<T extends Told>(older: readonly T[], newer: readonly T[]): { came: T[]; went: T[] } {
  return { came: without(newer, older), went: without(older, newer) };
}

function without<T extends Told>(list: readonly T[], others: readonly T[]): T[] {
  const key = ({ code, subjects }: Told) => [code, ...subjects].join(" ");
  const known = new Set(others.map(key));
  return list.filter((finding) => !known.has(key(finding)));
}
