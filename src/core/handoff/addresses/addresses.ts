import Papa from "papaparse";
import { firstScreen, nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { patternVariables } from "../../model/template.ts";

/** An address that leads to a screen: its own, or a way in. */
interface Address {
  pattern: string;
  /** The pattern as the URL Pattern standard writes it. */
  urlPattern: string;
  screen: string;
  name: string;
  by: "screen" | "link" | "notification" | "shortcut";
  id: string;
  variables: string[];
  when: string;
}

/** All addresses as a table (RFC 4180, lines ended by CR LF, the first line the names of the columns). */
export function addressesCsv(project: Project): string {
  const rows = addressesOf(project).map((a) => [a.pattern, a.urlPattern, a.screen, a.name, a.by, a.id, a.variables.join(" "), a.when]);
  return `${Papa.unparse({ fields: ["pattern", "urlPattern", "screen", "name", "by", "id", "variables", "when"], data: rows }, { newline: "\r\n", escapeFormulae: true })}\r\n`;
}

/** All addresses as JSON. */
export function addressesJson(project: Project): string {
  return `${JSON.stringify(
    addressesOf(project).map(({ when, ...address }) => ({ ...address, ...(when === "" ? {} : { when }) })),
    null,
    2,
  )}\n`;
}

function addressesOf(project: Project): Address[] {
  const own = project.screens.flatMap((screen): Address[] =>
    screen.path === undefined ? [] : [{ ...shared(screen.path), screen: screen.id, name: screen.name || screen.id, by: "screen", id: screen.id, when: "" }],
  );
  const waysIn = project.entrances.flatMap((e): Address[] =>
    e.pattern === undefined
      ? []
      : [{ ...shared(e.pattern), screen: firstScreen(project, e.to)?.id ?? e.to, name: nameOf(project, e.to), by: e.kind, id: e.id, when: e.when ?? "" }],
  );
  return [...own, ...waysIn];
}

function shared(pattern: string): Pick<Address, "pattern" | "urlPattern" | "variables"> {
  return { pattern, urlPattern: urlPattern(pattern), variables: patternVariables(pattern) };
}

/** A pattern of ours as a URL Pattern: `{id}` is `:id`, `{+rest}` takes all that is left; its own signs are escaped. */
export function urlPattern(pattern: string): string {
  return pattern
    .split(/(\{\+?[A-Za-z_][A-Za-z0-9_]*\})/)
    .map((part) => {
      const variable = /^\{(\+?)(\w+)\}$/.exec(part);
      if (variable) return variable[1] === "+" ? `:${variable[2]}(.+)` : `:${variable[2]}`;
      return part.replace(/[:*?+(){}\\]/g, (c, at: number) => (c === ":" && part.slice(at, at + 3) === "://" ? c : `\\${c}`));
    })
    .join("");
}
