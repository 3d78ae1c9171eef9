import type { LogEntry } from "./navigation";

/** Where what the app does is told, as `etape open` prints it: the page is opened with `?follow=ADDRESS`, and knows it in this tab from then on. */
const address = new URLSearchParams(location.search).get("follow") ?? sessionStorage.getItem("follow");
if (address !== null) sessionStorage.setItem("follow", address);
const waiting: LogEntry[] = [];
let telling = false;

/** Tells what happened, in order; what happens meanwhile goes along next time. */
export async function report(entry: LogEntry): Promise<void> {
  if (address === null) return;
  waiting.push(entry);
  if (telling) return;
  telling = true;
  while (waiting.length > 0) {
    const body = waiting.splice(0).map((one) => `${JSON.stringify(one)}\n`);
    await fetch(address, { method: "POST", body: body.join(""), keepalive: true }).catch(() => undefined);
  }
  telling = false;
}
