/**
 * How well a name fits what was typed, without regard to case: 0 is the very name, 1 begins with it, 2 has a word that
 * begins with it, 3 has it somewhere; undefined does not fit. Whatever is found by name goes by this order.
 */
export function nameRank(name: string, typed: string): number | undefined {
  const [has, wanted] = [folded(name), folded(typed)];
  const at = has.indexOf(wanted);
  if (at < 0) return undefined;
  if (has === wanted) return 0;
  if (at === 0) return 1;
  return has.split(/[^\p{L}\p{N}]+/u).some((word) => word.startsWith(wanted)) ? 2 : 3;
}

/** Whether two names are the same to whoever types them. */
export function sameName(a: string, b: string): boolean {
  return folded(a) === folded(b);
}

/** Whether a name, or a word in it, begins with what was typed; with nothing typed every name does. */
export function begins(name: string, typed: string): boolean {
  return typed === "" || (nameRank(name, typed) ?? 3) < 3;
}

/** What fits what was typed by any of its names, the best first; what fits equally well stays in its order. */
export function rankedByName<T>(list: readonly T[], typed: string, namesOf: (entry: T) => readonly string[]): T[] {
  if (typed.trim() === "") return [...list];
  return list
    .flatMap((entry) => {
      const ranks = namesOf(entry).flatMap((name, i) => {
        const rank = nameRank(name, typed);
        // A second name never goes before a first one that fits in the same way.
        return rank === undefined ? [] : [rank + (i > 0 ? 3.5 : 0)];
      });
      return ranks.length > 0 ? [{ entry, rank: Math.min(...ranks) }] : [];
    })
    .sort((a, b) => a.rank - b.rank)
    .map(({ entry }) => entry);
}

/** A name as it is compared: the same for names that {@link sameName} holds for the same. */
export function folded(text: string): string {
  return text.trim().normalize("NFC").toLowerCase();
}
