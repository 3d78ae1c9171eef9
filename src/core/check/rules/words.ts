/** What is said of a rule that is broken or says nothing. */

import { appOf } from "../../insight/app.ts";
import { meets, momentOf, placesShown } from "../../insight/rules/moment.ts";
import { fewestTaps } from "../../insight/rules/taps.ts";
import { launched } from "../../insight/rules/watch.ts";
import { lookup, nameOf } from "../../model/lookup.ts";
import { type Part, partsOf } from "../../model/rules.ts";
import { conditionInWords, namesIn } from "../../model/ruleWords.ts";
import { MOST_TAPS, type NavEvent, type Project, type Rule, type What } from "../../model/schema.ts";
import { currentScreen } from "../../semantics/state.ts";
import { step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";

/** How a rule is broken at the end of a walk, as a sentence. */
export function brokenWords(project: Project, rule: Rule, state: State, walk: readonly NavEvent[]): string {
  return `The rule "${rule.name}" is broken: ${how(project, rule, state, walk)}.`;
}

function how(project: Project, rule: Rule, state: State, walk: readonly NavEvent[]): string {
  const screen = `"${nameOf(project, currentScreen(state).at)}"`;
  switch (rule.kind) {
    case "never": {
      const seen = seenAtEnd(project, walk, rule.see);
      return `${seen}${rule.after ? ` after ${listed(project, rule.after)}` : ""}`;
    }
    case "first":
      return `${seenAtEnd(project, walk, rule.before)} without ${listed(project, rule.needs)} before`;
    case "only":
      return `${screen} shows while ${conditionInWords(project, rule.while)}`;
    case "within": {
      const to = rule.to.map((id) => `"${nameOf(project, id)}"`).join(" or ");
      const taps = fewestTaps(project, state, rule.to, MOST_TAPS);
      return taps === undefined || taps > MOST_TAPS ? `from ${screen} no taps lead to ${to}` : `from ${screen} it takes ${taps} taps to ${to}`;
    }
  }
}

/** What of something a walk meets with its last event, in words. */
function seenAtEnd(project: Project, walk: readonly NavEvent[], what: What): string {
  const app = appOf(project);
  let outcome: ReturnType<typeof launched> = launched(project);
  for (const event of walk) outcome = step(app, outcome.state, event);
  const moment = momentOf(walk.at(-1), outcome);
  const place = what.places?.find((id) => moment.places.has(id));
  if (place !== undefined) {
    const shown = placesShown(outcome.state).includes(place);
    return `"${nameOf(project, place)}" ${shown ? "shows" : "is passed"}`;
  }
  const leg = what.legs?.find((id) => meets(moment, { legs: [id] }));
  if (leg !== undefined) return `${listed(project, { legs: [leg] })} is used`;
  return `people come in by ${listed(project, { entrances: what.entrances ?? [] })}`;
}

/** Why a rule says nothing, as a sentence. */
export function emptyWords(project: Project, rule: Rule, part: Part | "while"): string {
  const head = `The rule "${rule.name}" says nothing: `;
  if (part === "while") return `${head}its condition never holds: ${rule.kind === "only" ? conditionInWords(project, rule.while) : ""}.`;
  const what = partsOf(rule).find((one) => one.part === part)?.what ?? {};
  const names = listed(project, what);
  const { places, legs, entrances } = lookup(project);
  const there =
    (what.places ?? []).some((id) => places.has(id)) || (what.legs ?? []).some((id) => legs.has(id)) || (what.entrances ?? []).some((id) => entrances.has(id));
  return there ? `${head}nobody ever sees or uses ${names}.` : `${head}${names} is not in the project.`;
}

function listed(project: Project, what: What): string {
  return namesIn(project, what).join(" or ");
}
