import { type Met, metStates } from "../insight/met.ts";
import { readLines } from "../lines/build.ts";
import { Merging } from "../lines/merging.ts";
import { standing, standsFor } from "../lines/standing.ts";
import { changeScreen } from "../model/edits/change.ts";
import type { Edit } from "../model/edits/edit.ts";
import { freshId } from "../model/edits/edit.ts";
import { applyEdit } from "../model/edits/kinds.ts";
import { firstScreen, keyField, lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";

/** A pattern on its way into a project: what it goes to, the names that were given, and the project as it is so far. */
export class Making {
  project: Project;

  constructor(
    project: Project,
    /** The place that is chosen. */
    readonly place: string,
    private readonly given: Readonly<Record<string, string>>,
  ) {
    this.project = project;
  }

  apply(edit: Edit) {
    this.project = applyEdit(this.project, edit);
  }

  /** Makes a hub of the screen that a place shows first. */
  hub(place: string) {
    const first = firstScreen(this.project, place);
    if (first && !first.hub) this.apply(changeScreen(this.project, first.id, { hub: true }));
  }

  /** A name that was given, as it stands in lines. */
  name(ask: string): string {
    return inLines(this.plain(ask));
  }

  /** A name that was given, as it is. */
  plain(ask: string): string {
    return (this.given[ask] ?? "").trim();
  }

  /** Several names that were given, as they stand in lines. */
  names(ask: string): string[] {
    return listed(this.given[ask] ?? "").map(inLines);
  }

  /** What stands for a place of the project in lines: the place that is chosen, or another. */
  at(place = this.place): string {
    return JSON.stringify(standsFor(place));
  }

  /**
   * An id for a fact: the one that is there, where it is one that the app sets and that people may still be without at the chosen
   * place; else one that is free.
   */
  fact(wanted: string, still?: (met: Met) => boolean): string {
    const { facts } = lookup(this.project);
    const known = facts.get(wanted);
    const fits = known?.type === "boolean" && known.source === "app" && (!still || metStates(this.project, this.place).some((met) => met.real && still(met)));
    return fits ? wanted : freshId(wanted, facts, "fact");
  }

  /** An id for a fact that is not there yet. */
  freshFact(wanted: string): string {
    return freshId(wanted, lookup(this.project).facts, "fact");
  }

  /** The line that makes a fact, where it is not there yet. */
  factLine(id: string, says = ""): string {
    return lookup(this.project).facts.has(id) ? "" : `fact ${id}${says}`;
  }

  /**
   * The rows that a name asks for: of the record type of that name, or of a new one with an id, a name and a place in the order. `key` is
   * the field that tells one row from another, `says` what a list shows of each, `line` what makes the type where there is none.
   */
  rows(ask: string): { type: string; key: string; says: string; line: string } {
    const name = this.plain(ask);
    const known = this.project.types.find((type) => type.id === name || type.name === name);
    if (known) {
      const key = keyField(known);
      const simple = known.fields.find(({ name, type }) => name !== key && (type === "text" || type === "date"));
      return { type: known.id, key, says: `{item.${simple?.name ?? key}}`, line: "" };
    }
    const type = freshId(name, new Set(this.project.types.map(({ id }) => id)), "row");
    const rows = ["First", "Second", "Third"].map((which, i) => `${"abc"[i]}, ${which} ${name.toLowerCase().replace(/[^\p{L}\p{N} ]/gu, "")}, ${i + 1}`);
    return { type, key: "id", says: "{item.name}", line: `rows ${type}(id, name, place: integer): ${rows.join(" | ")}` };
  }

  /**
   * What the chosen screen needs, for screens that lead back to it: their parameters and what is passed, as they stand in lines; of all of
   * its parameters where those that it can do without matter, too.
   */
  needed(all = false): { declared: string; passed: string } {
    const params =
      lookup(this.project)
        .screens.get(this.place)
        ?.params.filter(({ required }) => all || required) ?? [];
    if (params.length === 0) return { declared: "", passed: "" };
    return {
      declared: `(${params.map(({ name, type, required }) => `${name}${required ? "" : "?"}: ${type}`).join(", ")})`,
      passed: `(${params.map(({ name }) => `${name} = param.${name}`).join(", ")})`,
    };
  }

  /**
   * Puts in what quick lines make. Places that stand in them as `at()` are those of the project; any other name is a new place, beside the
   * one that is named here.
   */
  put(lines: readonly string[], beside = this.place) {
    const text = lines.filter((line) => line !== "").join("\n");
    const read = readLines(text, this.project.name, undefined, false);
    if (!read.ok) throw new Error(`${read.problems.map(({ line, message }) => `${line}: ${message}`).join("; ")} in\n${text}`);
    this.project = new Merging(this.project, read, { bound: standing(this.project), byName: false, beside }).project;
  }
}

/** Names with commas between them. */
export function listed(text: string): string[] {
  return text
    .split(",")
    .map((name) => name.trim())
    .filter((name) => name !== "");
}

/** A name in quotes, so that no word in it is taken for something else. */
function inLines(name: string): string {
  return `"${name.replace(/\s+/g, " ").replace(/[\\"]/g, "\\$&")}"`;
}
