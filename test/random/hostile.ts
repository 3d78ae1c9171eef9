import { readProjectData } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";

/** Texts that other languages read as their own: markup, scripts, ends of strings and comments, formulas, templates, odd letters. */
export const HOSTILE: readonly string[] = [
  '"><script>globalThis.hit=1</script><img src=x onerror="globalThis.hit=1">',
  "</script></style></title></textarea>--><script>globalThis.hit=1</script>",
  "]]><script>globalThis.hit=1</script><![CDATA[",
  '=HYPERLINK("http://x.test","a")|cmd\'!A1',
  "`$" + "{globalThis.hit=1}` */ globalThis.hit=1; /* // \\",
  '"]; } digraph { x -> y [label="',
  "[click](javascript:globalThis.hit=1) ![x](http://x.test/y) # * _ | <b>",
  "javascript:globalThis.hit=1",
  '\\"\\u0022\n\r\n"""\nFeature: no\n  Scenario: no\u2028\u2029',
  "{{title}} {{project}} $" + "{x} $(x) %s <%= 1 %>",
  "\u202Eevil\u200B\uFEFF\u0007\u{1F9ED}",
  "__proto__",
];
/** As many texts in which nothing is special. */
export const HARMLESS: readonly string[] = HOSTILE.map((_, i) => `plain words ${i}`);

/** A document in which every text that may be anything is one of some texts: whatever reads with them, one kind of field after the other. */
export function withTexts(project: Project, texts: readonly string[]): { project: Project; fields: string[] } {
  let made = project;
  const fields: string[] = [];
  for (const field of fieldsOf(project)) {
    const tried = JSON.parse(JSON.stringify(made));
    replace(tried, field, texts);
    const read = readProjectData(tried);
    if (!read.ok) continue;
    made = read.project;
    fields.push(field);
  }
  return { project: made, fields };
}

/** The fields of a document that hold texts, such as `screens.name`. */
function fieldsOf(value: unknown, at = ""): Set<string> {
  if (typeof value === "string") return new Set([at]);
  if (typeof value !== "object" || value === null) return new Set();
  return new Set(Object.entries(value).flatMap(([key, held]) => [...fieldsOf(held, Array.isArray(value) ? at : at === "" ? key : `${at}.${key}`)]));
}

function replace(value: unknown, field: string, texts: readonly string[], at = "", count = { of: 0 }) {
  if (typeof value !== "object" || value === null) return;
  for (const [key, held] of Object.entries(value)) {
    const here = Array.isArray(value) ? at : at === "" ? key : `${at}.${key}`;
    if (typeof held === "string" && here === field) {
      Object.assign(value, { [key]: texts[count.of % texts.length] });
      count.of += 1;
    } else replace(held, field, texts, here, count);
  }
}
