/**
 * The core of Etape: navigation documents, what they mean, and what can be proved of them. It needs no page, no server and no
 * network; everything in it is a pure function of its arguments, and no value that it gives is ever changed.
 *
 * **Read and write.** A document is JSON. Reading gives a project, or every problem with where it is and what is expected.
 * ```ts
 * const read = readProject('{"format": "etape/1", "name": "Tea"}');
 * read.ok; // => false
 * read.ok ? "" : read.problems[0].path; // => "root"
 * ```
 *
 * **Edit.** An edit is a name and a function from a project to another; the old one stays as it is.
 * ```ts
 * const tea = addScreen(newScreen("tea", "Tea"));
 * const shelf = addContainer(newContainer("stack", "shelf", "Shelf", ["home", "tea"]));
 * const drawn = applyEdit(emptyProject("Tea"), together("Draw the shelf", [tea, shelf, changeProject({ root: "shelf" })]));
 * const open = { id: "open", from: "home", on: { kind: "tap", element: "row" }, move: { kind: "push", to: "tea" } };
 * const row = addElement("home", { id: "row", kind: "button", label: "A tea" });
 * const project = applyEdit(drawn, together("Link the row", [row, addLeg(drawn, open)]));
 * tea.name; // => "Add screen \"Tea\""
 * readProject(writeProject(project)).ok; // => true
 * ```
 *
 * **Run.** `appOf` makes a project ready to run, once. A state is a plain value; a step gives the next one, what came of it, and a
 * log of what happened on the way.
 * ```ts
 * const app = appOf(project);
 * const start = launch(app);
 * const after = step(app, start, { do: "leg", leg: "open" });
 * after.outcome; // => "moved"
 * after.log.fired; // => ["open"]
 * stateLine(app.plan, after.state); // => "shelf[home,tea]"
 * step(app, after.state, { do: "tab", to: "tea" }).outcome; // => "ignored"
 * available(project, after.state).map((event) => event.do); // => ["lead", "back", "launch", "width", "width"]
 * ```
 *
 * **Check.** What is wrong with a design, each finding with a walk that shows it where there is one, and what was proved.
 * ```ts
 * const { findings, proof } = check(project);
 * findings.filter((finding) => finding.severity === "blocker"); // => []
 * proof.complete; // => true
 * ```
 *
 * **Hand off.** Code, diagrams, a specification, tests.
 * ```ts
 * generate(project, "typescript").map((file) => file.name); // => ["navigation.ts"]
 * planData(project).legs.open.move; // => [{"op":"stack","of":"nearest"},{"op":"push","make":"tea"}]
 * ```
 *
 * **Pictures.** What an area of a screen's picture can stand for, and a document with its pictures in one file. The checker is told
 * which files are there, and says what is missing.
 * ```ts
 * controlsOf(project, "home").map((one) => one.control); // => ["row", "lead"]
 * const tall = { file: "home.png", size: [390, 844], holds: "screen", areas: [{ at: [20, 90, 350, 64], control: "row" }] };
 * const faced = applyEdit(project, putPicture(project, "home", tall));
 * check(faced, { pictures: {} }).findings.map((finding) => finding.code); // => ["missing-picture"]
 * check(faced, { pictures: { "home.png": { size: [390, 844] } } }).findings; // => []
 * readHeader(new Uint8Array([60, 115, 118, 103, 62])).message; // => "It is an SVG; pictures are PNG, JPEG, WebP or AVIF."
 * ```
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
