import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MOST_ROWS, readRows } from "../../../src/core/model/data/rows.ts";
import { renameField } from "../../../src/core/model/edits/fields.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { changeCell, removeField } from "../../../src/core/model/edits/types.ts";
import type { RecordType } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const hive: RecordType = {
  id: "hive",
  name: "Hive",
  fields: [
    { name: "id", type: "text" },
    { name: "frames", type: "integer" },
    { name: "kilos", type: "number" },
    { name: "calm", type: "boolean" },
    { name: "seen", type: "date" },
  ],
  samples: [],
};

describe("sample rows from text", () => {
  it.each([
    ["commas", "id,frames,kilos,calm,seen\nlark,9,1.5,true,2026-05-12"],
    ["semicolons", "id;frames;kilos;calm;seen\nlark;9;1.5;true;2026-05-12"],
    ["tabs, as a spreadsheet copies", "id\tframes\tkilos\tcalm\tseen\r\nlark\t9\t1.5\ttrue\t2026-05-12\r\n"],
    ["bars", "id|frames|kilos|calm|seen\nlark|9|1.5|true|2026-05-12"],
    ["columns in another order, with a mark at the file's start", "\uFEFFseen,calm,kilos,frames,id\n2026-05-12,true,1.5,9,lark"],
    ["no line of names", "lark,9,1.5,true,2026-05-12"],
    ["a JSON list", '[{"id":"lark","frames":9,"kilos":1.5,"calm":true,"seen":"2026-05-12"}]'],
  ])("with %s", (_, text) => {
    expect(readRows(text, hive)).toEqual({
      rows: [{ id: "lark", frames: 9, kilos: 1.5, calm: true, seen: "2026-05-12" }],
      problems: [],
      refused: 0,
      ignored: [],
    });
  });

  it("quotes keep separators, line ends and quotes", () => {
    expect(readRows('id,frames\n"a, ""b""\nc",3', hive).rows).toEqual([{ id: 'a, "b"\nc', frames: 3 }]);
  });

  it("says which rows do not fit and why, and gives the others all the same", () => {
    const read = readRows("id,frames,seen,color\na,many,2026-05-12,red\nb,3\nc,4,yesterday,blue\nd,5,2026-01-01,green", hive);
    expect(read.rows).toEqual([{ id: "d", frames: 5, seen: "2026-01-01" }]);
    expect(read.refused).toBe(3);
    expect(read.ignored).toEqual(["color"]);
    expect(read.problems).toEqual([
      { row: 1, field: "frames", found: "many", expected: "a whole number" },
      { row: 2, field: "", found: "2 cells", expected: "4 cells" },
      { row: 3, field: "seen", found: "yesterday", expected: "a date like 2026-05-12" },
    ]);
  });

  it("ragged rows do not hide which separator it is", () => {
    expect(readRows("id;frames\na;1\nb;soon\nc", hive)).toMatchObject({ rows: [{ id: "a", frames: 1 }], refused: 2 });
  });

  it("rows beyond the most that are taken are said, not left out silently", () => {
    const text = `id\n${Array.from({ length: MOST_ROWS + 2 }, (_, i) => `r${i}`).join("\n")}`;
    const read = readRows(text, hive);
    expect(read.rows).toHaveLength(MOST_ROWS);
    expect(read.refused).toBe(2);
    expect(read.problems).toEqual([{ row: MOST_ROWS + 1, field: "", found: "2 rows more", expected: `at most ${MOST_ROWS} rows at once` }]);
  });

  it("JSON that is none, or no list, is said and not thrown", () => {
    expect(readRows("[{", hive)).toMatchObject({ rows: [], refused: 1, problems: [{ expected: expect.stringContaining("JSON") }] });
    expect(readRows('{"id":1}', hive)).toMatchObject({ rows: [], problems: [{ expected: "a JSON list of objects" }] });
    expect(readRows('[1,{"id":"a"}]', hive)).toMatchObject({ rows: [{ id: "a" }], refused: 1 });
  });

  it("any texts written as CSV by its rules come back as they were", () => {
    const cell = fc.string({ minLength: 1, maxLength: 12 }).filter((s) => s.trim() !== "" && !s.includes("\r"));
    const quoted = (s: string) => `"${s.replaceAll('"', '""')}"`;
    const two: RecordType = {
      ...hive,
      fields: [
        { name: "id", type: "text" },
        { name: "note", type: "text" },
      ],
    };
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const text = `id,note\n${rows.map((row) => row.map(quoted).join(",")).join("\n")}`;
        expect(readRows(text, two).rows).toEqual(rows.map(([id, note]) => ({ id, note })));
      }),
    );
  });
});

describe("edits of record types", () => {
  const project = app("a", { types: [{ ...hive, samples: [{ id: "lark", kilos: 2 }, { id: "fox" }] }] });
  const samples = (p: typeof project) => p.types[0]?.samples;

  it("a cell is set in the order of the fields, and emptied", () => {
    const set = applyEdit(project, changeCell("hive", 0, "frames", 7));
    expect(Object.entries(samples(set)?.[0] ?? {})).toEqual([
      ["id", "lark"],
      ["frames", 7],
      ["kilos", 2],
    ]);
    expect(samples(applyEdit(project, changeCell("hive", 0, "kilos", undefined)))?.[0]).toEqual({ id: "lark" });
  });

  it("a field that goes takes its cells along", () => {
    const made = applyEdit(project, removeField("hive", "kilos"));
    expect(made.types[0]?.fields.map((f) => f.name)).toEqual(["id", "frames", "calm", "seen"]);
    expect(samples(made)?.[0]).toEqual({ id: "lark" });
  });

  it("a field's new name is that of its cells too", () => {
    const made = applyEdit(project, renameField("hive", "kilos", "weight"));
    expect(made.types[0]?.fields.map((f) => f.name)).toEqual(["id", "frames", "weight", "calm", "seen"]);
    expect(samples(made)?.[0]).toEqual({ id: "lark", weight: 2 });
  });
});
