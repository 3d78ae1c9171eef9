import { describe, expect, it } from "vitest";
import { type Choice, Chooser, factAsked, isImposed, mayTurnOutAs } from "../../../src/core/check/system/chooser.ts";

describe("a chooser", () => {
  it("goes through every way in which questions can be answered, also those that come up on the way only", () => {
    const chooser = new Chooser();
    const ways = chooser.each(() => {
      const first = chooser.choose("first", ["a", "b"]);
      return first === "a" ? first : first + chooser.choose("second", [1, 2, 3]);
    });
    expect(ways.map(({ result }) => result)).toEqual(["a", "b1", "b2", "b3"]);
    expect(ways[2]?.choices).toEqual([
      { question: "first", answer: "b" },
      { question: "second", answer: 2 },
    ]);
    expect(chooser.truncated).toBe(false);
  });

  it("answers a question alike each time that it is asked in one event, and asks it anew in the next", () => {
    const chooser = new Chooser();
    const both = () => [chooser.choose("rain", [true, false]), chooser.choose("rain", [true, false])];
    expect(chooser.each(both).map(({ result }) => result)).toEqual([
      [true, true],
      [false, false],
    ]);
    expect(chooser.each(both)).toHaveLength(2);
  });

  it("runs once where nothing is asked, and says where there were more ways than it went through", () => {
    const chooser = new Chooser();
    expect(chooser.each(() => 7)).toEqual([{ result: 7, choices: [] }]);
    const many = chooser.each(() => [1, 2, 3, 4].map((i) => chooser.choose(`q${i}`, [0, 1])), 10);
    expect(many).toHaveLength(10);
    expect(chooser.truncated).toBe(true);
  });
});

describe("what nobody chooses", () => {
  const user = (answer: unknown): Choice => ({ question: "param.id == 'x' on list", answer });
  const lane = (answer: unknown): Choice => ({ question: "context rota#2", answer });
  const fact = (answer: unknown): Choice => ({ question: "app member 0", answer });

  it("is what hidden lanes hold, and facts that are not followed unless they count for the user", () => {
    expect([user(1), lane(1), fact(1)].map((choice) => isImposed(choice))).toEqual([false, true, true]);
    expect([user(1), lane(1), fact(1)].map((choice) => isImposed(choice, false))).toEqual([false, true, false]);
    expect([user(1), lane(1), fact(1)].map(factAsked)).toEqual([undefined, undefined, "member"]);
  });

  it("can make what the user chose come out otherwise, but not what the user did not choose", () => {
    expect(mayTurnOutAs([user(1), lane("a")], [user(1), lane("b")])).toBe(true);
    expect(mayTurnOutAs([user(1), lane("a")], [user(2), lane("a")])).toBe(false);
    expect(mayTurnOutAs([fact(true)], [fact(false)])).toBe(true);
    expect(mayTurnOutAs([fact(true)], [fact(false)], false)).toBe(false);
    // A question that only the other way asks is open to the user there.
    expect(mayTurnOutAs([lane("a")], [lane("b"), user(1)])).toBe(true);
  });
});
