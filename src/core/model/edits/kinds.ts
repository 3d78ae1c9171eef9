import * as z from "zod";
import type { Project } from "../schema.ts";
import { acceptsFinding, withdrawsAccepted } from "./accepted.ts";
import { addsContainer, addsElement, addsEntrance, addsLeg, addsScreen } from "./add.ts";
import { movesInto, ordersOnMap, unwraps, wraps } from "./arrange.ts";
import { changesContainer, changesElement, changesEntrance, changesFact, changesLeg, changesProject, changesScreen } from "./change.ts";
import { type Edit, type EditKind, editKind } from "./edit.ts";
import { addsFact, removesFact } from "./facts.ts";
import { renamesField } from "./fields.ts";
import { dropsParameter } from "./params.ts";
import { pastes } from "./paste.ts";
import { putsArea, putsPicture, removesArea, removesAreas, removesPicture } from "./pictures.ts";
import { setsPlanned } from "./planned.ts";
import { removesElement, removesEntrance, removesLegs, removesPlaces } from "./remove.ts";
import { renamesId } from "./rename.ts";
import { difference, revises } from "./revise.ts";
import { addsRule, changesRule, removesRule } from "./rules.ts";
import { sharesElement, spreadsElement } from "./share.ts";
import { addsType, changesCell, changesType, removesField, removesType } from "./types.ts";
import { addsWalk, expectsInWalk, removesWalk } from "./walks.ts";

const EditSchema: z.ZodType<Edit> = z.custom<Edit>((data) => readEdit(data).ok, { message: "an edit of a kind that is known here" });

const doesTogether = editKind("together", z.strictObject({ edits: z.array(EditSchema) }), (project, { edits }) => edits.reduce(applyEdit, project));
/** Several edits as one, undone together. */
export function together(name: string, edits: readonly Edit[]): Edit {
  return doesTogether.make(name, { edits: [...edits] });
}

// Each kind takes arguments of its own; what an edit carries is what its kind took when it was made, or was read by its schema.
const KINDS = new Map(
  (
    [
      ...[acceptsFinding, withdrawsAccepted, addsContainer, addsElement, addsEntrance, addsLeg, addsScreen, movesInto, ordersOnMap, unwraps, wraps],
      ...[changesContainer, changesElement, changesEntrance, changesFact, changesLeg, changesProject, changesScreen, addsFact, removesFact, renamesField],
      ...[dropsParameter, pastes, setsPlanned, removesElement, removesEntrance, removesLegs, removesPlaces, renamesId, revises, sharesElement],
      ...[spreadsElement, addsType, changesCell, changesType, removesField, removesType, addsWalk, expectsInWalk, removesWalk, doesTogether],
      ...[addsRule, changesRule, removesRule, putsPicture, removesPicture, putsArea, removesArea, removesAreas],
    ] as EditKind[]
  ).map((kind) => [kind.kind, kind]),
);

/** The names of all kinds of edits, for who lists or tests them. */
export const EDIT_KINDS: readonly string[] = [...KINDS.keys()];

/** Makes an edit on a document; gives the new one. Throws where the kind is not known. */
export function applyEdit(project: Project, edit: Edit): Project {
  const kind = KINDS.get(edit.kind);
  if (!kind) throw new Error(`applyEdit: there is no edit of the kind "${edit.kind}"; known are ${EDIT_KINDS.join(", ")}.`);
  return kind.apply(project, edit);
}

/** Whether an edit takes something away that people made. */
export function deletes(edit: Edit): boolean {
  if (edit.kind === doesTogether.kind) return (edit.edits as Edit[]).some(deletes);
  return KINDS.get(edit.kind)?.deletes ?? false;
}

/** The edit that takes another back, which was (or is to be) made on a document. */
export function invertEdit(before: Project, edit: Edit): Edit {
  return difference(applyEdit(before, edit), before, edit.name);
}

/** Reads an edit from data, as it is stored or comes from a worker; says in a sentence why it cannot be one. */
export function readEdit(data: unknown): { ok: true; edit: Edit } | { ok: false; message: string } {
  const head = z.looseObject({ kind: z.string(), name: z.string() }).safeParse(data);
  if (!head.success) return { ok: false, message: "An edit has a kind and a name." };
  const { kind: id, name, ...rest } = head.data;
  const kind = KINDS.get(id);
  if (!kind) return { ok: false, message: `There is no edit of the kind "${id}".` };
  const args = kind.args.safeParse(rest);
  if (args.success) return { ok: true, edit: kind.make(name, args.data) };
  const [issue] = args.error.issues;
  return { ok: false, message: `The edit "${name}" can not be read at ${[id, ...(issue?.path ?? [])].join(".")}: ${issue?.message ?? ""}` };
}
