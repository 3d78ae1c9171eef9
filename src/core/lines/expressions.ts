import type { Project } from "../model/schema.ts";
import { factsNamed, fromPlainWords, type PlainNames, unknownWords } from "../model/spokenExpression.ts";
import type { At, ElementNode, FactNode, LegNode, Lines, Option, PlaceNode } from "./ast.ts";
import type { Problems } from "./problems.ts";
import { placeAt } from "./standing.ts";

/** What plain words can name where they stand. */
export type Here = Pick<PlainNames, "params" | "row">;

/** What can stand alone in an expression, somewhere. */
const ROOTS: ReadonlySet<string> = new Set(["fact", "width", "param", "field", "item", "link", "next", "prev"]);
const SET = /^set (?:fact\.)?([a-z]\w*) = (.+)$/s;
/** Options whose value is an expression: what stands before it. */
const CONDITION = /^(?:if|shown if|enabled if) |^gives [A-Za-z_]\w* = /;

/**
 * Conditions and values of lines: plain words become expressions, and facts that no line makes but that are set or asked for are made.
 */
export class Expressions {
  /** Facts that the lines only set or ask for. */
  readonly made: FactNode[] = [];
  private readonly facts = new Map<string, readonly string[] | undefined>();
  private readonly rows = new Map<string, ReadonlySet<string>>();

  constructor(
    lines: Lines,
    known: Project | undefined,
    private readonly problems: Problems,
  ) {
    for (const { id, type, values } of known?.facts ?? []) this.facts.set(id, type === "choice" ? values : undefined);
    for (const { id, values } of lines.facts) if (!this.facts.has(id)) this.facts.set(id, typeof values[0] === "boolean" ? undefined : values.map(String));
    for (const { id, fields } of [...lines.rows, ...(known?.types ?? [])]) this.rows.set(id, new Set(fields.map(({ name }) => name)));
    for (const option of optionsOf(lines)) {
      const [, fact = "", value = ""] = SET.exec(option.text) ?? [];
      if (/^(true|false|!.+|not .+)$/s.test(value)) this.make(fact, option);
    }
  }

  private make(id: string, { line, column }: At) {
    if (this.facts.has(id)) return;
    this.facts.set(id, undefined);
    this.made.push({ id, values: [false], options: [], line, column });
  }

  /** The fields of the rows of an element, where it has some. */
  rowOf({ options }: ElementNode, type?: string): ReadonlySet<string> {
    const [, told] = options.map(({ text }) => /^of ([a-z]\w*)$/.exec(text)).find((found) => found) ?? [];
    return this.rows.get(told ?? type ?? "") ?? new Set();
  }

  /** An option whose value, where that is a condition or a value, is an expression. */
  option(option: Option, here: Here): Option {
    const [, fact, value] = SET.exec(option.text) ?? [];
    if (fact !== undefined && value !== undefined) return { ...option, text: `set ${fact} = ${this.value(value, option, here, fact)}` };
    const [head] = CONDITION.exec(option.text) ?? [];
    return head === undefined ? option : { ...option, text: head + this.value(option.text.slice(head.length), option, here) };
  }

  options(options: readonly Option[], here: Here): Option[] {
    return options.map((option) => this.option(option, here));
  }

  args(args: Record<string, string>, at: At, here: Here): Record<string, string> {
    return Object.fromEntries(Object.entries(args).map(([name, value]) => [name, this.value(value, at, here)]));
  }

  /** Whether some words say something of facts, and of nothing that is not there. */
  speaksOfFacts(text: string): boolean {
    const names: PlainNames = { roots: ROOTS, facts: this.facts, params: new Set() };
    const source = fromPlainWords(text, names);
    return factsNamed(source).length > 0 && unknownWords(source, names).length === 0;
  }

  /** The expression that some words are; what stands for nothing is wrong. */
  value(text: string, at: At, here: Here, of?: string): string {
    const names: PlainNames = { roots: ROOTS, facts: this.facts, ...here };
    const source = fromPlainWords(text, names, of);
    const [word] = unknownWords(source, names);
    if (word !== undefined)
      this.problems.wrong(at, `in “${text}”, “${word}” is no fact and no parameter here; expected one such as fact.member, or text in quotes: '${word}'`);
    for (const { id, compared } of factsNamed(source)) {
      if (this.facts.has(id)) continue;
      if (compared) this.problems.wrong(at, `there is no fact “${id}”; expected a line such as fact ${id} = one | other`);
      else this.make(id, at);
    }
    return source;
  }
}

/** Lines in which what reads as a condition at the end of a leg is one, unless a place is called so: `Home if member`. */
export function withConditions(lines: Lines, known: Project | undefined, expressions: Expressions): Lines {
  const named = namesOf(lines.places);
  const isPlace = (path: readonly string[]) => named.has(path.at(-1) ?? "") || (known !== undefined && placeAt(known, path) !== undefined);
  const leg = ({ perhaps, ...rest }: LegNode): LegNode => {
    if (!perhaps || rest.target.is !== "place" || isPlace(rest.target.path) || !expressions.speaksOfFacts(perhaps.condition.text.slice(3))) return rest;
    return { ...rest, target: { is: "place", path: perhaps.path }, options: [...rest.options, perhaps.condition] };
  };
  const place = (one: PlaceNode): PlaceNode => ({
    ...one,
    elements: one.elements.map((element) => ({ ...element, legs: element.legs.map(leg) })),
    members: one.members.map(place),
  });
  return { ...lines, places: lines.places.map(place), ways: lines.ways.map((way) => ({ ...way, leg: leg(way.leg) })) };
}

function namesOf(places: readonly PlaceNode[]): Set<string> {
  return new Set(places.flatMap(({ name, members }) => [name, ...namesOf(members)]));
}

function optionsOf({ places, ways }: Lines): Option[] {
  const inside = (all: Lines["places"]): Option[] =>
    all.flatMap(({ elements, members }) => [...elements.flatMap(({ legs }) => legs.flatMap(({ options }) => options)), ...inside(members)]);
  return [...inside(places), ...ways.flatMap(({ leg }) => leg.options)];
}
