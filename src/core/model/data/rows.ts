import Papa from "papaparse";
import type { Json, RecordType, Row } from "../schema.ts";

/** One thing in pasted data that does not fit its record type. */
export interface RowProblem {
  /** Counted from 1, without the line of names. */
  row: number;
  field: string;
  found: string;
  expected: string;
}
export interface ReadRows {
  /** Rows that fit, in their order. */
  rows: Row[];
  /** Rows that do not, one entry for each thing that is wrong with them. */
  problems: RowProblem[];
  /** How many rows the problems are about. */
  refused: number;
  /** Columns that the record type does not have; they are left out. */
  ignored: string[];
}

/** Most rows that are taken at once. */
export const MOST_ROWS = 100_000;

/**
 * Reads sample rows from text: a JSON array of objects, or a table with commas, semicolons, tabs
 * or bars between its cells (RFC 4180 quoting), its first line the names of the fields. A table
 * whose first line names no field is taken to have the fields in their order. Nothing is thrown:
 * what does not fit is in `problems`, and rows that fit are given all the same.
 */
export function readRows(text: string, type: RecordType): ReadRows {
  const trimmed = text.trim();
  if (trimmed === "") return { rows: [], problems: [], refused: 0, ignored: [] };
  return trimmed.startsWith("[") || trimmed.startsWith("{") ? fromJson(trimmed, type) : fromTable(text, type);
}

function fromJson(text: string, type: RecordType): ReadRows {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    return whole(text, `JSON (${error instanceof Error ? error.message : String(error)})`);
  }
  if (!Array.isArray(data)) return whole(text, "a JSON list of objects");
  const ignored = new Set<string>();
  return collect(data, type, ignored, (entry) => {
    if (typeof entry !== "object" || entry === null || Array.isArray(entry))
      return { problem: { field: "", found: JSON.stringify(entry) ?? "nothing", expected: "an object" } };
    for (const name of Object.keys(entry)) if (!type.fields.some((f) => f.name === name)) ignored.add(name);
    return { values: entry as Record<string, Json> };
  });
}

function fromTable(text: string, type: RecordType): ReadRows {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: "greedy", delimiter: separatorOf(text, type) });
  const [first = [], ...rest] = data;
  const names = first.map((name) => name.trim().replace(/^\uFEFF/, ""));
  const known = (name: string) => type.fields.find((f) => f.name.toLowerCase() === name.toLowerCase())?.name;
  const named = names.some((name) => known(name) !== undefined);
  const columns = named ? names.map((name) => known(name)) : type.fields.map((f) => f.name);
  const ignored = new Set(named ? names.filter((name) => known(name) === undefined) : []);
  const width = named ? names.length : type.fields.length;
  return collect(named ? rest : data, type, ignored, (cells) => {
    if (cells.length !== width) return { problem: { field: "", found: `${cells.length} cells`, expected: `${width} cells` } };
    return { values: Object.fromEntries(cells.flatMap((cell, i) => (columns[i] === undefined ? [] : [[columns[i] as string, cell]]))) };
  });
}

/** The separator by which the first line names the most fields, else has the most cells. Later lines are not asked: they may be ragged. */
function separatorOf(text: string, type: RecordType): string {
  const names = new Set(type.fields.map((f) => f.name.toLowerCase()));
  const scored = [",", ";", "\t", "|"].map((separator) => {
    const [first = []] = Papa.parse<string[]>(text, { delimiter: separator, preview: 1 }).data;
    const known = first.filter((cell) =>
      names.has(
        cell
          .trim()
          .replace(/^\uFEFF/, "")
          .toLowerCase(),
      ),
    ).length;
    return { separator, score: known * 1000 + first.length };
  });
  return scored.reduce((best, one) => (one.score > best.score ? one : best)).separator;
}

function whole(text: string, expected: string): ReadRows {
  return { rows: [], problems: [{ row: 1, field: "", found: text.slice(0, 40), expected }], refused: 1, ignored: [] };
}

type Cells = { values: Record<string, Json> } | { problem: Omit<RowProblem, "row"> };

function collect<T>(list: T[], type: RecordType, ignored: Set<string>, cellsOf: (entry: T) => Cells): ReadRows {
  const rows: Row[] = [];
  const problems: RowProblem[] = [];
  let refused = 0;
  list.slice(0, MOST_ROWS).forEach((entry, i) => {
    const cells = cellsOf(entry);
    const wrong: RowProblem[] = "problem" in cells ? [{ row: i + 1, ...cells.problem }] : [];
    const row: Row = {};
    if ("values" in cells)
      for (const field of type.fields) {
        const value = cells.values[field.name];
        if (value === undefined || value === "") continue;
        const read = cellValue(value, field.type);
        if (read === undefined) wrong.push({ row: i + 1, field: field.name, found: String(value), expected: expectedOf(field.type) });
        else row[field.name] = read;
      }
    problems.push(...wrong);
    if (wrong.length > 0) refused += 1;
    else rows.push(row);
  });
  const more = list.length - MOST_ROWS;
  if (more > 0) {
    problems.push({ row: MOST_ROWS + 1, field: "", found: `${more} rows more`, expected: `at most ${MOST_ROWS} rows at once` });
    refused += more;
  }
  return { rows, problems, refused, ignored: [...ignored] };
}

/** A cell as a value of a type, or undefined where it is none. Values of a record type are taken as they are. */
export function cellValue(cell: Json, type: string): Json | undefined {
  const text = typeof cell === "string" ? cell.trim() : cell;
  switch (type) {
    case "integer":
      if (typeof text === "number") return Number.isInteger(text) ? text : undefined;
      return typeof text === "string" && /^[+-]?\d+$/.test(text) ? Number(text) : undefined;
    case "number":
      if (typeof text === "number") return text;
      return typeof text === "string" && text !== "" && Number.isFinite(Number(text)) ? Number(text) : undefined;
    case "boolean":
      if (typeof text === "boolean") return text;
      return text === "true" ? true : text === "false" ? false : undefined;
    case "date":
      return typeof text === "string" && /^\d{4}-\d{2}-\d{2}/.test(text) && !Number.isNaN(Date.parse(text)) ? text : undefined;
    case "text":
      return typeof cell === "string" ? cell : typeof cell === "object" ? undefined : String(cell);
    default:
      return cell;
  }
}

function expectedOf(type: string): string {
  switch (type) {
    case "integer":
      return "a whole number";
    case "number":
      return "a number";
    case "boolean":
      return "true or false";
    case "date":
      return "a date like 2026-05-12";
    default:
      return type;
  }
}
