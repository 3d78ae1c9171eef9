import { stat } from "node:fs/promises";
import type { Live } from "../server/live.ts";
import { start } from "../server/main.ts";
import { Unusable } from "./files.ts";

/** `etape serve`: serves the application until it is ended; prints its addresses. */
export async function serveCommand({ port, lan }: { port: string; lan?: boolean }): Promise<void> {
  const served = await servedAt(port, lan ? "0.0.0.0" : "127.0.0.1");
  process.stdout.write(`Etape is at ${served.address}\n`);
  for (const address of served.others) process.stdout.write(`In this network: ${address}\n`);
}

/** Starts the server; another port where the one that is wanted is taken. */
export async function servedAt(port: string, host: string, live?: Live): ReturnType<typeof start> {
  const wanted = Number(port);
  if (!/^\d+$/.test(port) || wanted > 65535) throw new Unusable(`etape: --port ${port}: expected a number from 0 to 65535`);
  const folder = process.env.ETAPE_APPLICATION ?? "dist/app";
  if (!(await stat(folder).catch(() => undefined))?.isDirectory())
    throw new Unusable(`etape: ${folder}: is not there; expected the application, which bin/etape.mjs builds`);
  return start(folder, wanted, host, live).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== "EADDRINUSE") throw error;
    return start(folder, 0, host, live);
  });
}
