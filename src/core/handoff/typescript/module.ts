import { typeLabel } from "../../model/lookup.ts";
import type { Param, Project } from "../../model/schema.ts";
import { planData } from "../../plan/planOf.ts";
import { looksData } from "../code/looks.ts";
import { capital, uniqueNames, viewNames } from "../code/plan.ts";
import { literal, looksCode, planCode, property } from "./literal.ts";
import { navigatorCode } from "./navigatorCode.ts";
import { heading, runtimeNames, runtimeSource } from "./runtime.ts";
import { anyOf, madeBy, oneLine, type Rows, typeOf } from "./words.ts";

/** Names that the module itself has, which types of records must keep clear of, as of those of the runtime. */
const OWN = [
  "Arguments",
  "Calls",
  "Elements",
  "EntranceId",
  "Facts",
  "Guards",
  "LegId",
  "Map",
  "ModalId",
  "Navigator",
  "Options",
  "Page",
  "Params",
  "Parameters",
  "Partial",
  "Pick",
  "PickId",
  "PlaceId",
  "Readonly",
  "Record",
  "Screen",
  "ScreenId",
  "Set",
  "StoredFacts",
  "TabId",
  "Uses",
  "ViewParams",
  "Views",
];

/** What of the runtime an app may name. */
const PUBLIC = [
  "Args",
  "Around",
  "Came",
  "ElementNow",
  "Event",
  "HistoryOptions",
  "HistoryWindow",
  "Hooks",
  "LogEntry",
  "Json",
  "Layer",
  "Lead",
  "Moving",
  "Node",
  "Outcome",
  "PlanData",
  "Seen",
  "Shown",
  "State",
  "Store",
  "Way",
  "Why",
  "Width",
];

/**
 * The project as one TypeScript module without dependencies: first what an app uses (types, the plan, functions for each leg, the
 * state function, the browser binding), then, after one line that says so, the engine's own source, of which nothing is exported.
 */
export function typescriptModule(project: Project): string {
  const rows = uniqueNames(
    project.types.map((t) => t.id),
    capital,
    [...runtimeNames(), ...OWN],
  );
  return [
    madeBy(project),
    `// What an app uses ends at the line "${BORDER}"; what follows it may change from one version to the next.`,
    "",
    `export type { ${PUBLIC.join(", ")} };`,
    "",
    ...section("Screens, parameters and facts of this design", types(project, rows)),
    ...section("Navigating", navigatorCode(project, rows)),
    ...section("The design", [
      "/** The design itself: places, legs, ways in, facts, and moves as stack operations. */",
      planCode(planData(project)),
      "/** What it says of how things look: titles, elements and motions. */",
      looksCode(looksData(project)),
    ]),
    `// ==== ${BORDER} ${"=".repeat(60)}`,
    "",
    runtimeSource(),
  ].join("\n");
}

const BORDER = "What runs it";

function section(title: string, lines: string[]): string[] {
  return [heading(title), "", ...lines, ""];
}

function types(project: Project, rows: Rows): string[] {
  const members = (kind: "tabs" | "drawer") => anyOf(project.containers.filter((c) => c.kind === kind).flatMap((c) => c.members));
  const params = (list: readonly Param[]) =>
    list.length === 0
      ? "Record<never, never>"
      : `{ ${list.map((p) => `readonly ${property(p.name)}${p.required || p.default !== undefined ? "" : "?"}: ${typeOf(p.type, rows)}`).join("; ")} }`;
  const views = viewNames(project);
  const fact = (id: string) => `  readonly ${property(id)}`;
  const valued = project.facts.map(
    (f) => `${fact(f.id)}: ${f.type === "boolean" ? "boolean" : (f.values ?? []).map((v) => literal(v)).join(" | ") || "never"};`,
  );
  const stored = anyOf(project.facts.filter((f) => f.persists).map(({ id }) => id));
  return [
    ...project.types.flatMap((type) => [
      `/** ${oneLine(typeLabel(type))}. */`,
      `export type ${rows.get(type.id)} = { ${type.fields.map((f) => `readonly ${property(f.name)}: ${typeOf(f.type, rows)}`).join("; ")} };`,
    ]),
    "/** What each screen knows. */",
    "export interface Params {",
    ...project.screens.flatMap((screen) => [`  /** ${oneLine(screen.name || screen.id)} */`, `  readonly ${property(screen.id)}: ${params(screen.params)};`]),
    "}",
    "export type ScreenId = keyof Params;",
    "/** A screen that stands: which one, what it knows, its title, and a key that it keeps as long as it stands, and that no other ever has. */",
    "export type Screen = { [Id in ScreenId]: { readonly id: Id; readonly params: Params[Id]; readonly key: number; readonly title: string } }[ScreenId];",
    `export type ModalId = ${anyOf(project.containers.filter((c) => c.kind === "modal").map((c) => c.id))};`,
    `export type TabId = ${members("tabs")};`,
    `export type PickId = ${members("drawer")};`,
    "/** The page, or a modal over it: the screen that shows, the containers around it, and all screens that stand in it. */",
    "export interface Page {",
    "  /** Undefined for the page itself. */",
    "  readonly modal: ModalId | undefined;",
    "  readonly screen: Screen;",
    "  readonly around: readonly Around[];",
    "  readonly standing: readonly Screen[];",
    "  /** Whether it can be used: no modal above it blocks. */",
    "  readonly inReach: boolean;",
    "}",
    "/** The elements by the place that they stand on. */",
    "export interface Elements {",
    ...[...project.containers, ...project.screens].flatMap(({ id, elements = [] }) =>
      elements.length === 0 ? [] : [`  readonly ${property(id)}: ${anyOf(elements.map((e) => e.id))};`],
    ),
    "}",
    "/** The screens by the names that they have in code. */",
    "export interface ViewParams {",
    ...project.screens.map((screen) => `  readonly ${property(views.get(screen.id) ?? screen.id)}: Params[${literal(screen.id)}];`),
    "}",
    "/** One function a screen, by its name in code; where one is missing, this does not compile. */",
    "export type Views<View> = { readonly [Name in keyof ViewParams]: (params: ViewParams[Name]) => View };",
    `export const viewNames: { readonly [Id in ScreenId]: keyof ViewParams } = { ${project.screens.map((s) => `${property(s.id)}: ${literal(views.get(s.id))}`).join(", ")} };`,
    "/** What a screen looks like, from a table of views. */",
    "export function viewOf<View>(views: Views<View>, screen: Screen): View {",
    "  return (views[viewNames[screen.id]] as (params: Params[ScreenId]) => View)(screen.params);",
    "}",
    "/** The facts that conditions ask about. */",
    "export interface Facts {",
    ...valued,
    "}",
    "/** The facts that outlive the app. */",
    `export type StoredFacts = Pick<Facts, ${stored}>;`,
    "/** What only the app can tell: asked before each event. */",
    "export interface Guards {",
    ...project.facts.filter((f) => f.source === "outside").map((f) => `${fact(f.id)}: () => Facts[${literal(f.id)}];`),
    "}",
  ];
}
