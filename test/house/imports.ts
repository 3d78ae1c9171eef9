import { dirname, join, normalize } from "node:path";

/** One import: the file that has it, and what it names. */
export interface Import {
  file: string;
  /** A file below src, or a package. */
  target: string;
}

/** What each part of the house may import of the others. Core is a library that stands alone; surfaces stand on it. */
const PARTS: Record<string, readonly string[]> = {
  "core/model": [],
  "core/engine": ["core/model"],
  "core/check": ["core/model", "core/engine", "core/text"],
  "core/map": ["core/model", "core/engine", "core/text"],
  "core/compare": ["core/model"],
  "core/handoff": ["core/model", "core/engine", "core/map", "core/text"],
  "core/text": [],
  app: ["core", "demo"],
  server: [],
  cli: ["core", "server"],
  demo: [],
};

/** Packages that the pure core may use; all others belong to a surface. */
const OF_CORE: readonly string[] = ["zod", "@marcbachmann/cel-js", "papaparse", "saxes"];

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
    const outside = from.startsWith("core/") && !OF_CORE.some((name) => target === name || target.startsWith(`${name}/`));
    return outside ? `${file} imports ${target}, but the core is pure` : undefined;
  }
  if (to === undefined) return `${file} imports ${target}, which is in no part of the house`;
  const allowed = [from, ...(PARTS[from] ?? [])];
  return allowed.some((part) => to === part || to.startsWith(`${part}/`)) ? undefined : `${file} (${from}) imports ${target} (${to})`;
}

function partOf(file: string): string | undefined {
  const path = file.replace(/^src\//, "");
  return Object.keys(PARTS).find((part) => path.startsWith(`${part}/`) || path.replace(/\.tsx?$/, "") === part);
}
