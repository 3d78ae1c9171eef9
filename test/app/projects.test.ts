import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { EtapeDb } from "../../src/app/store/db.ts";
import { createProject, deleteProject, KEPT_VERSIONS, loadProject, moveHead, saveEdit } from "../../src/app/store/projects.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { changeProject } from "../../src/core/model/edits/change.ts";

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

  it("only so many versions are kept, and the newest among them", async () => {
    const id = await createProject(emptyProject("One"), store);
    for (let i = 0; i < KEPT_VERSIONS + 20; i++) await saveEdit(id, changeProject({ name: `v${i}` }), store);
    expect(await store.versions.count()).toBeLessThanOrEqual(KEPT_VERSIONS + 2);
    expect((await loadProject(id, store))?.project.name).toBe(`v${KEPT_VERSIONS + 19}`);
  });

  it("what can not be read is told with its place, and left as it is", async () => {
    const id = await createProject(emptyProject("One"), store);
    await store.versions.put({ projectId: id, seq: 0, name: "Open", document: { format: "etape/1", name: 7 } });
    await expect(loadProject(id, store)).rejects.toThrow(/name: found 7/);
    expect((await store.versions.get([id, 0]))?.document).toMatchObject({ name: 7 });
  });

  it("a deleted project is gone with its versions; one that never was is not found", async () => {
    const id = await createProject(emptyProject("One"), store);
    await deleteProject(id, store);
    expect(await loadProject(id, store)).toBeUndefined();
    expect(await store.versions.count()).toBe(0);
    expect(await saveEdit("nobody", add("a"), store)).toBeUndefined();
  });
});
