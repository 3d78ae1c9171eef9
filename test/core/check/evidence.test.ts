import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { helpsAfterAll } from "../../../src/core/check/counterexample/wayOut.ts";
import { wayTo } from "../../../src/core/check/counterexample/wayTo.ts";
import { kindOf } from "../../../src/core/check/findings/all.ts";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { app } from "../../vectors/app.ts";

const leg = (id: string): NavEvent => ({ do: "leg", leg: id });
const bare = { up: "none", bar: { show: false, lead: "none" } };
const flag = { id: "f", type: "boolean", initial: false, source: "app" };

/** A sheet that opens over a page with a way home and over one without. */
const sheet = app("s", {
  stacks: { s: "home page pit well", f: "note" },
  modals: { m: "f" },
  screens: { home: { hub: true }, pit: bare, well: bare },
  legs: [
    "go home push page",
    "note page open m",
    "fall page reset pit",
    "round pit replace well",
    "back well replace pit",
    "noteThere pit open m",
    "shut note close",
  ],
});
const helps = (project: Project, code: string, subjects: string[], walk: NavEvent[]) => {
  const help = kindOf(code)?.helps;
  const end = walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
  return help !== undefined && helpsAfterAll(explore(abstractionOf(project), "narrow"), help, subjects, end);
};

describe("a walk as evidence", () => {
  it("is none for a trap where it ends over a page with a way home", () => {
    expect(helps(sheet, "trap", ["pit", "well", "note"], [leg("go"), leg("note")])).toBe(true);
    expect(helps(sheet, "trap", ["pit", "well", "note"], [leg("go"), leg("fall"), leg("noteThere")])).toBe(false);
  });

  it("ends in the trap, whichever of its screens it shows", () => {
    const found = check(sheet).findings.find((f) => f.code === "trap");
    expect(found).toMatchObject({ subjects: ["pit", "well", "note"], certainty: "shown" });
    expect(helps(sheet, "trap", found?.subjects ?? [], found?.walk ?? [])).toBe(false);
  });

  it("counts Back as help for a dead end and not where only Back helps", () => {
    const project = app("s", { stacks: { s: "a b" }, screens: { b: { bar: { show: false, lead: "none" } } }, legs: ["go a push b"] });
    expect(helps(project, "dead-end", ["b"], [leg("go")])).toBe(true);
    expect(helps(project, "back-only", ["b"], [leg("go")])).toBe(false);
  });

  it("counts an outside fact that may change by itself", () => {
    const outside = { id: "o", type: "boolean", initial: false, source: "outside" };
    const project = app("s", { stacks: { s: "a b" }, screens: { b: bare }, facts: [outside], legs: ["go a reset b", "on b reset a if=fact.o"] });
    expect(helps(project, "dead-end", ["b"], [leg("go")])).toBe(true);
    expect(check(project).findings.map((f) => f.code)).not.toContain("dead-end");
  });

  it("of a modal that can not be got rid of ends where nothing closes it", () => {
    const project = app("s", {
      stacks: { s: "a", f: "x y" },
      modals: { m: ["f", { closeOn: [] }] },
      legs: ["up a open m", "on x push y", "shut x close if=fact.f"],
      facts: [flag],
    });
    const found = check(project).findings.find((f) => f.code === "stuck-modal");
    expect(found).toMatchObject({ subjects: ["m"], certainty: "shown" });
    expect(helps(project, "stuck-modal", ["m"], found?.walk ?? [])).toBe(false);
  });

  it("is the same where facts decide nothing and where they are there at all", () => {
    const parts = { stacks: { s: "a b c" }, screens: { c: bare }, legs: ["go a push b", "on b reset c"] };
    const plain = check(app("s", parts));
    const more = check(app("s", { ...parts, facts: [flag], legs: [...parts.legs, "mark a set set.f=true"] }));
    const told = ({ findings }: typeof plain) => findings.filter((f) => !f.code.startsWith("unused")).map((f) => [f.code, f.subjects, f.certainty, f.walk]);
    expect(told(more)).toEqual(told(plain));
  });
});

describe("the way to a screen", () => {
  it("ends on it, by taps where taps lead there, by a way in only where they do not", () => {
    const project = app("s", {
      stacks: { s: "a b c" },
      facts: [flag],
      legs: ["set a set set.f=true", "go a push b if=fact.f"],
      entrances: [{ id: "link", name: "Link", kind: "link", pattern: "/c", to: "c", warm: "rebuild" }],
    });
    const shown = (walk: NavEvent[] = []) => currentScreen(walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)))).at;
    const [b, c] = [wayTo(project, "b"), wayTo(project, "c")];
    expect(b?.map((event) => event.do)).toEqual(["leg", "leg"]);
    expect(shown(b)).toBe("b");
    expect(c?.map((event) => event.do)).toEqual(["enter"]);
    expect(shown(c)).toBe("c");
    expect(wayTo(project, "nowhere")).toBeUndefined();
  });
});

describe("what lies beneath", () => {
  it("is shown where the way leads through another tab and back onto the stack", () => {
    // The second b comes onto the stack with an a that is pushed from another tab.
    const project = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b", u: "x y" },
      legs: ["on a push b", "over b push x in=u", "next x push y", "back y push a in=s"],
    });
    const copies = check(project).findings.filter(({ code, subjects }) => code === "piled-copies" && subjects[0] === "on");
    expect(copies.map(({ certainty }) => certainty)).toEqual(["shown"]);
    expect(copies[0]?.walk?.at(-1)).toEqual(leg("on"));
  });
});
