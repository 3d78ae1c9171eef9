import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Checking, type CheckWorker } from "../../src/app/session/checking.ts";
import { createFindings, endOf, type FindingsState, resultOf } from "../../src/app/session/findings.ts";
import type { PlainResult } from "../../src/app/worker/protocol.ts";
import type { Project } from "../../src/core/model/schema.ts";

const named = (name: string) => ({ name }) as Project;
const result = (name: string) => ({ findings: [], accepted: [], proof: { states: name.length } }) as unknown as PlainResult;

/** Workers that take as long as they are told, and note what they were asked and when they were stopped. */
function workers(ms: (project: Project) => number) {
  const log: string[] = [];
  let count = 0;
  const start = (): CheckWorker => {
    count += 1;
    const id = count;
    let ended = false;
    return {
      check: (project, progress) => {
        log.push(`${id} ${project.name}`);
        return new Promise((done, fail) => {
          setTimeout(() => !ended && progress(7), ms(project) / 2);
          setTimeout(() => !ended && (project.name === "bad" ? fail(new Error("no such thing")) : done(result(project.name))), ms(project));
        });
      },
      stop: () => {
        ended = true;
        log.push(`${id} stopped`);
      },
    };
  };
  return { log, start };
}

describe("checks, one after another", () => {
  beforeEach(() => {
    vi.useFakeTimers();
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  function checking(ms: (project: Project) => number) {
    const { log, start } = workers(ms);
    const heard: string[] = [];
    const made = new Checking(start, {
      progress: ({ name }, states) => heard.push(`${name} ${states}`),
      done: ({ name }) => heard.push(`${name} done`),
      failed: ({ name }, message) => heard.push(`${name}: ${message}`),
    });
    return { made, log, heard };
  }

  it("are made again for the same project where what lies beside it changed meanwhile", async () => {
    const { made, log, heard } = checking(() => 100);
    const one = named("a");
    made.check(one);
    await vi.advanceTimersByTimeAsync(20);
    made.check(one);
    await vi.advanceTimersByTimeAsync(300);
    expect(log).toEqual(["1 a", "1 a"]);
    expect(heard.filter((says) => says === "a done")).toHaveLength(1);
  });

  it("are heard of, and use one worker", async () => {
    const { made, log, heard } = checking(() => 100);
    made.check(named("a"));
    await vi.advanceTimersByTimeAsync(150);
    made.check(named("b"));
    await vi.advanceTimersByTimeAsync(150);
    expect(heard).toEqual(["a 7", "a done", "b 7", "b done"]);
    expect(log).toEqual(["1 a", "1 b"]);
  });

  it("of short work go on in the warm worker, and only the newest is heard of", async () => {
    const { made, log, heard } = checking(() => 100);
    made.check(named("a"));
    await vi.advanceTimersByTimeAsync(20);
    made.check(named("b"));
    made.check(named("c"));
    await vi.advanceTimersByTimeAsync(300);
    expect(log).toEqual(["1 a", "1 c"]);
    expect(heard).toEqual(["c 7", "c done"]);
  });

  it("of long work are ended by a newer one", async () => {
    const { made, log, heard } = checking(({ name }) => (name === "long" ? 5000 : 100));
    made.check(named("long"));
    await vi.advanceTimersByTimeAsync(1000);
    made.check(named("b"));
    await vi.advanceTimersByTimeAsync(200);
    expect(log).toEqual(["1 long", "1 stopped", "2 b"]);
    expect(heard).toEqual(["b 7", "b done"]);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(heard).toEqual(["b 7", "b done"]);
  });

  it("that are stopped are not heard of, and the next starts over", async () => {
    const { made, log, heard } = checking(() => 1000);
    made.check(named("a"));
    await vi.advanceTimersByTimeAsync(20);
    made.stop();
    await vi.advanceTimersByTimeAsync(2000);
    expect(heard).toEqual([]);
    made.check(named("b"));
    await vi.advanceTimersByTimeAsync(2000);
    expect(log).toEqual(["1 a", "1 stopped", "2 b"]);
    expect(heard).toEqual(["b 7", "b done"]);
  });

  it("that were ended and fail afterwards end nothing that runs meanwhile", async () => {
    const log: string[] = [];
    let count = 0;
    const start = (): CheckWorker => {
      count += 1;
      const id = count;
      return {
        // This one fails though it was stopped.
        check: ({ name }) => new Promise((done, fail) => setTimeout(() => (name === "bad" ? fail(new Error("late")) : done(result(name))), 1000)),
        stop: () => log.push(`${id} stopped`),
      };
    };
    const heard = { progress: () => undefined, done: ({ name }: Project) => log.push(`${name} done`), failed: (_: Project, why: string) => log.push(why) };
    const made = new Checking(start, heard);
    made.check(named("bad"));
    await vi.advanceTimersByTimeAsync(400);
    made.check(named("b"));
    await vi.advanceTimersByTimeAsync(3000);
    expect(log).toEqual(["1 stopped", "b done"]);
  });

  it("that fail say why, unless a newer one was asked for, and the next has a worker of its own", async () => {
    const { made, heard, log } = checking(() => 100);
    made.check(named("bad"));
    await vi.advanceTimersByTimeAsync(150);
    made.check(named("bad"));
    await vi.advanceTimersByTimeAsync(20);
    made.check(named("b"));
    await vi.advanceTimersByTimeAsync(400);
    expect(heard).toEqual(["bad 7", "bad: no such thing", "b 7", "b done"]);
    expect(log).toEqual(["1 bad", "1 stopped", "2 bad", "2 stopped", "3 b"]);
  });

  it("that fail with something else than an error say what that is", async () => {
    const heard: string[] = [];
    const start = (): CheckWorker => ({ check: () => Promise.reject("no room"), stop: () => undefined });
    const made = new Checking(start, { progress: () => undefined, done: () => undefined, failed: (_, why) => heard.push(why) });
    made.check(named("a"));
    await vi.advanceTimersByTimeAsync(10);
    expect(heard).toEqual(["no room"]);
  });
});

describe("the findings of a project", () => {
  const [one, other] = [{ name: "one" } as Project, { name: "other" } as Project];
  const result = { findings: [] } as unknown as PlainResult;
  const state = (part: Partial<FindingsState>) => ({ of: one, running: false, result, stopped: undefined, error: undefined, ...part }) as FindingsState;

  it.each([
    ["done", {}, result],
    ["running", { running: true }, undefined],
    ["running", { of: other }, undefined],
    ["stopped", { stopped: one }, undefined],
    ["done", { stopped: other }, result],
    ["failed", { error: "out of memory" }, undefined],
  ] as const)("are those of its own check: %s", (end, part, known) => {
    expect([endOf(state(part), one), resultOf(state(part), one)]).toEqual([end, known]);
  });
});

describe("the findings of the open document", () => {
  it("are asked for once, again where something beside it changed, and not after it is closed", async () => {
    const workers: string[] = [];
    vi.stubGlobal(
      "Worker",
      class {
        postMessage = ({ kind }: { kind?: string }) => workers.push(kind ?? "asked");
        addEventListener = () => {};
        terminate = () => workers.push("ended");
      },
    );
    const project = named("One");
    const { store, close } = createFindings();
    store.getState().again(project);
    expect([workers.length, store.getState().running]).toEqual([0, false]);
    store.getState().check(project);
    expect([workers.length, store.getState()]).toMatchObject([1, { of: project, running: true, states: 0 }]);
    store.getState().check(project);
    expect(workers).toHaveLength(1);
    store.getState().stop();
    expect(store.getState()).toMatchObject({ running: false, stopped: project });
    store.getState().again(project);
    expect(store.getState()).toMatchObject({ running: true, stopped: undefined });
    close();
    expect(workers.at(-1)).toBe("ended");
    vi.unstubAllGlobals();
  });
});
