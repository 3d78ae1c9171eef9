import { randomBytes } from "node:crypto";
import { resolve } from "node:path";
import { FileOnDisk } from "../server/disk.ts";
import { liveFile } from "../server/live.ts";
import { readDocument, Unusable } from "./files.ts";
import { servedAt } from "./serve.ts";

/** `etape open`: serves the application on one file until it is ended; prints where it is, and where a running app can tell what it does. */
export async function openCommand(file: string, { port }: { port: string }): Promise<void> {
  if (file === "-") throw new Unusable("etape open: expected a file; standard input can not be written to");
  await readDocument(file);
  const live = liveFile(new FileOnDisk(resolve(file)), randomBytes(18).toString("base64url"));
  const { address } = await servedAt(port, "127.0.0.1", live);
  const at = address.replace(/\/$/, "");
  process.stdout.write(`${file} is open at ${at}${live.path}\nA running app tells what it does at ${at}${live.follow}\n`);
}
