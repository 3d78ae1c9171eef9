import { appOf } from "../../insight/app.ts";
import { eventText } from "../../insight/explain.ts";
import { valueText } from "../../insight/text.ts";
import { triggerLabel } from "../../model/describe.ts";
import { elementIdOf, elementOf, elementsOf, lookup, nameOf } from "../../model/lookup.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { currentScreen } from "../../semantics/state.ts";
import { launch, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";
import { asLine } from "../../text/line.ts";
import type { HandedFile } from "../handed.ts";
import { type TestWalk, testWalks } from "./walks.ts";

/** The walks as Gherkin features: one file with a scenario a leg, one for the document's own walks where there are any. */
export function featureFiles(project: Project): HandedFile[] {
  const { walks, unused } = testWalks(project);
  const [covering, kept] = [walks.filter(({ leg }) => leg !== undefined), walks.filter(({ leg }) => leg === undefined)];
  const says = [
    "A scenario for each leg that was found to fire. Each begins with a launch and needs no other.",
    ...(unused.length > 0 ? [`Not used, because no walk was found by which they fire: ${unused.join(", ")}.`] : []),
  ];
  return [
    { name: "every-leg.feature", text: feature(project, "Every leg", says, covering) },
    ...(kept.length > 0 ? [{ name: "kept-walks.feature", text: feature(project, "Walks that were kept", [], kept) }] : []),
  ];
}

function feature(project: Project, title: string, says: string[], walks: readonly TestWalk[]): string {
  const lines = ["# Made from the project document; do not edit.", `Feature: ${plain(project.name)}: ${title}`, ...says.map((line) => `  ${plain(line)}`)];
  for (const walk of walks) {
    let state = launch(appOf(project));
    lines.push("", `  Scenario: ${plain(walk.name)}`, "    Given the app is launched", ...asserted(project, state));
    for (const [i, { event }] of walk.steps.entries()) {
      const before = currentScreen(state);
      const result = step(appOf(project), state, event);
      state = result.state;
      lines.push(`    When ${stepText(project, event, before.at)}`);
      if (result.outcome === "left") lines.push("    Then the app is left");
      // What is on the way is named; where a walk ends is told in full.
      else lines.push(...(i === walk.steps.length - 1 ? asserted(project, state) : [`    Then ${shown(project, state)} is shown`]));
    }
  }
  return `${lines.join("\n")}\n`;
}

function shown(project: Project, state: State): string {
  return quoted(nameOf(project, currentScreen(state).at));
}

/** The screen that shows, what it knows, and where everything stands. */
function asserted(project: Project, state: State): string[] {
  const args = Object.entries(currentScreen(state).args);
  return [
    `    Then ${shown(project, state)} is shown`,
    ...args.map(([name, value]) => `    And it knows ${quoted(name)} as ${quoted(valueText(value))}`),
    `    And the state is ${quoted(stateLine(planOf(project), state))}`,
  ];
}

/** An event as a step: what is used, where, the row, what is typed and the outcome, each in quotes. */
function stepText(project: Project, event: NavEvent, screen: string): string {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (event.do !== "leg" || !leg) return plain(eventText(project, event));
  const id = elementIdOf(leg);
  const on = `on ${quoted(nameOf(project, screen))}`;
  const used =
    id === undefined ? `"${triggerLabel(leg)}" happens ${on}` : `${USED[leg.on.kind] ?? "used"} ${quoted(elementOf(project, leg.from, id)?.label || id)} ${on}`;
  const row = event.item === undefined ? "" : ` with the row ${quoted(valueText(event.item))}`;
  const labelled = [...elementsOf(project, leg.from), ...elementsOf(project, screen)];
  const typed = Object.entries(event.fields ?? {}).map(
    ([field, value]) => ` with ${quoted(labelled.find((e) => e.id === field)?.label || field)} as ${quoted(valueText(value))}`,
  );
  const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? ` and it comes out as ${quoted(leg.on.outcome)}` : "";
  return `${used}${row}${typed.join("")}${outcome}`;
}

const USED: Record<string, string> = { tap: "I tap", submit: "I submit", hold: "I hold", swipe: "I swipe" };

const quoted = (text: string) => `"${plain(text)}"`;

/** One line without anything that a step could be mistaken for. */
function plain(text: string): string {
  return asLine(text).replaceAll('"', "'").replace(/[<>]/g, "");
}
