import * as z from "zod";
import { typeLabel } from "../lookup.ts";
import { PARTS, type RecordType, type Row } from "../schema.ts";
import { changed, type Edit, editKind, merged, parts, quoted, split } from "./edit.ts";

export const addsType = editKind("addType", z.strictObject({ type: PARTS.RecordType }), (p, { type }) => ({ ...p, types: [...p.types, type] }));
export function addType(type: RecordType): Edit {
  return addsType.make(`Add record type ${quoted(typeLabel(type))}`, { type });
}

export const removesType = editKind("removeType", z.strictObject({ id: z.string() }), (p, { id }) => ({ ...p, types: p.types.filter((t) => t.id !== id) }));
export function removeType(id: string): Edit {
  return removesType.make(`Delete record type ${quoted(id)}`, { id });
}

export const changesType = editKind("changeType", parts(PARTS.RecordType.partial()), (p, { id, ...change }) => ({
  ...p,
  types: changed(p.types, id, (t) => merged(t, change)),
}));
/** Changes fields of a record type. A field given as undefined is left out of the document. */
export function changeType(id: string, change: Partial<RecordType>, what = "Change"): Edit {
  return changesType.make(`${what} record type ${quoted(id)}`, { id, ...split(change) });
}

export const changesCell = editKind(
  "changeCell",
  z.strictObject({ id: z.string(), row: z.number(), field: z.string(), value: z.json().optional() }),
  (p, { id, row, field, value }) => ({
    ...p,
    types: changed(p.types, id, (t) => {
      const samples = t.samples.map((sample, i) => {
        if (i !== row) return sample;
        const { [field]: _, ...rest } = sample;
        // Cells keep the order of the fields.
        return value === undefined
          ? rest
          : (Object.fromEntries(t.fields.flatMap(({ name }) => (name === field ? [[name, value]] : name in rest ? [[name, rest[name]]] : []))) as Row);
      });
      return { ...t, samples };
    }),
  }),
);
/** Changes one cell of a sample row; undefined empties it. */
export function changeCell(id: string, row: number, field: string, value: Row[string] | undefined): Edit {
  return changesCell.make(`Change a sample of ${quoted(id)}`, { id, row, field, value });
}

export const removesField = editKind("removeField", z.strictObject({ id: z.string(), field: z.string() }), (p, { id, field }) => ({
  ...p,
  types: changed(p.types, id, (t) => ({
    ...t,
    fields: t.fields.filter((f) => f.name !== field),
    samples: t.samples.map(({ [field]: _, ...row }) => row),
  })),
}));
/** Takes a field away, with its cells in the samples; expressions that read it are then ill-typed, which the checker says. */
export function removeField(id: string, field: string): Edit {
  return removesField.make(`Delete field ${quoted(field)} of ${quoted(id)}`, { id, field });
}
