import { isOutside, metAt, RuleWatch } from "../insight/rules/watch.ts";
import type { NavEvent, Project, Rule } from "../model/schema.ts";
import type { Entry } from "./entry.ts";
import type { Followed } from "./follower.ts";
import type { Held } from "./held.ts";

/** A rule of the team's that a log breaks, however often. */
export interface BrokenRule {
  /** The rule's id. */
  readonly rule: string;
  readonly name: string;
  count: number;
  /** Where it is broken first: the run, the line of the log, and the time where the log has it. */
  readonly run: string;
  readonly row: number;
  readonly at: string | undefined;
  /** It may as well have been otherwise: not all that may have happened breaks it. */
  unsure: boolean;
}

/** Runs whose rules are watched at the same time, at most; the one that was heard of longest ago goes. */
const MOST_RUNS = 2_000;

/** Holds the runs of a log against the team's rules, except for those of the kind "within", which are no matter of one run. */
export class Promises {
  private readonly runs = new Map<string, RuleWatch>();
  private readonly broken = new Map<string, BrokenRule>();

  constructor(private readonly project: Project) {}

  /** Takes what an entry came to; gives the rules that it breaks. */
  take(entry: Entry, row: number, { held, is, cut }: Followed): Rule[] {
    const [first] = held;
    if (!this.project.rules?.length || !first || (first.event === undefined && first.outcome !== "moved")) return [];
    const known = this.runs.get(entry.run);
    const watch = known ?? new RuleWatch(this.project);
    this.runs.delete(entry.run);
    this.runs.set(entry.run, watch);
    const [oldest] = this.runs.keys();
    if (this.runs.size > MOST_RUNS && oldest !== undefined) this.runs.delete(oldest);
    if (first.outcome !== "moved") return [];
    // Where the app departs, following goes on somewhere; that is a moment of the same run.
    const restarts = !known || (is === "follows" && (first.event ?? entry.event)?.do === "launch") || isColdEntrance(first.event);
    const rules = watch.moment(first.event, seen(first), restarts);
    for (const rule of rules) this.note(rule, entry, row, cut || is === "lost" || !held.every((one) => breaks(this.project, rule, one)));
    return rules;
  }

  get report(): BrokenRule[] {
    return [...this.broken.values()].sort((a, b) => Number(a.unsure) - Number(b.unsure) || a.row - b.row);
  }

  private note({ id, name }: Rule, { run, at }: Entry, row: number, unsure: boolean) {
    const known = this.broken.get(id);
    if (!known) this.broken.set(id, { rule: id, name, count: 1, run, row, at, unsure });
    else if (known.unsure && !unsure) this.broken.set(id, { rule: id, name, count: 1, run, row, at, unsure });
    else if (known.unsure === unsure) known.count += 1;
  }
}

const seen = ({ state, fired, passed }: Held) => ({ state, log: { fired, passed } });

/** Whether something that may have happened has what a rule forbids. */
function breaks(project: Project, rule: Rule, one: Held): boolean {
  return rule.kind === "only" ? isOutside(project, rule, one.state) : metAt(rule, one.event, seen(one)).bad;
}

function isColdEntrance(event: NavEvent | undefined): boolean {
  return event?.do === "enter" && event.cold === true;
}
