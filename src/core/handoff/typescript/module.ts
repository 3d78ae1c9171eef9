import { typeLabel } from "../../model/lookup.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import { planData, planHash } from "../../plan/planOf.ts";
import { capital, codeEntrances, mustGive, uniqueNames, usableLegs, viewNames } from "../code/plan.ts";
import { literal, planCode, property } from "./literal.ts";
import { heading, runtimeNames, runtimeSource } from "./runtime.ts";

/** Names that the module itself has, which types of records must keep clear of, as of those of the runtime. */
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

/** What of the runtime an app may name. */
const PUBLIC = ["Args", "Event", "Hooks", "HistoryWindow", "Json", "Layer", "Lead", "Moving", "Node", "Outcome", "PlanData", "Shown", "State", "Way", "Width"];

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
    `// Made by Etape from "${oneLine(project.name)}". Do not edit: change the design and make this file again.`,
    `// What an app uses ends at the line "${BORDER}"; what follows it may change from one version to the next.`,
    "",
    `export type { ${PUBLIC.join(", ")} };`,
    "",
    ...section("Screens, parameters and facts of this design", types(project, rows)),
    ...section("Navigating", navigatorCode(project, rows)),
    ...section("The design", ["/** The design itself: places, legs, ways in, facts, and moves as stack operations. */", planCode(planData(project))]),
    `// ==== ${BORDER} ${"=".repeat(60)}`,
    "",
    runtimeSource(),
  ].join("\n");
}

const BORDER = "What runs it";

function section(title: string, lines: string[]): string[] {
  return [heading(title), "", ...lines, ""];
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
          `  ${property(entrance.id)}: (args: { ${variables.map((v) => `readonly ${property(v)}: string | number | boolean`).join("; ")} }) => buildAddress(${literal(entrance.pattern)}, args),`,
        ],
  );
  return [
    "export interface Options {",
    "  readonly hooks?: Hooks;",
    `  readonly guards${guarded ? "" : "?"}: Guards;`,
    ...rowsOption(project, rows),
    "}",
    "",
    "/** Moves through the app as the design says. */",
    "export class Navigator {",
    "  private readonly core: Core;",
    "",
    `  constructor(options: Options${guarded ? "" : " = {}"}) {`,
    ...(project.types.length > 0 ? ["    const own: Readonly<Record<string, (() => readonly Args[]) | undefined>> = options.rows ?? {};"] : []),
    `    this.core = new Core({ ...ready(), guards: { ...options.guards }${project.types.length > 0 ? ", rows: (type) => own[type]?.()" : ""} }, options.hooks);`,
    "  }",
    "",
    "  get state(): State {",
    "    return this.core.state;",
    "  }",
    "  /** The screen that shows, with its parameters. */",
    "  get screen(): Shown {",
    "    return this.core.screen;",
    "  }",
    "  /** What the control at the start of the bar is. */",
    "  get lead(): Lead {",
    "    return this.core.lead;",
    "  }",
    "  /** The state in one line. */",
    "  get line(): string {",
    "    return this.core.line;",
    "  }",
    "  /** The address of the screen that shows, if it has one. */",
    "  get address(): string | undefined {",
    "    return this.core.address;",
    "  }",
    "  /** Carries out an event; what guards say of the outside is asked first. */",
    '  send(event: Event): Outcome["outcome"] | "held" {',
    "    return this.core.send(event);",
    "  }",
    "  /** Puts a state in place that was kept before. */",
    "  restore(state: State): void {",
    "    this.core.restore(state);",
    "  }",
    "  /** Calls a function after each change of the state; gives what ends that. */",
    "  subscribe(listener: (state: State, event: Event | undefined) => void): () => void {",
    "    return this.core.subscribe(listener);",
    "  }",
    "  /** The way in that an address belongs to, with what its variables stand for. */",
    "  match(address: string): { entrance: string; args: Record<string, string> } | undefined {",
    "    return this.core.match(address);",
    "  }",
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
    `    return bindToHistory(this.core, ${literal(`${project.name} ${planHash(project)}`)}, win);`,
    "  }",
    "}",
    "",
    "/** The addresses of the ways in. */",
    "export const addresses = {",
    ...addresses,
    "};",
    "",
    "/** The state at launch, what an event makes of a state, and a state in one line: pure functions, as the navigator uses them. */",
    "let made: App | undefined;",
    "const ready = (): App => (made ??= plainApp(planFrom(plan)));",
    "export const start = (): State => launch(ready());",
    "export const next = (state: State, event: Event): Outcome => step(ready(), state, event);",
    "export const lineOf = (state: State): string => stateLine(ready().plan, state);",
  ];
}

function rowsOption(project: Project, rows: Rows): string[] {
  if (project.types.length === 0) return [];
  const each = project.types.map((type) => `${property(type.id)}?: () => readonly ${rows.get(type.id)}[]`);
  return ["  /** The app's own rows, for pages and lists, in place of the samples. */", `  readonly rows?: { ${each.join("; ")} };`];
}
