/**
 * Conditions and values as people write them before they know the expression language: `order = offered`, `member and not paid`.
 * What is an expression already stays as it is, letter by letter.
 */

/** What plain words can stand for. */
export interface PlainNames {
  /** Names that can stand alone, such as `fact` and `item`: they are never taken for anything else. */
  roots: ReadonlySet<string>;
  /** Facts by their ids, with the values of those that are choices. */
  facts: ReadonlyMap<string, readonly string[] | undefined>;
  params: ReadonlySet<string>;
  /** The fields of the row that is used, where one is. */
  row?: ReadonlySet<string>;
}

interface Token {
  text: string;
  kind: "word" | "text" | "number" | "sign" | "space";
}

const TOKEN = /('(?:[^'\\]|\\.)*'|"(?:[^"\\]|\\.)*")|([A-Za-z_]\w*)|(\d+(?:\.\d+)?)|(\s+)|(==|!=|<=|>=|&&|\|\||[\s\S])/g;
const KINDS = ["text", "word", "number", "space", "sign"] as const;
/** Characters of an expression that are looked at: a document holds none that is longer. */
const LONGEST = 2_000;
const COMPARES = ["==", "!=", "<", "<=", ">", ">="];
const ALONE = ["true", "false", "null", "has"];

/** The expression that some words stand for. `of` is the fact that the value is for, where it is for one. */
export function fromPlainWords(source: string, names: PlainNames, of?: string): string {
  if (source.length > LONGEST) return source;
  const choice = choiceOf(source.trim(), names, of);
  return choice === undefined ? named(operators(tokensOf(source)), names, of) : textOf(choice);
}

/** Words of an expression that stand for nothing: neither a name that can stand alone nor a member of one. */
export function unknownWords(source: string, names: PlainNames): string[] {
  const tokens = tokensOf(source);
  return tokens.flatMap(({ kind, text }, i) => (kind === "word" && !isMember(tokens, i) && !names.roots.has(text) && !ALONE.includes(text) ? [text] : []));
}

/** The facts that an expression names, as `fact.member`; `compared` where it is held against something. */
export function factsNamed(source: string): Array<{ id: string; compared: boolean }> {
  const tokens = tokensOf(source).filter(({ kind }) => kind !== "space");
  return tokens.flatMap(({ text }, i) => {
    const id = text === "fact" && tokens[i + 1]?.text === "." && !isMember(tokens, i) ? tokens[i + 2] : undefined;
    const beside = [tokens[i - 1]?.text, tokens[i + 3]?.text];
    return id?.kind === "word" ? [{ id: id.text, compared: beside.some((sign) => COMPARES.includes(sign ?? "")) }] : [];
  });
}

/** The first word or sign that people use and the language has another for: what to write instead, and where it stands. */
export function slipIn(source: string): { message: string; start: number; end: number } | undefined {
  const tokens = tokensOf(source);
  let start = 0;
  for (const [i, { text, kind }] of tokens.entries()) {
    const sign = (kind === "word" && !isMember(tokens, i)) || text === "=" ? SIGNS[text] : undefined;
    if (sign !== undefined) return { message: `write ${sign} for "${text}"`, start, end: start + text.length };
    start += text.length;
  }
  return undefined;
}

const SIGNS: Record<string, string> = Object.assign(Object.create(null), { "=": "==", is: "==", and: "&&", or: "||", not: "!" });

function tokensOf(source: string): Token[] {
  if (source.length > LONGEST) return [];
  return [...source.matchAll(TOKEN)].map((match) => ({ text: match[0], kind: KINDS[match.slice(1).findIndex((part) => part !== undefined)] ?? "sign" }));
}

const isMember = (tokens: readonly Token[], i: number): boolean => before(tokens, i)?.text === ".";
const before = (tokens: readonly Token[], i: number): Token | undefined => tokens.slice(0, i).findLast(({ kind }) => kind !== "space");
const behind = (tokens: readonly Token[], i: number): Token | undefined => tokens.slice(i + 1).find(({ kind }) => kind !== "space");

/** `and`, `or`, `not`, `is`, `is not` and a single `=` as the signs of the language. */
function operators(tokens: readonly Token[]): Token[] {
  const out: Token[] = [];
  const sign = (text: string) => out.push({ text, kind: "sign" });
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] as Token;
    const word = token.kind === "word" && !isMember(tokens, i) && behind(tokens, i)?.text !== "." ? token.text : token.kind === "sign" ? token.text : "";
    const first = before(tokens, i) === undefined;
    if (word === "and" && !first) sign("&&");
    else if (word === "or" && !first) sign("||");
    else if (word === "=") sign("==");
    else if (word === "is" && !first) {
      const not = tokens[i + 1]?.kind === "space" && tokens[i + 2]?.text === "not";
      sign(not ? "!=" : "==");
      if (not) i += 2;
    } else if (word === "not" && tokens[i + 1] !== undefined) {
      const end = endOfNegated(tokens, i + 1);
      const inside = operators(tokens.slice(tokens[i + 1]?.kind === "space" ? i + 2 : i + 1, end));
      const trailing = inside.at(-1)?.kind === "space" ? inside.splice(-1) : [];
      const whole = inside.some(({ text }) => COMPARES.includes(text)) && inside[0]?.text !== "(";
      sign("!");
      out.push(...(whole ? [{ text: "(", kind: "sign" } as Token, ...inside, { text: ")", kind: "sign" } as Token] : inside), ...trailing);
      i = end - 1;
    } else out.push(token);
  }
  return out;
}

/** Where what `not` stands before ends: at the next *and* or *or*, or where the parentheses around it close. */
function endOfNegated(tokens: readonly Token[], from: number): number {
  let depth = 0;
  for (let i = from; i < tokens.length; i++) {
    const { text, kind } = tokens[i] as Token;
    if (text === "(") depth += 1;
    else if (text === ")" && depth-- === 0) return i;
    else if (depth === 0 && (text === "&&" || text === "||" || text === "?" || (kind === "word" && (text === "and" || text === "or")))) return i;
  }
  return tokens.length;
}

/** Facts and parameters by their bare names, and choices without their quotes. */
function named(tokens: readonly Token[], names: PlainNames, of: string | undefined): string {
  return tokens
    .map(({ text, kind }, i) => {
      if (kind !== "word" || isMember(tokens, i) || names.roots.has(text) || ALONE.includes(text)) return text;
      const choice = choiceOf(text, names, comparedFact(tokens, i) ?? of);
      if (choice !== undefined) return textOf(choice);
      if (names.params.has(text)) return `param.${text}`;
      if (names.row?.has(text)) return `item.${text}`;
      if (names.facts.has(text)) return `fact.${text}`;
      return text;
    })
    .join("");
}

/** The fact on the other side of a comparison: `fact.order` or `order`. */
function comparedFact(tokens: readonly Token[], i: number): string | undefined {
  const solid = tokens.map((token, at) => ({ ...token, at })).filter(({ kind }) => kind !== "space");
  const here = solid.findIndex(({ at }) => at === i);
  if (COMPARES.includes(solid[here - 1]?.text ?? "")) return solid[here - 2]?.text;
  if (!COMPARES.includes(solid[here + 1]?.text ?? "")) return undefined;
  return solid[here + 3]?.text === "." ? solid[here + 4]?.text : solid[here + 2]?.text;
}

/** A value of a choice that is written without quotes. */
function choiceOf(text: string, { facts, roots }: PlainNames, of: string | undefined): string | undefined {
  if (of === undefined || roots.has(text)) return undefined;
  return facts.get(of)?.find((value) => value === text);
}

/** A text as the language writes it. */
export function textOf(value: string): string {
  return `'${value.replace(/[\\']/g, "\\$&")}'`;
}
