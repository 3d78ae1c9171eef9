import "fake-indexeddb/auto";
import Dexie from "dexie";
import { expect, it } from "vitest";
import { createDocument } from "../../src/app/session/document.ts";
import { EtapeDb } from "../../src/app/session/storage/db.ts";
import { createProject, deleteProject, loadProject, moveHead, saveEdit } from "../../src/app/session/storage/projects.ts";
import { addScreen, emptyProject, newScreen } from "../../src/core/model/edits/add.ts";
import type { Edit } from "../../src/core/model/edits/edit.ts";
import { amount } from "../random/amount.ts";
import { seeded } from "../random/documents.ts";

const RUNS = amount(120, 8);
const STEPS = 30;
const add = (id: string): Edit => addScreen(newScreen(id, id));
const nameOf = (id: string) => `Add screen "${id}"`;

/** What should be so of a project: its edits, how many of them are done, what waits, and whether the storage works and has it. */
interface Model {
  edits: string[];
  head: number;
  waiting: string[];
  full: boolean;
  gone: boolean;
}
const done = ({ edits, head }: Model) => edits.slice(0, head);

function edited(model: Model, id: string) {
  model.edits = [...done(model), id];
  model.head += 1;
}

it(`in ${RUNS} random sessions the page, the storage and the history agree, whatever fails and whatever other windows do`, async () => {
  for (let seed = 0; seed < RUNS; seed++) {
    const random = seeded(seed);
    const store = new EtapeDb(`random-session-${seed}`);
    const put = store.documents.put.bind(store.documents);
    const id = await createProject(emptyProject("Tea"), store);
    const loaded = await loadProject(id, store);
    const { store: page, close } = createDocument(id, random() < 0.5 ? loaded : undefined, store);
    const until = (holds: () => boolean) =>
      new Promise<void>((resolve) => {
        if (holds()) return resolve();
        const end = page.subscribe(() => {
          if (!holds()) return;
          end();
          resolve();
        });
      });
    await until(() => page.getState().status === "ready");
    const model: Model = { edits: [], head: 0, waiting: [], full: false, gone: false };
    const told: string[] = [];
    let made = 0;
    const ops: Record<string, () => void> = {
      edit: () => {
        made += 1;
        const name = `s${made}`;
        page.getState().apply(add(name));
        if (model.full || model.gone) model.waiting.push(name);
        else edited(model, name);
      },
      nothing: () => page.getState().apply({ kind: "changeProject", name: "Nothing", change: { name: "Tea" }, without: [] }),
      undo: () => {
        page.getState().undo();
        if (model.waiting.length > 0) model.waiting.pop();
        else if (!model.full && !model.gone && model.head > 0) model.head -= 1;
      },
      redo: () => {
        page.getState().redo();
        if (!model.full && !model.gone && model.waiting.length === 0 && model.head < model.edits.length) model.head += 1;
      },
      fill: () => {
        if (model.gone) return;
        model.full = true;
        store.documents.put = (() => Dexie.Promise.reject(new Dexie.QuotaExceededError("full"))) as typeof put;
      },
      empty: () => {
        model.full = false;
        store.documents.put = put;
      },
      again: () => {
        page.getState().again();
        if (model.full) return;
        if (model.gone) Object.assign(model, { edits: [], head: 0, gone: false, kept: true });
        else for (const name of model.waiting.splice(0)) edited(model, name);
      },
    };
    // While the storage is full nothing but edits is done: what an undo comes to then is tested by itself.
    const choices = () =>
      model.full
        ? ["edit", "edit", "empty", "again"]
        : model.waiting.length > 0
          ? ["again"]
          : ["edit", "edit", "edit", "nothing", "undo", "undo", "redo", "redo", ...(page.getState().saving ? [] : ["fill"])];
    for (let i = 0; i < STEPS; i++) {
      const list = choices();
      const op = list[Math.floor(random() * list.length)] as string;
      told.push(op);
      ops[op]?.();
      if (op === "edit" && !model.full) {
        // Most edits are followed at once by others; each is shown at once.
        expect(page.getState().project.screens.map((screen) => screen.id)).toContain(`s${made}`);
        expect(page.getState().undoName).toBe(nameOf(`s${made}`));
        if (random() < 0.5) continue;
      }
      const says = `seed ${seed}: ${told.join(" ")}`;
      await until(() => !page.getState().saving);
      const other = !model.full && model.waiting.length === 0 && random() < 0.2;
      if (other && random() < 0.7) {
        const name = `w${i}`;
        await saveEdit(id, add(name), store);
        edited(model, name);
        told.push("other");
        await until(() => !page.getState().saving && page.getState().project.screens.some((screen) => screen.id === name));
      } else if (other && model.head > 0) {
        await moveHead(id, -1, store);
        model.head -= 1;
        told.push("otherUndo");
        await until(() => !page.getState().saving && page.getState().project.screens.length === model.head + 1);
      }
      const state = page.getState();
      const names = done(model);
      expect(
        state.project.screens.map((screen) => screen.id),
        says,
      ).toEqual(["home", ...names, ...model.waiting]);
      expect(state.status, says).toBe("ready");
      expect(state.unsaved, says).toBe(model.waiting.length > 0 ? "failed" : undefined);
      expect(state.error === undefined, says).toBe(model.waiting.length === 0);
      const last = model.waiting.at(-1) ?? names.at(-1);
      expect(state.undoName, says).toBe(last && nameOf(last));
      const next = model.waiting.length > 0 ? undefined : model.edits[model.head];
      expect(state.redoName, says).toBe(next && nameOf(next));
      const kept = await loadProject(id, store);
      expect(
        kept?.project.screens.map((screen) => screen.id),
        says,
      ).toEqual(["home", ...names]);
      expect([kept?.head, kept?.undoName], says).toEqual([model.head, names.length > 0 ? nameOf(names.at(-1) as string) : undefined]);
    }
    store.documents.put = put;
    page.getState().apply(add("last"));
    await close();
    if (!model.full && model.waiting.length === 0) expect((await loadProject(id, store))?.project.screens.at(-1)?.id).toBe("last");
    await deleteProject(id, store);
    await store.delete();
  }
});
