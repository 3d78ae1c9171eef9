/**
 * What crosses between the page and a worker of the core, as one protocol that both sides read. A project is not parsed again on the
 * way: the page has read it, and a worker that is asked at every edit has no time for it. All that comes back is.
 */
import * as z from "zod";
import type { LensTone } from "../../core/map/draw/look.ts";
import type { LensChoice, LensGiven } from "../../core/map/lenses/lens.ts";
import { LENSES } from "../../core/map/lenses/names.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import { readEdit } from "../../core/model/edits/kinds.ts";
import type { PictureFiles } from "../../core/model/pictures.ts";
import type { NavEvent, Project } from "../../core/model/schema.ts";
import type { Patch } from "./patch.ts";

const text = z.string();
const ProjectSent = z.custom<Project>((data) => typeof data === "object" && data !== null && "format" in data, { message: "a project" });
const PatchSent = z.custom<Patch>((data) => typeof data === "object" && data !== null && "lists" in data, { message: "a patch" });
const EditSent = z.custom<Edit>((data) => readEdit(data).ok, { message: "an edit" });
const EventSent = z.custom<NavEvent>((data) => typeof data === "object" && data !== null && "do" in data, { message: "an event" });

const LensChoiceSent = z.custom<LensChoice>((data) => typeof data === "object" && data !== null && "lens" in data, { message: "a lens" });
const LensGivenSent = z.custom<LensGiven>((data) => typeof data === "object" && data !== null, { message: "what a lens is given" });

const FilesSent = z.custom<PictureFiles>((data) => typeof data === "object" && data !== null, { message: "files of pictures" });
const width = z.enum(["narrow", "middle", "wide"]);
const FindingSent = z.object({
  code: text,
  severity: z.enum(["blocker", "warning", "note"]),
  subjects: z.array(text),
  message: text,
  certainty: z.enum(["shown", "possible", "certain"]),
  walk: z.array(EventSent).optional(),
  open: z.boolean().optional(),
  widths: z.array(width).optional(),
});
const ProofSent = z.object({
  states: z.number(),
  depth: z.union([z.literal("any"), z.number()]),
  complete: z.boolean(),
  entrances: z.array(text),
  widths: z.array(width),
  factCombinations: z.number(),
  screens: z.number(),
  rules: z.array(z.object({ rule: text, standing: z.enum(["proved", "checked", "broken", "empty", "unsettled"]), says: text.optional() })).optional(),
});
const ResultSent = z.object({
  findings: z.array(FindingSent),
  accepted: z.array(FindingSent.extend({ reason: text })),
  proof: ProofSent,
  /** The first fix of the first finding that is no open end, for the line that tells how things stand. */
  fix: EditSent.optional(),
});
const CheckedSent = z.object({
  findings: z.array(z.object({ severity: text, code: text, message: text })).readonly(),
  proof: text,
  rules: z.record(text, text).optional(),
  frame: text,
  react: z.boolean().optional(),
  pictures: z.record(text, text).optional(),
});

const tone = z.custom<LensTone>((data) => typeof data === "string", { message: "a tone" });
const LensViewSent = z.object({
  id: z.enum(LENSES.map(({ id }) => id)),
  question: text,
  places: z.map(text, z.object({ tone, says: text, long: text })),
  legend: z.array(z.object({ tone, says: text, count: z.number() })),
  extremes: z.array(text),
  list: z.array(z.object({ place: text.optional(), says: text, note: text })),
  chart: z.object({ title: text, labels: z.array(text), counts: z.array(z.number()) }).optional(),
});
const ReachChangeSent = z.object({ says: z.array(text) });

export type PlainFinding = z.infer<typeof FindingSent>;
/** A check's result as it comes from a worker: without its fixes, which are worked out where they are shown. */
export type PlainResult = z.infer<typeof ResultSent>;

/** What a worker can be asked to do: its arguments, and what comes of it. */
export const CALLS = {
  /** Checks a project: with the files of its pictures, and the taps beyond which a screen is far. */
  check: { args: z.tuple([ProjectSent, FilesSent.optional(), z.number().optional()]), result: ResultSent },
  /** Checks what a patch makes of the project that was checked last. */
  checkNext: { args: z.tuple([PatchSent, FilesSent.optional(), z.number().optional()]), result: ResultSent },
  /** The shortest walk from launch to a screen, if there is one. */
  wayTo: { args: z.tuple([ProjectSent, text]), result: z.array(EventSent).optional() },
  /** What a lens shows of a project; for walks with the generated tests, those are made there. */
  lens: { args: z.tuple([ProjectSent, LensChoiceSent, LensGivenSent]), result: LensViewSent },
  /** What an edit would change of how far screens are, as sentences. */
  reachAfter: { args: z.tuple([ProjectSent, EditSent, LensChoiceSent]), result: ReachChangeSent },
  /** The files of some hand-offs, in the order of the targets named. */
  handOff: { args: z.tuple([ProjectSent, z.array(text), CheckedSent]), result: z.array(z.object({ name: text, text })) },
} as const;

export type Call = keyof typeof CALLS;
export type Args<C extends Call> = z.infer<(typeof CALLS)[C]["args"]>;
export type Result<C extends Call> = z.infer<(typeof CALLS)[C]["result"]>;

/** One thing asked. The arguments are read by those of its call. */
export const Request = z.object({ id: z.number(), call: z.enum(Object.keys(CALLS) as [Call, ...Call[]]), args: z.unknown() });
export type Request = z.infer<typeof Request>;

/** What is told of one thing asked: how many states were looked at so far, its result, or why there is none. */
export const Reply = z.discriminatedUnion("is", [
  z.object({ id: z.number(), is: z.literal("progress"), states: z.number() }),
  z.object({ id: z.number(), is: z.literal("done"), value: z.unknown() }),
  z.object({ id: z.number(), is: z.literal("failed"), message: text }),
]);
export type Reply = z.infer<typeof Reply>;
