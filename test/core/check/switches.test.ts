import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { packed } from "../../../src/core/check/refine/packs.ts";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { followed } from "../../../src/core/check/system/followFacts.ts";
import { coarse } from "../../../src/core/check/system/precision.ts";
import { app } from "../../vectors/app.ts";

const COUNT = 20;
const each = <T>(make: (i: number) => T): T[] => Array.from({ length: COUNT }, (_, i) => make(i));

/** An app whose settings switch twenty things on and off: a million ways in which they may stand. Each opens a screen, which asks for two others. */
const switches = app("tabs", {
  tabs: { tabs: "homes settingsStack" },
  stacks: { homes: ["home", ...each((i) => `f${i} g${i}`)].join(" "), settingsStack: "settings" },
  facts: each((i) => ({ id: `f${i}`, type: "boolean", initial: false, source: "app", persists: true })),
  legs: each((i) => [
    `on${i} settings set set.f${i}=true if=!fact.f${i}`,
    `off${i} settings set set.f${i}=false if=fact.f${i}`,
    `go${i} home push f${i} if=fact.f${i}`,
    `on2${i} f${i} push g${i} if=fact.f${(i + 7) % COUNT}&&!fact.f${(i + 3) % COUNT}`,
  ]).flat(),
});

describe("an app with many switches", () => {
  const { findings, proof } = check(switches);

  it("is settled though its facts can not be followed together", () => {
    expect(proof.complete).toBe(true);
    expect(findings.filter(({ certainty }) => certainty === "possible")).toEqual([]);
    // Every control waits for something; nothing is out of reach, and no leg is idle.
    expect(new Set(findings.map(({ code }) => code))).toEqual(new Set(["silent"]));
    expect(findings).toHaveLength(4 * COUNT);
  });

  it("shows each with a walk that flips no more switches than it takes", () => {
    for (const { subjects, walk } of findings) expect(walk?.length, subjects.join(" ")).toBeLessThanOrEqual(7);
  });
});

describe("packs of facts", () => {
  const exploration = explore(abstractionOf(switches, coarse(new Set())), "narrow");
  const sets = each((i) => new Set([`f${i}`, `f${(i + 7) % COUNT}`]));

  it("hold each set in one, and can each be followed", () => {
    const packs = packed([exploration], sets);
    for (const set of sets) expect(packs.some((pack) => [...set].every((one) => pack.has(one)))).toBe(true);
    for (const pack of packs) expect(followed(exploration, pack)).toBeDefined();
    expect(followed(exploration, new Set(sets.flatMap((set) => [...set])))).toBeUndefined();
  });

  it("leave out a set that is too large, and what nothing rests on", () => {
    expect(packed([exploration], [new Set(each((i) => `f${i}`)), new Set<string>()])).toEqual([]);
  });
});

describe("a control that waits for an outside fact", () => {
  const offline = (legs: string[]) =>
    app("s", {
      stacks: { s: "home list item offline" },
      facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
      legs: ["go home push list", "next list push home repeat=rewind if=fact.online", ...legs],
    });
  const silent = (legs: string[]) => check(offline(legs)).findings.filter(({ code }) => code === "silent");
  const lost = "lost list:arrive push offline if=!fact.online";

  it("is silent where people stay when it changes", () => {
    expect(silent([]).map(({ subjects, certainty }) => [...subjects, certainty])).toEqual([["list", "next", "shown"]]);
  });

  it("is not where a leg leads them on then, whether they arrive or come back", () => {
    expect(silent([lost, "more list push item"])).toEqual([]);
  });

  it("is where a modal lay over the screen when it changed: who closes that does not arrive", () => {
    const found = check(
      app("s", {
        stacks: { s: "home list offline", n: "note" },
        modals: { m: "n" },
        facts: [{ id: "online", type: "boolean", initial: true, source: "outside" }],
        legs: ["go home push list", "next list push home repeat=rewind if=fact.online", lost, "more list open m"],
      }),
    ).findings.filter(({ code }) => code === "silent");
    expect(found.map(({ subjects, certainty }) => [...subjects, certainty])).toEqual([["list", "next", "shown"]]);
    expect(found[0]?.walk).toEqual([
      { do: "leg", leg: "go" },
      { do: "leg", leg: "more" },
      { do: "fact", fact: "online", value: false },
      expect.objectContaining({ do: expect.stringMatching(/back|close/) }),
    ]);
  });
});

it("a fact that is set to the opposite of another is not whatever helps", () => {
  const flag = (id: string, initial: boolean) => ({ id, type: "boolean", initial, source: "app" });
  const pit = (locked: boolean) =>
    app("s", {
      stacks: { s: "home pit" },
      screens: { home: { hub: true }, pit: { up: "none", bar: { show: false, lead: "none" } } },
      facts: [flag("free", false), flag("locked", locked)],
      legs: ["fall home reset pit", "turn pit set set.free=!fact.locked", "out pit reset home if=fact.free"],
    });
  const stuck = (locked: boolean) =>
    check(pit(locked)).findings.flatMap(({ code, severity, certainty }) => (severity === "blocker" ? [`${code} ${certainty}`] : []));
  expect(stuck(true)).toEqual(["dead-end shown"]);
  expect(stuck(false)).toEqual([]);
});
