/** The team's own rules: each is held against the searches that the other findings come from, and against closer ones where those do not settle it. */

import { severityOf } from "../../model/rules.ts";
import type { Project, Rule, Width } from "../../model/schema.ts";
import { currentScreen } from "../../semantics/state.ts";
import type { Finding, RuleStanding } from "../finding.ts";
import type { CheckOptions } from "../options.ts";
import { endOf } from "../refine/evidence.ts";
import { abstractionOf } from "../system/abstraction.ts";
import type { Exploration } from "../system/exploration.ts";
import { explore } from "../system/explore.ts";
import { appFacts, closest, coarse, costOf, followable, inWords, PROGRESS, type Precision, ruleFollowed, ruleIn } from "../system/precision.ts";
import { ruleGraphOf } from "./graph.ts";
import { judge, type Verdict } from "./judge.ts";
import { brokenWords, emptyWords } from "./words.ts";

/** What the check says of the team's rules. */
export interface RulesChecked {
  findings: Finding[];
  standings: RuleStanding[];
}

const WIDTHS: readonly Width[] = ["narrow", "middle", "wide"];
/** Facts of all conditions that are followed together, at most. */
const TOGETHER = 3;
/** States of a look up to which all facts that a rule rests on are followed together; beyond that one more each time. */
const TOGETHER_STATES = 1_000;
/** States of all closer looks for rules together, and those of one that are worth it. */
const STATES = 20_000;
const TIMES = 3;
/** States of one closer look, at most: so many, and so many times those of the first. */
const CLOSER_STATES = 2_000;
const CLOSER_TIMES = 4;
/** States of a look up to which it is worth while to tell everything apart, and up to which nothing is hidden. */
const CLOSEST_STATES = 3_000;
const WHOLE_STATES = 800;
/** Closer looks for one rule, at most. */
const LOOKS = 8;

/** Judges all rules of a project; `explorations` are the searches of the check, one for each class of widths. */
export function checkRules(project: Project, explorations: readonly Exploration[], options: CheckOptions): RulesChecked {
  const rules = project.rules ?? [];
  const out: RulesChecked = { findings: [], standings: [] };
  if (rules.length === 0) return out;
  const complete = explorations.every((one) => one.complete);
  const looks = new Looks(project, explorations, options);
  for (const rule of rules) {
    const each = asksWidth(rule) ? looks.byWidth : explorations;
    const verdicts = each.map((exploration) => (complete ? looks.settled(rule, exploration) : judge(ruleGraphOf(exploration), rule)));
    const { finding, standing } = toldOf(project, rule, verdicts, each, complete);
    out.standings.push(standing);
    if (finding) out.findings.push(finding);
  }
  return out;
}

/** Searches that are made for rules alone, each kept for the rules that it serves. */
class Looks {
  private left: number;
  private readonly known = new Map<string, Exploration | undefined>();
  private readonly states: number;
  /** The first searches, one for each width: they are the same for those in which the app does not differ, and a condition may ask for them. */
  readonly byWidth: readonly Exploration[];
  /** The app's facts that conditions of rules ask for. */
  private readonly asked: readonly string[];

  constructor(
    private readonly project: Project,
    first: readonly Exploration[],
    private readonly options: CheckOptions,
  ) {
    // Where the app is the same in all widths, one search is named for the first alone.
    const widthsOf = ({ widths }: Exploration) => (first.length === 1 ? WIDTHS : widths);
    this.byWidth = first.flatMap((one) => widthsOf(one).map((width) => ({ ...one, width, widths: [width] })));
    const facts = appFacts(project);
    const conditions = (project.rules ?? []).flatMap((rule) => (rule.kind === "only" ? [rule.while] : []));
    const named = conditions.flatMap((source) => [...source.matchAll(/\bfact\.(\w+)/g)].map(([, id]) => id as string));
    this.asked = [...new Set(named)].filter((id) => facts.has(id));
    this.states = Math.max(...first.map(({ nodes }) => nodes.length));
    this.left = STATES + TIMES * this.states;
  }

  /** What is found of a rule in a width, looked at more closely as long as that may settle it. */
  settled(rule: Rule, exploration: Exploration): Verdict {
    let last = exploration;
    let verdict = judge(ruleGraphOf(exploration), rule, "quick");
    let { precision } = exploration.abstraction;
    const self = followedFor(rule);
    if (verdict.is === "unsure" && rests(verdict, self) && precision.follows.size > 0) {
      // Often it does not matter to a rule what the findings ask of facts, and without them there is far less to search.
      const alone = this.judgedBy(rule, coarse(new Set(self)), exploration.width);
      if (alone && alone.verdict.is !== "unsure") return alone.verdict;
    }
    for (let look = 0; look < LOOKS && verdict.is === "unsure"; look++) {
      const next = this.closer(rule, precision, verdict.rests);
      if (!next) break;
      precision = next;
      const closer = this.judgedBy(rule, next, exploration.width);
      if (!closer) continue;
      last = closer.found;
      verdict = closer.verdict;
    }
    // What is still unsure is worth a longer search for the walk, by what the closest look knows of the way.
    return verdict.is === "unsure" ? judge(ruleGraphOf(last), rule) : verdict;
  }

  private judgedBy(rule: Rule, precision: Precision, width: Width): { found: Exploration; verdict: Verdict } | undefined {
    const found = this.explored(precision, width);
    if (!found) return undefined;
    const verdict = judge(ruleGraphOf(found), rule, "quick");
    const { follows, whole } = precision;
    this.options.trace?.(
      `rule ${rule.id}: ${[...follows].join(" ") || "no facts"}${whole ? ", nothing hidden" : ""}: ${found.nodes.length} states, ${verdict.is}`,
    );
    return { found, verdict };
  }

  /** How the next look is made: with the facts that it rests on, then with the rule itself told apart, then with everything, at last with nothing hidden. */
  private closer(rule: Rule, precision: Precision, rests: ReadonlySet<string>): Precision | undefined {
    if (precision.whole) return undefined;
    const { follows } = precision;
    const self = followedFor(rule);
    const with_ = (names: Iterable<string>): ReadonlySet<string> => new Set([...follows, ...names]);
    const more = [...rests].filter((name) => !follows.has(name)).sort((a, b) => costOf(a) - costOf(b));
    // All conditions are looked at together, so that one search serves all such rules.
    const asked = rule.kind === "only" ? this.asked.filter((name) => !follows.has(name)) : [];
    if (precision.contexts === "place" && asked.length > 0 && asked.length <= TOGETHER) return coarse(with_(asked));
    if (precision.contexts === "place" && more.length > 0) return coarse(with_(this.states > TOGETHER_STATES ? more.slice(0, 1) : more));
    if (self.some((name) => !follows.has(name))) return coarse(with_(self));
    if (self.length > 0 && precision.contexts === "place" && !follows.has(PROGRESS) && this.states <= CLOSEST_STATES) return coarse(with_([PROGRESS]));
    const most = { ...closest(this.project), follows: new Set([...followable(this.project), ...with_(self)]) };
    if (this.states > CLOSEST_STATES) return undefined;
    if (precision.contexts === "place") return most;
    return { ...most, whole: true };
  }

  private explored(precision: Precision, width: Width): Exploration | undefined {
    const key = JSON.stringify([[...precision.follows].sort(), precision.contexts, precision.apart, precision.whole, width]);
    if (this.known.has(key)) return this.known.get(key);
    // One look takes no more than a share of what is left, so that something is left for others, and no more than so many times the first.
    const most = Math.min(Math.floor(this.left / 2), CLOSER_STATES + CLOSER_TIMES * this.states);
    const states = Math.min(precision.whole ? WHOLE_STATES : most, this.options.states ?? Number.POSITIVE_INFINITY);
    const widths = [width];
    const found = states > 0 ? { ...explore(abstractionOf(this.project, precision), width, { states, stop: this.options.stop }), widths } : undefined;
    this.left -= found?.nodes.length ?? 0;
    const complete = found?.complete ? found : undefined;
    this.known.set(key, complete);
    return complete;
  }
}

/** How far a rule has come, which a search can follow where it looks at runs. */
function followedFor(rule: Rule): string[] {
  return rule.kind === "never" || rule.kind === "first" ? [ruleFollowed(rule.id)] : [];
}

/** Whether a verdict rests on one of some names. */
const rests = (verdict: Verdict, names: readonly string[]): boolean => verdict.is === "unsure" && names.some((name) => verdict.rests.has(name));

/** Whether a rule asks how wide the window is. */
function asksWidth(rule: Rule): boolean {
  return rule.kind === "only" && /\bwidth\b/.test(rule.while);
}

/** A rule's standing, and the finding where there is one, from what was found in each width. */
function toldOf(
  project: Project,
  rule: Rule,
  verdicts: readonly Verdict[],
  explorations: readonly Exploration[],
  complete: boolean,
): { finding?: Finding; standing: RuleStanding } {
  const widthsOf = (is: Verdict["is"]) => verdicts.flatMap((verdict, i) => (verdict.is === is ? (explorations[i]?.widths ?? []) : []));
  const all = explorations.flatMap(({ widths }) => widths).length;
  const walks = verdicts.flatMap((verdict) => (verdict.is === "broken" ? [verdict.walk] : []));
  const [walk] = walks.sort((a, b) => a.length - b.length);
  const unsure = verdicts.find((verdict) => verdict.is === "unsure" && verdict.at !== undefined);
  const mayBreak = () => verdicts.flatMap((verdict, i) => (verdict.is === "unsure" && verdict.at !== undefined ? (explorations[i]?.widths ?? []) : []));
  const common = { severity: severityOf(rule), fixes: [] };
  if (walk) {
    const state = endOf(project, walk);
    const message = brokenWords(project, rule, state, walk);
    const widths = [...widthsOf("broken"), ...mayBreak()];
    const only = widths.length < all ? { widths } : {};
    const says = only.widths ? `${message.replace(/\.$/, "")}; only when ${widths.join(" or ")}.` : message;
    return {
      finding: { ...common, code: "broken-rule", subjects: [rule.id, currentScreen(state).at], message: says, certainty: "shown", walk, ...only },
      standing: { rule: rule.id, standing: "broken", says },
    };
  }
  if (!complete) return { standing: { rule: rule.id, standing: "checked" } };
  if (unsure?.is === "unsure" && unsure.at !== undefined) {
    const rests = [...unsure.rests].filter((name) => ruleIn(name) === undefined);
    const why =
      rests.length > 0
        ? `it depends on ${rests.map((name) => inWords(project, name)).join(", ")}`
        : "the analysis finds a way, but no walk was found that shows it";
    const widths = mayBreak();
    const only = widths.length < all ? { widths } : {};
    const message = `The rule "${rule.name}" may be broken${only.widths ? ` when ${widths.join(" or ")}` : ""}. (Possible: ${why}.)`;
    return {
      finding: { ...common, code: "broken-rule", subjects: [rule.id, unsure.at], message, certainty: "possible", ...only },
      standing: { rule: rule.id, standing: "unsettled", says: message },
    };
  }
  const [empty] = verdicts.flatMap((verdict) => (verdict.is === "empty" ? [verdict] : []));
  if (empty && verdicts.every(({ is }) => is === "empty")) {
    const message = emptyWords(project, rule, empty.part);
    return {
      finding: { code: "empty-rule", severity: "warning", subjects: [rule.id], message, certainty: "certain", fixes: [] },
      standing: { rule: rule.id, standing: "empty", says: message },
    };
  }
  return { standing: { rule: rule.id, standing: "proved" } };
}
