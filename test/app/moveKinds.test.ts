import { expect, it } from "vitest";
import { chosenWay, waysOf } from "../../src/app/session/actions/moveKinds.ts";
import type { Leg } from "../../src/core/model/schema.ts";
import { app } from "../vectors/app.ts";

const project = app("s", {
  stacks: { s: "a t b", u: "c d" },
  tabs: { t: "u e" },
  modals: { m: "ask" },
  legs: [
    "out c reset a in=s",
    "reset c reset a",
    "over c push d in=u repeat=rewind",
    "back ask push b in=s repeat=rewind",
    "beneath ask push b in=beneath",
    "open c open m",
  ],
});
const leg = (id: string) => project.legs.find((one) => one.id === id) as Leg;
const move = (id: string, key: string) => waysOf(project, leg(id)).find((way) => way.key === key)?.move;

it("the ways of a leg take place in the stack that is meant", () => {
  expect(move("out", "reset")).toEqual({ kind: "reset", to: "a", in: "s" });
  expect(move("back", "return")).toEqual({ kind: "push", to: "b", in: "s", repeat: "rewind" });
  expect(move("over", "return")).toEqual({ kind: "return", to: "d" });
});

it("the way that a leg goes is known by its move: going back out of a modal is a push, and pushing in a stack is none", () => {
  expect(["out", "over", "back", "beneath", "open"].map((id) => chosenWay(project, leg(id)))).toEqual(["reset", "in", "return", "beneath", "open"]);
  expect(chosenWay(project, { ...leg("out"), move: undefined } as never)).toBeUndefined();
});
