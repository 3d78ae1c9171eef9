import { layoutMap } from "../src/core/map/layout.ts";
import { DRAWINGS } from "../src/core/map/types.ts";
import { builtApp } from "./apps.ts";
import { bigProject } from "./big.ts";

const ROOM = { width: 1280, height: 672 };

/** Measures how long each drawing of the map takes to lay out: the median of some, each of a project of its own. */
export function mapBench() {
  for (const count of [34, 300, 1000])
    for (const [kind, make] of [
      ["built", (seed: number) => builtApp(count, seed)],
      ["few grounds", () => bigProject(count)],
    ] as const) {
      const costs = DRAWINGS.map((drawing) => {
        const times = Array.from({ length: 9 }, (_, i) => {
          const project = make(i + 1);
          const began = performance.now();
          layoutMap(project, drawing, ROOM);
          return performance.now() - began;
        }).sort((a, b) => a - b);
        return `${drawing} ${(times[4] ?? 0).toFixed(1)} ms`;
      });
      process.stdout.write(`layout, ${count} screens, ${kind}: ${costs.join(", ")}\n`);
    }
}
