import { ownersAround } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import type { CheckOptions } from "../options.ts";
import { appFacts, closest, coarse, costOf, followable, isFact, placeBeneath } from "../system/precision.ts";
import { closerLook, type Found, type Look, look, lookAgain, lookFollowing } from "./look.ts";
import { isWithin, packed } from "./packs.ts";
import { keyOf, MET, union } from "./search.ts";

/** Times that facts are added before everything is told apart. */
const ROUNDS = 4;

/** States of a class of widths up to which a project is followed with nothing hidden. */
const WHOLE_STATES = 800;

/**
 * The coarsest look that there is reason for: with the facts that decide how an event goes on, or none of them where that is too much. Where
 * there are others to follow, it is a quick one.
 */
function first(project: Project, options: CheckOptions): Following {
  const facts = decisive(project);
  const others = appFacts(project).size - facts.size;
  if (facts.size > 0) {
    const found = closerLook(project, coarse(facts), options, undefined, others > 0);
    if (found.complete) return { look: found, follows: facts };
  }
  const none = new Set<string>();
  return { look: look(project, coarse(none), { ...options, states: options.states ?? MOST_STATES }, others + facts.size > 0), follows: none };
}

/** A look with what it follows. */
interface Following {
  look: Look;
  follows: ReadonlySet<string>;
}

/** States that the coarsest look of all may have. */
const MOST_STATES = 100_000;

/** States up to which everything is told apart: so many, and so many times those of the look before. */
const CLOSER_STATES = 1_000;
const CLOSER_TIMES = 4;

/** Facts that are added to a look together; where there are more, what rests on them is looked at one by one. */
const TOGETHER = 3;

/** States of a look up to which it is worth while to tell everything apart. */
const CLOSEST_STATES = 3_000;

/** States of all looks together at what is left unsure one by one: so many, and so many times those of the look before. */
const ONE_BY_ONE_STATES = 10_000;
const ONE_BY_ONE_TIMES = 1;
/** States of one such look: a look at few findings that brings many more states than the one before is given up soon. */
const ONE_LOOK_TIMES = 2.5;
/** And as many looks, at most. */
const MOST_LOOKS = 10;

/**
 * The findings of a project, in no order. It is followed coarsely first. Coarse states stand for more than there is, and nobody is helped by
 * what nobody chooses, so what is not found is not there. What is found must hold without what was left out, and everything met must
 * replay; what does not is unsure, and the next look follows the facts that it rests on (counterexample-guided abstraction refinement,
 * Clarke, Grumberg, Jha, Lu and Veith 2000). A closer look that has too many states is given up, and what the last one found stands: where
 * it was unsure, as possible.
 */
export function refined(project: Project, options: CheckOptions): Found {
  const begun = first(project, options);
  const coarsest = begun.look;
  let facts = begun.follows;
  const known = withKnown(project, coarsest, facts, options);
  let best = known ?? searched(project, inPacks(project, coarsest, facts, options), options);
  const rest = (last: Look) => oneByOne(project, begun, { look: last, follows: facts }, known !== undefined, options);
  // What is left of a large project after that is looked at by itself.
  if (known && known.explorations === coarsest.explorations) return rest(known);
  if (known) facts = union([facts, new Set([...union(coarsest.unsure.values())].filter(isFact))]);
  for (let round = 0; round < ROUNDS && best.complete && best.unsure.size > 0; round++) {
    const more = union([facts, ...best.unsure.values()]);
    if (more.size === facts.size) break;
    if (statesOf(best) > CLOSEST_STATES || (more.size > facts.size + TOGETHER && statesOf(best) > CLOSER_STATES)) return rest(best);
    const next = closerLook(project, coarse(more), within(best, options));
    if (!next.complete) return rest(best);
    facts = more;
    best = next;
  }
  if (best.unsure.size === 0 || !best.complete) return best;
  if (statesOf(best) > CLOSEST_STATES) return rest(best);
  const most = { ...closest(project), follows: union([followable(project), facts]) };
  const closer = closerLook(project, most, within(best, options));
  if (!closer.complete) return rest(best);
  // No fewer states are met with nothing hidden, so there is no use in trying where there are too many already.
  const few = closer.explorations.every(({ nodes }) => nodes.filter(({ pending }) => !pending).length <= WHOLE_STATES);
  if (!few || (closer.unsure.size === 0 && !closer.findings.some(mayNameTooMuch))) return closer;
  const whole = closerLook(project, { ...most, whole: true }, { ...options, states: Math.min(WHOLE_STATES, options.states ?? WHOLE_STATES) });
  return whole.complete ? whole : closer;
}

/** A look with what it left unsure looked at once more, with all the facts followed that it rests on, along the steps that are known; undefined where there are none. */
function withKnown(project: Project, last: Look, followed: ReadonlySet<string>, options: CheckOptions): Look | undefined {
  if (last.unsure.size === 0) return undefined;
  const facts = union(last.unsure.values());
  if (statesOf(last) <= CLOSER_STATES) return alongKnown(project, last, followed, facts, options);
  const keys = [...last.unsure.keys()];
  const together = keys.some((key) => STUCK.some((code) => key.startsWith(code))) ? STUCK : [];
  const closer = alongKnown(project, last, followed, facts, options, new Set([...keys, ...together]));
  if (!closer) return undefined;
  const isTogether = (code: string) => together.some((one) => code.startsWith(one));
  const others = keys.filter((key) => !isTogether(key)).reduce((all, key) => settled(all, key, closer.findings), last.findings);
  return {
    ...last,
    findings: [...others.filter(({ code }) => !isTogether(code)), ...closer.findings.filter(({ code }) => isTogether(code))],
    unsure: new Map(
      [...closer.unsure].flatMap(([key, rests]) => (last.unsure.has(key) || isTogether(key) ? [[key, union([rests, last.unsure.get(key) ?? new Set()])]] : [])),
    ),
  };
}

/** The same with some facts at a time, where all together bring too many states; what says that somebody is stuck is left as it is, for it rests on others of the kind. */
function inPacks(project: Project, last: Look, followed: ReadonlySet<string>, options: CheckOptions): Look {
  const rests = [...last.unsure]
    .filter(([key]) => !STUCK.some((code) => key.startsWith(code)))
    .map(([key, names]): [string, ReadonlySet<string>] => [key, new Set([...names].filter((name) => !followed.has(name)))])
    .filter(([, names]) => names.size > 0 && [...names].every(isFact));
  const sets = rests.map(([, names]) => names);
  let best = last;
  for (const pack of last.complete ? packed(last.explorations, sets) : []) {
    const keys = rests.flatMap(([key, names]) => (best.unsure.has(key) && isWithin(names, pack) ? [key] : []));
    const closer = keys.length > 0 ? alongKnown(project, last, followed, pack, options, new Set(keys)) : undefined;
    if (!closer) continue;
    const unsure = new Map([...best.unsure].filter(([key]) => !keys.includes(key) || closer.unsure.has(key)));
    best = { ...best, findings: keys.reduce((all, key) => settled(all, key, closer.findings), best.findings), unsure };
  }
  return best;
}

/** A look with more walks looked for than a quick one does. */
function searched(project: Project, last: Look, options: CheckOptions): Look {
  if (last.unsure.size === 0 || appFacts(project).size === 0) return last;
  const keys = [...last.unsure.keys()].filter((key) => !key.startsWith(MET));
  const again = lookAgain(project, last, options, new Set(keys));
  const unsure = new Map([...last.unsure].filter(([key]) => key.startsWith(MET) || again.unsure.has(key)));
  return { ...last, findings: keys.reduce((all, key) => settled(all, key, again.findings), last.findings), unsure };
}

/** Codes of which one excludes the other at a screen: who is not at a dead end there may be in a trap. */
const STUCK = ["dead-end", "back-only", "stuck-modal", "trap"];

/** A look in which all the facts are followed that the last one left out, along the steps that it knows; undefined where there is none. */
function alongKnown(
  project: Project,
  last: Look,
  followed: ReadonlySet<string>,
  wanted: ReadonlySet<string>,
  options: CheckOptions,
  only?: ReadonlySet<string>,
): Look | undefined {
  const facts = new Set([...wanted].filter((name) => isFact(name) && !followed.has(name)));
  return facts.size > 0 ? lookFollowing(project, last, facts, options, only) : undefined;
}

/** As many states for a closer look as the last one gives reason for. */
function within(last: Look, options: CheckOptions): CheckOptions {
  const states = CLOSER_STATES + CLOSER_TIMES * statesOf(last);
  return { ...options, states: Math.min(options.states ?? states, states) };
}

const statesOf = ({ explorations }: Found) => Math.max(...explorations.map(({ nodes }) => nodes.length));

/** What is hidden stands for more than it may hold at once: no walk shows some finding, or a trap may name a screen too many. */
function mayNameTooMuch({ code, certainty }: Finding): boolean {
  return certainty === "possible" || code === "trap";
}

/**
 * Looks at what the last look leaves unsure one by one, following one more thing that it rests on each time: what is not found then is not
 * there, and what is shown is. So the states of each look grow with what one finding rests on, not with that of all together.
 */
function oneByOne(project: Project, coarsest: Following, { look: last, follows: followed }: Following, settledFacts: boolean, options: CheckOptions): Found {
  let { findings } = last;
  const most = Math.min(options.states ?? Number.POSITIVE_INFINITY, CLOSER_STATES + ONE_LOOK_TIMES * statesOf(coarsest.look));
  let left = ONE_BY_ONE_STATES + ONE_BY_ONE_TIMES * statesOf(last);
  let waiting = [...last.unsure].map(([key, rests]): Waiting => ({ key, follows: followed, next: cheapestFirst(rests, followed) }));
  for (let looks = 0; ; looks++) {
    // What the facts of the app alone decide may have been settled along the known steps.
    waiting = waiting.filter(({ next }) => next.some((name) => !settledFacts || !isFact(name))).sort((a, b) => a.follows.size - b.follows.size);
    const [first] = waiting;
    if (!first || left <= 0 || looks === MOST_LOOKS) return { ...last, findings };
    const alike = together(project, waiting, first);
    const names = union([first.follows, new Set(alike.map(({ next }) => next[0] as string))]);
    const keys = new Set(alike.map(({ key }) => key));
    const areFacts = [...names].every((name) => isFact(name) || followed.has(name));
    const known = areFacts ? alongKnown(project, last, followed, names, options, keys) : undefined;
    const limited = { ...options, states: Math.min(most, left) };
    const closer = known ? { look: known, follows: names } : withFacts(project, names, coarsest.follows, limited, keys);
    left -= statesOf(closer.look);
    for (const one of alike) {
      waiting.splice(waiting.indexOf(one), 1);
      if (!closer.look.complete) {
        waiting.push({ ...one, next: one.next.slice(1) });
        continue;
      }
      findings = settled(findings, one.key, closer.look.findings);
      waiting.push({ key: one.key, follows: closer.follows, next: cheapestFirst(closer.look.unsure.get(one.key) ?? [], closer.follows) });
    }
  }
}

/**
 * A look at some findings with more than facts followed: a search without the facts, and all of these that what is still unsure rests on followed
 * along its steps, as far as that goes.
 */
function withFacts(project: Project, names: ReadonlySet<string>, decisive: ReadonlySet<string>, options: CheckOptions, only: ReadonlySet<string>): Following {
  const searched = union([decisive, new Set([...names].filter((name) => !isFact(name)))]);
  const base = closerLook(project, coarse(searched), options, only);
  let [found, follows] = [base, searched];
  while (found.complete && found.unsure.size > 0) {
    const more = union([follows, new Set([...names, ...union(found.unsure.values())].filter(isFact))]);
    const next = more.size > follows.size ? alongKnown(project, base, searched, more, options, only) : undefined;
    if (!next) break;
    [found, follows] = [next, more];
  }
  return { look: found, follows: union([names, follows]) };
}

/** What is unsure, with what is followed for it, and what may have to be as well. */
interface Waiting {
  key: string;
  follows: ReadonlySet<string>;
  next: string[];
}

/** What is not followed yet, first what brings few more states. */
function cheapestFirst(names: Iterable<string>, followed: ReadonlySet<string>): string[] {
  return [...names].filter((name) => !followed.has(name)).sort((a, b) => costOf(a) - costOf(b));
}

/** What one look will do for: with the same fact, or with places that may lie beneath, each of which brings few states of its own: one in each stack. */
function together(project: Project, waiting: readonly Waiting[], first: Waiting): Waiting[] {
  const taken = new Map<string, string>();
  return waiting.filter(({ follows, next: [fact = ""] }) => {
    if (follows.size !== first.follows.size || !isWithin(follows, first.follows)) return false;
    const place = placeBeneath(fact);
    if (place === undefined || placeBeneath(first.next[0] ?? "") === undefined) return fact === first.next[0];
    const owner = ownersAround(project, place)[0]?.id ?? "";
    if ((taken.get(owner) ?? fact) !== fact) return false;
    taken.set(owner, fact);
    return true;
  });
}

/** Some findings with what a closer look says of one of them; of a place that was met, with what it says of what is out of reach, or far. */
function settled(findings: Finding[], key: string, closer: readonly Finding[]): Finding[] {
  if (key.startsWith(MET)) {
    const distant = closer.filter(({ code }) => code === "unreachable" || code === "far");
    const known = new Set(distant.map(keyOf));
    return [...findings.filter((finding) => !known.has(keyOf(finding))), ...distant];
  }
  const was = findings.find((finding) => keyOf(finding) === key);
  if (!was) return findings;
  const now = closer.filter((finding) => keyOf(finding) === key || isPartOf(finding, was));
  // What was shown and is found again has its walk already.
  if (was.certainty === "shown" && now.some((finding) => keyOf(finding) === key)) return findings;
  const known = new Set([key, ...now.map(keyOf)]);
  return [...findings.filter((finding) => !known.has(keyOf(finding))), ...now];
}

/** Whether a finding is of some of the screens of another: a closer look may find fewer of them in a trap. */
function isPartOf({ code, subjects }: Finding, of: Finding): boolean {
  return code === "trap" && of.code === "trap" && subjects.every((id) => of.subjects.includes(id));
}

/**
 * Facts that legs set or ask which fire within another event: they decide how that event goes on. And those that a timer sets and does nothing
 * else: it has run out only where it changes one.
 */
function decisive(project: Project): ReadonlySet<string> {
  const all = appFacts(project);
  const within = project.legs.filter((leg) => leg.on.kind === "arrive" || leg.on.kind === "depart");
  const asked = within.flatMap(({ when }) => [...(when ?? "").matchAll(/\bfact\.(\w+)/g)].map(([, id]) => id as string));
  const setting = project.legs.filter((leg) => leg.on.kind === "after" && !leg.move);
  return new Set([...[...within, ...setting].flatMap((leg) => Object.keys(leg.set ?? {})), ...asked].filter((id) => all.has(id)));
}
