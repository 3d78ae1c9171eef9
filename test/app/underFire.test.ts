import "fake-indexeddb/auto";
import Dexie from "dexie";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { Keeping, type Kept } from "../../src/app/session/keeping.ts";
import { EtapeDb, openStore } from "../../src/app/session/storage/db.ts";
import { createProject, deleteProject, listProjects, loadProject, saveEdit } from "../../src/app/session/storage/projects.ts";
import { rawStorage } from "../../src/app/session/storage/raw.ts";
import { asSentence, storageWords } from "../../src/app/session/storage/trouble.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import type { Edit } from "../../src/core/model/edits/edit.ts";
import type { Project } from "../../src/core/model/schema.ts";

let store: EtapeDb;
let count = 0;
let open: Keeping[] = [];
beforeEach(() => {
  store = new EtapeDb(`under-fire-${count++}`);
});
afterEach(async () => {
  await Promise.all(open.map((keeping) => keeping.close()));
  open = [];
  await store.delete();
});

const add = (id: string): Edit => addScreen(newScreen(id, id));
const screens = (project: Project | undefined) => project?.screens.map((screen) => screen.id);
const stored = async (id: string) => screens((await loadProject(id, store))?.project);

/** An open project, and a wait for its state. */
async function opened(id: string) {
  const listeners = new Set<(state: Kept) => void>();
  const keeping = new Keeping(
    id,
    (state) => {
      for (const hear of listeners) hear(state);
    },
    store,
  );
  open.push(keeping);
  const until = (holds: (state: Kept) => boolean) =>
    new Promise<Kept>((done) => {
      const hear = (state: Kept) => {
        if (!holds(state)) return;
        listeners.delete(hear);
        done(state);
      };
      listeners.add(hear);
      hear(keeping.state);
    });
  await until((state) => state.status === "ready");
  return { keeping, until };
}

/** Lets nothing more into the storage, until what this gives is called. */
function fill(): () => void {
  const put = store.documents.put.bind(store.documents);
  store.documents.put = (() => Dexie.Promise.reject(new Dexie.QuotaExceededError("The quota has been exceeded."))) as typeof put;
  return () => {
    store.documents.put = put;
  };
}

describe("a browser without room", () => {
  it("keeps on the page what it can't store, says what helps, and stores all of it once there is room", async () => {
    const id = await createProject(emptyProject("Tea"), store);
    const { keeping, until } = await opened(id);
    const makeRoom = fill();
    keeping.apply(add("a"));
    keeping.apply(add("b"));
    const full = await until((state) => state.unsaved === "failed" && !state.saving);
    expect(full.error).toBe(
      "not saved: the browser has no room left. Delete projects or pictures that you don’t need, then try again; or export this project.",
    );
    expect(screens(full.project)).toEqual(["home", "a", "b"]);
    expect(await stored(id)).toEqual(["home"]);
    keeping.undo();
    expect(screens(keeping.state.project)).toEqual(["home", "a"]);
    expect(keeping.state.undoName).toBe('Add screen "a"');
    keeping.again();
    await until((state) => state.unsaved === "failed" && !state.saving);
    makeRoom();
    keeping.apply(add("c"));
    const saved = await until((state) => state.unsaved === undefined && !state.saving);
    expect(saved).toMatchObject({ error: undefined, undoName: 'Add screen "c"' });
    expect(await stored(id)).toEqual(["home", "a", "c"]);
    keeping.undo();
    keeping.undo();
    await until((state) => !state.saving);
    expect(await stored(id)).toEqual(["home"]);
  });

  it("stores what waits by itself, when it is asked to try again, on what another window did meanwhile", async () => {
    const id = await createProject(emptyProject("Tea"), store);
    const { keeping, until } = await opened(id);
    const makeRoom = fill();
    keeping.apply(add("here"));
    await until((state) => state.unsaved === "failed" && !state.saving);
    makeRoom();
    await saveEdit(id, add("there"), store);
    const both = await until((state) => state.project?.screens.length === 3);
    expect(screens(both.project)).toEqual(["home", "there", "here"]);
    keeping.again();
    await until((state) => state.unsaved === undefined && !state.saving);
    expect(await stored(id)).toEqual(["home", "there", "here"]);
  });
});

describe("a project that vanishes while it is open", () => {
  it("stays on the page, with what is done to it afterwards, and can be kept again", async () => {
    const id = await createProject(emptyProject("Tea"), store);
    const { keeping, until } = await opened(id);
    keeping.apply(add("a"));
    await until((state) => !state.saving);
    await deleteProject(id, store);
    const gone = await until((state) => state.unsaved === "gone" && !state.saving);
    expect(gone.status).toBe("ready");
    expect(gone.error).toContain("keep it again, or export it");
    keeping.apply(add("b"));
    await until((state) => !state.saving);
    expect(screens(keeping.state.project)).toEqual(["home", "a", "b"]);
    keeping.again();
    expect(await until((state) => state.unsaved === undefined && !state.saving)).toMatchObject({ error: undefined, status: "ready" });
    expect(await stored(id)).toEqual(["home", "a", "b"]);
    keeping.apply(add("c"));
    await until((state) => !state.saving);
    expect(await stored(id)).toEqual(["home", "a", "b", "c"]);
  });

  it("is told when the whole storage is cleared, at the next edit at the latest", async () => {
    const id = await createProject(emptyProject("Tea"), store);
    const { keeping, until } = await opened(id);
    const other = new EtapeDb(store.name);
    await other.delete();
    keeping.apply(add("a"));
    const gone = await until((state) => state.unsaved === "gone" && !state.saving);
    expect(screens(gone.project)).toEqual(["home", "a"]);
    keeping.again();
    await until((state) => state.unsaved === undefined && !state.saving);
    expect(await stored(id)).toEqual(["home", "a"]);
  });
});

it("what went wrong is said in words: no room wherever it was noticed, other failures with their own, all else as it is", () => {
  const full = Object.assign(new Error("Transaction aborted"), { name: "AbortError", inner: Object.assign(new Error(""), { name: "QuotaExceededError" }) });
  expect(storageWords(full)).toContain("no room left");
  expect(storageWords(Object.assign(new Error("disk I/O"), { name: "UnknownError" }))).toBe(
    "the browser’s storage failed (disk I/O). Try again, or export this project.",
  );
  expect(storageWords(new Error("legs[3]: found 7"))).toBe("legs[3]: found 7");
  expect(storageWords("odd")).toBe("odd");
  expect(asSentence("not saved: odd")).toBe("Not saved: odd");
});

describe("opening the storage", () => {
  it("goes on in memory where the browser refuses it, and says so", async () => {
    const real = Dexie.dependencies.indexedDB;
    Dexie.dependencies.indexedDB = {
      open: () => {
        throw Object.assign(new Error("The user denied permission"), { name: "SecurityError" });
      },
    } as unknown as IDBFactory;
    try {
      const memory = await openStore("refused");
      expect(memory.refused).toContain("denied permission");
      const id = await createProject(emptyProject("Tea"), memory);
      await saveEdit(id, add("a"), memory);
      expect(screens((await loadProject(id, memory))?.project)).toEqual(["home", "a"]);
    } finally {
      Dexie.dependencies.indexedDB = real;
    }
  });

  it("stops writing when a window with a newer version takes over, and keeps what is on the page", async () => {
    const before = await openStore("taken-over");
    const id = await createProject(emptyProject("Tea"), before);
    store = before;
    const { keeping, until } = await opened(id);
    const newer = new Dexie("taken-over");
    newer.version(before.verno + 1).stores({ projects: "id, updatedAt", documents: "projectId", another: "id" });
    await newer.open();
    keeping.apply(add("a"));
    const failed = await until((state) => state.unsaved === "failed" && !state.saving);
    expect(failed.error).toContain("another window has a newer version of Etape");
    expect(screens(failed.project)).toEqual(["home", "a"]);
    expect(await newer.table("documents").get(id)).toMatchObject({ document: { screens: [{ id: "home" }] } });
    await newer.delete();
  });

  it("does not touch what a newer version keeps", async () => {
    const newer = new Dexie("newer");
    newer.version(store.verno + 1).stores({ projects: "id", another: "id" });
    await newer.table("projects").put({ id: "one", name: "of tomorrow" });
    newer.close();
    await expect(openStore("newer")).rejects.toThrow("a newer version of Etape keeps the projects of this browser");
    await newer.open();
    expect(await newer.table("projects").toArray()).toEqual([{ id: "one", name: "of tomorrow" }]);
    await newer.delete();
  });
});

it("a project whose row is damaged is listed, and hides no other", async () => {
  const id = await createProject(emptyProject("Whole"), store);
  await store.table("projects").bulkPut([
    { id: "unnamed", name: { of: "what" }, updatedAt: 5 },
    { id: "timeless", name: "Timeless" },
    { id: "mistimed", name: "Mistimed", updatedAt: "yesterday" },
  ]);
  expect((await listProjects(store)).map(({ id, name, updatedAt }) => [id, name, typeof updatedAt])).toEqual([
    [id, "Whole", "number"],
    ["unnamed", "", "number"],
    ["mistimed", "Mistimed", "undefined"],
    ["timeless", "Timeless", "undefined"],
  ]);
});

it("what is stored comes out as it is: of one project or of all, damaged or not, pictures as bytes", async () => {
  const name = store.name;
  const [whole, damaged] = [await createProject(emptyProject("Whole"), store), await createProject(emptyProject("Damaged"), store)];
  await store.documents.put({ projectId: damaged, document: { format: "etape/1", screens: "lost" } });
  await store.pictures.put({
    projectId: damaged,
    file: "home.png",
    kind: "png",
    size: [1, 1],
    bytes: new Blob([new Uint8Array([1, 2, 255])], { type: "image/png" }),
    thumb: new Blob([]),
    at: 1,
  });
  await expect(loadProject(damaged, store)).rejects.toThrow(/can not be read: .*; and \d+ more$/);
  expect((await loadProject(whole, store))?.project.name).toBe("Whole");
  const one = JSON.parse((await rawStorage(damaged, name)) ?? "");
  expect(one.projects).toHaveLength(1);
  expect(one.documents).toEqual([{ projectId: damaged, document: { format: "etape/1", screens: "lost" } }]);
  expect(one.pictures).toMatchObject([{ file: "home.png", bytes: { type: "image/png", base64: "AQL/" } }]);
  expect(JSON.parse((await rawStorage(undefined, name)) ?? "").documents).toHaveLength(2);
  expect(await rawStorage(undefined, "nothing-there")).toBeUndefined();
});
