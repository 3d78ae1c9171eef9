import type { Project, Rule, What } from "../../src/core/model/schema.ts";
import { pick, seeded } from "./documents.ts";

/** Some rules for a project, of all four kinds, about anything that is in it; the condition of an "only" asks facts and width. */
export function randomRules(project: Project, seed: number, count = 4): Rule[] {
  const random = seeded(seed * 7 + 3);
  const screens = project.screens.map(({ id }) => id);
  const containers = project.containers.map(({ id }) => id);
  const some = (list: readonly string[], most: number): string[] => [
    ...new Set(Array.from({ length: 1 + Math.floor(random() * most) }, () => pick(random, list))),
  ];
  const places = (most = 2) => some(random() < 0.8 || containers.length === 0 ? screens : [...screens, ...containers], most);
  const what = (): What => {
    const kind = random();
    if (kind < 0.25 && project.legs.length > 0) {
      const legs = some(
        project.legs.map(({ id }) => id),
        2,
      );
      return random() < 0.2 ? { places: places(1), legs } : { legs };
    }
    if (kind < 0.32 && project.entrances.length > 0)
      return {
        entrances: some(
          project.entrances.map(({ id }) => id),
          2,
        ),
      };
    return { places: places() };
  };
  const conditions = project.facts.flatMap(({ id, type, values }) =>
    type === "boolean" ? [`fact.${id}`, `!fact.${id}`] : [`fact.${id} == "${values?.[0]}"`, `fact.${id} != "${values?.[0]}"`],
  );
  const maybe = <T>(share: number, make: () => T): T | undefined => (random() < share ? make() : undefined);
  return Array.from({ length: count }, (_, i): Rule => {
    const common = { id: `r${i}`, name: `R${i}` };
    switch (i % 4) {
      case 0: {
        const see = what();
        const after = maybe(0.8, what);
        const until = maybe(0.4, what);
        return { ...common, kind: "never", see, ...(after ? { after } : {}), ...(until ? { until } : {}) };
      }
      case 1:
        return { ...common, kind: "first", needs: what(), before: what() };
      case 2: {
        const one = conditions.length > 0 && random() < 0.85 ? pick(random, conditions) : 'width != "wide"';
        const both = conditions.length > 1 && random() < 0.3 ? `${one} && ${pick(random, conditions)}` : one;
        return { ...common, kind: "only", while: both, see: some([...screens, ...containers], screens.length) };
      }
      default: {
        const from = maybe(0.5, () => places());
        return { ...common, kind: "within", taps: 1 + Math.floor(random() * 3), to: places(), ...(from ? { from } : {}) };
      }
    }
  });
}
