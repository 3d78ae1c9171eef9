import type { Scope, ValueType } from "./expression.ts";

/** A way to go on writing an expression. */
export interface Completion {
  /** What takes the place of the characters from `from` to the caret. */
  insert: string;
  from: number;
  /** Its type, or what it is. */
  says: string;
}

/** What can stand at the caret of an expression, from what is in scope; the best first, at most `most`. */
export function completions(source: string, caret: number, scope: Scope, most = 12): Completion[] {
  const before = source.slice(0, caret);
  if (inQuotes(before)) return [];
  const member = /([A-Za-z_]\w*)((?:\s*\.\s*[A-Za-z_]\w*)*)\s*\.\s*([A-Za-z_]\w*)?$/.exec(before);
  if (member) {
    const [, root = "", path = "", typed = ""] = member;
    const names = path
      .split(".")
      .map((name) => name.trim())
      .filter((name) => name !== "");
    const fields = fieldsOf(scope, root, names);
    return matching(Object.entries(fields), typed, caret, most);
  }
  const word = /[A-Za-z_]\w*$/.exec(before)?.[0] ?? "";
  const roots = Object.entries(scope.names).flatMap(([name, known]): Array<[string, string]> => {
    if (known.type !== undefined) return [[name, spoken(known.type)]];
    return Object.entries(known.fields ?? {}).map(([field, type]) => [`${name}.${field}`, spoken(type)]);
  });
  return matching(roots, word, caret, most);
}

function fieldsOf(scope: Scope, root: string, path: string[]): Record<string, ValueType> {
  const known = Object.hasOwn(scope.names, root) ? scope.names[root] : undefined;
  let fields = known?.fields ?? recordFields(scope, known?.type);
  for (const name of path) fields = recordFields(scope, Object.hasOwn(fields, name) ? fields[name] : undefined);
  return fields;
}

function recordFields(scope: Scope, type: ValueType | undefined): Record<string, ValueType> {
  const id = type?.startsWith("record:") ? type.slice("record:".length) : undefined;
  return (id !== undefined && Object.hasOwn(scope.records, id) ? scope.records[id] : undefined) ?? {};
}

function matching(entries: Array<[string, string]>, typed: string, caret: number, most: number): Completion[] {
  const wanted = typed.toLowerCase();
  const rank = (name: string) => (name.toLowerCase().startsWith(wanted) ? 0 : name.toLowerCase().includes(wanted) ? 1 : 2);
  return entries
    .filter(([name]) => rank(name) < 2 && name !== typed)
    .sort(([a], [b]) => rank(a) - rank(b))
    .slice(0, most)
    .map(([insert, type]) => ({ insert, from: caret - typed.length, says: spoken(type) }));
}

/** A type in words: records by their type's id. */
export function spoken(type: string): string {
  return type.startsWith("record:") ? type.slice("record:".length) : type;
}

function inQuotes(text: string): boolean {
  let quote = "";
  for (let i = 0; i < text.length; i++) {
    const c = text[i] ?? "";
    if (quote !== "") {
      if (c === "\\") i += 1;
      else if (c === quote) quote = "";
    } else if (c === '"' || c === "'") quote = c;
  }
  return quote !== "";
}
