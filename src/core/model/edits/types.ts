import { typeLabel } from "../lookup.ts";
import type { RecordType, Row } from "../schema.ts";
import { type Edit, quoted } from "./edit.ts";

export function addType(type: RecordType): Edit {
  return { name: `Add record type ${quoted(typeLabel(type))}`, apply: (p) => ({ ...p, types: [...p.types, type] }) };
}

export function removeType(id: string): Edit {
  return { name: `Delete record type ${quoted(id)}`, apply: (p) => ({ ...p, types: p.types.filter((t) => t.id !== id) }) };
}

export function changeType(id: string, change: Partial<RecordType>, what = "Change"): Edit {
  return { name: `${what} record type ${quoted(id)}`, apply: (p) => ({ ...p, types: p.types.map((t) => (t.id === id ? { ...t, ...change } : t)) }) };
}

/** Changes one cell of a sample row; undefined empties it. */
export function changeCell(id: string, row: number, field: string, value: Row[string] | undefined): Edit {
  return {
    name: `Change a sample of ${quoted(id)}`,
    apply: (p) => ({
      ...p,
      types: p.types.map((t) => {
        if (t.id !== id) return t;
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
  };
}

/** Takes a field away, with its cells in the samples; expressions that read it are then ill-typed, which the checker says. */
export function removeField(id: string, field: string): Edit {
  return {
    name: `Delete field ${quoted(field)} of ${quoted(id)}`,
    apply: (p) => ({
      ...p,
      types: p.types.map((t) =>
        t.id === id
          ? {
              ...t,
              fields: t.fields.filter((f) => f.name !== field),
              samples: t.samples.map(({ [field]: _, ...row }) => row),
            }
          : t,
      ),
    }),
  };
}
