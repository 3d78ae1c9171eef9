import type { Project } from "../../core/model/schema.ts";
import type { PlainResult } from "../worker/protocol.ts";

/** A worker that checks; `stop` ends it, whatever it is doing. */
export interface CheckWorker {
  check: (project: Project, progress: (states: number) => void) => Promise<PlainResult>;
  stop: () => void;
}

/** What becomes of a check that was asked for. */
export interface Heard {
  progress: (project: Project, states: number) => void;
  done: (project: Project, result: PlainResult) => void;
  failed: (project: Project, message: string) => void;
}

/**
 * Milliseconds that a check which is no longer wanted may go on. A worker that has checked before is several times as fast
 * as a new one, so it is stopped only where waiting for it would take longer.
 */
const GRACE = 250;

/** Checks one project after another in a worker. The newest that is asked for is the only one that is heard of. */
export class Checking {
  private worker: CheckWorker | undefined;
  private running: { project: Project; since: number } | undefined;
  private wanted: Project | undefined;
  private stale = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly start: () => CheckWorker,
    private readonly heard: Heard,
  ) {}

  /** Checks a project; one that is being checked is no longer heard of. */
  check(project: Project) {
    this.wanted = project;
    if (!this.running) this.run(project);
    // What lies beside the project changed meanwhile.
    else if (this.running.project === project) this.stale = true;
    else this.timer ??= setTimeout(() => this.restart(), Math.max(0, this.running.since + GRACE - Date.now()));
  }

  /** Ends the check that is running, and forgets what was asked for. */
  stop() {
    this.wanted = undefined;
    this.endWorker();
  }

  private restart() {
    const project = this.wanted;
    this.endWorker();
    if (project) this.run(project);
  }

  private endWorker() {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.running = undefined;
    this.worker?.stop();
    this.worker = undefined;
  }

  private run(project: Project) {
    this.worker ??= this.start();
    this.stale = false;
    const running = { project, since: Date.now() };
    this.running = running;
    this.worker
      .check(project, (states) => this.running === running && this.wanted === project && this.heard.progress(project, states))
      .then(
        (result) => this.ended(running, () => this.heard.done(project, result)),
        (error: unknown) => {
          if (this.running !== running) return;
          // Nobody knows what a worker that failed still has of the project: the next check begins with a new one.
          this.worker?.stop();
          this.worker = undefined;
          this.ended(running, () => this.heard.failed(project, error instanceof Error ? error.message : String(error)));
        },
      );
  }

  private ended(running: { project: Project }, tell: () => void) {
    if (this.running !== running) return;
    clearTimeout(this.timer);
    this.timer = undefined;
    this.running = undefined;
    if (this.wanted === running.project && !this.stale) tell();
    else if (this.wanted) this.run(this.wanted);
  }
}
