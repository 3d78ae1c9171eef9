/** What is known of the data of a chart: by its name, the fact that it became, and the values of one that is no yes or no. */
export type Facts = ReadonlyMap<string, { fact: string; values?: readonly string[] }>;

const TOKEN = /\s*(?:(===|!==|==|!=|&&|\|\||[!()])|('(?:[^'\\]|\\.)*'|"(?:[^"\\]|\\.)*")|([A-Za-z_][\w.]*))/y;

/**
 * A condition of a chart as one of Etape: names of data, `true`, `false`, texts in quotes, `!`, `&&`, `||`, comparisons and parentheses
 * (`and`, `or`, `not` as well). Undefined where anything else is in it.
 */
export function conditionOf(text: string, facts: Facts): string | undefined {
  const out: string[] = [];
  TOKEN.lastIndex = 0;
  let depth = 0;
  let wants = true;
  while (text.slice(TOKEN.lastIndex).trim() !== "") {
    const [, sign, quoted, word] = TOKEN.exec(text) ?? [];
    const operator = sign ?? WORDS[word ?? ""];
    if (operator !== undefined) {
      const opens = operator === "!" || operator === "(";
      if (opens !== wants) return undefined;
      depth += operator === "(" ? 1 : operator === ")" ? -1 : 0;
      if (depth < 0) return undefined;
      wants = operator !== ")";
      out.push(SIGNS[operator] ?? operator);
      continue;
    }
    const value = quoted === undefined ? word && (word === "true" || word === "false" ? word : fact(word, facts)) : `'${quoted.slice(1, -1)}'`;
    if (value === undefined || value === "" || !wants) return undefined;
    wants = false;
    out.push(value);
  }
  if (wants || depth !== 0) return undefined;
  return out.join(" ").replace(/! /g, "!").replace(/\( /g, "(").replace(/ \)/g, ")");
}

const SIGNS: Readonly<Record<string, string>> = { "===": "==", "!==": "!=" };
const WORDS: Readonly<Record<string, string>> = { and: "&&", or: "||", not: "!" };

function fact(name: string, facts: Facts): string | undefined {
  const known = facts.get(name);
  return known && `fact.${known.fact}`;
}

/** The value of an expression that is one text or one yes or no: undefined for any other. */
export function literalOf(text: string): string | boolean | undefined {
  const value = text.trim();
  if (value === "true" || value === "false") return value === "true";
  const [, single, double] = /^(?:'((?:[^'\\]|\\.)*)'|"((?:[^"\\]|\\.)*)")$/.exec(value) ?? [];
  return single ?? double;
}
