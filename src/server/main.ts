import { randomBytes } from "node:crypto";
import { readFile } from "node:fs/promises";
import type { AddressInfo } from "node:net";
import { networkInterfaces } from "node:os";
import { join } from "node:path";
import { serve } from "@hono/node-server";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import { compress } from "hono/compress";
import { etag } from "hono/etag";
import { type Live, ownHost } from "./live.ts";
import { guarded } from "./policy.ts";

/** Prototypes that are kept to be looked at on a phone; the oldest goes first. */
const MOST_PREVIEWS = 20;
/** Bytes of a prototype. */
const LARGEST = 20 * 2 ** 20;
/** The addresses at which the page shows something: the list of projects, and the views of one. */
const PAGES = /^\/(p\/[^/]+(\/[^/]*)?\/?)?$/;

/**
 * The application's files, compressed and with tags, so that what did not change is not sent again. The addresses of the page's
 * views give the page; a file that is not there is not found. A prototype can be left here for a phone: it is kept in memory,
 * under an address that nobody can guess. `reached` are the addresses under which others reach this server; with `live`, it serves one
 * file as well, and then nobody but this machine.
 */
export function application(folder: string, reached: () => string[] = () => [], live?: Live): Hono {
  const app = new Hono();
  if (live) app.use("*", ownHost).route("/", live.routes);
  app.use(guarded(folder), compress(), etag());
  app.route("/preview", previews(reached));
  app.use(
    "/assets/*",
    serveStatic({ root: folder, precompressed: true, onFound: (_, context) => context.header("cache-control", "max-age=31536000, immutable") }),
  );
  app.get("/assets/*", (context) => context.text("There is no such file.", 404));
  app.use("*", serveStatic({ root: folder, onFound: (_, context) => context.header("cache-control", "no-cache") }));
  app.get("*", async (context) => {
    if (!isAddress(new URL(context.req.url).pathname))
      return context.text("This is not an address: a % in it is not followed by two hexadecimal digits of UTF-8.", 400);
    context.header("cache-control", "no-cache");
    return context.html(await readFile(join(folder, "index.html"), "utf8"), PAGES.test(context.req.path) ? 200 : 404);
  });
  return app;
}

/** Prototypes left by the page, each under an address of its own. */
function previews(reached: () => string[]): Hono {
  const kept = new Map<string, string>();
  const app = new Hono();
  const tooLarge = bodyLimit({ maxSize: LARGEST, onError: (context) => context.text("A prototype may have 20 MiB at most.", 413) });
  app.post("/", tooLarge, async (context) => {
    const { origin, host } = { origin: context.req.header("origin"), host: context.req.header("host") };
    if (origin === undefined || !URL.canParse(origin) || new URL(origin).host !== host)
      return context.text("Only Etape's own page may leave a prototype here.", 403);
    const id = randomBytes(9).toString("base64url");
    kept.set(id, await context.req.text());
    for (const old of [...kept.keys()].slice(0, -MOST_PREVIEWS)) kept.delete(old);
    return context.json({ addresses: (reached().length > 0 ? reached() : [`${origin}/`]).map((address) => `${address}preview/${id}`) });
  });
  app.get("/:id", (context) => {
    const text = kept.get(context.req.param("id"));
    return text === undefined ? context.text("This prototype is not here any more; make it again in Etape.", 404) : context.html(text);
  });
  return app;
}

function isAddress(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

/** Serves the application; resolves with its address once it listens. Port 0 takes a free one. */
export function start(folder: string, port: number, host = "127.0.0.1", live?: Live): Promise<{ address: string; others: string[]; close: () => void }> {
  return new Promise((resolve, reject) => {
    let others: string[] = [];
    const server = serve({ fetch: application(folder, () => others, live).fetch, port, hostname: host }, (info: AddressInfo) => {
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
