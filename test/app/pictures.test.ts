import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { EtapeDb, type PictureRow } from "../../src/app/session/storage/db.ts";
import { keepPictures, noRoomFor, picturesOf, sweepPictures } from "../../src/app/session/storage/pictures.ts";
import { createProject, deleteProject, moveHead, saveEdit } from "../../src/app/session/storage/projects.ts";
import { keepVersion } from "../../src/app/session/storage/versions.ts";
import { emptyProject } from "../../src/core/model/edits/add.ts";
import { newVersion, putPicture, removePicture } from "../../src/core/model/edits/pictures.ts";
import type { Picture } from "../../src/core/model/schema.ts";

let store: EtapeDb;
let count = 0;
beforeEach(() => {
  store = new EtapeDb(`pictures-${count++}`);
});
afterEach(() => store.delete());

const HOUR = 60 * 60_000;
const row = (projectId: string, file: string): PictureRow => ({
  projectId,
  file,
  kind: "png",
  size: [4, 4],
  bytes: new Blob([file]),
  thumb: new Blob(),
  at: 0,
});
const picture = (file: string): Picture => ({ file, size: [4, 4], holds: "screen", areas: [] });
const files = async (id: string) => (await picturesOf(id, store)).map(({ file }) => file).sort();

describe("pictures kept in the browser", () => {
  it("stay as long as the document, an edit that can be undone or redone, or a kept version names them", async () => {
    const project = emptyProject("One");
    const id = await createProject(project, store);
    await keepPictures([row(id, "home.png"), row(id, "home-2.png"), row(id, "kept.png"), row(id, "loose.png"), row(id, "redo.png")], store);
    await saveEdit(id, putPicture(project, "home", picture("home.png")), store);
    await saveEdit(id, putPicture(project, "home", newVersion(picture("home.png"), "home-2.png", [4, 4]), "home.png"), store);
    await keepVersion(id, "Before", { ...project, screens: project.screens.map((s) => ({ ...s, pictures: [picture("kept.png")] })) }, "hand", store);
    await saveEdit(id, putPicture(project, "home", picture("redo.png"), "home-2.png"), store);
    await moveHead(id, -1, store);
    expect(await sweepPictures(id, 2 * HOUR, store)).toEqual(["loose.png"]);
    expect(await files(id)).toEqual(["home-2.png", "home.png", "kept.png", "redo.png"]);
    // An edit in the place of what was undone: nothing leads to its picture any more.
    await saveEdit(id, removePicture(project, "home", "home-2.png"), store);
    expect(await sweepPictures(id, 2 * HOUR, store)).toEqual(["redo.png"]);
    expect(await files(id)).toEqual(["home-2.png", "home.png", "kept.png"]);
  });

  it("stay that a document names which came in whole, without an edit", async () => {
    const project = emptyProject("One");
    const id = await createProject({ ...project, screens: project.screens.map((s) => ({ ...s, pictures: [picture("home.png")] })) }, store);
    await keepPictures([row(id, "home.png"), row(id, "loose.png")], store);
    expect(await sweepPictures(id, 2 * HOUR, store)).toEqual(["loose.png"]);
    expect(await files(id)).toEqual(["home.png"]);
  });

  it("that came in a moment ago stay, though nothing names them yet; and all where the document cannot be read", async () => {
    const id = await createProject(emptyProject("One"), store);
    await keepPictures([row(id, "new.png")], store);
    expect(await sweepPictures(id, HOUR / 2, store)).toEqual([]);
    await store.documents.put({ projectId: id, document: { damaged: true } });
    expect(await sweepPictures(id, 9 * HOUR, store)).toEqual([]);
    expect(await files(id)).toEqual(["new.png"]);
  });

  it("go with their project, and not those of another", async () => {
    const [one, two] = [await createProject(emptyProject("One"), store), await createProject(emptyProject("Two"), store)];
    await keepPictures([row(one, "home.png"), row(two, "home.png")], store);
    await deleteProject(one, store);
    expect([await files(one), await files(two)]).toEqual([[], ["home.png"]]);
  });

  it("are all taken in or none, with a sentence where the browser has no room", async () => {
    const id = await createProject(emptyProject("One"), store);
    const full = Object.assign(new Error("full"), { name: "AbortError", inner: Object.assign(new Error("full"), { name: "QuotaExceededError" }) });
    store.pictures.bulkPut = () => Promise.reject(full) as never;
    await expect(keepPictures([row(id, "home.png")], store)).rejects.toThrow("There is no room left in this browser");
    expect(await files(id)).toEqual([]);
    // Another failure is told as it is.
    const other = Object.assign(new Error("odd"), { name: "AbortError", inner: new Error("disk") });
    store.pictures.bulkPut = () => Promise.reject(other) as never;
    await expect(keepPictures([row(id, "home.png")], store)).rejects.toThrow("odd");
    const one = Object.assign(new Error("some"), {
      name: "BulkError",
      failures: [new Error("odd"), Object.assign(new Error(""), { name: "QuotaExceededError" })],
    });
    store.pictures.bulkPut = () => Promise.reject(one) as never;
    await expect(keepPictures([row(id, "home.png")], store)).rejects.toThrow("There is no room left in this browser");
  });
});

describe("room for pictures", () => {
  const MIB = 2 ** 20;
  const says = async (bytes: number, estimate: (() => Promise<StorageEstimate>) | undefined) => {
    vi.stubGlobal("navigator", { storage: estimate && { estimate } });
    return noRoomFor(bytes);
  };
  afterEach(() => void vi.unstubAllGlobals());

  it("is there as long as they fit with something to spare, or the browser does not say", async () => {
    const ten = async () => ({ usage: 0, quota: 10 * MIB });
    expect(await says(9 * MIB, ten)).toBeUndefined();
    expect(await says(9.5 * MIB, ten)).toContain("has room for 10 MiB more, and the pictures need 9.5 MiB");
    expect(await says(MIB, async () => ({ usage: 10.26 * MIB, quota: 10 * MIB }))).toContain("room for 0 MiB more");
    expect(await says(99 * MIB, undefined)).toBeUndefined();
    expect(await says(99 * MIB, async () => ({ usage: 1 }))).toBeUndefined();
    expect(await says(99 * MIB, () => Promise.reject(new Error("no")))).toBeUndefined();
  });
});
