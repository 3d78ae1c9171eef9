/**
 * The core of Etape as a library: navigation documents, what they mean, and what can be proved of them. It needs no page, no server and
 * no network; everything in it is a pure function of its arguments, and no value that it gives is ever changed. README.md beside this
 * file is its index, with examples that are run.
 */

export { check } from "./check/check.ts";
export type { CheckResult, Finding, Proof } from "./check/finding.ts";
export type { CheckOptions } from "./check/options.ts";
export { compareProjects } from "./compare/compare.ts";
export { generate } from "./handoff/generate.ts";
export type { Checked, HandedFile, Target } from "./handoff/handed.ts";
export { TARGETS } from "./handoff/target.ts";
export { appOf } from "./insight/app.ts";
export { available } from "./insight/available.ts";
export { explain } from "./insight/explain.ts";
export { runWalk, type WalkResult } from "./insight/walks.ts";
export { addContainer, addElement, addEntrance, addLeg, addScreen, emptyProject, newContainer, newScreen } from "./model/edits/add.ts";
export { changeContainer, changeElement, changeEntrance, changeFact, changeLeg, changeProject, changeScreen } from "./model/edits/change.ts";
export type { Edit } from "./model/edits/edit.ts";
export { applyEdit, invertEdit, readEdit, together } from "./model/edits/kinds.ts";
export { linkElement } from "./model/edits/link.ts";
export { putPicture } from "./model/edits/pictures.ts";
export { type Control, controlsOf, type PictureFiles, pictureFiles, pictureFor } from "./model/pictures.ts";
export { type Problem, type ReadResult, readProject, readProjectData } from "./model/read.ts";
export type { Area, Container, Element, Entrance, Fact, Leg, Move, NavEvent, Picture, Project, RecordType, Screen, Trigger, Walk } from "./model/schema.ts";
export { projectJsonSchema, writeProject } from "./model/write.ts";
export { type Header, readHeader } from "./pictures/header.ts";
export { type Packed, packed, unpacked } from "./pictures/zip.ts";
export type { PlanData } from "./plan/data.ts";
export type { Plan } from "./plan/plan.ts";
export { planData, planHash, planOf } from "./plan/planOf.ts";
export { stateLine } from "./semantics/line.ts";
export { arrive, beginning, launch, step } from "./semantics/step.ts";
export type { App, Event, Log, Node, Outcome, Shown, State } from "./semantics/types.ts";
