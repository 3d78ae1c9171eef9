/** Stands in for what is not known: questions are asked of it, and every way of answering is gone through. */

import type { Fact } from "../../model/schema.ts";
import type { Json } from "../../plan/data.ts";

/** Questions answered while one event ran: what was asked and which answer was taken. */
export interface Choice {
  question: string;
  answer: unknown;
}

/** Where nothing was asked. */
const NOTHING: never[] = [];

/** Answers questions by a script, and goes through all scripts. */
export class Chooser {
  private script: readonly number[] = [];
  private taken: Array<{ question: string; options: readonly unknown[]; pick: number }> = [];
  private readonly answers = new Map<string, unknown>();
  /** Some event had more ways of turning out than were gone through. */
  truncated = false;

  choose<T>(question: string, options: readonly T[]): T {
    const known = this.answers.get(question);
    if (known !== undefined) return known as T;
    const pick = this.script[this.taken.length] ?? 0;
    const answer = options[pick] as T;
    this.taken.push({ question, options, pick });
    this.answers.set(question, answer);
    return answer;
  }

  /** Runs once for every way in which the questions can be answered; at most `limit` ways. */
  each<T>(run: () => T, limit = 512): Array<{ result: T; choices: readonly Choice[] }> {
    const out: Array<{ result: T; choices: readonly Choice[] }> = [];
    this.script = NOTHING;
    for (let count = 0; count < limit; count++) {
      if (this.taken.length > 0) {
        this.taken = [];
        this.answers.clear();
      }
      const result = run();
      if (this.taken.length === 0) return [{ result, choices: NOTHING }];
      out.push({ result, choices: this.taken.map(({ question, options, pick }) => ({ question, answer: options[pick] })) });
      const next = this.taken.findLastIndex(({ options, pick }) => pick + 1 < options.length);
      if (next < 0) return out;
      this.script = this.taken.slice(0, next + 1).map(({ pick }, i) => (i === next ? pick + 1 : pick));
    }
    this.truncated = true;
    return out;
  }
}

/**
 * Whether an answer is not the user's to choose: what a hidden context holds, and the app's own
 * facts where they are not followed. `facts` false: facts count as the user's choice.
 */
export function isImposed({ question }: Choice, facts = true): boolean {
  return question.startsWith(CONTEXT_QUESTION) || (facts && question.startsWith(FACT_QUESTION));
}

/** How a question begins that asks what a hidden context holds. */
export const CONTEXT_QUESTION = "context ";
/** The question what a context shows that is uncovered. */
export const showing = (context: string): string => `${CONTEXT_QUESTION}${context} shown`;

/** Whether a question is that. */
export function isShowing(question: string): boolean {
  return question.startsWith(CONTEXT_QUESTION) && question.endsWith(" shown");
}

/** The question whether a cut in a context finds something. */
export const whetherFound = (cut: string): string => `${CONTEXT_QUESTION}${cut} found`;

/** The place that was looked for beneath what shows and not found, though it might have been. */
export function placeMissed({ question, answer }: Choice): string | undefined {
  if (answer !== false || !question.startsWith(CONTEXT_QUESTION)) return undefined;
  return /[/ ](?:is|shows) (\w+) found$/.exec(question)?.[1];
}

/** How a question begins that asks for a fact of the app which is not followed. */
export const FACT_QUESTION = "app ";

/** The fact that a question asks for which is not followed, or undefined. */
export function factAsked({ question }: Choice): string | undefined {
  return question.startsWith(FACT_QUESTION) ? question.slice(FACT_QUESTION.length).split(" ")[0] : undefined;
}

/** The same, where the fact is asked for as it was before the event; undefined also where a leg may have set it since. */
export function factAtFirst(question: string): string | undefined {
  const [fact, version] = question.startsWith(FACT_QUESTION) ? question.slice(FACT_QUESTION.length).split(" ") : [];
  return version === "0" ? fact : undefined;
}

/** The values that a fact may have. */
export const valuesOf = (fact: Fact | undefined): readonly Json[] => (fact?.type === "choice" ? (fact.values ?? []) : [true, false]);

/** How a question begins that asks for a fact from outside. */
export const OUTSIDE_QUESTION = "fact.";

/** Whether, the user choosing as in the one, what nobody chooses could make it come out as the other. */
export function mayTurnOutAs(one: readonly Choice[], other: readonly Choice[], facts = true): boolean {
  return other.every((choice) => isImposed(choice, facts) || one.every(({ question, answer }) => question !== choice.question || answer === choice.answer));
}
