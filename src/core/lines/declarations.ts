import { freshId } from "../model/edits/edit.ts";
import type { FactNode, ParamNode, RowsNode } from "./ast.ts";
import { optionsIn, typeWord } from "./habits.ts";
import { cutAt, endingOf, type Piece, shown, splitAt, unquoted } from "./scan.ts";

/** Lines that declare something: facts, and the rows of record types. */

/** What a line declares, or what is wrong with it; both where the rest can be read. */
export interface Declared<T> {
  declared?: T;
  problem?: { at: Piece; message: string };
}

/** `member "has joined" (persists)`, `season = spring | summer (outside)`, `online = true` */
export function factLine(piece: Piece): Declared<FactNode> {
  const { before, inside } = endingOf(piece);
  const [head, value] = cutAt(before, "=");
  const [, told, quoted] = /^([A-Za-z][\w ]*?)(?:\s+("(?:[^"\\]|\\.)*"))?$/.exec(head.text) ?? [];
  const id = told === undefined || /^[a-z]\w*$/.test(told) ? told : freshId(told, new Set(), "fact");
  if (id === undefined)
    return { problem: { at: piece, message: `found “${shown(piece.text)}”, expected a fact such as member, online = true or season = spring | summer` } };
  const values: FactNode["values"] = value
    ? splitAt(value, "|").map(({ text }) => (text === "true" || text === "false" ? text === "true" : unquoted(text)))
    : [false];
  const name = quoted !== undefined ? { name: unquoted(quoted) } : told === id ? {} : { name: told as string };
  return { declared: { id, ...name, values, options: inside ? optionsIn(inside) : [], line: piece.line, column: piece.column } };
}

/** `plot(id, name, size: number): a1, Oak Corner, 12 | a2, Long Bed, 7`; `paramsOf` reads its fields. */
export function rowsLine(piece: Piece, paramsOf: (inside: Piece) => ParamNode[]): Declared<RowsNode> {
  const [head, rest] = cutAt(piece, ":");
  const { before, inside, attached } = endingOf(head);
  if (!/^[A-Za-z]\w*$/.test(before.text) || !inside || !attached)
    return { problem: { at: piece, message: `found “${shown(piece.text)}”, expected rows such as plot(id, name): a1, Oak Corner | a2, Long Bed` } };
  const fields: RowsNode["fields"] = paramsOf(inside).map(({ name, type }) => ({ name, type }));
  const rows = rest && rest.text !== "" ? splitAt(rest, "|").map((row) => splitAt(row, ",").map(({ text }) => text)) : [];
  const odd = rows.findIndex((row) => row.length !== fields.length);
  const declared = { id: typeWord(before.text), fields, rows, line: piece.line, column: piece.column };
  if (odd < 0) return { declared };
  const expected = `${fields.length}: ${fields.map(({ name }) => name).join(", ")}`;
  return { declared, problem: { at: piece, message: `row ${odd + 1} has ${rows[odd]?.length} values, expected ${expected}` } };
}
