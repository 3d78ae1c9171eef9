import { expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { available } from "../../../src/core/insight/available.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { featuresOf, randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";

/** Documents that the counts below are taken from. */
const DOCUMENTS = 400;

it("random documents hold everything of the model often, and their walks come to every outcome", () => {
  const features = new Map<string, number>();
  const outcomes = new Map<string, number>();
  const count = (counts: Map<string, number>, name: string) => counts.set(name, (counts.get(name) ?? 0) + 1);
  for (let seed = 0; seed < DOCUMENTS; seed++) {
    const project = wholeDocument(seed);
    for (const feature of featuresOf(project)) count(features, feature);
    const app = appOf(project);
    let state = launch(app);
    for (const event of randomWalk(project, wholeEvents(project), seed, 30)) {
      const result = step(app, state, event);
      count(outcomes, `${event.do} ${result.outcome}`);
      if ("why" in result) count(outcomes, result.why);
      for (const leg of result.log.fired) count(outcomes, `fired ${project.legs.find(({ id }) => id === leg)?.move?.kind ?? "without a move"}`);
      state = result.state;
    }
  }
  const kinds = ["stack", "tabs", "drawer", "modal"].map((kind) => `${kind}.kind=${kind}`);
  const moves = ["push", "replace", "reset", "return", "open", "close", "select", "menu", "back", "up", "proceed", "leave"];
  const options = [
    ...["copy", "stay", "rewind"].map((how) => `push.repeat=${how}`),
    ...["push.in", "push.in=beneath", "reset.in", "reset.in=beneath", "push.tidy=source", "push.tidy=stack", "select.tidy=source", "select.tidy=stack"],
    ...["return.orElse=push", "return.orElse=replace", "return.orElse=nothing", "open.show", "open.instead=true", "close.modal", "select.fresh=true"],
    ...[
      "menu.drawer",
      "menu.action=open",
      "menu.action=close",
      "leave.url",
      "back.give",
      "close.give",
      "return.give",
      "push.pass",
      "leg.resumes=true",
      "leg.set",
      "leg.when",
    ],
    ...["leave", "start", "previous"].map((how) => `tabs.onBack=${how}`),
    ...[
      "tabs.keeps=false",
      "tabs.chosenAgain=root",
      "drawer.keeps=false",
      "drawer.over=false",
      "drawer.onBack=start",
      "modal.blocks=false",
      "modal.shape=full",
    ],
    ...["never", "middle", "wide"].map((width) => `drawer.pinnedFrom=${width}`),
    ...["auto", "back", "up", "menu", "none"].map((lead) => `bar.lead=${lead}`),
    ...["tap", "submit", "hold", "swipe", "after", "arrive", "depart"].map((kind) => `on ${kind}.kind=${kind}`),
    ...["on depart.by", "on submit.outcome=saved", "screen.pages", "screen.coversTabs=true", "screen.mayRepeat=true", "bar.show=false"],
    ...["entrance.warm=onTop", "entrance.warm=rebuild", "entrance.when", "entrance.otherwise", "entrance.resume=true", "entrance.pass", "entrance.pattern"],
  ];
  const rare = [...kinds, ...moves.map((kind) => `${kind}.kind=${kind}`), ...options].filter((name) => (features.get(name) ?? 0) < DOCUMENTS / 20);
  expect(rare, "of the documents").toEqual([]);
  const wanted = [
    ...moves.map((kind) => `fired ${kind}`),
    ...["no-stack", "not-showing", "no-place", "no-value", "inside-itself", "not-allowed", "redirect-loop", "no-such-control", "nothing-to-do"],
    ...["leg", "tab", "pick", "lead", "close", "back", "enter", "launch", "fact", "width"].map((kind) => `${kind} moved`),
    ...["back left", "leg left", "fired without a move"],
  ];
  expect(
    wanted.filter((name) => (outcomes.get(name) ?? 0) < 8),
    "of the walks",
  ).toEqual([]);
});

it("in them available lists what step does not ignore, nothing throws, and the log names legs of the project", () => {
  for (let seed = 1000; seed < 1150; seed++) {
    const project = wholeDocument(seed);
    const app = appOf(project);
    let state = launch(app);
    for (const event of randomWalk(project, wholeEvents(project), seed, 12)) {
      for (const one of available(project, state)) expect(step(app, state, one).outcome).not.toBe("ignored");
      const before = JSON.stringify(state);
      const result = step(app, state, event);
      expect(JSON.stringify(state)).toBe(before);
      if (result.outcome !== "moved") expect(result.state).toBe(state);
      for (const leg of result.log.fired) expect(planOf(project).legs.has(leg)).toBe(true);
      state = result.state;
    }
  }
});
