// Compiled by the test of the package against the types that it comes with.
import {
  addScreen,
  applyEdit,
  appOf,
  check,
  type Edit,
  emptyProject,
  generate,
  type Leg,
  launch,
  type Move,
  newScreen,
  type Project,
  readProject,
  type Screen,
  type State,
  step,
} from "etape";
import schema from "etape/schema";

const read = readProject("{}");
const project: Project = read.ok ? read.project : emptyProject("Tea");
const edit: Edit = addScreen(newScreen("tea", "Tea"));
const screens: Screen[] = applyEdit(project, edit).screens;
const legs: Leg[] = project.legs;
const kind: "push" | "replace" | "reset" | "return" | "open" | "close" | "back" | "up" | "select" | "menu" | "leave" | "proceed" | undefined =
  legs[0]?.move?.kind;
const state: State = launch(appOf(project));
// @ts-expect-error a screen has no such field
screens[0]?.colour;
// @ts-expect-error there is no such move
const wrong: Move = { kind: "jump", to: "x" };
console.log(check(project).findings.length, kind, step(appOf(project), state, { do: "back" }).outcome, schema.$schema, generate(project, "typescript"), wrong);
