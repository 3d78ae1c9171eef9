import { createHash, timingSafeEqual } from "node:crypto";
import { type Context, Hono, type MiddlewareHandler } from "hono";
import { bodyLimit } from "hono/body-limit";
import { getCookie, setCookie } from "hono/cookie";
import { streamSSE } from "hono/streaming";
import type { FileOnDisk } from "./disk.ts";
import { FolderOfPictures } from "./pictures.ts";

/** The cookie by which the page says that it was opened with the token. */
const COOKIE = "etape-open";
/** Bytes of a document, and of what an app tells at once. */
const LARGEST = 20 * 2 ** 20;
/** Bytes of a picture. */
const LARGEST_PICTURE = 4 * 2 ** 20;
/** Lines of a running app that are kept for a page that is opened later. */
const MOST_LINES = 10_000;
/** Milliseconds between two signs of life on a stream, so that nothing on the way ends it. */
const ALIVE = 15_000;

/** An open file: what the page reads and writes it by, and where a running app tells what it does. */
export interface Live {
  readonly routes: Hono;
  /** Where the page is opened; with the token in it. */
  readonly path: string;
  /** Where a running app tells what it does; with the token in it. */
  readonly follow: string;
  /** Where the page of this file is, without the token. */
  readonly page: string;
}

/**
 * Serves one file to the page: reading, writing if it is still what was read, and being told of changes. Only who has the token gets
 * in: the page by a cookie that no other page is sent, an app by the address.
 */
export function liveFile(file: FileOnDisk, token: string): Live {
  const id = `file-${createHash("sha256").update(file.path).digest("hex").slice(0, 20)}`;
  const page = `/p/${id}`;
  const lines: string[] = [];
  const tellers = new Set<(line: string) => void>();
  const right = (given: string | undefined) => given !== undefined && sameText(given, token);
  const pictures = new FolderOfPictures(file.path.replace(/(\.etape)?\.json$/i, ""));
  const app = new Hono();
  app.get("/open", (context) => {
    if (!right(context.req.query("token"))) return context.text("This address lacks the token that etape open printed.", 403);
    setCookie(context, COOKIE, token, { httpOnly: true, sameSite: "Strict", path: "/" });
    return context.redirect(page);
  });
  app.use("/live/*", ownPage(right));
  app.get("/live/file", async (context) => answer(context, async () => context.json({ id, name: file.name, ...(await file.read()) })));
  const tooLarge = bodyLimit({ maxSize: LARGEST, onError: (context) => context.text("A document may have 20 MiB at most.", 413) });
  app.put("/live/file", tooLarge, async (context) =>
    answer(context, async () => {
      const tag = await file.write(await context.req.text(), context.req.header("if-match") ?? "");
      return tag === undefined ? context.text(`${file.name} is not what was read any more.`, 412) : context.json({ tag });
    }),
  );
  app.get("/live/pictures", async (context) => context.json(await pictures.list()));
  app.get("/live/pictures/*", async (context) => {
    const bytes = await pictures.read(pathOf(context));
    if (!bytes) return context.text("There is no such picture.", 404);
    return context.body(new Uint8Array(bytes), 200, {
      "content-type": "application/octet-stream",
      "x-content-type-options": "nosniff",
      "cache-control": "no-store",
    });
  });
  const pictureTooLarge = bodyLimit({ maxSize: LARGEST_PICTURE, onError: (context) => context.text("A picture may have 4 MiB at most.", 413) });
  app.put("/live/pictures/*", pictureTooLarge, async (context) =>
    answer(context, async () => {
      const tag = await pictures.write(pathOf(context), new Uint8Array(await context.req.arrayBuffer()));
      return tag === undefined ? context.text("A picture is a file in the folder of the pictures.", 400) : context.json({ tag });
    }),
  );
  app.get("/live/changes", (context) =>
    streamSSE(context, async (stream) => {
      const ended = new Promise<void>((done) => stream.onAbort(done));
      const say = (event: string, data: string) => void stream.writeSSE({ event, data }).catch(() => undefined);
      const line = (text: string) => say("entry", text);
      for (const old of lines) line(old);
      tellers.add(line);
      const stop = file.listen((tag) => say("file", tag));
      const stopPictures = pictures.listen(() => say("pictures", ""));
      const alive = setInterval(() => say("alive", ""), ALIVE);
      say("ready", "");
      await ended;
      clearInterval(alive);
      tellers.delete(line);
      stop();
      stopPictures();
    }),
  );
  app.options("/follow", (context) => (allowed(context) ? context.body(null, 204) : context.text("Only from this machine.", 403)));
  app.post("/follow", tooLarge, async (context) => {
    if (!allowed(context)) return context.text("Only apps on this machine may tell what they do.", 403);
    const given = context.req.query("token") ?? context.req.header("authorization")?.replace(/^Bearer /, "");
    if (!right(given)) return context.text("This address lacks the token that etape open printed.", 403);
    const told = (await context.req.text()).split("\n").filter((text) => text.trim() !== "");
    for (const text of told) {
      lines.push(text);
      for (const tell of tellers) tell(text);
    }
    lines.splice(0, Math.max(0, lines.length - MOST_LINES));
    return context.json({ taken: told.length });
  });
  return { routes: app, page, path: `/open?token=${token}`, follow: `/follow?token=${token}` };
}

/** The path of a picture in an address. */
function pathOf(context: Context): string {
  return decodeURIComponent(new URL(context.req.url).pathname.slice("/live/pictures/".length));
}

/** Lets in only the page itself: with the cookie, and from no other page. */
function ownPage(right: (given: string | undefined) => boolean): MiddlewareHandler {
  return async (context, next) => {
    if (!right(getCookie(context, COOKIE))) return context.text("Open the address that etape open printed.", 403);
    const { origin, host } = { origin: context.req.header("origin"), host: context.req.header("host") };
    const site = context.req.header("sec-fetch-site");
    const other = (origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== host)) || (site !== undefined && site !== "same-origin");
    if (other) return context.text("Only Etape's own page may do this.", 403);
    return next();
  };
}

/** Refuses whoever reached this server by another name than that of this machine: a name can be made to lead here. */
export const ownHost: MiddlewareHandler = async (context, next) => {
  const host = context.req.header("host") ?? "";
  if (!isHere(`http://${host}`)) return context.text("This address is not that of this machine: use the one that etape open printed.", 403);
  return next();
};

/** An app may tell from its own page on this machine, or from no page at all. */
function allowed(context: Context): boolean {
  const origin = context.req.header("origin");
  if (origin === undefined) return true;
  if (!isHere(origin)) return false;
  context.header("access-control-allow-origin", origin);
  context.header("access-control-allow-headers", "authorization, content-type");
  return true;
}

function isHere(origin: string): boolean {
  return URL.canParse(origin) && ["localhost", "127.0.0.1", "[::1]"].includes(new URL(origin).hostname);
}

async function answer(context: Context, work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    return context.text(
      error instanceof TypeError ? "The file is not UTF-8." : `The file can not be used (${(error as NodeJS.ErrnoException).code ?? String(error)}).`,
      500,
    );
  }
}

function sameText(a: string, b: string): boolean {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
}
