import type { Plan } from "../plan/plan.ts";
import { ownArguments } from "../semantics/make.ts";
import type { Layer, Node, State } from "../semantics/types.ts";

/**
 * The state that a state line tells of, as far as a line can: arguments are the declared defaults, tabs were visited in member order,
 * and facts and width are given. Undefined where the text is no line of this plan.
 */
export function stateOfLine(plan: Plan, line: string, rest: Pick<State, "facts" | "width">): State | undefined {
  const reader = new LineReader(plan, line);
  const base = reader.node();
  const layers: Layer[] = [];
  while (base && reader.takes(" + ")) {
    const layer = reader.layer();
    if (!layer) return undefined;
    layers.push(layer);
  }
  return base && reader.atEnd ? { base, layers, ...rest } : undefined;
}

/** Reads a line from its beginning to its end; each part is undefined where the text does not go on as it should. */
class LineReader {
  private at = 0;

  constructor(
    private readonly plan: Plan,
    private readonly text: string,
  ) {}

  get atEnd(): boolean {
    return this.at === this.text.length;
  }

  takes(text: string): boolean {
    if (!this.text.startsWith(text, this.at)) return false;
    this.at += text.length;
    return true;
  }

  layer(): Layer | undefined {
    const at = this.id();
    if (this.plan.containers.get(at)?.kind !== "modal" || !this.takes("(")) return undefined;
    const content = this.node();
    return content && this.takes(")") ? { at, content } : undefined;
  }

  node(): Node | undefined {
    const at = this.id();
    const kind = this.plan.containers.get(at)?.kind;
    if (kind === "stack") return this.stack(at);
    if (kind === "tabs" || kind === "drawer") return this.lanes(at, kind);
    return kind === undefined && this.plan.screens.has(at) ? { kind: "shown", at, args: ownArguments(this.plan, at, {}) } : undefined;
  }

  private id(): string {
    const from = this.at;
    while (/[A-Za-z0-9]/.test(this.text[this.at] ?? "")) this.at += 1;
    return this.text.slice(from, this.at);
  }

  private stack(at: string): Node | undefined {
    const items = this.takes("[") ? this.list("]", () => this.node()) : undefined;
    return items && items.length > 0 ? { kind: "stack", at, items } : undefined;
  }

  private lanes(at: string, kind: "tabs" | "drawer"): Node | undefined {
    let active = "";
    const shown = this.takes("{")
      ? this.list("}", () => {
          const chosen = this.takes("*");
          const node = this.node();
          if (chosen && node) active = node.at;
          return node;
        })
      : undefined;
    if (!shown || active === "") return undefined;
    const common = { at, active, lanes: Object.fromEntries(shown.map((node) => [node.at, node])) };
    const visited = [...shown.map((node) => node.at).filter((id) => id !== active), active];
    return kind === "tabs" ? { kind, ...common, visited } : { kind, ...common, visited, open: this.takes("!") };
  }

  private list(end: string, one: () => Node | undefined): Node[] | undefined {
    const out: Node[] = [];
    do {
      const node = one();
      if (!node) return undefined;
      out.push(node);
    } while (this.takes(","));
    return this.takes(end) ? out : undefined;
  }
}
