import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { EtapeDb } from "../../src/app/store/db.ts";
import { createProject, loadProject, saveEdit } from "../../src/app/store/projects.ts";
import { Session, type SessionState } from "../../src/app/store/session.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { changeProject } from "../../src/core/model/edits/change.ts";
import type { Edit } from "../../src/core/model/edits/edit.ts";

let store: EtapeDb;
let count = 0;
const sessions: Session[] = [];
beforeEach(() => {
  store = new EtapeDb(`session-${count++}`);
});
afterEach(async () => {
  await Promise.all(sessions.splice(0).map((session) => session.close()));
  await store.delete();
});

const add = (id: string): Edit => addScreen(newScreen(id, id));
const stored = async (id: string) => {
  const loaded = await loadProject(id, store);
  return loaded && { name: loaded.project.name, screens: loaded.project.screens.map((s) => s.id) };
};

/** A session whose every told state is kept. */
function opened(id: string): { session: Session; told: SessionState[]; until: (holds: (state: SessionState) => boolean) => Promise<SessionState> } {
  const told: SessionState[] = [];
  const waiting: Array<{ holds: (state: SessionState) => boolean; done: (state: SessionState) => void }> = [];
  const session = new Session(
    id,
    (state) => {
      told.push(state);
      for (const one of waiting) if (one.holds(state)) one.done(state);
    },
    store,
  );
  sessions.push(session);
  const until = (holds: (state: SessionState) => boolean) =>
    new Promise<SessionState>((done) => (holds(session.state) ? done(session.state) : waiting.push({ holds, done })));
  return { session, told, until };
}
const settled = (state: SessionState) => state.status !== "loading" && !state.saving;

describe("a project while it is open", () => {
  it("saves still queued when another project is opened are neither shown nor stored as that one's", async () => {
    const [a, b] = [await createProject(emptyProject("A"), store), await createProject(emptyProject("B"), store)];
    const first = opened(a);
    await first.until(settled);
    for (let i = 0; i < 20; i++) first.session.apply(add(`a${i}`));
    first.session.undo();
    const closed = first.session.close();
    const second = opened(b);
    await second.until(settled);
    second.session.apply(add("only"));
    await closed;
    await second.until((state) => settled(state) && state.project?.screens.length === 2);
    expect(second.told.map((state) => state.project?.name).filter((name) => name !== undefined && name !== "B")).toEqual([]);
    expect(await stored(b)).toEqual({ name: "B", screens: ["home", "only"] });
    expect((await stored(a))?.screens).toHaveLength(20);
  });

  it("tells nothing more once it is closed", async () => {
    const a = opened(await createProject(emptyProject("A"), store));
    await a.until(settled);
    a.session.apply(add("late"));
    const before = a.told.length;
    await a.session.close();
    expect(a.told).toHaveLength(before);
  });

  it("an edit that changes nothing is no step", async () => {
    const a = opened(await createProject(emptyProject("A"), store));
    await a.until(settled);
    a.session.apply(changeProject({ name: "A" }));
    expect(a.session.state).toMatchObject({ undoName: undefined, saving: false });
  });

  it("a document that could not be read again is not stored; the last good one is shown, with the reason, and work goes on", async () => {
    const id = await createProject(emptyProject("A"), store);
    const a = opened(id);
    await a.until(settled);
    a.session.apply(add("good"));
    a.session.apply({ name: "Break it", apply: (p) => ({ ...p, name: 7 as unknown as string }) });
    expect(a.session.state).toMatchObject({ error: expect.stringMatching(/“Break it” was not kept.*name: found 7/), project: { name: "A" } });
    // What another window makes of the document is not known before it is saved.
    await expect(saveEdit(id, { name: "Break it", apply: (p) => ({ ...p, name: 7 as unknown as string }) }, store)).rejects.toThrow(/name: found 7/);
    a.session.apply(add("after"));
    const now = await a.until((state) => settled(state) && state.project?.screens.length === 3);
    expect(now.project?.name).toBe("A");
    expect(await stored(id)).toEqual({ name: "A", screens: ["home", "good", "after"] });
  });

  it("an edit that throws is told and leaves everything as it was", async () => {
    const a = opened(await createProject(emptyProject("A"), store));
    await a.until(settled);
    a.session.apply({
      name: "Fall",
      apply: () => {
        throw new Error("no ground");
      },
    });
    expect(a.session.state).toMatchObject({ error: "“Fall” could not be made: no ground", saving: false, status: "ready" });
  });

  it("what another window does comes in", async () => {
    const id = await createProject(emptyProject("A"), store);
    const [here, there] = [opened(id), opened(id)];
    await Promise.all([here.until(settled), there.until(settled)]);
    here.session.apply(add("here"));
    there.session.apply(add("there"));
    const both = await here.until((state) => settled(state) && state.project?.screens.length === 3);
    expect(both.project?.screens.map((s) => s.id).sort()).toEqual(["here", "home", "there"]);
  });

  it("a project that is not there is missing, and not waited for", async () => {
    expect((await opened("nobody").until((state) => state.status !== "loading")).status).toBe("missing");
  });
});
