import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it, vi } from "vitest";
import { main } from "../../src/cli/main.ts";
import { application, start } from "../../src/server/main.ts";

const folder = mkdtempSync(join(tmpdir(), "etape-server-"));
writeFileSync(join(folder, "index.html"), "<p>the page</p>");
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
