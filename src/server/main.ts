import { readFile, stat } from "node:fs/promises";
import type { AddressInfo } from "node:net";
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

/** The application's files; any other address gives the page, which finds its own way. */
export function application(folder: string): Hono {
  const app = new Hono();
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
export function start(folder: string, port: number, host = "127.0.0.1"): Promise<{ address: string; close: () => void }> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch: application(folder).fetch, port, hostname: host }, (info: AddressInfo) => {
      resolve({ address: `http://${host === "0.0.0.0" ? "localhost" : host}:${info.port}/`, close: () => server.close() });
    });
    server.on("error", reject);
  });
}
