import { randomBytes } from "node:crypto";
import { readFile, stat } from "node:fs/promises";
import type { AddressInfo } from "node:net";
import { networkInterfaces } from "node:os";
import { extname, join, normalize } from "node:path";
import { serve } from "@hono/node-server";
import { Hono } from "hono";

const TYPES: Record<string, string> = {
  ".html": "text/html; charset=utf-8",
  ".js": "text/javascript; charset=utf-8",
  ".css": "text/css; charset=utf-8",
  ".json": "application/json; charset=utf-8",
  ".svg": "image/svg+xml",
  ".woff2": "font/woff2",
};

/** Prototypes that are kept to be looked at on a phone; the oldest goes first. */
const MOST_PREVIEWS = 20;
/** Bytes of a prototype. */
const LARGEST = 20 * 2 ** 20;

/**
 * The application's files; any other address gives the page, which finds its own way. A prototype can be left
 * here for a phone: it is kept in memory, under an address that nobody can guess. `reached` are the
 * addresses under which others reach this server.
 */
export function application(folder: string, reached: () => string[] = () => []): Hono {
  const app = new Hono();
  const previews = new Map<string, string>();
  app.post("/preview", async (context) => {
    const { origin, host } = { origin: context.req.header("origin"), host: context.req.header("host") };
    if (origin === undefined || new URL(origin).host !== host) return context.text("Only Etape's own page may leave a prototype here.", 403);
    if (Number(context.req.header("content-length") ?? 0) > LARGEST) return context.text("A prototype may have 20 MiB at most.", 413);
    const text = await context.req.text();
    if (text.length > LARGEST) return context.text("A prototype may have 20 MiB at most.", 413);
    const id = randomBytes(9).toString("base64url");
    previews.set(id, text);
    for (const old of [...previews.keys()].slice(0, -MOST_PREVIEWS)) previews.delete(old);
    return context.json({ addresses: (reached().length > 0 ? reached() : [`${origin}/`]).map((address) => `${address}preview/${id}`) });
  });
  app.get("/preview/:id", (context) => {
    const text = previews.get(context.req.param("id"));
    return text === undefined ? context.text("This prototype is not here any more; make it again in Etape.", 404) : context.html(text);
  });
  app.get("*", async (context) => {
    const path = normalize(decodeURIComponent(context.req.path)).replace(/^(\.\.[/\\])+/, "");
    const file = join(folder, path);
    const known = file.startsWith(folder) && (await stat(file).catch(() => undefined))?.isFile();
    const body = await readFile(known ? file : join(folder, "index.html"));
    const type = TYPES[extname(known ? file : "index.html")] ?? "application/octet-stream";
    return context.body(new Uint8Array(body), 200, {
      "content-type": type,
      "cache-control": path.includes("/assets/") ? "max-age=31536000, immutable" : "no-cache",
    });
  });
  return app;
}

/** Serves the application; resolves with its address once it listens. Port 0 takes a free one. */
export function start(folder: string, port: number, host = "127.0.0.1"): Promise<{ address: string; others: string[]; close: () => void }> {
  return new Promise((resolve, reject) => {
    let others: string[] = [];
    const server = serve({ fetch: application(folder, () => others).fetch, port, hostname: host }, (info: AddressInfo) => {
      others = host === "0.0.0.0" ? inTheNetwork().map((address) => `http://${address}:${info.port}/`) : [];
      resolve({ address: `http://${host === "0.0.0.0" ? "localhost" : host}:${info.port}/`, others, close: () => server.close() });
    });
    server.on("error", reject);
  });
}

/** The addresses of this machine in its network. */
function inTheNetwork(): string[] {
  return Object.values(networkInterfaces()).flatMap((list) => (list ?? []).filter((one) => one.family === "IPv4" && !one.internal).map((one) => one.address));
}
