import { type Args, CALLS, type Call, Reply, type Request, type Result } from "./protocol.ts";

/** Where messages go to and come from: a worker, or what stands for one. */
export interface Port {
  postMessage: (message: Request) => void;
  addEventListener: (type: "message" | "error" | "messageerror", listener: (event: { data?: unknown; message?: string }) => void) => void;
  terminate: () => void;
}

interface Waiting {
  call: Call;
  done: (value: unknown) => void;
  failed: (error: Error) => void;
  progress: ((states: number) => void) | undefined;
}

/**
 * Asks a worker of the core. There is one way to fail: the promise rejects with a sentence, whether the work threw, an answer could
 * not be read, or the worker itself broke down. After `stop` nothing is heard any more.
 */
export class WorkerClient {
  private readonly waiting = new Map<number, Waiting>();
  private last = 0;
  private broken: Error | undefined;

  constructor(private readonly port: Port) {
    port.addEventListener("message", ({ data }) => this.hear(data));
    port.addEventListener("error", ({ message }) => this.breakDown(message || "the part of the page that checks could not be loaded"));
    port.addEventListener("messageerror", () => this.breakDown("an answer of the part that checks could not be read"));
  }

  /** @param progress is told now and then how many states were looked at */
  ask<C extends Call>(call: C, args: Args<C>, progress?: (states: number) => void): Promise<Result<C>> {
    return new Promise<unknown>((done, failed) => {
      if (this.broken) {
        failed(this.broken);
        return;
      }
      this.last += 1;
      this.waiting.set(this.last, { call, done, failed, progress });
      this.port.postMessage({ id: this.last, call, args });
    }) as Promise<Result<C>>;
  }

  stop() {
    this.waiting.clear();
    this.port.terminate();
  }

  private hear(data: unknown) {
    const reply = Reply.safeParse(data);
    if (!reply.success) {
      this.breakDown("an answer of the part that checks was not understood");
      return;
    }
    const one = this.waiting.get(reply.data.id);
    if (!one) return;
    if (reply.data.is === "progress") {
      one.progress?.(reply.data.states);
      return;
    }
    this.waiting.delete(reply.data.id);
    if (reply.data.is === "failed") one.failed(new Error(reply.data.message));
    else {
      const value = CALLS[one.call].result.safeParse(reply.data.value);
      if (value.success) one.done(value.data);
      else one.failed(new Error(`an answer to “${one.call}” was not understood: ${value.error.issues[0]?.message ?? ""}`));
    }
  }

  private breakDown(message: string) {
    this.broken = new Error(message);
    for (const { failed } of this.waiting.values()) failed(this.broken);
    this.waiting.clear();
  }
}
