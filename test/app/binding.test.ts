import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { createStore } from "zustand";
import type { DocumentState } from "../../src/app/session/document.ts";
import { Binding, type BindingState } from "../../src/app/session/file/binding.ts";
import type { Disk } from "../../src/app/session/file/disk.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import { changeProject, changeScreen } from "../../src/core/model/edits/change.ts";
import type { Edit } from "../../src/core/model/edits/edit.ts";
import { applyEdit } from "../../src/core/model/edits/kinds.ts";
import { readProject } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const START = emptyProject("Tea");
const add = (id: string): Edit => addScreen(newScreen(id, id));

/** A file in memory: what it holds, what was asked of it, and what it fails with. */
function fileOf(project: Project) {
  const file = { text: writeProject(project), version: 1, reads: 0, writes: 0, watched: true, fails: undefined as Error | undefined, changed: () => {} };
  const disk: Disk = {
    name: "tea.etape.json",
    read: async () => {
      if (file.fails) throw file.fails;
      file.reads += 1;
      return { text: file.text, tag: String(file.version) };
    },
    write: async (text, tag) => {
      if (file.fails) throw file.fails;
      if (tag !== String(file.version)) return undefined;
      file.writes += 1;
      file.text = text;
      file.version += 1;
      return String(file.version);
    },
    watch: (changed) => {
      file.changed = changed;
      return () => {
        file.watched = false;
      };
    },
  };
  /** Another program writes the file. */
  const write = (text: string) => {
    file.text = text;
    file.version += 1;
    file.changed();
  };
  return { file, disk, write };
}

function bound(ours = START, base = START) {
  const { file, disk, write } = fileOf(base);
  const names: string[] = [];
  const document = createStore<DocumentState>((set, get) => ({
    project: ours,
    status: "ready",
    saving: false,
    unsaved: undefined,
    error: undefined,
    undoName: undefined,
    redoName: undefined,
    apply: (edit) => {
      names.push(edit.name);
      set({ project: applyEdit(get().project, edit) });
    },
    undo: () => {},
    redo: () => {},
    again: () => {},
  }));
  const told: BindingState[] = [];
  const kept: Project[] = [];
  const binding = new Binding(
    document,
    disk,
    base,
    (project) => kept.push(project),
    (state) => told.push(state),
  );
  const later = (ms: number) => vi.advanceTimersByTimeAsync(ms);
  const onDisk = () => {
    const read = readProject(file.text);
    if (!read.ok) throw new Error("what is on disk does not read");
    return read.project;
  };
  const screens = (project: Project) => project.screens.map(({ id }) => id);
  return { file, disk, write, document, binding, told, kept, names, later, onDisk, screens, apply: (edit: Edit) => document.getState().apply(edit) };
}

describe("a document that is kept in a file", () => {
  it("is in step at first, without being written, and each edit is written once, several at once together", async () => {
    const { file, binding, later, onDisk, screens, apply, kept } = bound();
    expect(binding.state).toMatchObject({ name: "tea.etape.json", status: "saving" });
    await later(0);
    expect([binding.state.status, file.reads, file.writes]).toEqual(["saved", 1, 0]);
    apply(add("a"));
    await later(60);
    apply(add("b"));
    await later(100);
    expect(file.writes).toBe(0);
    await later(100);
    expect([binding.state.status, file.reads, file.writes]).toEqual(["saved", 1, 1]);
    expect(screens(onDisk())).toEqual(["home", "a", "b"]);
    expect(kept.at(-1) && screens(kept.at(-1) as Project)).toEqual(["home", "a", "b"]);
    await later(60_000);
    expect([file.reads, file.writes]).toEqual([1, 1]);
    apply(add("c"));
    await later(60_000);
    expect([file.reads, file.writes]).toEqual([1, 2]);
  });

  it("writes what was edited while it was being written", async () => {
    const { disk, document, binding, later, onDisk, screens, apply } = bound();
    await later(0);
    const write = disk.write;
    disk.write = async (text, tag) => {
      disk.write = write;
      apply(add("meanwhile"));
      return write(text, tag);
    };
    apply(add("a"));
    await later(60_000);
    expect(screens(onDisk())).toEqual(["home", "a", "meanwhile"]);
    expect([binding.state.status, onDisk()]).toEqual(["saved", document.getState().project]);
  });

  it("takes in what another program wrote, as one edit that says so; the same again is no edit", async () => {
    const { write, document, later, names, screens, file } = bound();
    await later(0);
    write(writeProject(applyEdit(START, add("theirs"))));
    await later(0);
    expect(screens(document.getState().project)).toEqual(["home", "theirs"]);
    expect(names).toEqual(["Read what changed in tea.etape.json"]);
    write(file.text);
    await later(1000);
    expect([names.length, file.writes]).toEqual([1, 0]);
  });

  it("merges what both changed, writes it, and asks where both changed the same, with what is here staying meanwhile", async () => {
    const { write, document, binding, later, names, onDisk, screens, apply } = bound();
    await later(0);
    apply(add("ours"));
    apply(changeScreen(START, "home", { name: "Ours" }));
    write(writeProject([add("theirs"), changeScreen(START, "home", { name: "Theirs" })].reduce(applyEdit, START)));
    await later(500);
    expect(screens(document.getState().project).sort()).toEqual(["home", "ours", "theirs"]);
    expect(document.getState().project.screens[0]?.name).toBe("Ours");
    expect(onDisk()).toEqual(document.getState().project);
    expect(names.at(-1)).toBe("Merge what changed in tea.etape.json");
    expect(binding.state.differing?.conflicts).toHaveLength(1);
    binding.takeTheirs();
    expect(binding.state.differing).toBeUndefined();
    expect(names.at(-1)).toBe("Take what tea.etape.json had");
    await later(500);
    expect(onDisk().screens[0]?.name).toBe("Theirs");
    binding.takeTheirs();
    expect(names.filter((name) => name.startsWith("Take"))).toHaveLength(1);
  });

  it("keeps what is here where somebody says so", async () => {
    const { write, document, binding, later, onDisk, apply } = bound();
    await later(0);
    apply(changeProject({ name: "Ours" }));
    write(writeProject(applyEdit(START, changeProject({ name: "Theirs" }))));
    await later(500);
    expect(binding.state.differing).toBeDefined();
    binding.keepOurs();
    expect(binding.state.differing).toBeUndefined();
    expect([document.getState().project.name, onDisk().name]).toEqual(["Ours", "Ours"]);
  });

  it("takes in a file that changed while nobody looked, and writes what was not written the last time", async () => {
    const edited = applyEdit(START, add("unwritten"));
    const { later, onDisk, screens, file } = bound(edited, START);
    await later(0);
    expect([file.writes, screens(onDisk())]).toEqual([1, ["home", "unwritten"]]);
  });

  it("writes nothing into a file that is no project, says where it is wrong, and goes on when it is one again", async () => {
    const { write, binding, later, onDisk, screens, apply, file } = bound();
    await later(0);
    write('{ "format": "etape/1", "name": 7 }');
    await later(0);
    expect(binding.state).toMatchObject({
      status: "unreadable",
      message: expect.stringMatching(/^tea\.etape\.json can not be read: .*name.*Nothing is written until it can\.$/),
    });
    apply(add("a"));
    await later(5_000);
    expect([binding.state.status, file.writes]).toEqual(["unreadable", 0]);
    write(writeProject(START));
    await later(500);
    expect([binding.state.status, binding.state.message]).toEqual(["saved", undefined]);
    expect(screens(onDisk())).toEqual(["home", "a"]);
  });

  it("tells when the file cannot be reached, tries again after a while, and then writes all of it", async () => {
    const { file, binding, later, onDisk, screens, apply } = bound();
    await later(0);
    file.fails = new Error("the folder is gone");
    apply(add("a"));
    await later(200);
    expect(binding.state).toMatchObject({ status: "failed", message: "tea.etape.json is not saved: the folder is gone" });
    file.fails = undefined;
    await later(1_500);
    expect(binding.state.status).toBe("failed");
    await later(600);
    expect([binding.state.status, screens(onDisk())]).toEqual(["saved", ["home", "a"]]);
  });

  it("gives way to a program that writes all the time, after ten tries, and tries again in two seconds", async () => {
    const { file, disk, later, apply, onDisk, screens } = bound();
    await later(0);
    const write = disk.write.bind(disk);
    let tries = 0;
    disk.write = async () => {
      tries += 1;
      file.version += 1;
      return undefined;
    };
    apply(add("a"));
    await later(200);
    expect(tries).toBe(10);
    await later(1_700);
    expect(tries).toBe(10);
    disk.write = write;
    await later(400);
    expect(screens(onDisk())).toEqual(["home", "a"]);
  });

  it("tries at once when it is allowed again", async () => {
    const { file, binding, later, onDisk, screens, apply } = bound();
    await later(0);
    file.fails = new Error("not allowed");
    apply(add("a"));
    await later(200);
    file.fails = undefined;
    await binding.allow();
    await later(0);
    expect([binding.state.status, screens(onDisk())]).toEqual(["saved", ["home", "a"]]);
  });

  it("writes what is left when it ends, and nothing afterwards", async () => {
    const { file, binding, later, onDisk, screens, apply, told, write } = bound();
    await later(0);
    apply(add("a"));
    await binding.close();
    expect([screens(onDisk()), file.watched]).toEqual([["home", "a"], false]);
    const before = told.length;
    apply(add("late"));
    write(writeProject(START));
    await later(60_000);
    expect([told.length, file.writes]).toEqual([before, 1]);
  });

  it("waits for a document that is still being loaded", async () => {
    const { file, document, later } = bound();
    document.setState({ status: "loading" });
    await later(1_000);
    expect([file.reads, file.writes]).toEqual([0, 0]);
    document.setState({ status: "ready" });
    await later(200);
    expect(file.reads).toBe(1);
  });

  it("tells no state twice", async () => {
    const { told, later, apply } = bound();
    await later(0);
    apply(add("a"));
    await later(500);
    expect(told.map(({ status }) => status)).toEqual(["saved", "saving", "saved"]);
  });
});
