import "fake-indexeddb/auto";
import Dexie from "dexie";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { EtapeDb } from "../../src/app/session/storage/db.ts";
import { createProject, deleteProject, KEPT_EDITS, loadProject, moveHead, saveEdit } from "../../src/app/session/storage/projects.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { changeProject } from "../../src/core/model/edits/change.ts";
import { readProjectData } from "../../src/core/model/read.ts";

let store: EtapeDb;
let count = 0;
beforeEach(() => {
  store = new EtapeDb(`test-${count++}`);
});
afterEach(() => store.delete());

const add = (id: string) => addScreen(newScreen(id, id));
const screens = async (id: string) => (await loadProject(id, store))?.project.screens.map((s) => s.id);

describe("projects kept in the browser", () => {
  it("what is saved is there when it is loaded again, with the names of undo and redo", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    await saveEdit(id, add("b"), store);
    await moveHead(id, -1, store);
    const again = await loadProject(id, store);
    expect(again?.project.screens.map((s) => s.id)).toEqual(["home", "a"]);
    expect(again?.undoName).toBe('Add screen "a"');
    expect(again?.redoName).toBe('Add screen "b"');
  });

  it("one that can not be read says the first three things that are wrong, and how many more there are", async () => {
    const id = await createProject(emptyProject("One"), store);
    const screens = Array.from({ length: 5 }, () => ({ id: 7 }));
    await store.documents.put({ projectId: id, document: { ...emptyProject("One"), screens } });
    const said = await loadProject(id, store).then(
      () => "",
      (error: Error) => error.message,
    );
    const [, more] = /; and (\d+) more$/.exec(said) ?? [];
    expect(said.match(/screens\[\d\]/g)).toHaveLength(3);
    const problems = readProjectData({ ...emptyProject("One"), screens });
    expect(Number(more)).toBe((problems.ok ? 0 : problems.problems.length) - 3);
  });

  it("one with three things wrong says these, and of no more", async () => {
    const id = await createProject(emptyProject("One"), store);
    await store.documents.put({ projectId: id, document: { ...emptyProject("One"), name: 7, root: 7, walks: 7 } });
    await expect(loadProject(id, store)).rejects.toThrow(/^What is stored of this project can not be read: (?:(?!more).)*$/);
  });

  it("one with four things wrong says that there is one more", async () => {
    const id = await createProject(emptyProject("One"), store);
    await store.documents.put({ projectId: id, document: { ...emptyProject("One"), name: 7, root: 7, walks: 7, facts: 7 } });
    await expect(loadProject(id, store)).rejects.toThrow(/; and 1 more$/);
  });

  it("undo that would leave a document that can not be read is told, and the document stays", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    const [row] = await store.edits.where("projectId").equals(id).toArray();
    await store.edits.put({
      ...(row as NonNullable<typeof row>),
      inverse: add("home"),
    });
    await expect(moveHead(id, -1, store)).rejects.toThrow("could not be read afterwards");
    expect(await screens(id)).toEqual(["home", "a"]);
  });

  it("of a project that is not there nothing is loaded, saved or taken back", async () => {
    expect(await loadProject("nobody", store)).toBeUndefined();
    expect(await saveEdit("nobody", add("a"), store)).toBeUndefined();
    for (const by of [-1, 1] as const) expect(await moveHead("nobody", by, store)).toBeUndefined();
  });

  it("undo and redo go to the ends and stay there", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    for (let i = 0; i < 3; i++) await moveHead(id, -1, store);
    expect(await screens(id)).toEqual(["home"]);
    for (let i = 0; i < 3; i++) await moveHead(id, 1, store);
    expect(await screens(id)).toEqual(["home", "a"]);
  });

  it("an edit after an undo takes the place of what was undone", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    await moveHead(id, -1, store);
    const saved = await saveEdit(id, add("b"), store);
    expect(saved?.redoName).toBeUndefined();
    expect(await screens(id)).toEqual(["home", "b"]);
  });

  it("two windows never overwrite each other: both edits are in the document", async () => {
    const id = await createProject(emptyProject("One"), store);
    const other = new EtapeDb(store.name);
    await Promise.all([saveEdit(id, add("here"), store), saveEdit(id, add("there"), other)]);
    expect((await screens(id))?.sort()).toEqual(["here", "home", "there"]);
    other.close();
  });

  it("renaming the project renames its row, undoing too", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, changeProject({ name: "Two" }), store);
    expect((await store.projects.get(id))?.name).toBe("Two");
    await moveHead(id, -1, store);
    expect((await store.projects.get(id))?.name).toBe("One");
  });

  it("only so many edits are kept, and the newest among them can be taken back", async () => {
    const id = await createProject(emptyProject("One"), store);
    for (let i = 0; i < 12; i++) await saveEdit(id, changeProject({ name: `v${i}` }), store);
    // As if there had been as many as are kept.
    await store.projects.update(id, { head: KEPT_EDITS + 8 });
    await saveEdit(id, changeProject({ name: "last" }), store);
    expect((await store.edits.toArray()).map(({ seq }) => seq)).toEqual([10, 11, 12, KEPT_EDITS + 9]);
    expect((await moveHead(id, -1, store))?.project.name).toBe("v11");
  });

  it("an edit is kept as what it does and what takes it back, not as a document", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    expect(await store.edits.toArray()).toMatchObject([
      { seq: 1, edit: { kind: "addScreen", screen: { id: "a" } }, inverse: { kind: "revise", lists: { screens: { put: [], removed: ["a"] } } } },
    ]);
  });

  it("an edit that can not be read is told by its name, and the document stays as it is", async () => {
    const id = await createProject(emptyProject("One"), store);
    await saveEdit(id, add("a"), store);
    await store.edits.update([id, 1], { inverse: { kind: "magic", name: "x" } });
    await expect(moveHead(id, -1, store)).rejects.toThrow(/“Add screen "a"” can not be taken back. There is no edit of the kind "magic"/);
    expect(await screens(id)).toEqual(["home", "a"]);
  });

  it("what can not be read is told with its place, and left as it is", async () => {
    const id = await createProject(emptyProject("One"), store);
    await store.documents.put({ projectId: id, document: { format: "etape/1", name: 7 } });
    await expect(loadProject(id, store)).rejects.toThrow(/name: found 7/);
    expect((await store.documents.get(id))?.document).toMatchObject({ name: 7 });
  });

  it("projects that were kept as a document for each edit are still there, with what can be undone and redone", async () => {
    const old = new Dexie(`old-${count}`);
    old.version(1).stores({ projects: "id, updatedAt", versions: "[projectId+seq], projectId" });
    const [one, two, three] = [emptyProject("One"), emptyProject("Two"), emptyProject("Three")];
    await old.table("projects").add({ id: "p", name: "Two", head: 1, revision: 4, updatedAt: 1 });
    await old.table("versions").bulkAdd([
      { projectId: "p", seq: 0, name: "Open", document: one },
      { projectId: "p", seq: 1, name: "Rename", document: { ...two, screens: [...two.screens, newScreen("a", "A")] } },
      { projectId: "p", seq: 2, name: "Rename again", document: three },
    ]);
    old.close();
    const now = new EtapeDb(`old-${count}`);
    expect(await loadProject("p", now)).toMatchObject({
      project: { name: "Two", screens: [{ id: "home" }, { id: "a" }] },
      undoName: "Rename",
      redoName: "Rename again",
    });
    expect((await moveHead("p", 1, now))?.project).toMatchObject({ name: "Three", screens: [{ id: "home" }] });
    await moveHead("p", -1, now);
    expect((await moveHead("p", -1, now))?.project).toEqual(one);
    await now.delete();
  });

  it("a deleted project is gone with its history; one that never was is not found", async () => {
    const id = await createProject(emptyProject("One"), store);
    await deleteProject(id, store);
    expect(await loadProject(id, store)).toBeUndefined();
    expect([await store.documents.count(), await store.edits.count()]).toEqual([0, 0]);
    expect(await saveEdit("nobody", add("a"), store)).toBeUndefined();
  });
});
