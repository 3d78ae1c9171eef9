import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readProject } from "../../src/core/model/read.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { built, Site } from "./example.ts";
import { openEmpty } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

let server: ChildProcess | undefined;
test.afterEach(() => server?.kill());

/** Opens a copy of the example with `etape open`; gives the file, and where a running app tells what it does. */
async function opened(page: Page): Promise<{ path: string; follow: string }> {
  const path = join(mkdtempSync(join(tmpdir(), "etape-open-")), "bandstand.etape.json");
  writeFileSync(path, readFileSync("examples/bandstand/bandstand.etape.json"));
  server = spawn(process.execPath, ["bin/etape.mjs", "open", path, "--port", "0"], { stdio: ["ignore", "pipe", "ignore"] });
  const said = await new Promise<string>((done, failed) => {
    server?.on("exit", (status) => failed(new Error(`etape open ended with ${status}`)));
    let text = "";
    server?.stdout?.on("data", (data: Buffer) => {
      text += data.toString();
      if (text.includes("/follow?")) done(text);
    });
  });
  const [address = "", follow = ""] = said.match(/http:\S+/g) ?? [];
  await page.goto(address);
  await expect(page.getByTestId("file")).toHaveText("bandstand.etape.json ✓");
  return { path, follow };
}

const nameIn = (path: string, id: string) => {
  const read = readProject(readFileSync(path, "utf8"));
  return read.ok ? read.project.screens.find((screen) => screen.id === id)?.name : undefined;
};

/** Gives a screen another name, in the outline. */
async function rename(page: Page, from: string, to: string) {
  await page
    .getByRole("treeitem", { name: new RegExp(`^${from}`) })
    .first()
    .click();
  await page
    .getByRole("treeitem", { name: new RegExp(`^${from}`) })
    .first()
    .press("F2");
  await page.keyboard.press("Control+a");
  await page.keyboard.type(to);
  await page.keyboard.press("Enter");
}

test("a file that is open: edits are in it, what an editor writes comes in and can be undone", async ({ page }) => {
  const { path } = await opened(page);
  await rename(page, "Declined", "Card declined");
  await expect.poll(() => nameIn(path, "declined")).toBe("Card declined");
  writeFileSync(path, readFileSync(path, "utf8").replace('"name": "Booked"', '"name": "Booked, thank you"'));
  await expect(page.getByRole("treeitem", { name: /^Booked, thank you/ })).toBeVisible();
  await expect(page.getByRole("button", { name: "Undo: Read what changed in bandstand.etape.json" })).toBeVisible();
  await page.getByRole("button", { name: /^Undo: Read what changed/ }).click();
  await expect.poll(() => nameIn(path, "booked")).toBe("Booked");
  writeFileSync(path, "{");
  await expect(page.getByTestId("file")).toContainText("can not be read");
  await page.reload();
  await expect(page.getByTestId("file")).toContainText("can not be read");
});

test("what was changed here and in the file is merged when the file is there again, and what differs can be chosen", async ({ page }) => {
  const { path } = await opened(page);
  const began = readFileSync(path, "utf8");
  writeFileSync(path, "<<<<<<< ours");
  await expect(page.getByTestId("file")).toContainText("can not be read");
  await rename(page, "Declined", "Here");
  writeFileSync(path, began.replace('"name": "Declined"', '"name": "There"').replace('"name": "Booked"', '"name": "Booked there"'));
  const asked = page.getByRole("dialog", { name: "Changed here and in bandstand.etape.json" });
  await expect(asked).toContainText("Here");
  await asked.getByRole("button", { name: "Take what the file had" }).click();
  await expect(asked).toBeHidden();
  await expect.poll(() => [nameIn(path, "declined"), nameIn(path, "booked")]).toEqual(["There", "Booked there"]);
});

test("two windows on one file: what changes in it comes in to both, once, and the second goes on when the first is closed", async ({ page, context }) => {
  const { path } = await opened(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByTestId("file")).toHaveText("bandstand.etape.json");
  writeFileSync(path, readFileSync(path, "utf8").replace('"name": "Booked"', '"name": "Booked, thank you"'));
  for (const window of [page, second]) {
    await expect(window.getByRole("treeitem", { name: /^Booked, thank you/ })).toBeVisible();
    await expect(window.getByTestId("saved")).toHaveText("saved");
  }
  await rename(second, "Declined", "By the second");
  await expect.poll(() => nameIn(path, "declined")).toBe("By the second");
  await page.close();
  await expect(second.getByTestId("file")).toHaveText("bandstand.etape.json ✓");
  await rename(second, "By the second", "Alone");
  await expect.poll(() => nameIn(path, "declined")).toBe("Alone");
});

test("a running app is followed: the map and the walk go with it, and where it departs that is said", async ({ page }) => {
  const { follow } = await opened(page);
  const lines = readFileSync("examples/bandstand/logs/evening.jsonl", "utf8").split("\n");
  const tell = (text: string) => fetch(follow, { method: "POST", body: text });
  await tell(lines.slice(0, 4).join("\n"));
  await expect(page.getByTestId("followed")).toContainText("4 entries in 1 run; it follows the design");
  await expect(page.getByTestId("device")).toContainText("Book a seat");
  await tell('{"run":"ida","event":{"do":"leg","leg":"buySignedOut"},"shows":"tickets"}');
  await expect(page.getByTestId("followed")).toContainText("it departs once");
  await expect(page.getByRole("complementary", { name: "Lens" })).toContainText(
    "After tap Book a seat on “Gig” the app showed “Tickets”; the design shows “Sign in”.",
  );
});

test("the example tells what it does: the map goes with it, through the browser's Back and a reload; an app of another design departs at once", async ({
  page,
  context,
}) => {
  const { follow } = await opened(page);
  const followed = page.getByTestId("followed");
  const site = new Site(await built());
  const app = await context.newPage();
  await app.goto(`${await site.start()}/?follow=${encodeURIComponent(follow)}`);
  await app.getByRole("link", { name: "Slow Ferry 2", exact: true }).click();
  const device = page.getByTestId("device");
  await expect(device).toContainText("Book a seat");
  await expect(followed).toContainText("in 1 run; it follows the design");
  await app.goBack();
  await expect(device).not.toContainText("Book a seat");
  await app.goForward();
  await expect(device).toContainText("Book a seat");
  await app.reload();
  await expect(followed).toContainText("in 2 runs; it follows the design");
  // One line of the app is another: what a gig's button opens.
  site.folder = await built((design) => design.replace('"to": "door"', '"to": "towns"'));
  await app.goto(site.address);
  await app.getByRole("link", { name: "Slow Ferry 2", exact: true }).click();
  await app.getByRole("button", { name: "Book a seat" }).click();
  await expect(followed).toContainText("it departs");
  await expect(page.getByRole("complementary", { name: "Lens" })).toContainText("the app showed “Choose a town”; the design shows “Sign in”.");
  site.stop();
});

test("a log is read in the page, and bad lines are named", async ({ page }) => {
  await opened(page);
  await page.getByLabel("Lens", { exact: true }).selectOption("followed");
  const log = `${readFileSync("examples/bandstand/logs/evening.jsonl", "utf8")}what?\n`;
  await page.getByLabel("Read a log…").setInputFiles({ name: "evening.jsonl", mimeType: "application/json", buffer: Buffer.from(log) });
  await expect(page.getByTestId("followed")).toContainText("22 entries in 2 runs; it follows the design");
  await expect(page.getByRole("alert")).toContainText("Line 23");
});

test("a project can be kept in a file that the browser lets be chosen", async ({ page }) => {
  // The picker is the browser's own and cannot be pressed; the file that it would give is a real one.
  await page.addInitScript(() => {
    const files = navigator.storage as unknown as { getDirectory(): Promise<{ getFileHandle(name: string, options: object): Promise<unknown> }> };
    Object.assign(window, { showSaveFilePicker: async () => (await files.getDirectory()).getFileHandle("tea.etape.json", { create: true }) });
  });
  await openEmpty(page, "Kettle");
  await page.keyboard.press("Control+k");
  await page.keyboard.type("keep in a file");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("file")).toHaveText("tea.etape.json ✓");
  await page.getByLabel("Find or add a screen").fill("Cup");
  await page.getByLabel("Find or add a screen").press("Enter");
  const inFile = () =>
    page.evaluate(async () => {
      const root = (await navigator.storage.getDirectory()) as unknown as { getFileHandle(name: string): Promise<{ getFile(): Promise<File> }> };
      // While another one takes its place there is none for a moment.
      const file = await root.getFileHandle("tea.etape.json").catch(() => undefined);
      return (await file?.getFile().catch(() => undefined))?.text() ?? "";
    });
  let text = "";
  await expect
    .poll(async () => {
      text = await inFile();
      return text;
    })
    .toContain('"Cup"');
  const read = readProject(text);
  expect(read.ok && writeProject(read.project)).toBe(text);
  await page.reload();
  await expect(page.getByTestId("file")).toHaveText("tea.etape.json ✓");
});

test("a project that is in the browser alone says so after many edits, until it is exported", async ({ page }) => {
  await openEmpty(page, ...Array.from({ length: 30 }, (_, i) => `Room ${i + 1}`));
  await expect(page.getByTestId("exported")).toHaveText("never exported");
  const downloading = page.waitForEvent("download");
  await page.getByRole("banner").getByRole("button", { name: "Export" }).click();
  await downloading;
  await expect(page.getByTestId("exported")).toHaveCount(0);
  await page.getByRole("link", { name: "Etape: all projects" }).click();
  await expect(page.getByText(/^exported /)).toBeVisible();
});
