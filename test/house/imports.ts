import { dirname, join, normalize } from "node:path";

/** One import: the file that has it, and what it names. */
export interface Import {
  file: string;
  /** A file below src, or a package. */
  target: string;
}

/**
 * What each part of the house may import of the others. Core is a library that stands alone, in steps: a document, the plan made of
 * it, the semantics that runs a plan, what is only asked of it, the check. Surfaces stand on core.
 */
const PARTS: Record<string, readonly string[]> = {
  "core/index": ["core"],
  "core/model": [],
  "core/plan/lower": ["core/model", "core/plan"],
  "core/plan": ["core/model"],
  "core/semantics": ["core/plan"],
  "core/insight": ["core/model", "core/plan", "core/semantics"],
  "core/following": ["core/model", "core/plan", "core/semantics", "core/insight", "core/lines"],
  "core/check": ["core/model", "core/plan", "core/semantics", "core/insight", "core/text"],
  "core/lines": ["core/model", "core/insight", "core/text"],
  "core/patterns": ["core/model", "core/insight", "core/lines", "core/map"],
  "core/map": ["core/model", "core/insight", "core/compare", "core/text"],
  "core/compare": ["core/model"],
  "core/handoff": ["core/model", "core/plan", "core/semantics", "core/insight", "core/map", "core/text"],
  "core/pictures": ["core/model"],
  "core/text": [],
  "app/ui": ["core"],
  "app/policy": [],
  "app/offline": ["app/ui"],
  "app/worker": ["core", "app/policy"],
  "app/session": ["core", "app/worker", "app/ui"],
  "app/parts": ["core", "app/session", "app/worker", "app/ui"],
  // Each is a folder of its own, and none imports another: what two of them need is a part, or of the session.
  "app/features/*": ["core", "demo", "app/parts", "app/session", "app/worker", "app/ui"],
  "app/prototype": ["core", "app/policy", "app/features/walk", "app/session", "app/ui"],
  app: ["core", "app"],
  server: [],
  cli: ["core", "server"],
  demo: [],
};

/** Packages that the pure core may use; all others belong to a surface. What runs a plan goes into files that depend on nothing. */
const OF_CORE: readonly string[] = ["zod", "@marcbachmann/cel-js", "fflate", "papaparse", "saxes"];
const WITHOUT_PACKAGES: readonly string[] = ["core/plan", "core/plan/lower", "core/semantics"];
/** All of the plan that its semantics needs; how a plan is made of a document is not for it. */
const TO_RUN: readonly string[] = ["src/core/plan/data.ts", "src/core/plan/expression.ts", "src/core/plan/plan.ts"];

/** The imports of a source text: of values, of types, made later, and passed on. */
export function importsOf(file: string, source: string): Import[] {
  const found = source.matchAll(
    /(?:^|[;\s])(?:import|export)\s(?:[^"';]*?\sfrom\s)?\s*["']([^"']+)["']|\bimport\(\s*["']([^"']+)["']|new URL\(\s*["'](\.[^"']+)["']/g,
  );
  return [...found].map(([, stated, later, url]) => {
    const named = stated ?? later ?? url ?? "";
    return { file, target: named.startsWith(".") ? normalize(join(dirname(file), named.replace(/\?\w+$/, ""))) : named };
  });
}

/** What is wrong with an import, as a sentence; undefined where it points the way that imports point in this house. */
export function wrongWay({ file, target }: Import): string | undefined {
  const from = partOf(file);
  if (from === undefined) return `${file} is in no part of the house`;
  const isFile = /^(src|demo)\//.test(target);
  const to = isFile ? partOf(target) : undefined;
  if (!isFile) {
    if (WITHOUT_PACKAGES.includes(from)) return `${file} imports ${target}, but a plan and what runs it depend on nothing`;
    const outside = from.startsWith("core/") && !OF_CORE.some((name) => target === name || target.startsWith(`${name}/`));
    return outside ? `${file} imports ${target}, but the core is pure` : undefined;
  }
  if (to === undefined) return `${file} imports ${target}, which is in no part of the house`;
  if (from === "core/semantics" && to.startsWith("core/plan") && !TO_RUN.includes(target)) return `${file} imports ${target}, which makes plans`;
  const allowed = [from, ...(PARTS[from.replace(/^app\/features\/.*/, "app/features/*")] ?? [])];
  return allowed.some((part) => to === part || to.startsWith(`${part}/`)) ? undefined : `${file} (${from}) imports ${target} (${to})`;
}

function partOf(file: string): string | undefined {
  const path = file.replace(/^src\//, "");
  const feature = /^app\/features\/[^/]+(?=\/)/.exec(path)?.[0];
  return feature ?? Object.keys(PARTS).find((part) => path.startsWith(`${part}/`) || path.replace(/\.tsx?$/, "") === part);
}

/** Circles of imports, of values or of types: each as the files along it. */
export function circles(imports: readonly Import[]): string[][] {
  const out = new Map<string, string[]>();
  for (const { file, target } of imports) out.set(file, [...(out.get(file) ?? []), target]);
  const done = new Set<string>();
  const found: string[][] = [];
  const visit = (file: string, way: readonly string[]) => {
    const at = way.indexOf(file);
    if (at >= 0) found.push([...way.slice(at), file]);
    if (at >= 0 || done.has(file)) return;
    for (const next of out.get(file) ?? []) visit(next, [...way, file]);
    done.add(file);
  };
  for (const file of out.keys()) visit(file, []);
  return found;
}
