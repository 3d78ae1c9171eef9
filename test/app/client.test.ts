import { describe, expect, it } from "vitest";
import { type Port, WorkerClient } from "../../src/app/worker/client.ts";
import { CALLS, Request } from "../../src/app/worker/protocol.ts";
import { emptyProject } from "../../src/core/model/edits/add.ts";

type Listener = Parameters<Port["addEventListener"]>[1];

/** A worker that keeps what it is asked and answers what the test says. */
function standIn() {
  const listeners = new Map<string, Listener>();
  const asked: Request[] = [];
  const port: Port = {
    postMessage: (message) => void asked.push(Request.parse(structuredClone(message))),
    addEventListener: (type, listener) => void listeners.set(type, listener),
    terminate: () => void listeners.clear(),
  };
  return { client: new WorkerClient(port), asked, say: (type: string, event: Parameters<Listener>[0]) => listeners.get(type)?.(event) };
}

const proof = { states: 1, depth: "any" as const, complete: true, entrances: [], widths: ["narrow" as const], factCombinations: 1, screens: 1 };

describe("asking a worker", () => {
  it("gives what it answers, to each who asked, and tells progress meanwhile", async () => {
    const { client, asked, say } = standIn();
    const told: number[] = [];
    const checked = client.ask("check", [emptyProject("A")], (states) => told.push(states));
    const way = client.ask("wayTo", [emptyProject("A"), "home"]);
    expect(asked.map(({ id, call }) => [id, call])).toEqual([
      [1, "check"],
      [2, "wayTo"],
    ]);
    expect(CALLS.check.args.safeParse(asked[0]?.args).success).toBe(true);
    say("message", { data: { id: 1, is: "progress", states: 64 } });
    say("message", { data: { id: 2, is: "done", value: [{ do: "back" }] } });
    say("message", { data: { id: 1, is: "done", value: { findings: [], accepted: [], proof } } });
    expect(await way).toEqual([{ do: "back" }]);
    expect(await checked).toEqual({ findings: [], accepted: [], proof });
    expect(told).toEqual([64]);
  });

  it.each([
    ["the work threw", "message", { data: { id: 1, is: "failed", message: "no ground" } }, /^no ground$/],
    ["the answer is none of this protocol", "message", { data: { id: 1, is: "perhaps" } }, /was not understood/],
    ["the answer is not what was asked for", "message", { data: { id: 1, is: "done", value: { findings: 7 } } }, /an answer to “check” was not understood/],
    ["the worker could not be loaded", "error", {}, /could not be loaded/],
    ["the worker broke down", "error", { message: "out of memory" }, /out of memory/],
    ["the answer could not be taken apart", "messageerror", {}, /could not be read/],
  ])("rejects with a sentence where %s", async (_, type, event, message) => {
    const { client, say } = standIn();
    const checked = client.ask("check", [emptyProject("A")]);
    say(type, event);
    await expect(checked).rejects.toThrow(message);
  });

  it("rejects at once after the worker broke down, and is silent after it was stopped", async () => {
    const { client, say } = standIn();
    say("error", { message: "gone" });
    await expect(client.ask("check", [emptyProject("A")])).rejects.toThrow("gone");
    const other = standIn();
    let settled = false;
    other.client.ask("check", [emptyProject("A")]).finally(() => {
      settled = true;
    });
    other.client.stop();
    other.say("message", { data: { id: 1, is: "done", value: { findings: [], accepted: [], proof } } });
    await Promise.resolve();
    expect(settled).toBe(false);
  });
});
