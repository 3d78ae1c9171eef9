import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { MiddlewareHandler } from "hono";
import { secureHeaders } from "hono/secure-headers";

/** A prototype runs in a page of its own that shares nothing with Etape's: neither what is kept nor the right to ask the server. */
const PROTOTYPES = "sandbox allow-scripts; frame-ancestors 'none'";

/**
 * The headers that keep others out. Every answer has the policy that the build wrote into the page, workers and answers that say what
 * is wrong too, and nothing else may frame it; a prototype that was left here has its own in its text.
 */
export function guarded(folder: string): MiddlewareHandler {
  const policy = `${policyOfPage(join(folder, "index.html"))}; frame-ancestors 'none'`;
  const headers = secureHeaders({ xFrameOptions: "DENY", referrerPolicy: "no-referrer", crossOriginOpenerPolicy: "same-origin" });
  return async (context, next) => {
    await headers(context, next);
    context.res.headers.set("content-security-policy", context.req.path.startsWith("/preview/") ? PROTOTYPES : policy);
  };
}

/** The policy in a page's text; where there is none nothing may be loaded. */
function policyOfPage(file: string): string {
  const text = existsSync(file) ? readFileSync(file, "utf8") : "";
  return /http-equiv="Content-Security-Policy" content="([^"]+)"/.exec(text)?.[1] ?? "default-src 'none'";
}
