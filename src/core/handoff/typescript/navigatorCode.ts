import { elementIdOf, lookup, nameOf } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { planHash } from "../../plan/planOf.ts";
import { type Inputs, inputsOf } from "../code/inputs.ts";
import { codeEntrances, usableLegs } from "../code/plan.ts";
import { literal, property } from "./literal.ts";
import { anyOf, oneLine, type Rows, typeOf } from "./words.ts";

/** The part of the module that moves: events by name, the navigator, addresses, and the pure functions beneath. */
export function navigatorCode(project: Project, rows: Rows): string[] {
  const guarded = project.facts.some((f) => f.source === "outside");
  const own = project.types.length > 0;
  return [
    ...eventsCode(project, rows),
    ...usesCode(project, rows),
    ...entrancesCode(project),
    "",
    "export interface Options {",
    "  readonly hooks?: Hooks;",
    `  readonly guards${guarded ? "" : "?"}: Guards;`,
    "  /** Facts as they were stored: `navigator.stored`. */",
    "  readonly facts?: Partial<StoredFacts>;",
    "  /** Opens an address outside of the app. */",
    "  readonly open?: (url: string) => void;",
    "  /** False: the navigator sends no leg by itself after a while. */",
    "  readonly timers?: boolean;",
    "  /** Takes what happens, entry by entry, to be held against the design: `etape follow`. What was typed into fields is not in it. */",
    "  readonly log?: (entry: LogEntry) => void;",
    "  /** Names this start of the app in its log. */",
    "  readonly run?: string;",
    ...(own
      ? [
          "  /** The app's own rows, for pages and lists, in place of the samples. */",
          `  readonly rows?: { ${project.types.map((type) => `${property(type.id)}?: () => readonly ${rows.get(type.id)}[]`).join("; ")} };`,
        ]
      : []),
    "}",
    "",
    NAVIGATOR_HEAD,
    `  constructor(options: Options${guarded ? "" : " = {}"}) {`,
    ...(own ? ["    const own: Readonly<Record<string, (() => readonly Args[]) | undefined>> = options.rows ?? {};"] : []),
    `    this.core = new Core({ ...ready(), guards: { ...options.guards }${own ? ", rows: (type) => own[type]?.()" : ""} }, looks, options);`,
    "  }",
    "",
    NAVIGATOR_BODY,
    `    return bindToHistory(this.core, ${literal(project.name)}, ${literal(planHash(project))}, options);`,
    "  }",
    "}",
    "",
    PURE,
  ];
}

/** The parameters of a call, and the fields of its event. */
function callOf({ row, fields }: Inputs, rows: Rows): { takes: string[]; gives: string } {
  const type = row && (row.fields === "all" ? rows.get(row.type.id) : `Pick<${rows.get(row.type.id)}, ${anyOf(row.fields)}>`);
  const typed = fields.map(({ id, type: of }) => `readonly ${property(id)}: ${of === "boolean" ? "boolean" : "string"}`).join("; ");
  return {
    takes: [...(row ? [`row: ${type}`] : []), ...(fields.length > 0 ? [`fields: { ${typed} }`] : [])],
    gives: `${row ? ", item: row" : ""}${fields.length > 0 ? ", fields" : ""}`,
  };
}

function eventsCode(project: Project, rows: Rows): string[] {
  const legs = usableLegs(project).flatMap(({ leg, says }) => {
    const { takes, gives } = callOf(inputsOf(project, [leg]), rows);
    return [`  /** ${oneLine(says)} */`, `  ${property(leg.id)}: (${takes.join(", ")}): Event => ({ do: "leg", leg: ${literal(leg.id)}${gives} }),`];
  });
  return [
    "/** The event of each leg. A call gives only what the design cannot work out: of the row that was used what is read, and what was typed. */",
    "export const events = {",
    ...legs,
    "};",
    "export type LegId = keyof typeof events;",
    "/** Each leg with its event's parameters. */",
    "export type Calls<Result> = { readonly [Id in LegId]: (...given: Parameters<(typeof events)[Id]>) => Result };",
    "function calls<Result>(make: (event: Event) => Result): Calls<Result> {",
    "  const each = Object.entries(events).map(([id, of]) => [id, (...given: unknown[]) => make((of as (...given: unknown[]) => Event)(...given))]);",
    "  return Object.fromEntries(each) as Calls<Result>;",
    "}",
    "",
  ];
}

/** Legs by place and element that answer one tap or submission. */
function elementLegs(project: Project): Map<string, Map<string, Leg[]>> {
  const out = new Map<string, Map<string, Leg[]>>();
  for (const leg of project.legs) {
    const element = elementIdOf(leg);
    if ((leg.on.kind !== "tap" && leg.on.kind !== "submit") || element === undefined) continue;
    const of = out.get(leg.from) ?? new Map<string, Leg[]>();
    out.set(leg.from, of.set(element, [...(of.get(element) ?? []), leg]));
  }
  return out;
}

function usesCode(project: Project, rows: Rows): string[] {
  const places = [...elementLegs(project)].flatMap(([place, elements]) => [
    `  ${property(place)}: {`,
    ...[...elements].flatMap(([element, legs]) => {
      const { takes, gives } = callOf(inputsOf(project, legs), rows);
      const outcomes = [...new Set(legs.map((leg) => ("outcome" in leg.on ? leg.on.outcome : undefined)))];
      const chosen = outcomes.some((outcome) => outcome !== undefined);
      const all = chosen
        ? `({ ${outcomes.map((outcome) => `${property(outcome ?? "")}: ${literal(legs.filter((leg) => ("outcome" in leg.on ? leg.on.outcome : undefined) === outcome).map(({ id }) => id))}`).join(", ")} })[outcome]`
        : literal(legs.map(({ id }) => id));
      const outcome = chosen ? [`outcome: ${anyOf(outcomes.map((one) => one ?? ""))}`] : [];
      const label = lookup(project).places.has(place) ? `${nameOf(project, place)}: ${element}` : element;
      return [
        `    /** ${oneLine(label)} */`,
        `    ${property(element)}: (${[...takes, ...outcome].join(", ")}): Event[] => ${all}.map((leg): Event => ({ do: "leg", leg${gives} })),`,
      ];
    }),
    "  },",
  ]);
  return [
    "/** By place and element what a tap or a submission may set off: the first of these events that can. An element with outcomes is told which it was. */",
    "export const uses = {",
    ...places,
    "};",
    "/** Each element with the parameters of its use. */",
    "export type Uses = {",
    "  readonly [Place in keyof typeof uses]: {",
    "    readonly [Id in keyof (typeof uses)[Place]]: (...given: (typeof uses)[Place][Id] extends (...given: infer Given) => Event[] ? Given : never) => Came;",
    "  };",
    "};",
    "",
  ];
}

function entrancesCode(project: Project): string[] {
  const all = codeEntrances(project).map(({ entrance, variables, target }) => {
    const types = variables.map((name) => {
      const param = entrance.pass ? undefined : target?.params.find((one) => one.name === name);
      return `readonly ${property(name)}: ${param ? typeOf(param.type, new Map()) : "string"}`;
    });
    return { entrance, args: variables.length > 0 ? `args: { ${types.join("; ")} }` : "" };
  });
  return [
    "/** The event of each way in. `cold`: the app was not running. */",
    "export const entrances = {",
    ...all.flatMap(({ entrance, args }) => [
      `  /** ${oneLine(entrance.name)} */`,
      `  ${property(entrance.id)}: (${[args, "cold = false"].filter(Boolean).join(", ")}): Event => ({ do: "enter", entrance: ${literal(entrance.id)}${args ? ", args" : ""}, cold }),`,
    ]),
    "};",
    "export type EntranceId = keyof typeof entrances;",
    "/** The addresses of the ways in, and those that screens have of their own. */",
    "export const addresses = {",
    ...all.flatMap(({ entrance, args }) =>
      entrance.pattern === undefined
        ? []
        : [`  ${property(entrance.id)}: (${args}): string | undefined => buildAddress(${literal(entrance.pattern)}, ${args ? "args" : "{}"}),`],
    ),
    "};",
    `const ways: Readonly<Record<string, EntranceId>> = { ${all.map(({ entrance }) => `${property(entrance.id)}: ${literal(entrance.id)}`).join(", ")} };`,
  ];
}

const NAVIGATOR_HEAD = `/** Moves through the app as the design says. */
export class Navigator {
  private readonly core: Core;
`;

const NAVIGATOR_BODY = `  /** One function a leg. A leg that cannot be used now is ignored. */
  readonly legs: Calls<Came> = calls((event) => this.send(event));
  /** Whether a leg would do something now. */
  readonly can: Calls<boolean> = calls((event) => this.core.why(event) === undefined);
  /** Why a leg would do nothing now; undefined where it would do something. */
  readonly why: Calls<Why> = calls((event) => this.core.why(event));
  /** What a tap on an element, or its submission, does: the first of its legs that can. */
  readonly use: Uses = Object.fromEntries(
    Object.entries(uses).map(([place, elements]) => [
      place,
      Object.fromEntries(
        Object.entries(elements as Record<string, (...given: unknown[]) => Event[]>).map(([id, of]) => [id, (...given: unknown[]) => this.first(of(...given))]),
      ),
    ]),
  ) as unknown as Uses;
  /** One function a way in. */
  readonly enter = Object.fromEntries(
    Object.entries(entrances).map(([id, of]) => [id, (...given: unknown[]) => this.send((of as (...given: unknown[]) => Event)(...given))]),
  ) as { readonly [Id in EntranceId]: (...given: Parameters<(typeof entrances)[Id]>) => Came };

  get state(): State {
    return this.core.state;
  }
  /** The screen that shows: the same object as long as nothing changes. */
  get screen(): Screen {
    return this.core.screen as Screen;
  }
  /** The page and the modals over it, lowest first: the same object as long as nothing changes. */
  get pages(): readonly Page[] {
    return this.core.branches as readonly Page[];
  }
  /** How the last step looks; undefined where nothing changed place. */
  get motion(): Seen | undefined {
    return this.core.motion;
  }
  /** What the control at the start of the bar is. */
  get lead(): Lead {
    return this.core.lead;
  }
  get facts(): Facts {
    return this.core.state.facts as unknown as Facts;
  }
  /** The facts that outlive the app: to be stored, and given again when it starts. */
  get stored(): StoredFacts {
    return this.core.stored as unknown as StoredFacts;
  }
  /** The state in one line. */
  get line(): string {
    return this.core.line;
  }
  /** The address of the screen that shows, if it has one. */
  get address(): string | undefined {
    return this.core.address;
  }
  /** Where an event would lead, as an address for a link; undefined where the address alone would not do the same. */
  href(event: Event): string | undefined {
    return this.core.href(event);
  }
  /** Why an event would do nothing now; undefined where it would do something. */
  whyNot(event: Event): Why {
    return this.core.why(event);
  }
  /** How an element of a place stands now: hidden, disabled, its text. */
  element<Place extends keyof Elements>(place: Place, id: Elements[Place]): ElementNow {
    return this.core.element(place, id);
  }
  /** Carries out an event; what guards say of the outside is asked first. */
  send(event: Event): Came {
    return this.core.send(event);
  }
  private first(all: readonly Event[]): Came {
    return this.send(all.find((event) => this.core.why(event) !== "no-such-control") ?? (all[0] as Event));
  }
  /** Puts a state in place that was kept before. */
  restore(state: State): void {
    this.core.restore(state);
  }
  /** Calls a function after each change of the state; gives what ends that. */
  subscribe(listener: (state: State, event: Event | undefined) => void): () => void {
    return this.core.subscribe(listener);
  }
  /** The way in that an address belongs to, with what its variables stand for; undefined where none is declared for it. */
  match(address: string): { entrance: EntranceId; args: Record<string, string> } | undefined {
    const found = this.core.match(address);
    const entrance = found && ways[found.entrance];
    return entrance === undefined ? undefined : { entrance, args: found?.args ?? {} };
  }
  /** Comes in by an address, as a link does; "ignored" where no screen and no way in has it. */
  open(address: string, cold = false): Came {
    const found = this.core.match(address);
    return found ? this.send({ do: "enter", entrance: found.entrance, args: found.args, cold }) : "ignored";
  }
  tab(to: TabId): Came {
    return this.send({ do: "tab", to });
  }
  pick(to: PickId): Came {
    return this.send({ do: "pick", to });
  }
  back(): Came {
    return this.send({ do: "back" });
  }
  /** The control at the start of the bar. */
  pressLead(): Came {
    return this.send({ do: "lead" });
  }
  close(via: Way): Came {
    return this.send({ do: "close", via });
  }
  setWidth(to: Width): Came {
    return this.send({ do: "width", to });
  }
  /** Ends what the navigator does by itself, and tells nobody any longer. */
  stop(): void {
    this.core.stop();
  }
  /** Binds to the browser's history; gives what ends that. */
  bindHistory(options: HistoryOptions = {}): () => void {`;

const PURE = `/** The state at launch, what an event makes of a state, and a state in one line: pure functions, as the navigator uses them. */
let made: App | undefined;
const ready = (): App => (made ??= plainApp(planFrom(plan)));
export const start = (): State => launch(ready());
export const next = (state: State, event: Event): Outcome => step(ready(), state, event);
export const lineOf = (state: State): string => stateLine(ready().plan, state);`;
