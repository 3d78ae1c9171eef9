import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { app } from "../../vectors/app.ts";

const lanes = (count: number) => Array.from({ length: count }, (_, i) => `l${i}`);
/** Tabs each with a home, and folders from which a reset leaves nothing to go back to. */
const spoilt = (count: number, more: string[] = []) =>
  app("t", {
    tabs: { t: [lanes(count).join(" "), { onBack: "leave", chosenAgain: "nothing", keeps: true }] },
    stacks: Object.fromEntries(lanes(count).map((id) => [id, `home${id} folder${id} file${id}`])),
    screens: Object.fromEntries(lanes(count).flatMap((id) => [`folder${id}`, `file${id}`].map((screen) => [screen, { up: "none" }]))),
    legs: [
      ...lanes(count).flatMap((id) => [`in${id} home${id} push folder${id}`, `on${id} folder${id} push file${id}`, `up${id} file${id} reset folder${id}`]),
      ...more,
    ],
  });
const traps = (project: ReturnType<typeof app>) => check(project).findings.filter(({ code }) => code === "trap");

describe("a trap that is one only when every tab was spoilt", () => {
  it.each([1, 2, 3, 5])("of %i is shown by a walk that spoils one after another", (count) => {
    const project = spoilt(count);
    const [trap, ...others] = traps(project);
    expect(others).toEqual([]);
    expect(trap).toMatchObject({ code: "trap", certainty: "shown" });
    const end = (trap?.walk ?? []).reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
    // Whatever tab is taken now, its first screen is gone.
    for (const lane of lanes(count)) expect(stateLine(appOf(project).plan, step(appOf(project), end, { do: "tab", to: lane }).state)).not.toContain("home");
  });

  it("is none where one of the tabs can not be spoilt", () => {
    expect(traps(spoilt(3, ["save filel1 return homel1"]))).toEqual([]);
  });
});
