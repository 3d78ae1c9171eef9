import { typeLabel } from "../../model/lookup.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import { capital, codeEntrances, mustGive, uniqueNames, usableLegs, viewNames } from "../code/plan.ts";
import { literal, planCode, property } from "./plan.ts";
import address from "./runtime/address.ts?raw";
import controls from "./runtime/controls.ts?raw";
import history from "./runtime/history.ts?raw";
import lanes from "./runtime/lanes.ts?raw";
import make from "./runtime/make.ts?raw";
import moves from "./runtime/moves.ts?raw";
import navigator from "./runtime/navigator.ts?raw";
import plan from "./runtime/plan.ts?raw";
import state from "./runtime/state.ts?raw";
import step from "./runtime/step.ts?raw";
import values from "./runtime/values.ts?raw";

/** What the parts of the runtime are about, in the order in which they stand. */
const RUNTIME: ReadonlyArray<[string, string]> = [
  ["What a design is", plan],
  ["The state", state],
  ["Making places", make],
  ["Lanes and Back", lanes],
  ["Moves", moves],
  ["What expressions read", values],
  ["Controls and entrances", controls],
  ["Events", step],
  ["Addresses", address],
  ["The navigator", navigator],
  ["The browser's history", history],
];

/** Names that the runtime and the module themselves have, which types of records must keep clear of. */
const TAKEN = [
  ...RUNTIME.map(([, source]) => source)
    .join("\n")
    .matchAll(/^(?:export )?(?:interface|type|class|function|const) (\w+)/gm),
].map((m) => m[1] ?? "");
const OWN = [
  "Params",
  "Arguments",
  "ScreenId",
  "Views",
  "ViewParams",
  "Facts",
  "Guards",
  "Navigator",
  "Options",
  "Record",
  "Readonly",
  "Partial",
  "Set",
  "Map",
];

/** The project as one TypeScript module without dependencies: types, functions for each leg, the state function and the browser binding. */
export function typescriptModule(project: Project): string {
  const rows = uniqueNames(
    project.types.map((t) => t.id),
    capital,
    [...TAKEN, ...OWN],
  );
  return [
    `// Made by Etape from "${oneLine(project.name)}". Do not edit: change the design and make this file again.`,
    "",
    ...section("Screens, parameters and facts of this design", types(project, rows)),
    ...section("The design", [...(project.types.length > 0 ? [rowsCode(project, rows), ""] : []), planCode(project)]),
    ...RUNTIME.flatMap(([title, source]) => section(title, [bare(source)])),
    ...section("Navigating", navigatorCode(project, rows)),
  ].join("\n");
}

function section(title: string, lines: string[]): string[] {
  return [`// ---- ${title} ${"-".repeat(Math.max(4, 90 - title.length))}`, "", ...lines, ""];
}

/** A short text that is another for another text: 64 bits of FNV-1a (G. Fowler, L. C. Noll, K.-P. Vo, 1991), in hexadecimal digits. */
function fingerprint(text: string): string {
  let hash = 0xcbf29ce484222325n;
  for (const byte of new TextEncoder().encode(text)) hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n);
  return hash.toString(16).padStart(16, "0");
}

/** A part of the runtime without its imports. */
function bare(source: string): string {
  return source.replace(/^import [\s\S]*?from ".*?";\n/gm, "").trim();
}

/** A name in a comment: one line that does not end the comment. */
function oneLine(name: string): string {
  return name.replace(/[\r\n\u2028\u2029]+/g, " ").replaceAll("*/", "* /");
}

function typeOf(type: string, rows: ReadonlyMap<string, string>): string {
  switch (type) {
    case "text":
    case "date":
      return "string";
    case "integer":
    case "number":
      return "number";
    case "boolean":
      return "boolean";
    default:
      return rows.get(type) ?? "Args";
  }
}

type Rows = ReadonlyMap<string, string>;

function types(project: Project, rows: Rows): string[] {
  const fields = (params: readonly Param[], given: boolean) =>
    params.length === 0
      ? "Record<never, never>"
      : `{ ${params.map((p) => `readonly ${property(p.name)}${(given ? mustGive(p) : p.required || p.default !== undefined) ? "" : "?"}: ${typeOf(p.type, rows)}`).join("; ")} }`;
  const views = viewNames(project);
  return [
    ...project.types.flatMap((type) => [
      `/** ${oneLine(typeLabel(type))}. */`,
      `export type ${rows.get(type.id)} = { ${type.fields.map((f) => `readonly ${property(f.name)}: ${typeOf(f.type, rows)}`).join("; ")} };`,
    ]),
    "/** What each screen gets. */",
    "export interface Params {",
    ...project.screens.flatMap((screen) => [
      `  /** ${oneLine(screen.name || screen.id)} */`,
      `  readonly ${property(screen.id)}: ${fields(screen.params, false)};`,
    ]),
    "}",
    "/** What a call that shows a screen has to give. */",
    "export interface Arguments {",
    ...project.screens.map((screen) => `  readonly ${property(screen.id)}: ${fields(screen.params, true)};`),
    "}",
    "export type ScreenId = keyof Params;",
    "/** The screens by the names that they have in code. */",
    "export interface ViewParams {",
    ...project.screens.map((screen) => `  readonly ${property(views.get(screen.id) ?? screen.id)}: Params[${literal(screen.id)}];`),
    "}",
    "/** One function a screen, by its name in code; where one is missing, this does not compile. */",
    "export type Views<View> = { readonly [Name in keyof ViewParams]: (params: ViewParams[Name]) => View };",
    `const viewNames: Readonly<Record<string, keyof ViewParams>> = { ${project.screens.map((s) => `${property(s.id)}: ${literal(views.get(s.id))}`).join(", ")} };`,
    "/** What a screen that shows looks like, from a table of views. */",
    "export function viewOf<View>(views: Views<View>, screen: Shown): View | undefined {",
    "  const name = viewNames[screen.at];",
    "  return name === undefined ? undefined : (views[name] as (params: Args) => View)(screen.args);",
    "}",
    "/** The facts that conditions ask about. */",
    "export interface Facts {",
    ...project.facts.map(
      (f) => `  readonly ${property(f.id)}: ${f.type === "boolean" ? "boolean" : (f.values ?? []).map((v) => literal(v)).join(" | ") || "never"};`,
    ),
    "}",
    "/** What only the app can tell: asked before each event. */",
    "export interface Guards {",
    ...project.facts.filter((f) => f.source === "outside").map((f) => `  readonly ${property(f.id)}: () => Facts[${literal(f.id)}];`),
    "}",
  ];
}

function rowsCode(project: Project, rows: Rows): string {
  const list = project.types.map(
    (t) => `  ${property(t.id)}: (): readonly ${rows.get(t.id)}[] => [${t.samples.map((row) => literal(row)).join(", ")}] as never,`,
  );
  return [
    "/** The rows of each type: samples, until the app gives its own. */",
    "const samples = {",
    ...list,
    "};",
    "/** The rows of a plan, with those that the app gives in place of samples. */",
    'function withRows(own: Partial<typeof samples>): Plan["rows"] {',
    "  const given: Readonly<Record<string, (() => readonly Args[]) | undefined>> = own as never;",
    "  return Object.fromEntries(Object.entries(plan.rows).map(([id, type]) => [id, { ...type, all: given[id] ?? type.all }]));",
    "}",
  ].join("\n");
}

function navigatorCode(project: Project, rows: Rows): string[] {
  const guarded = project.facts.some((f) => f.source === "outside");
  const members = (kind: "tabs" | "drawer") =>
    [...new Set(project.containers.filter((c) => c.kind === kind).flatMap((c) => c.members))].map((id) => literal(id)).join(" | ") || "never";
  const given = (screen: Screen | undefined) => {
    if (!screen || screen.params.length === 0) return { takes: "", passes: "" };
    const needed = screen.params.some(mustGive);
    return { takes: `args: Arguments[${literal(screen.id)}]${needed ? "" : " = {}"}`, passes: "args" };
  };
  const legs = usableLegs(project).flatMap((leg) => {
    const { takes, passes } = given(leg.target);
    const used = `used: { readonly item?: ${leg.rows ? `${rows.get(leg.rows.id)} | string | number` : "Json"}; readonly fields?: Args } = {}`;
    return [
      `    /** ${oneLine(leg.says)} */`,
      `    ${property(leg.leg.id)}: (${[takes, used].filter(Boolean).join(", ")}) => this.send({ do: "leg", leg: ${literal(leg.leg.id)}, ${passes ? `${passes}, ` : ""}...used }),`,
    ];
  });
  const entrances = codeEntrances(project).flatMap(({ entrance, variables }) => {
    const takes =
      variables.length > 0 ? `args: { ${variables.map((v) => `readonly ${property(v)}: Json`).join("; ")} }, ` : entrance.pass ? "args: Args = {}, " : "";
    return [
      `    /** ${oneLine(entrance.name)} */`,
      `    ${property(entrance.id)}: (${takes}cold = false) => this.send({ do: "enter", entrance: ${literal(entrance.id)}, ${takes ? "args, " : ""}cold }),`,
    ];
  });
  const addresses = codeEntrances(project).flatMap(({ entrance, variables }) =>
    entrance.pattern === undefined
      ? []
      : [
          `  ${property(entrance.id)}: (args: { ${variables.map((v) => `readonly ${property(v)}: string | number | boolean`).join("; ")} }) => buildPattern(${literal(entrance.pattern)}, args),`,
        ],
  );
  return [
    "export interface Options {",
    "  readonly hooks?: Hooks;",
    `  readonly guards${guarded ? "" : "?"}: Guards;`,
    ...(project.types.length > 0 ? ["  /** The app's own rows, for pages and lists. */", "  readonly rows?: Partial<typeof samples>;"] : []),
    "}",
    "",
    "/** Moves through the app as the design says. */",
    "export class Navigator extends Core {",
    `  constructor(options: Options${guarded ? "" : " = {}"}) {`,
    `    super(${project.types.length > 0 ? "{ ...plan, rows: withRows(options.rows ?? {}) }" : "plan"}, options.hooks, { ...options.guards });`,
    "  }",
    "",
    "  /** One function a leg. A leg that can not be used now is ignored. */",
    "  readonly legs = {",
    ...legs,
    "  };",
    "  /** One function a way in. */",
    "  readonly enter = {",
    ...entrances,
    "  };",
    `  tab(to: ${members("tabs")}) {`,
    '    return this.send({ do: "tab", to });',
    "  }",
    `  pick(to: ${members("drawer")}) {`,
    '    return this.send({ do: "pick", to });',
    "  }",
    "  back() {",
    '    return this.send({ do: "back" });',
    "  }",
    "  /** The control at the start of the bar. */",
    "  pressLead() {",
    '    return this.send({ do: "lead" });',
    "  }",
    "  close(via: Way) {",
    '    return this.send({ do: "close", via });',
    "  }",
    "  setWidth(to: Width) {",
    '    return this.send({ do: "width", to });',
    "  }",
    "  /** Binds to the browser's history; gives what ends that. */",
    "  bindHistory(win: HistoryWindow = (globalThis as unknown as { window: HistoryWindow }).window) {",
    `    return bindToHistory(this, ${literal(`${project.name} ${fingerprint(planCode(project))}`)}, win);`,
    "  }",
    "}",
    "",
    "/** The addresses of the ways in. */",
    "export const addresses = {",
    ...addresses,
    "};",
    "",
    "/** The state at launch, what an event makes of a state, and a state in one line: pure functions, as the navigator uses them. */",
    "export const start = (): State => launch(plan);",
    "export const next = (state: State, event: Event): Outcome => step(plan, state, event);",
    "export const lineOf = (state: State): string => line(plan, state);",
  ];
}
