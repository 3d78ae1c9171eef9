import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { FAR } from "../../../src/core/check/options.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { fewestTaps } from "../../oracle/taps.ts";
import { amount } from "../../random/amount.ts";
import { assembledApp } from "../../random/assembled.ts";
import { app } from "../../vectors/app.ts";

/** States of one document that the plain search goes through. */
const MOST = 3_000;

const farIn = (project: Project) =>
  check(project).findings.flatMap(({ code, subjects, message }) => (code === "far" ? [{ screen: subjects[0] ?? "", message }] : []));

describe("a screen that is far", () => {
  it("is not brought near by putting something on the launch screen and taking it off again", () => {
    // Help lies on all of them, and Back from it shows any of them: the sixth, too, though nobody was there yet.
    const steps = ["a", "b", "c", "d", "e", "f", "g"];
    const project = app("s", {
      stacks: { s: `${steps.join(" ")} help` },
      legs: steps.flatMap((id, i) => [`ask${id} ${id} push help`, ...(steps[i + 1] ? [`next${id} ${id} push ${steps[i + 1]}`] : [])]),
    });
    expect(farIn(project)).toEqual([{ screen: "g", message: '"g" is 6 taps from launch by the shortest way.' }]);
  });

  it("is not brought near by a fact that has to be set first", () => {
    const furthest = app("s", {
      stacks: { s: "home a b c d e secret" },
      facts: [{ id: "known", type: "boolean", initial: false, source: "app" }],
      legs: ["a1 home push a", "b1 a push b", "c1 b push c", "d1 c push d", "e1 d push e set.known=true", "in home push secret if=fact.known"],
    });
    expect(farIn(furthest)).toEqual([{ screen: "secret", message: '"secret" is 6 taps from launch by the shortest way.' }]);
  });

  it("is not brought near by a way in that waits for the sign-in, for coming in is no tap", () => {
    const made = app("s", {
      stacks: { s: "signIn home a b c d deep" },
      facts: [
        { id: "in", type: "boolean", initial: false, source: "app" },
        { id: "f", type: "boolean", initial: false, source: "app" },
      ],
      entrances: [{ id: "e", name: "E", kind: "notification", to: "deep", when: "fact.in", otherwise: "signIn", resume: true, warm: "rebuild" }],
      legs: [
        "enter signIn replace home set.in=true",
        ...["home a", "a b", "b c", "c d", "d deep"].map((way, i) => `go${i} ${way.replace(" ", " push ")}`),
        // What does nothing before a fact is set has the facts followed in a second look, at what ways in lead to as well.
        "quiet home push b if=fact.f",
        "set b set set.f=true",
      ],
    });
    const project = { ...made, legs: made.legs.map((leg) => (leg.id === "enter" ? { ...leg, resumes: true } : leg)) };
    expect(farIn(project)).toEqual([{ screen: "deep", message: '"deep" is 6 taps from launch by the shortest way.' }]);
    // An app in which a second look once took the message that waits for a tap.
    const [far] = farIn(assembledApp(125, 60)).filter(({ screen }) => screen === "info107");
    expect(far?.message).toContain("is 6 taps from launch");
  });

  it("is so beyond another limit where one is set", () => {
    const steps = ["a", "b", "c", "d"];
    const project = app("s", { stacks: { s: steps.join(" ") }, legs: steps.slice(1).map((to, i) => `go${to} ${steps[i]} push ${to}`) });
    const far = (limit?: number) =>
      check(project, limit === undefined ? {} : { far: limit }).findings.flatMap(({ code, subjects }) => (code === "far" ? subjects : []));
    expect([far(), far(3), far(2), far(1)]).toEqual([[], [], ["d"], ["c", "d"]]);
  });

  it("takes as many taps as a plain search finds, and no other is far, in apps as people build them", () => {
    let compared = 0;
    let farther = 0;
    // The walk to a screen of the thirtieth that comes first is longer than the shortest.
    for (const seed of [...Array.from({ length: amount(60, 6) }, (_, i) => i + 1), 30]) {
      const project = assembledApp(seed, 30);
      const { taps, whole } = fewestTaps(project, MOST);
      const far = new Map(farIn(project).map(({ screen, message }) => [screen, message]));
      for (const [screen, count] of taps) {
        if (count > whole) continue;
        compared += 1;
        if (count > FAR) farther += 1;
        expect([seed, screen, far.get(screen)]).toEqual([seed, screen, count > FAR ? expect.stringContaining(` is ${count} taps from launch`) : undefined]);
      }
      // What was not met within the limit must not be said to be nearer than the search went.
      for (const [screen, message] of far)
        if (!taps.has(screen)) expect([seed, screen, Number(/is (\d+) taps/.exec(message)?.[1]) > Math.min(whole, FAR)]).toEqual([seed, screen, true]);
    }
    expect(compared).toBeGreaterThan(100);
    expect(farther).toBeGreaterThan(6);
  });
});
