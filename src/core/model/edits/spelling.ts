import { templateParts } from "../template.ts";

/** New names by the root that they stand behind: `{ fact: { member → joined } }` turns `fact.member` into `fact.joined`. */
export type Spelling = Record<string, ReadonlyMap<string, string>>;

/** An expression with other names behind `fact.`, `field.` or `param.`; what stands in quotes is left alone. */
export function renameInExpression(source: string, spelling: Spelling): string {
  if (Object.values(spelling).every((names) => names.size === 0)) return source;
  return source.replace(
    /("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')|(?<![\w.])([A-Za-z_]\w*)(\s*\.\s*)([A-Za-z_]\w*)/g,
    (all, quoted: string | undefined, root: string, dot: string, name: string) =>
      quoted === undefined && Object.hasOwn(spelling, root) ? `${root}${dot}${spelling[root]?.get(name) ?? name}` : all,
  );
}

/** A template with other names in its holes; its text is left alone. */
export function renameInTemplate(template: string, spelling: Spelling): string {
  return templateParts(template)
    .map((part) => ("hole" in part ? `{${renameInExpression(part.hole, spelling)}}` : part.text))
    .join("");
}

/** The names that an expression has behind a root: `namesIn("fact", "fact.a && !fact.b")` gives a and b. */
export function namesIn(root: string, source: string): string[] {
  const names: string[] = [];
  for (const [, quoted, base, name] of source.matchAll(/("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')|(?<![\w.])([A-Za-z_]\w*)\s*\.\s*([A-Za-z_]\w*)/g))
    if (quoted === undefined && base === root && name !== undefined) names.push(name);
  return names;
}
