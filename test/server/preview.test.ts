import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { describe, expect, it, vi } from "vitest";
import { main } from "../../src/cli/main.ts";
import { application, start } from "../../src/server/main.ts";

const folder = mkdtempSync(join(tmpdir(), "etape-server-"));
writeFileSync(join(folder, "index.html"), "<p>the page</p>");
const script = `export const words = ${JSON.stringify("honey ".repeat(2000))};`;
mkdirSync(join(folder, "assets"));
writeFileSync(join(folder, "assets", "app.js"), script);
const own = { origin: "http://etape.test", host: "etape.test" };

async function left(app: ReturnType<typeof application>, body: string): Promise<string> {
  const answer = await app.request("/preview", { method: "POST", headers: own, body });
  expect(answer.status).toBe(200);
  const { addresses } = (await answer.json()) as { addresses: string[] };
  return new URL(addresses[0] ?? "").pathname;
}

describe("a prototype left for a phone", () => {
  it("is found under an address of its own, and under those of the network", async () => {
    const app = application(folder);
    const path = await left(app, "<p>a prototype</p>");
    const there = await app.request(path);
    expect(there.headers.get("content-type")).toContain("text/html");
    expect(await there.text()).toBe("<p>a prototype</p>");
    const wide = application(folder, () => ["http://10.1.2.3:5173/", "http://10.1.2.4:5173/"]);
    const answer = await wide.request("/preview", { method: "POST", headers: own, body: "x" });
    expect(await answer.json()).toEqual({
      addresses: [expect.stringMatching(/^http:\/\/10\.1\.2\.3:5173\/preview\/.{12}$/), expect.stringContaining("10.1.2.4")],
    });
  });

  it("is left by Etape's own page alone, is no larger than 20 MiB, and goes when twenty others have come", async () => {
    const app = application(folder);
    expect((await app.request("/preview", { method: "POST", body: "x" })).status).toBe(403);
    expect((await app.request("/preview", { method: "POST", headers: { ...own, origin: "http://elsewhere.test" }, body: "x" })).status).toBe(403);
    expect((await app.request("/preview", { method: "POST", headers: own, body: "x".repeat(20 * 2 ** 20 + 1) })).status).toBe(413);
    expect((await app.request("/preview/unknown")).status).toBe(404);
    const first = await left(app, "first");
    for (let i = 0; i < 20; i++) await left(app, String(i));
    expect((await app.request(first)).status).toBe(404);
  });
});

describe("the server", () => {
  it("gives its files, and the page for every other address, on a free port", async () => {
    const served = await start(folder, 0);
    try {
      expect(await (await fetch(served.address)).text()).toBe("<p>the page</p>");
      expect(await (await fetch(`${served.address}p/some/view`)).text()).toBe("<p>the page</p>");
      expect(await (await fetch(`${served.address}..%2f..%2fetc%2fpasswd`)).text()).toBe("<p>the page</p>");
      expect(served.others).toEqual([]);
    } finally {
      served.close();
    }
  });

  it("answers what is not there with 404, what is no address with 400, and never with an error of its own", async () => {
    const app = application(folder);
    const missing = await app.request("/assets/x.js");
    expect(missing.status).toBe(404);
    expect(missing.headers.get("cache-control")).toBeNull();
    expect((await app.request("/p/one/hand-off")).status).toBe(200);
    const nowhere = await app.request("/no/such/page");
    expect(nowhere.status).toBe(404);
    expect(await nowhere.text()).toBe("<p>the page</p>");
    expect((await app.request("/%E0%A4%A")).status).toBe(400);
    expect((await app.request("/preview", { method: "POST", headers: { ...own, origin: "null" }, body: "x" })).status).toBe(403);
  });

  it("sends files compressed, with tags and headers that keep others out; what did not change is not sent again", async () => {
    const served = await start(folder, 0);
    try {
      const asset = await fetch(`${served.address}assets/app.js`, { headers: { "accept-encoding": "gzip" } });
      expect(asset.headers.get("content-encoding")).toBe("gzip");
      expect(asset.headers.get("content-type")).toContain("text/javascript");
      expect(asset.headers.get("cache-control")).toBe("max-age=31536000, immutable");
      expect(asset.headers.get("x-content-type-options")).toBe("nosniff");
      expect(asset.headers.get("x-frame-options")).toBe("DENY");
      expect(await asset.text()).toBe(script);
      const page = await fetch(served.address);
      const tag = page.headers.get("etag") ?? "";
      expect(tag).not.toBe("");
      expect(page.headers.get("cache-control")).toBe("no-cache");
      expect((await fetch(served.address, { headers: { "if-none-match": tag } })).status).toBe(304);
    } finally {
      served.close();
    }
  });

  it("gives every answer the policy of the page, and a prototype one that keeps it apart", async () => {
    const guarded = mkdtempSync(join(tmpdir(), "etape-guarded-"));
    writeFileSync(join(guarded, "index.html"), `<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'self'">`);
    const app = application(guarded);
    for (const path of ["/", "/p/one", "/assets/nothing.js", "/no/such/page", "/%E0%A4%A"])
      expect((await app.request(path)).headers.get("content-security-policy")).toBe("default-src 'none'; script-src 'self'; frame-ancestors 'none'");
    const left = await app.request("/preview", { method: "POST", headers: own, body: "<p>a prototype</p>" });
    const { addresses } = (await left.json()) as { addresses: string[] };
    const prototype = await app.request(new URL(addresses[0] ?? "").pathname);
    expect(prototype.headers.get("content-security-policy")).toBe("sandbox allow-scripts; frame-ancestors 'none'");
    expect((await application(folder).request("/")).headers.get("content-security-policy")).toBe("default-src 'none'; frame-ancestors 'none'");
  });

  it("is not started by `etape serve` on a port that is none, or without the application", async () => {
    const err = vi.spyOn(process.stderr, "write").mockImplementation(() => true);
    expect(await main(["serve", "--port", "many"])).toBe(2);
    vi.stubEnv("ETAPE_APPLICATION", join(folder, "nowhere"));
    expect(await main(["serve", "--port", "0"])).toBe(2);
    const said = err.mock.calls.map(([text]) => String(text)).join("");
    err.mockRestore();
    vi.unstubAllEnvs();
    expect(said).toContain("--port many: expected a number");
    expect(said).toContain("expected the application");
  });
});

describe("the files of the page", () => {
  it("come as they were compressed when they were built, and as they are to who takes nothing compressed", async () => {
    const app = application(folder);
    writeFileSync(join(folder, "assets", "part-1.js"), "let x = 1;");
    writeFileSync(join(folder, "assets", "part-1.js.gz"), gzipSync("let x = 1;"));
    const asked = async (encodings: string) => {
      const answer = await app.request("/assets/part-1.js", { headers: { "accept-encoding": encodings } });
      expect(answer.headers.get("content-type")).toContain("javascript");
      return { encoding: answer.headers.get("content-encoding"), body: Buffer.from(await answer.arrayBuffer()) };
    };
    const compressed = await asked("gzip, deflate");
    expect(compressed.encoding).toBe("gzip");
    expect(gunzipSync(compressed.body).toString()).toBe("let x = 1;");
    expect(await asked("identity")).toEqual({ encoding: null, body: Buffer.from("let x = 1;") });
  });
});
