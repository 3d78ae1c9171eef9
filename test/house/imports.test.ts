import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { circles, type Import, importsOf, wrongWay } from "./imports.ts";

const files = readdirSync("src", { recursive: true, encoding: "utf8" })
  .filter((file) => /\.tsx?$/.test(file))
  .map((file) => join("src", file));

describe("imports point one way", () => {
  const all = files.flatMap((file) => importsOf(file, readFileSync(file, "utf8")));

  it("in every file of the source", () => {
    expect(all.length).toBeGreaterThan(1000);
    expect(all.flatMap((one) => wrongWay(one) ?? [])).toEqual([]);
  });

  it("and nowhere in a circle, of types either", () => {
    expect(circles(all)).toEqual([]);
    expect(circles([...all, { file: "src/core/model/once.ts", target: "src/core/model/lookup.ts" }])).not.toEqual([]);
  });

  it("and every part has files", () => {
    for (const part of [
      "core/model",
      "core/plan",
      "core/plan/lower",
      "core/semantics",
      "core/insight",
      "core/check",
      "core/map",
      "core/compare",
      "core/lines",
      "core/handoff",
      "app",
      "server",
      "cli",
    ])
      expect(
        files.some((file) => file.startsWith(`src/${part}/`)),
        part,
      ).toBe(true);
  });

  const FORBIDDEN: ReadonlyArray<[file: string, source: string]> = [
    ["src/core/model/edits/deep/a.ts", 'import { step } from "../../../semantics/step.ts";'],
    ["src/core/model/a.ts", 'import { planOf } from "../plan/planOf.ts";'],
    ["src/core/plan/a.ts", 'import { step } from "../semantics/step.ts";'],
    ["src/core/plan/plan.ts", 'import { ProjectSchema } from "zod";'],
    ["src/core/plan/lower/a.ts", 'import { parse } from "@marcbachmann/cel-js";'],
    ["src/core/semantics/a.ts", 'import { lookup } from "../model/lookup.ts";'],
    ["src/core/semantics/a.ts", 'import type { Project } from "../model/schema.ts";'],
    ["src/core/semantics/a.ts", 'import { planOf } from "../plan/planOf.ts";'],
    ["src/core/semantics/a.ts", 'import { programOf } from "../plan/lower/moves.ts";'],
    ["src/core/semantics/a.ts", 'import { z } from "zod";'],
    ["src/core/semantics/a.ts", 'import { available } from "../insight/available.ts";'],
    ["src/core/insight/a.ts", 'import { check } from "../check/check.ts";'],
    ["src/core/map/a.ts", 'import { step } from "../semantics/step.ts";'],
    ["src/core/model/a.ts", 'import type { Finding } from "../check/finding.ts";'],
    ["src/core/model/a.ts", 'export { layoutMap } from "../map/layout.ts";'],
    ["src/core/model/a.ts", 'import { dot } from "../handoff/diagrams/dot.ts";'],
    ["src/core/model/a.ts", 'import { compareProjects } from "../compare/compare.ts";'],
    ["src/core/insight/a.ts", 'import { check } from "../check/check.ts";'],
    ["src/core/insight/a.ts", 'import { layoutMap } from "../map/layout.ts";'],
    ["src/core/insight/a.ts", 'import { dot } from "../handoff/diagrams/dot.ts";'],
    ["src/core/check/document/a.ts", 'import { layoutMap } from "../../map/layout.ts";'],
    ["src/core/check/a.ts", 'import { dot } from "../handoff/diagrams/dot.ts";'],
    ["src/core/check/a.ts", 'import { compareProjects } from "../compare/compare.ts";'],
    ["src/core/map/a.ts", 'import { check } from "../check/check.ts";'],
    ["src/core/map/a.ts", 'import { dot } from "../handoff/diagrams/dot.ts";'],
    ["src/core/handoff/in/a.ts", 'import { check } from "../../check/check.ts";'],
    ["src/core/compare/a.ts", 'import { step } from "../semantics/step.ts";'],
    ["src/core/handoff/typescript/runtime/a.ts", 'import { useDocument } from "../../../../app/session/document.ts";'],
    ["src/core/model/a.ts", 'const later = () => import("../../app/session/storage/db.ts");'],
    ["src/core/insight/a.ts", 'import { start } from "../../server/main.ts";'],
    ["src/core/check/a.ts", 'import { main } from "../../cli/main.ts";'],
    ["src/core/map/a.ts", 'import { useMemo } from "react";'],
    ["src/core/handoff/a.ts", 'import { readFileSync } from "node:fs";'],
    ["src/core/insight/a.ts", 'import { liveQuery } from "dexie";'],
    ["src/app/features/map/a.tsx", 'import { start } from "../../../server/main.ts";'],
    ["src/app/features/map/a.tsx", 'import { main } from "../../../cli/main.ts";'],
    ["src/app/features/map/a.tsx", 'import { rename } from "../outline/rename.ts";'],
    ["src/app/features/map/a.tsx", 'import { Workspace } from "../../shell/Workspace.tsx";'],
    ["src/app/parts/a.tsx", 'import { MapView } from "../features/map/MapView.tsx";'],
    ["src/app/session/a.ts", 'import { MapView } from "../features/map/MapView.tsx";'],
    ["src/app/session/a.ts", 'import { Picture } from "../parts/Picture.tsx";'],
    ["src/app/ui/a.tsx", 'import { useDocument } from "../session/hooks.ts";'],
    ["src/app/worker/a.ts", 'import { Session } from "../session/session.ts";'],
    ["src/app/prototype/a.tsx", 'import { MapView } from "../features/map/MapView.tsx";'],
    ["src/server/a.ts", 'import { readProject } from "../core/model/read.ts";'],
    ["src/server/a.ts", 'import { applyTheme } from "../app/ui/theme.ts";'],
    ["src/cli/a.ts", 'import { useDocument } from "../app/session/document.ts";'],
    ["src/other/a.ts", 'import { readProject } from "../core/model/read.ts";'],
  ];
  it.each(FORBIDDEN)("%s with %s is caught", (file, source) => {
    expect(importsOf(file, source).map(wrongWay)).toEqual([expect.stringContaining(file)]);
  });

  const ALLOWED: ReadonlyArray<[file: string, source: string]> = [
    ["src/core/insight/a.ts", 'import { lookup } from "../model/lookup.ts";'],
    ["src/core/check/behaviour/a.ts", 'import { step } from "../../semantics/step.ts";\nimport { z } from "zod";'],
    ["src/app/features/map/a.tsx", 'import demo from "../../../../demo/hollowcomb.etape.json?raw";\nimport { step } from "../../../core/semantics/step.ts";'],
    [
      "src/app/features/map/a.tsx",
      'import { useDocument } from "../../session/hooks.ts";\nimport { Picture } from "../../parts/Picture.tsx";\nimport { cards } from "./cards.ts";',
    ],
    ["src/app/shell/a.tsx", 'import { MapView } from "../features/map/MapView.tsx";'],
    ["src/cli/a.ts", 'import { start } from "../server/main.ts";\nimport { stat } from "node:fs/promises";'],
  ];
  it.each(ALLOWED)("%s with %s is not", (file, source) => {
    const found: Import[] = importsOf(file, source);
    expect(found.length).toBe(source.split("\n").length);
    expect(found.flatMap((one) => wrongWay(one) ?? [])).toEqual([]);
  });
});
