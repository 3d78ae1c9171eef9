import type { StoreApi } from "zustand";
import type { Conflict } from "../../../core/compare/conflict.ts";
import { mergeProjects } from "../../../core/compare/merge.ts";
import { difference } from "../../../core/model/edits/revise.ts";
import { sameValue } from "../../../core/model/json.ts";
import { problemLine, readProject } from "../../../core/model/read.ts";
import type { Project } from "../../../core/model/schema.ts";
import { writeProject } from "../../../core/model/write.ts";
import type { DocumentState } from "../document.ts";
import type { Disk } from "./disk.ts";

/** Both sides of a merge in which something differs: what the document has, and what the file had. */
export interface Differing {
  conflicts: Conflict[];
  ours: Project;
  theirs: Project;
}

export interface BindingState {
  name: string;
  /** `unreadable`: the file is no project now, and is not written until it is one again. `failed`: it cannot be reached. */
  status: "saving" | "saved" | "unreadable" | "failed";
  /** What is wrong, as a sentence. */
  message: string | undefined;
  differing: Differing | undefined;
}

/** Milliseconds that edits are gathered for one write. */
const GATHER = 120;
/** Milliseconds until it is tried again to reach the file. */
const AGAIN = 2_000;

/**
 * Keeps a document and a file in step. Each edit is written, whole, if the file still is what was read; what changed in it comes in as
 * one edit that can be undone; where both changed they are merged by ids, and what both changed differently stays as it is here until
 * somebody chooses.
 */
export class Binding {
  state: BindingState;
  private tag: string | undefined;
  private readonly endings: Array<() => void>;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private turn: Promise<void> = Promise.resolve();
  private changedOnDisk = true;
  private ended = false;

  /**
   * @param base the document as the file had it when both were last in step
   * @param keep is given the new base whenever they are in step again
   */
  constructor(
    private readonly document: StoreApi<DocumentState>,
    private readonly disk: Disk,
    private base: Project,
    private readonly keep: (base: Project) => void,
    private readonly tell: (state: BindingState) => void,
  ) {
    this.state = { name: disk.name, status: "saving", message: undefined, differing: undefined };
    const changed = () => {
      this.changedOnDisk = true;
      this.soon(0);
    };
    const unsubscribe = document.subscribe(({ project }, before) => {
      if (project !== before.project) this.soon(GATHER);
    });
    this.endings = [disk.watch(changed), unsubscribe];
    this.soon(0);
  }

  /** Takes what the file had where both differed; one edit, which can be undone. */
  takeTheirs() {
    const { differing } = this.state;
    if (!differing) return;
    this.document.getState().apply(difference(differing.ours, differing.theirs, `Take what ${this.disk.name} had`));
    this.set({ differing: undefined });
  }

  /** Asks for the file again where the browser does not let it be used, and tries at once. */
  async allow() {
    await this.disk.allow?.();
    this.soon(0);
  }

  keepOurs() {
    this.set({ differing: undefined });
  }

  /** Writes what is left, and ends. */
  async close() {
    clearTimeout(this.timer);
    await this.step();
    this.ended = true;
    for (const end of this.endings) end();
  }

  private soon(ms: number) {
    clearTimeout(this.timer);
    if (!this.ended) this.timer = setTimeout(() => void this.step(), ms);
  }

  private step(): Promise<void> {
    this.turn = this.turn.then(() => this.inStep()).catch((error: unknown) => this.fail(error));
    return this.turn;
  }

  private async inStep() {
    if (this.ended || this.document.getState().status === "loading") return this.soon(GATHER);
    for (let tries = 0; tries < 10; tries++) {
      if (this.changedOnDisk || this.tag === undefined) {
        this.changedOnDisk = false;
        if (!(await this.takeIn())) return;
      }
      if (await this.write()) return;
      this.changedOnDisk = true;
    }
    this.soon(AGAIN);
  }

  /** Takes in what is on disk; false where it is no project. */
  private async takeIn(): Promise<boolean> {
    const { text, tag } = await this.disk.read();
    if (tag === this.tag) return true;
    const read = readProject(text);
    if (!read.ok) {
      const first = read.problems[0];
      const message = `${this.disk.name} can not be read: ${first ? problemLine(first) : "it is no project"}. Nothing is written until it can.`;
      this.set({ status: "unreadable", message });
      return false;
    }
    const theirs = read.project;
    const { project: ours, apply } = this.document.getState();
    const base = this.base;
    this.base = theirs;
    this.tag = tag;
    this.keep(theirs);
    if (sameValue(theirs, base) || sameValue(theirs, ours)) return true;
    if (sameValue(ours, base)) {
      apply(difference(ours, theirs, `Read what changed in ${this.disk.name}`));
      return true;
    }
    const { project, conflicts } = mergeProjects(base, ours, theirs);
    apply(difference(ours, project, `Merge what changed in ${this.disk.name}`));
    if (conflicts.length > 0) this.set({ differing: { conflicts, ours: project, theirs: mergeProjects(base, theirs, ours).project } });
    return true;
  }

  /** Writes what is not in the file yet; false where the file is something else by now. */
  private async write(): Promise<boolean> {
    const { project } = this.document.getState();
    if (!sameValue(project, this.base)) {
      this.set({ status: "saving" });
      const tag = await this.disk.write(writeProject(project), this.tag ?? "");
      if (tag === undefined) return false;
      this.base = project;
      this.tag = tag;
      this.keep(project);
    }
    this.set({ status: "saved", message: undefined });
    return true;
  }

  private fail(error: unknown) {
    this.changedOnDisk = true;
    this.set({ status: "failed", message: `${this.disk.name} is not saved: ${error instanceof Error ? error.message : String(error)}` });
    this.soon(AGAIN);
  }

  private set(part: Partial<BindingState>) {
    const next = { ...this.state, ...part };
    if (sameValue(next, this.state)) return;
    this.state = next;
    if (!this.ended) this.tell(next);
  }
}
