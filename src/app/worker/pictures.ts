import type { Luma } from "../../core/pictures/snap.ts";
import type { PictureAnswer, PictureRequest, Prepared } from "./pictureProtocol.ts";

/** Pictures decoded at the same time; each takes four bytes a pixel meanwhile. */
const AT_ONCE = 2;

/** Looks at pictures off the main thread, some at a time; ends when it is closed. */
export class PictureWorkers {
  private readonly workers: Worker[] = [];
  private readonly idle: Worker[] = [];
  private readonly queue: Array<(worker: Worker) => void> = [];
  private last = 0;

  /** What a picture is, made small; or why it is not taken, as a sentence. */
  async prepare(file: Blob): Promise<{ ok: true; prepared: Prepared } | { ok: false; message: string }> {
    const answer = await this.ask("prepare", file);
    if (answer.is === "prepared") return { ok: true, prepared: { kind: answer.kind, size: answer.size, thumb: answer.thumb } };
    return { ok: false, message: answer.is === "refused" ? answer.message : "It cannot be read." };
  }

  /** How bright a picture is where; undefined where it cannot be drawn. */
  async luma(file: Blob): Promise<Luma | undefined> {
    const answer = await this.ask("luma", file);
    return answer.is === "luma" ? answer : undefined;
  }

  /** A picture as a data address, made smaller to a width where it is wider; undefined where it cannot be drawn. */
  async shrink(file: Blob, width: number): Promise<string | undefined> {
    const answer = await this.ask("shrink", file, width);
    return answer.is === "shrunk" ? answer.address : undefined;
  }

  close() {
    for (const worker of this.workers) worker.terminate();
  }

  private async ask(is: PictureRequest["is"], file: Blob, width?: number): Promise<PictureAnswer> {
    const worker = await this.free();
    this.last += 1;
    const id = this.last;
    try {
      return await new Promise<PictureAnswer>((done) => {
        const broken = (): void => done({ id, is: "refused", message: "It could not be looked at: the part of the page that does it broke down." });
        worker.onmessage = ({ data }: MessageEvent<PictureAnswer>) => data.id === id && done(data);
        worker.onerror = broken;
        worker.onmessageerror = broken;
        worker.postMessage({ id, is, file, ...(width === undefined ? {} : { width }) } satisfies PictureRequest);
      });
    } finally {
      const next = this.queue.shift();
      if (next) next(worker);
      else this.idle.push(worker);
    }
  }

  private free(): Promise<Worker> {
    const worker = this.idle.pop();
    if (worker) return Promise.resolve(worker);
    if (this.workers.length >= AT_ONCE) return new Promise((next) => this.queue.push(next));
    const made = new Worker(new URL("./pictures.worker.ts", import.meta.url), { type: "module" });
    this.workers.push(made);
    return Promise.resolve(made);
  }
}
