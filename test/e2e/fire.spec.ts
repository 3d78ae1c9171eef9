import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { builtApp } from "../../bench/apps.ts";
import { readProject } from "../../src/core/model/read.ts";
import { amount } from "../random/amount.ts";
import { seeded } from "../random/documents.ts";
import { HOSTILE, withTexts } from "../random/hostile.ts";
import { documentOf, openDocument, openEmpty, screensOf } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

/** Tells what the outline shows each time when the page says that everything is saved. */
async function toldSaved(page: Page, tell: (screens: string[]) => void) {
  await page.exposeFunction("toldSaved", tell);
  await page.evaluate(() => {
    const said = document.querySelector("[data-testid=saved]");
    const names = () => [...document.querySelectorAll("[role=treeitem]")].map((row) => row.textContent ?? "");
    const look = () => {
      if (said?.textContent === "saved") (window as unknown as { toldSaved: (names: string[]) => void }).toldSaved(names());
    };
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true, characterData: true });
    look();
  });
}

const KILLS = amount(100, 6);

test(`no edit that the page called saved is lost, the browser killed at ${KILLS} moments`, async ({ baseURL, launchOptions }) => {
  const random = seeded(23);
  const profile = mkdtempSync(join(tmpdir(), "etape-profile-"));
  const launch = async () => {
    const context = await chromium.launchPersistentContext(profile, { ...launchOptions, baseURL, serviceWorkers: "block" });
    return { context, page: context.pages()[0] ?? (await context.newPage()) };
  };
  let { context, page } = await launch();
  await openEmpty(page);
  const address = page.url();
  let promised: string[] = [];
  let made = 0;
  for (let kill = 0; kill < KILLS; kill++) {
    // The outline draws the rows that show, so what was promised adds up.
    await toldSaved(page, (rows) => {
      promised = [...new Set([...promised, ...rows.flatMap((row) => /^Screen\d+/.exec(row) ?? [])])];
    });
    await page.getByLabel("Find or add a screen").click();
    const before = promised.length;
    const ended = context.waitForEvent("close");
    const typing = (async () => {
      for (let i = 0; i < 6; i++) {
        made += 1;
        await page.keyboard.type(`Screen${made}`);
        await page.keyboard.press("Enter");
      }
    })().catch(() => undefined);
    const until = made + Math.floor(random() * 6);
    while (made < until) await page.waitForTimeout(10);
    // Every second time it is killed after something new was promised, however slow the machine is; else before or after, as it comes.
    if (kill % 2 === 0) await expect.poll(() => promised.length, { intervals: [5] }).toBeGreaterThan(before);
    await page.waitForTimeout(random() * 120);
    execFileSync("pkill", ["-KILL", "-f", profile]);
    await ended;
    await typing;
    ({ context, page } = await launch());
    await page.goto(address);
    await expect(page.getByRole("treeitem").first()).toBeVisible();
    const there = screensOf(await documentOf(page));
    expect(
      promised.filter((name) => !there.includes(name)),
      `killed ${kill + 1} times`,
    ).toEqual([]);
  }
  process.stdout.write(`killed ${KILLS} times: ${promised.length} screens were promised and there at the end, ${made} screens begun\n`);
  expect(promised.length).toBeGreaterThanOrEqual(KILLS / 2);
  expect((await documentOf(page)).format).toBe("etape/1");
  await context.close();
});

const EDITS = amount(200, 10);

test(`two windows, ${EDITS} edits in each at once: all are in both`, async ({ context }) => {
  const one = await context.newPage();
  await openEmpty(one);
  const two = await context.newPage();
  await two.goto(one.url());
  await two.getByLabel("Find or add a screen").click();
  await one.getByLabel("Find or add a screen").click();
  await Promise.all(
    [one, two].map(async (page, window) => {
      for (let i = 0; i < EDITS; i++) {
        await page.keyboard.type(`${window === 0 ? "First" : "Second"}${i}`);
        await page.keyboard.press("Enter");
      }
    }),
  );
  const all = ["First", "Second"].flatMap((name) => Array.from({ length: EDITS }, (_, i) => `${name}${i}`));
  for (const page of [one, two])
    await expect
      .poll(async () =>
        screensOf(await documentOf(page))
          .filter((name) => name !== "Home")
          .sort(),
      )
      .toEqual([...all].sort());
});

test("hostile texts in every field run nothing and break nothing, in any view", async ({ page }) => {
  const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo can be read");
  const { project } = withTexts(read.project, HOSTILE);
  const wrong: string[] = [];
  page.on("dialog", (dialog) => {
    wrong.push(`a dialog: ${dialog.message()}`);
    void dialog.dismiss();
  });
  page.on("pageerror", (error) => wrong.push(error.message));
  await openDocument(page, project);
  const address = page.url();
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
  await page.getByRole("treeitem").nth(3).click();
  await page.getByRole("treeitem").nth(6).click();
  for (const view of ["rules", "pictures", "parameters", "versions", "walk", "hand-off"]) {
    await page.goto(`${address}/${view}`);
    await expect(page.getByRole("navigation", { name: "Views" })).toBeVisible();
    await expect(page.getByText("Something went wrong")).toHaveCount(0);
  }
  await page.getByRole("tab", { name: "specification.html" }).click();
  await expect(page.frameLocator("iframe").getByRole("heading", { name: "Screens" })).toBeVisible();
  for (const frame of page.frames()) expect(await frame.evaluate(() => "hit" in globalThis)).toBe(false);
  expect(wrong).toEqual([]);
  await page.goto("/");
  await expect(page.getByText("script>globalThis.hit").first()).toBeVisible();
  expect(await page.evaluate(() => "hit" in globalThis)).toBe(false);
});

test("a browser that keeps nothing says so, and lets the work be taken away", async ({ page }) => {
  await page.addInitScript(() => {
    IDBFactory.prototype.open = () => {
      throw new DOMException("The user denied permission to access the database.", "SecurityError");
    };
  });
  await openEmpty(page, "Pier");
  await expect(page.getByTestId("saved")).toContainText("this browser keeps nothing for Etape");
  const asked = page.waitForEvent("dialog");
  // Left by the page itself: a browser told to close a window waits for the question only so long.
  await page.evaluate(() => void setTimeout(() => location.assign("/"), 0));
  const dialog = await asked;
  expect(dialog.type()).toBe("beforeunload");
  await dialog.dismiss();
  const downloading = page.waitForEvent("download");
  await page.getByRole("banner").getByRole("button", { name: "Export" }).click();
  const read = readProject(readFileSync(await (await downloading).path(), "utf8"));
  expect(read.ok && screensOf(read.project)).toEqual(["Home", "Pier"]);
  await page.getByRole("link", { name: "Etape: all projects" }).click();
  await expect(page.getByRole("alert")).toContainText("This browser keeps nothing for Etape");
});

test("a project that another window deletes stays, and is kept again; a damaged one hides no other and comes out as it is", async ({ page, context }) => {
  await openEmpty(page, "Pier");
  const address = page.url();
  const id = new URL(address).pathname.split("/")[2] ?? "";
  const other = await context.newPage();
  await other.goto("/");
  await other.getByRole("button", { name: /^Delete/ }).click();
  await other.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
  await expect(other.getByText("Nothing yet")).toBeVisible();
  await expect(page.getByTestId("saved")).toContainText("deleted in another window");
  await expect(page.getByRole("treeitem", { name: "Pier" })).toBeVisible();
  await page.getByRole("banner").getByRole("button", { name: "Keep it again" }).click();
  await expect(page.getByTestId("saved")).toHaveText("saved");
  // Something damages it.
  await other.reload();
  await other.evaluate(async (projectId) => {
    const database = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open("etape");
      asked.onsuccess = () => done(asked.result);
    });
    await new Promise((done) => {
      const writing = database.transaction(["documents"], "readwrite");
      writing.objectStore("documents").put({ projectId, document: { format: "etape/1", name: "Lost", screens: 7 } });
      writing.oncomplete = done;
    });
    database.close();
  }, id);
  await other.goto(address);
  await expect(other.getByText("can not be read")).toBeVisible();
  const downloading = other.waitForEvent("download");
  await other.getByRole("button", { name: "Download what is stored" }).click();
  expect(JSON.parse(readFileSync(await (await downloading).path(), "utf8")).documents[0].document.screens).toBe(7);
  await other.getByRole("link", { name: "All projects" }).click();
  await other.getByRole("button", { name: /Start empty/ }).click();
  await expect(other.getByRole("treeitem", { name: "Home" })).toBeVisible();
});

const CHANGES = amount(500, 12);

test(`${CHANGES} edits of an app of 300 screens, checked all the while: the memory comes back`, async ({ page, context }) => {
  const app = builtApp(300);
  await openDocument(page, app);
  const devtools = await context.newCDPSession(page);
  const used = async () => {
    await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
    await devtools.send("HeapProfiler.collectGarbage");
    return (await devtools.send("Runtime.getHeapUsage")).usedSize / 2 ** 20;
  };
  await page.locator(`[role=treeitem][data-key="${app.screens[0]?.id}"]`).click();
  const edit = async (count: number) => {
    for (let i = 0; i < count; i++) {
      await page.getByLabel("Label of a new element").fill(`Row ${i}`);
      await page.keyboard.press("Enter");
      await page
        .getByRole("banner")
        .getByRole("button", { name: /^Undo: / })
        .click();
    }
  };
  await edit(8);
  const before = await used();
  await edit(CHANGES);
  const after = await used();
  process.stdout.write(`memory: ${before.toFixed(1)} MiB before, ${after.toFixed(1)} MiB after ${CHANGES} edits and as many undos\n`);
  expect(after).toBeLessThan(before * 1.25 + 5);
});
