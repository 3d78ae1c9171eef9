import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { start } from "../../src/server/main.ts";
import { documentOf, screensOf } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

test.use({ serviceWorkers: "allow" });

/** A server of the built application that a test may stop, on a port that it gets again. */
async function served(folder = "dist/app", port = 0) {
  const running = await start(folder, port);
  return {
    address: running.address,
    stop: async () => {
      running.close();
      // Connections that are kept open are closed by the browser's next question, which nobody answers.
      await expect(fetch(running.address)).rejects.toThrow();
    },
  };
}

/** Waits until every file of the application is kept by the browser. */
async function kept(page: Page) {
  await page.waitForFunction(() => navigator.serviceWorker.controller?.state === "activated");
}

test("once it was opened, everything works without the server, and after a reload too", async ({ page }) => {
  const server = await served();
  await page.goto(server.address);
  await kept(page);
  await server.stop();
  // Parts that were never loaded are there as well: a demo, the worker that checks, every view.
  await page.getByRole("button", { name: "Tidewatch" }).click();
  await expect(page.getByTestId("proof")).toContainText(/Proved|proved/);
  await page.reload();
  await expect(page.getByTestId("proof")).toContainText(/Proved|proved/);
  await page.getByLabel("Find or add a screen").click();
  await page.keyboard.type("Far pier");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("treeitem", { name: "Far pier" }).first()).toBeVisible();
  await expect(page.getByTestId("saved")).toHaveText("saved");
  await page.reload();
  expect(screensOf(await documentOf(page))).toContain("Far pier");
  const project = new URL(page.url()).pathname;
  for (const view of ["rules", "pictures", "parameters", "versions", "walk", "hand-off"]) {
    await page.goto(`${server.address}${project.slice(1)}/${view}`);
    await expect(page.getByRole("main").or(page.getByTestId("device")).first()).toBeVisible();
    await expect(page.getByText("could not be")).toHaveCount(0);
  }
  await page.goto(server.address);
  await expect(
    page
      .getByRole("link", { name: /Tidewatch/ })
      .or(page.getByRole("button", { name: /Tidewatch/ }))
      .first(),
  ).toBeVisible();
});

test("a new version says that it is there, and comes when it is wanted, in every window", async ({ page, context }) => {
  const folder = join(mkdtempSync(join(tmpdir(), "etape-app-")), "app");
  cpSync("dist/app", folder, { recursive: true });
  const server = await served(folder);
  await page.goto(server.address);
  await kept(page);
  const other = await context.newPage();
  await other.goto(server.address);
  await kept(other);
  // Another build: the page says so in its title, and the list of files has another hash for it.
  const change = (name: string, from: string | RegExp, to: string) => {
    const path = join(folder, name);
    const text = readFileSync(path, "utf8");
    expect(text).toMatch(from);
    writeFileSync(path, text.replace(from, to));
  };
  change("index.html", "<title>Etape</title>", "<title>Etape, newer</title>");
  change("service-worker.js", /"\/index\.html",revision:"[0-9a-f]{16}"/, '"/index.html",revision:"0123456789abcdef"');
  await page.reload();
  await expect(page).toHaveTitle("Etape");
  const news = page.getByRole("status").filter({ hasText: "A new version of Etape is ready." });
  await expect(news).toBeVisible();
  await news.getByRole("button", { name: "Later" }).click();
  await expect(news).toHaveCount(0);
  await page.reload();
  await news.getByRole("button", { name: "Use it" }).click();
  await expect(page).toHaveTitle("Etape, newer");
  await expect(news).toHaveCount(0);
  const there = other.getByRole("status").filter({ hasText: "A new version of Etape is ready." });
  await there.getByRole("button", { name: "Use it" }).click();
  await expect(other).toHaveTitle("Etape, newer");
  await server.stop();
});

test("it can be installed, with its own name and icon", async ({ page }) => {
  const server = await served();
  await page.goto(server.address);
  await kept(page);
  const devtools = await page.context().newCDPSession(page);
  const { data = "", errors } = await devtools.send("Page.getAppManifest");
  expect(errors).toEqual([]);
  expect(JSON.parse(data)).toMatchObject({ name: "Etape", start_url: "/", display: "standalone" });
  const { installabilityErrors } = await devtools.send("Page.getInstallabilityErrors");
  // The tests' windows are private ones, from which nothing can be installed; nothing else is in the way.
  expect(installabilityErrors.map((error) => error.errorId).filter((id) => id !== "in-incognito")).toEqual([]);
  for (const { src } of JSON.parse(data).icons) expect((await page.request.get(new URL(src, server.address).href)).ok()).toBe(true);
  await server.stop();
});
