import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { createDocument } from "../../src/app/session/document.ts";
import { Keeping, type Kept } from "../../src/app/session/keeping.ts";
import { EtapeDb } from "../../src/app/session/storage/db.ts";
import { createProject, loadProject, saveEdit } from "../../src/app/session/storage/projects.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { changeProject, changeScreen } from "../../src/core/model/edits/change.ts";
import type { Edit } from "../../src/core/model/edits/edit.ts";
import { removePlaces } from "../../src/core/model/edits/remove.ts";

let store: EtapeDb;
let count = 0;
const sessions: Keeping[] = [];
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
function opened(id: string): { session: Keeping; told: Kept[]; until: (holds: (state: Kept) => boolean) => Promise<Kept> } {
  const told: Kept[] = [];
  const waiting: Array<{ holds: (state: Kept) => boolean; done: (state: Kept) => void }> = [];
  const session = new Keeping(
    id,
    (state) => {
      told.push(state);
      for (const one of waiting) if (one.holds(state)) one.done(state);
    },
    store,
  );
  sessions.push(session);
  const until = (holds: (state: Kept) => boolean) => new Promise<Kept>((done) => (holds(session.state) ? done(session.state) : waiting.push({ holds, done })));
  return { session, told, until };
}
const settled = (state: Kept) => state.status !== "loading" && !state.saving;

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

  it("shows what was loaded at once, and takes no edit before it is ready", async () => {
    const id = await createProject(emptyProject("A"), store);
    const loaded = await loadProject(id, store);
    const document = createDocument(id, loaded, store);
    expect(document.store.getState().project).toEqual(loaded?.project);
    await document.close();
    const known = new Keeping(id, () => undefined, store, loaded);
    sessions.push(known);
    expect([known.state.status, known.state.project?.name]).toEqual(["ready", "A"]);
    const { session, until } = opened(id);
    session.apply(add("early"));
    await until(settled);
    expect([session.state.error, await stored(id)]).toEqual([undefined, { name: "A", screens: ["home"] }]);
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
    a.session.apply({ kind: "changeProject", name: "Break it", change: { name: 7 }, without: [] });
    expect(a.session.state).toMatchObject({ error: expect.stringMatching(/“Break it” was not kept.*name: found 7/), project: { name: "A" } });
    // What another window makes of the document is not known before it is saved.
    await expect(saveEdit(id, { kind: "changeProject", name: "Break it", change: { name: 7 }, without: [] }, store)).rejects.toThrow(/name: found 7/);
    a.session.apply(add("after"));
    const now = await a.until((state) => settled(state) && state.project?.screens.length === 3);
    expect(now.project?.name).toBe("A");
    expect(await stored(id)).toEqual({ name: "A", screens: ["home", "good", "after"] });
  });

  it("takes back and makes again, as far as there is something to", async () => {
    const id = await createProject(emptyProject("Tea"), store);
    const { session, until } = opened(id);
    await until(settled);
    session.undo();
    session.redo();
    await until(settled);
    session.apply(add("a"));
    session.apply(add("b"));
    const both = await until((state) => settled(state) && state.project?.screens.length === 3);
    expect([both.undoName, both.redoName]).toEqual(['Add screen "b"', undefined]);
    session.undo();
    const one = await until((state) => settled(state) && state.project?.screens.length === 2);
    expect([one.undoName, one.redoName]).toEqual(['Add screen "a"', 'Add screen "b"']);
    session.redo();
    await until((state) => settled(state) && state.project?.screens.length === 3);
    expect((await stored(id))?.screens).toEqual(["home", "a", "b"]);
    session.redo();
    expect((await until(settled)).project?.screens).toHaveLength(3);
  });

  it("an edit that throws is told and leaves everything as it was", async () => {
    const a = opened(await createProject(emptyProject("A"), store));
    await a.until(settled);
    a.session.apply({ kind: "fall", name: "Fall" });
    expect(a.session.state).toMatchObject({
      error: expect.stringMatching(/“Fall” could not be made: .*no edit of the kind "fall"/),
      saving: false,
      status: "ready",
    });
  });

  it("an edit of something that another window took away meanwhile is told, and is no step of the history", async () => {
    const id = await createProject(emptyProject("A"), store);
    const here = opened(id);
    await here.until(settled);
    here.session.apply(add("plot"));
    const both = await here.until((state) => settled(state) && state.project?.screens.length === 2);
    const project = both.project ?? emptyProject("");
    // The edit is on its way when the other window's is stored.
    const gone = saveEdit(id, removePlaces(project, ["plot"]), store);
    here.session.apply(changeScreen(project, "plot", { name: "Bed" }));
    await gone;
    const now = await here.until((state) => settled(state) && state.error !== undefined);
    expect(now.error).toMatch(/“Rename of "Plot"|“Rename of "plot"” was not made: another window/);
    expect(now.undoName).toBe('Delete "plot"');
    expect(await stored(id)).toEqual({ name: "A", screens: ["home"] });
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

  it("a project that can not be read fails with what is wrong, and is not missing", async () => {
    const id = await createProject(emptyProject("A"), store);
    await store.documents.put({ projectId: id, document: { format: "etape/1", name: 7 } });
    const failed = await opened(id).until((state) => state.status !== "loading");
    expect(failed).toMatchObject({ status: "failed", error: expect.stringContaining("can not be read") });
  });

  it("what it stored itself is not read again, and shows no other document than before", async () => {
    const id = await createProject(emptyProject("A"), store);
    const { session, until } = opened(id);
    await until(settled);
    let reads = 0;
    const get = store.documents.get.bind(store.documents);
    store.documents.get = ((key: string) => {
      reads += 1;
      return get(key);
    }) as typeof get;
    session.apply(add("a"));
    session.apply(add("b"));
    const shown = session.state.project;
    await until((state) => settled(state) && state.project?.screens.length === 3);
    for (let i = 0; i < 20; i++) await new Promise((resolve) => setTimeout(resolve, 5));
    expect(reads).toBe(0);
    expect(session.state.project).toBe(shown);
  });

  it("a project that is not there is missing, and not waited for", async () => {
    expect((await opened("nobody").until((state) => state.status !== "loading")).status).toBe("missing");
  });
});
