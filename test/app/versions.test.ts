import "fake-indexeddb/auto";
import { describe, expect, it } from "vitest";
import { EtapeDb } from "../../src/app/session/storage/db.ts";
import { createProject, deleteProject } from "../../src/app/session/storage/projects.ts";
import { deleteVersion, documentOf, keepVersion, renameVersion, versionsOf } from "../../src/app/session/storage/versions.ts";
import { emptyProject } from "../../src/core/model/edits/add.ts";

describe("versions of a project", () => {
  it("are kept, listed the newest first, renamed, deleted, and go with their project", async () => {
    const store = new EtapeDb("versions");
    const id = await createProject(emptyProject("Tea"), store);
    const other = await createProject(emptyProject("Coffee"), store);
    const first = await keepVersion(id, "Monday", emptyProject("Tea, Monday"), "hand", store);
    await keepVersion(other, "Theirs", emptyProject("Coffee"), "hand", store);
    await store.kept.update(first, { at: 1 });
    const second = await keepVersion(id, "Before a file", emptyProject("Tea"), "etape", store);
    expect((await versionsOf(id, store)).map(({ name, by }) => [name, by])).toEqual([
      ["Before a file", "etape"],
      ["Monday", "hand"],
    ]);
    expect((await documentOf(first, store)).name).toBe("Tea, Monday");
    await renameVersion(first, "Tuesday", store);
    await deleteVersion(second, store);
    expect((await versionsOf(id, store)).map(({ name }) => name)).toEqual(["Tuesday"]);
    await deleteProject(id, store);
    expect(await versionsOf(id, store)).toEqual([]);
    expect((await versionsOf(other, store)).length).toBe(1);
  });

  it("say what is wrong where one is gone or cannot be read", async () => {
    const store = new EtapeDb("damaged");
    const id = await createProject(emptyProject("Tea"), store);
    const version = await keepVersion(id, "Monday", emptyProject("Tea"), "hand", store);
    await store.kept.update(version, { document: { format: "etape/1" } });
    await expect(documentOf(version, store)).rejects.toThrow(/The version “Monday” cannot be read: /);
    await deleteVersion(version, store);
    await expect(documentOf(version, store)).rejects.toThrow("This version is no longer kept");
  });
});
