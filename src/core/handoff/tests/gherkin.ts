import { appOf } from "../../insight/app.ts";
import { eventText } from "../../insight/explain.ts";
import { nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { currentScreen } from "../../semantics/state.ts";
import { launch, step } from "../../semantics/step.ts";
import type { HandedFile } from "../handed.ts";
import { testWalks } from "./walks.ts";

/** The walks as Gherkin features: one file for those that use every leg, one for the document's own where there are any. */
export function featureFiles(project: Project): HandedFile[] {
  const { walks, unused } = testWalks(project);
  const own = project.walks.length;
  const covering = walks.slice(0, walks.length - own);
  const says = [
    `${covering.length === 1 ? "One walk uses" : `${covering.length} walks use`} every leg that was found to fire; the fewest launches that could do it is at least one.`,
    ...(unused.length > 0 ? [`Not used, because no walk was found by which they fire: ${unused.join(", ")}.`] : []),
  ];
  return [
    { name: "every-leg.feature", text: feature(project, "Every leg", says, covering) },
    ...(own > 0 ? [{ name: "kept-walks.feature", text: feature(project, "Walks that were kept", [], walks.slice(walks.length - own)) }] : []),
  ];
}

function feature(project: Project, title: string, says: string[], walks: ReturnType<typeof testWalks>["walks"]): string {
  const lines = ["# Made from the project document; do not edit.", `Feature: ${plain(project.name)}: ${title}`, ...says.map((line) => `  ${plain(line)}`)];
  for (const walk of walks) {
    let state = launch(appOf(project));
    lines.push("", `  Scenario: ${plain(walk.name)}`, `    Given the app is launched`, `    Then "${shown(project, state)}" is shown`);
    for (const { event } of walk.steps) {
      const before = currentScreen(state);
      const result = step(appOf(project), state, event);
      state = result.state;
      const on = event.do === "leg" ? ` on "${plain(nameOf(project, before.at))}"` : "";
      lines.push(`    When ${plain(eventText(project, event))}${on}`);
      lines.push(result.outcome === "left" ? "    Then the app is left" : `    Then "${shown(project, state)}" is shown`);
    }
  }
  return `${lines.join("\n")}\n`;
}

function shown(project: Project, state: Parameters<typeof currentScreen>[0]): string {
  return plain(nameOf(project, currentScreen(state).at));
}

/** One line without anything that a step could be mistaken for. */
function plain(text: string): string {
  return text
    .replace(/[\r\n]+/g, " ")
    .replaceAll('"', "'")
    .replace(/[<>]/g, "");
}
