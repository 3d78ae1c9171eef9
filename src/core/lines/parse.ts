import type { ElementNode, LegNode, LineProblem, Lines, ParamNode, PlaceNode, Target, WayInNode } from "./ast.ts";
import { type Declared, factLine, rowsLine } from "./declarations.ts";
import { addTogether, idleKindOf, isBackLabel, isOfLeg, labelOf, triggerOf, WAY_WORDS, withCommas } from "./elements.ts";
import { bulletLength, inOurWords, LOOKS_BULLETED, modalsNamed, optionsIn, SAYS_ITS_KIND, typeWord, withKind } from "./habits.ts";
import { BENEATH, HEADING, isListed, isScreenLine, saidFirst, stepFirst, TAKEN_FIRST, tapped, waiting } from "./headings.ts";
import { detailsInStacks, flatLanes, membersOnLine, saidAgain, startingFirst, tabsTogether } from "./lanes.ts";
import { laidOut } from "./layout.ts";
import { ruleLine } from "./ruleLine.ts";
import { cutAt, endingOf, isQuoted, type Piece, shown, splitAt, trimmed, unquoted } from "./scan.ts";
import { tableLines } from "./table.ts";
import { conditionBehind, pathOf, targetOf } from "./targets.ts";
import { CONTAINER_KINDS } from "./words.ts";

/** Lines that are read at most. */
const MOST = 20_000;
/** Containers within one another, at most. */
const DEEPEST = 60;

/** Reads quick lines; what is wrong comes with its line, its column and what is expected, and all else is read as well. */
export function parseLines(text: string): { lines: Lines; problems: LineProblem[] } {
  return new Parser().read(text);
}

interface Open {
  indent: number;
  place: PlaceNode;
  /** Its line ends with a colon, and says of no kind of container. */
  colon: boolean;
}

class Parser {
  private readonly lines: Lines = { facts: [], rows: [], ways: [], places: [], rules: [] };
  private readonly problems: LineProblem[] = [];
  private open: Open[] = [];
  private tooDeep = false;

  read(text: string) {
    const plain = text.replace(/^\ufeff/, "");
    const all = tableLines(plain) ?? plain.split(/\r\n|\r|\n/);
    if (all.length > MOST) this.wrong({ text: "", line: MOST, column: 1 }, `there are ${all.length} lines; at most ${MOST} are read`);
    const { lines: pieces, title, dashed } = laidOut(all.slice(0, MOST));
    if (title !== undefined) this.lines.name = title;
    let listed = -1;
    pieces.forEach(({ piece, indent, modal, isControl = false, isScreen = false }, i) => {
      const [, name] = i === 0 ? (NAMED.exec(piece.text) ?? []) : [];
      if (name !== undefined) {
        this.lines.name = unquoted(name);
        return;
      }
      const next = pieces[i + 1];
      if (HEADING.test(piece.text) && (next?.piece.text.startsWith("- ") || bulletLength(next?.piece.text ?? "") > 0)) return;
      const isDashed = !isControl && piece.text.startsWith("- ") && (dashed || isScreen || indent === listed || isScreenLine(piece));
      const length = isDashed ? 2 : bulletLength(piece.text);
      const from = { ...piece, text: piece.text.slice(length), column: piece.column + length };
      // A list of screens right beneath the line of a container is what that holds.
      if (length === 0 || indent < listed) listed = -1;
      this.line(length > 0 ? trimmed(from) : piece, indent === listed ? indent + 1 : indent, (next?.indent ?? 0) > indent, modal);
      const container = length === 0 ? this.openContainer() : undefined;
      const isHeading = (next?.indent ?? 0) - indent >= BENEATH;
      if (container && next && !next.isControl && (isHeading || (next.indent === indent && isListed(next.piece.text)))) {
        container.flat = true;
        if (isListed(next.piece.text)) listed = next.indent;
      }
    });
    const { places, ...lines } = modalsNamed({ ...this.lines, places: membersOnLine(saidAgain(this.lines.places)) });
    return { lines: { ...lines, places: startingFirst(tabsTogether(detailsInStacks(flatLanes(places)))) }, problems: this.problems };
  }

  private wrong({ line, column }: Piece, message: string) {
    this.problems.push({ line, column, message });
  }

  /** `holds` where the next line stands further in. */
  private line(piece: Piece, indent: number, holds: boolean, modal?: string) {
    const { text } = piece;
    const rest = (word: string) => trimmed({ ...piece, text: text.slice(word.length), column: piece.column + word.length });
    if (text.startsWith("- ")) this.further(rest("-"));
    else if (/^app\s/.test(text)) this.lines.name = unquoted(rest("app").text);
    else if (/^fact\s/.test(text)) this.declare(factLine(rest("fact")), this.lines.facts);
    else if (/^rows\s/.test(text))
      this.declare(
        rowsLine(rest("rows"), (inside) => this.params(inside)),
        this.lines.rows,
      );
    else if (/^in\s/.test(text)) this.wayIn(rest("in"));
    else if (/^rule\s/.test(text))
      this.lines.rules.push(...[ruleLine(rest("rule"), (at, message) => this.wrong(at, message))].filter((rule) => rule !== undefined));
    else if (!this.underColon(piece, indent, holds)) {
      const before = this.lines.places.length;
      this.places(piece, indent, holds);
      for (const place of modal ? this.lines.places.slice(before) : [])
        if (!CONTAINER_KINDS[place.options[0]?.text ?? ""]) place.options.unshift(inOurWords({ text: modal ?? "", line: place.line, column: place.column }));
    }
  }

  private declare<T>({ declared, problem }: Declared<T>, into: T[]) {
    if (problem) this.wrong(problem.at, problem.message);
    if (declared) into.push(declared);
  }

  /** The container of the line read last, where nothing has been said of it but its name. */
  private openContainer(): PlaceNode | undefined {
    const place = this.open.at(-1)?.place;
    return place && CONTAINER_KINDS[place.options[0]?.text ?? ""] && place.elements.length + place.members.length === 0 ? place : undefined;
  }

  /** What stands beneath a line that ends with a colon is on that screen, unless it holds something itself. */
  private underColon(piece: Piece, indent: number, holds: boolean): boolean {
    const above = this.open.findLast((open) => open.indent < indent);
    if (!above?.colon || holds || cutAt(piece, ":")[1]) return false;
    addTogether(this.elements(piece), above.place.elements);
    return true;
  }

  /** A line of one place, of several with commas between them, or of a chain: `Home > Plots > Plot`. */
  private places(told: Piece, indent: number, holds: boolean) {
    const piece = waiting(told);
    const parts = cutAt(piece, ":")[1] || cutAt(piece, ">")[1] ? [piece] : splitAt(piece, ",").filter(({ text }) => text !== "");
    for (const part of parts) {
      const chain = cutAt(part, ":")[1] || cutAt(part, ",")[1] ? [part] : splitAt(part, ">");
      if (chain.length < 3) this.place(part, indent, holds);
      else
        for (const [i, from] of chain.slice(0, -1).entries()) {
          const { text } = chain[i + 1] as Piece;
          this.place({ ...from, text: `${i === 0 ? from.text : endingOf(from).before.text} > ${text}` }, indent);
        }
    }
  }

  /** Elements of the place above, on a line of their own. */
  private further(piece: Piece) {
    const place = this.open.at(-1)?.place;
    if (place) addTogether(this.elements(piece), place.elements);
    else this.wrong(piece, "found elements, expected a screen above them");
  }

  private place(told: Piece, indent: number, holds = false) {
    const piece = stepFirst(saidFirst(told));
    let [head, rest] = cutAt(piece, ":");
    const [before, leads] = rest ? [head, undefined] : cutAt(head, ">");
    if (leads) {
      // A screen that leads somewhere without an element: a button is named for each place.
      head = before;
      const named = splitAt(leads, ",").map((one) => {
        const control = tapped(one);
        if (control) return `${control.label} > ${control.to}`;
        return one.text === "" || cutAt(one, ">")[1] ? one.text : `${asButton(endingOf(one).before.text)} > ${one.text}`;
      });
      rest = { ...leads, text: named.join(", ") };
    }
    const node: PlaceNode = { ...this.named(head), elements: rest && rest.text !== "" ? this.elements(rest) : [], members: [] };
    if (isQuoted(head.text)) node.literal = true;
    if (node.name === "") return this.wrong(piece, `found “${shown(piece.text)}”, expected the name of a screen or container`);
    if ((rest || holds) && !isQuoted(head.text)) node.options = withKind(node);
    while (this.open.length > 0 && (this.open.at(-1)?.indent ?? 0) >= indent) this.open.pop();
    if (this.open.length >= DEEPEST) {
      if (!this.tooDeep) this.wrong(piece, `stands in ${this.open.length} containers; at most ${DEEPEST} lie in one another`);
      this.tooDeep = true;
      return;
    }
    const around = this.open.at(-1);
    (around ? around.place.members : this.lines.places).push(node);
    const isContainer = CONTAINER_KINDS[node.options[0]?.text ?? ""] !== undefined;
    this.open.push({ indent, place: node, colon: rest?.text === "" && !isContainer });
  }

  /** `Plot(plotId, tab: number) (hub, path /plots/{plotId})` */
  private named(piece: Piece): Pick<PlaceNode, "name" | "params" | "options" | "line" | "column"> {
    let ending = endingOf(piece);
    const options = ending.inside && !ending.attached ? optionsIn(ending.inside) : [];
    if (options.length > 0 || (ending.inside && !ending.attached)) ending = endingOf(ending.before);
    const params = ending.inside && ending.attached ? this.params(ending.inside) : [];
    const name = ending.inside && !ending.attached ? ending : { before: ending.before };
    return { name: unquoted(name.before.text), params, options, line: piece.line, column: piece.column };
  }

  private params(inside: Piece): ParamNode[] {
    return splitAt(inside, ",").flatMap((piece): ParamNode[] => {
      if (piece.text === "") return [];
      const [left, value] = cutAt(piece, "=");
      const [, name, optional, type] = /^([A-Za-z_]\w*)(\?)?(?:\s*:\s*([A-Za-z]\w*))?$/.exec(left.text) ?? [];
      if (name === undefined) {
        this.wrong(piece, `found “${shown(piece.text)}”, expected a parameter such as plotId, tab: number, filter? or size = 1`);
        return [];
      }
      const given = value === undefined ? undefined : json(value.text);
      return [
        {
          name,
          type: typeWord(type ?? "text"),
          required: optional === undefined && value === undefined,
          ...(given === undefined ? {} : { default: given }),
          line: piece.line,
          column: piece.column,
        },
      ];
    });
  }

  private elements(piece: Piece): ElementNode[] {
    return addTogether(
      withCommas(piece, splitAt(piece, ",")).flatMap((one) => (one.text === "" ? [] : this.element(one))),
      [],
    );
  }

  private element(piece: Piece): ElementNode[] {
    const [left, right] = cutAt(piece, ">");
    const { before, inside, attached } = endingOf(left);
    if (attached) this.wrong(left, `found “${shown(left.text)}”, expected a space before the parentheses of an element`);
    const all = inside ? optionsIn(inside) : [];
    const options = all.filter((option) => !isOfLeg(option));
    if (before.text === "") {
      this.wrong(piece, `found “${shown(piece.text)}”, expected what is tapped before >`);
      return [];
    }
    const led = right ? splitAt(right, "|").flatMap((leg) => this.leg(leg)) : [];
    // What is done stands behind the place, or behind the control.
    const done = all.filter(isOfLeg);
    const named = done.some(({ text }) => WAY_WORDS.has(text));
    const target: Target = named ? { is: "place", path: [labelOf(before.text).label] } : { is: "doing", what: "nothing" };
    const nothing: LegNode = { target, options: [], line: piece.line, column: piece.column };
    const legs = done.length === 0 ? led : (right ? led : [nothing]).map((leg) => ({ ...leg, options: [...leg.options, ...done] }));
    const trigger = isQuoted(before.text) ? undefined : triggerOf(before.text);
    // A button is often written in brackets.
    const [, bracketed] = /^\[([^[\]]+)\]$/.exec(before.text) ?? [];
    const label = bracketed === undefined ? labelOf(before.text) : { label: bracketed.trim(), kind: "button" as const };
    const idle = label.kind === "button" && label.label === before.text ? idleKindOf(label.label) : undefined;
    return [
      {
        ...label,
        ...(idle ? { idle } : {}),
        ...(trigger ? { trigger } : {}),
        options,
        legs: legs.length === 0 && label.label === before.text && isBackLabel(before.text) ? [{ ...nothing, target: { is: "doing", what: "back" } }] : legs,
        line: piece.line,
        column: piece.column,
      },
    ];
  }

  /** `"granted": Granted(id = item.id) (push, if fact.member)` */
  private leg(piece: Piece): LegNode[] {
    const [first, behind] = cutAt(piece, ":");
    const outcome = behind && isQuoted(first.text) ? unquoted(first.text) : undefined;
    const told = outcome === undefined || !behind ? piece : behind;
    const { before, condition, sure } = conditionBehind(told);
    let ending = endingOf(condition && sure ? before : told);
    const options = ending.inside && !ending.attached ? optionsIn(ending.inside) : [];
    if (ending.inside && !ending.attached) ending = endingOf(ending.before);
    const args = ending.inside && ending.attached ? this.args(ending.inside) : undefined;
    if (condition && sure) options.push(condition);
    const target = targetOf(ending.before.text);
    if (!target || cutAt(ending.before, ">")[1]) {
      this.wrong(
        piece,
        `found ${piece.text === "" ? "nothing after >" : `“${shown(piece.text)}”`}, expected where it leads: the name of a place, or back, up, close, menu, leave, go on, nothing`,
      );
      return [];
    }
    const perhaps = condition && !sure && target.is === "place" ? { perhaps: { path: pathOf(before.text), condition } } : {};
    return [
      { ...(outcome === undefined ? {} : { outcome }), target, ...(args ? { args } : {}), options, ...perhaps, line: piece.line, column: ending.before.column },
    ];
  }

  private args(inside: Piece): Record<string, string> {
    const out: Record<string, string> = {};
    for (const piece of splitAt(inside, ",")) {
      if (piece.text === "") continue;
      const [name, value] = cutAt(piece, "=");
      if (value && /^[A-Za-z_]\w*$/.test(name.text)) out[name.text] = value.text;
      else this.wrong(piece, `found “${shown(piece.text)}”, expected an argument such as plotId = item.id`);
    }
    return out;
  }

  /** `/plots/{plotId} > Plot`, `"Frost alert" > Plot(plotId = link.plotId) (notification)` */
  private wayIn(piece: Piece) {
    const [left, right] = cutAt(piece, ">");
    const [leg] = right ? this.leg(right) : [];
    if (leg?.target.is !== "place") return this.wrong(piece, `found “${shown(piece.text)}”, expected a way in such as /plots/{plotId} > Plot`);
    const [, quoted, pattern] = /^("(?:[^"\\]|\\.)*")?\s*(\/\S*)?$/.exec(left.text) ?? [];
    if (quoted === undefined && pattern === undefined)
      return this.wrong(left, `found “${shown(left.text)}”, expected an address that begins with /, or a name in quotes`);
    const way: WayInNode = { leg, line: piece.line, column: piece.column };
    if (quoted !== undefined) way.name = unquoted(quoted);
    if (pattern !== undefined) way.pattern = pattern;
    this.lines.ways.push(way);
  }
}

/** A name as the label of a button, whatever kind its last word would say. */
function asButton(name: string): string {
  return isQuoted(name) || labelOf(name).kind === "button" ? name : JSON.stringify(name);
}

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return unquoted(text);
  }
}

/** Names that would be read as lines of another kind. */
export const TAKEN_LINE = new RegExp(`^(app|fact|rows|in|rule)\\s|${LOOKS_BULLETED.source}|${TAKEN_FIRST.source}`, "iu");
/** Names of what says of no kind that it is, which would be read as a container of one. */
export const TAKEN_PLAIN = new RegExp(`${TAKEN_LINE.source}|${SAYS_ITS_KIND.source}`, "iu");
/** A first line that names the project. */
const NAMED = /^app(?: name)?:\s+([^>,:]+)$/i;
