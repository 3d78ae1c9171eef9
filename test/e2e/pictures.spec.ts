import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { strFromU8, unzipSync } from "fflate";
import { writeProject } from "../../src/core/model/write.ts";
import { packed } from "../../src/core/pictures/zip.ts";
import { pngOf } from "../pictures/png.ts";
import { documentOf } from "./open.ts";
import { expect, type Locator, type Page, test } from "./test.ts";

/** A picture of a screen with a bar, a button and two rows, where the area of the button is to be. */
const BUTTON = [20, 300, 350, 60] as const;
const screenshot = (shade = 40, height = 844) =>
  pngOf(
    390,
    height,
    [246, 243, 236],
    [
      { at: [0, 0, 390, 90], colour: [40, shade, 120] },
      { at: BUTTON, colour: [200, 90, shade] },
      { at: [20, 420, 350, 64], colour: [255, 255, 255] },
    ],
  );
const file = (name: string, buffer: Buffer = screenshot()) => ({ name, mimeType: "image/png", buffer });

/** Chooses pictures from the view of pictures, as from the disk. */
async function choose(page: Page, button: string, files: ReturnType<typeof file>[]) {
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: button }).click()]);
  await chooser.setFiles(files);
}

async function begin(page: Page, ...names: string[]) {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await page.getByRole("link", { name: "Pictures" }).click();
  await choose(
    page,
    "Choose pictures…",
    names.map((name, i) => file(name, screenshot(40 + 10 * i))),
  );
  await expect(strip(page).getByRole("button")).toHaveCount(names.length);
}

const strip = (page: Page) => page.getByRole("list", { name: "Screens" });
const device = (page: Page) => page.getByTestId("device");

/** Drags over a place of the picture, roughly; in pixels of the picture. */
async function drag(page: Page, [x, y, w, h]: readonly [number, number, number, number], off = 4) {
  const picture = page.getByTestId("picture");
  await expect(picture.locator("img")).toHaveJSProperty("complete", true);
  // Sides snap to edges once those are known.
  await expect(picture).toHaveAttribute("data-edges", "known");
  const box = await picture.boundingBox();
  if (!box) throw new Error("there is a picture");
  const scale = box.width / 390;
  await page.mouse.move(box.x + (x + off) * scale, box.y + (y - off) * scale);
  await page.mouse.down();
  await page.mouse.move(box.x + (x + w / 2) * scale, box.y + (y + h / 2) * scale);
  await page.mouse.move(box.x + (x + w - off) * scale, box.y + (y + h + off) * scale, { steps: 3 });
  await page.mouse.up();
}

/** Says what an area is and where it leads, by typing. */
async function say(page: Page, name: string, to?: string) {
  const form = page.getByRole("dialog", { name: "What is in this area?" });
  await expect(form.getByPlaceholder(/^a name/)).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  if (to === undefined) return expect(form).toBeHidden();
  await expect(form).toContainText(`Where does “${name}” lead?`);
  await page.keyboard.type(to);
  await expect(form.locator("[cmdk-item]").first()).toContainText(new RegExp(to, "i"));
  await page.keyboard.press("Enter");
  await expect(form).toBeHidden();
}

test("ten pictures become an app that is walked on them and proved, drawing over one button each", async ({ page }) => {
  const names = ["Start", "Menu", "Dish", "Basket", "Address", "Pay", "Paid", "Orders", "Order", "Help"];
  await begin(page, ...names.map((name, i) => `${String(i + 1).padStart(2, "0")} ${name}.png`));
  for (const [i, name] of names.entries()) {
    const next = names[i + 1];
    await strip(page).getByRole("button", { name, exact: true }).click();
    await expect(page.getByRole("region", { name: "Pictures" }).getByRole("heading", { level: 2 })).toHaveText(name);
    await drag(page, BUTTON);
    await say(page, "Go on", next ?? names[0]);
    await expect(page.getByTestId("picture").getByRole("button", { name: "Area for Go on" })).toBeVisible();
  }
  for (const name of names.slice(1)) {
    await device(page).getByRole("button", { name: "Go on" }).click();
    await expect(device(page).getByRole("img", { name, exact: true })).toBeVisible();
  }
  await expect(page.getByTestId("proof")).toContainText("Proved");
  const project = await documentOf(page);
  // Drawn by hand, the area lies on the edges of the button.
  for (const screen of project.screens) expect(screen.pictures?.[0]?.areas.map(({ at }) => at)).toEqual([[...BUTTON]]);
  expect(project.legs).toHaveLength(10);
  await page.getByRole("link", { name: "Map" }).click();
  await expect(page.locator("[data-card] image")).toHaveCount(10);
});

test("a control on all pictures alike is one, drawn once and moved together, by keys too; undone step by step", async ({ page }) => {
  await begin(page, "Home.png", "List.png", "One.png");
  await strip(page).getByRole("button", { name: "List", exact: true }).click();
  await drag(page, BUTTON);
  const form = page.getByRole("dialog", { name: "What is in this area?" });
  await form.getByLabel("Put it on").selectOption({ label: "all 3 of this size in Main, kept together" });
  await form.getByRole("combobox", { name: "What is in this area?" }).click();
  await say(page, "Help", "Help");
  await expect(device(page).getByRole("button", { name: "Help" })).toBeVisible();
  const areas = async () => (await documentOf(page)).screens.flatMap((s) => s.pictures?.map(({ areas: [one] }) => one?.at[0]) ?? []);
  expect(await areas()).toEqual([20, 20, 20]);
  const area = page.getByTestId("picture").getByRole("button", { name: "Area for Help" });
  await area.click();
  await area.press("ArrowRight");
  await area.press("Shift+ArrowRight");
  await expect.poll(areas).toEqual([31, 31, 31]);
  await page.getByRole("checkbox", { name: /^Only here/ }).check();
  await area.press("ArrowLeft");
  await expect.poll(areas).toEqual([31, 30, 31]);
  await area.press("Delete");
  await expect(area).toHaveCount(0);
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(areas).toEqual([20, 20, 20]);
});

test("an area is drawn by a finger", async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, reducedMotion: "reduce", viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await begin(page, "Home.png", "List.png");
  await expect(page.getByTestId("picture")).toHaveAttribute("data-edges", "known");
  const box = await page.getByTestId("picture").boundingBox();
  if (!box) throw new Error("there is a picture");
  const scale = box.width / 390;
  const session = await context.newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", x = 0, y = 0) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x: box.x + x * scale, y: box.y + y * scale }] });
  const [x, y, w, h] = BUTTON;
  await touch("touchStart", x + 3, y - 4);
  for (let i = 1; i <= 6; i++) await touch("touchMove", x + (w * i) / 6, y + ((h + 3) * i) / 6);
  await touch("touchEnd");
  await say(page, "Go on", "List");
  expect((await documentOf(page)).screens[0]?.pictures?.[0]?.areas.map(({ at }) => at)).toEqual([[...BUTTON]]);
  await context.close();
});

test("an area is moved and sized by the pointer, given another control, and one over what has none is offered it", async ({ page }) => {
  await begin(page, "Home.png", "List.png");
  await strip(page).getByRole("button", { name: "Home", exact: true }).click();
  await page.getByRole("button", { name: "Give Back, Up or the menu an area" }).click();
  const area = page.getByTestId("picture").getByRole("button", { name: "Area for Back, Up or the menu" });
  await area.click();
  const at = async () => (await documentOf(page)).screens[0]?.pictures?.[0]?.areas.map((one) => `${one.control} ${one.at.join(" ")}`);
  const [before] = (await at()) ?? [];
  await page.getByRole("checkbox", { name: "Snap to edges" }).uncheck();
  const box = await area.boundingBox();
  if (!box) throw new Error("the area is drawn");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 20, box.y + box.height / 2 + 30, { steps: 4 });
  await page.mouse.up();
  await expect.poll(at).not.toEqual([before]);
  const [moved] = (await at()) ?? [];
  const grip = page.locator("[data-grip=se]");
  const corner = await grip.boundingBox();
  if (!corner) throw new Error("the area has grips");
  await page.mouse.move(corner.x + 8, corner.y + 8);
  await page.mouse.down();
  await page.mouse.move(corner.x + 28, corner.y + 18, { steps: 4 });
  await page.mouse.up();
  await expect.poll(at).not.toEqual([moved]);
  const [sized] = (await at()) ?? [];
  expect(sized?.split(" ").slice(0, 3)).toEqual(moved?.split(" ").slice(0, 3));
  await page.getByLabel("x", { exact: true }).fill("12");
  await page.getByLabel("x", { exact: true }).press("Tab");
  await expect.poll(async () => (await at())?.[0]).toMatch(/^lead 12 /);

  await page.getByRole("textbox", { name: "Add a button, a list…" }).or(page.getByPlaceholder("Add a button, a list…")).first().fill("Search");
  await page.keyboard.press("Enter");
  await drag(page, BUTTON);
  const form = page.getByRole("dialog", { name: "What is in this area?" });
  await expect(form.getByRole("option").first()).toContainText("Search");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("picture").getByRole("button", { name: "Area for Search" })).toBeVisible();
  await page.getByTestId("picture").getByRole("button", { name: "Area for Search" }).click();
  await page.getByLabel("It stands for").selectOption("lead");
  await expect.poll(async () => (await at())?.map((one) => one.split(" ")[0])).toEqual(["lead", "lead"]);
});

test("a new version replaces a picture by name and says what no longer fits; undo brings the old one back; the dark goes beside it", async ({ page }) => {
  await begin(page, "Home.png", "List.png");
  await strip(page).getByRole("button", { name: "Home", exact: true }).click();
  await drag(page, [20, 640, 350, 60]);
  await say(page, "Go on", "List");
  const natural = () =>
    page
      .getByTestId("picture")
      .locator("img")
      .evaluate((img: HTMLImageElement) => img.naturalHeight);
  await choose(page, "Add pictures…", [file("home.png", screenshot(90, 600))]);
  await expect(page.getByText('One area of "Home" no longer fits its new picture.')).toBeVisible();
  await expect.poll(natural).toBe(600);
  await expect(page.getByTestId("foot").or(page.locator("footer")).first()).toContainText(/1 warning|outside the picture/);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(natural).toBe(844);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect.poll(natural).toBe(600);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await choose(page, "Add pictures…", [file("Home dark.png", screenshot(10))]);
  await expect(page.getByRole("radiogroup", { name: "Picture" }).getByRole("radio")).toHaveCount(2);
  // The dark one is replaced while it is the one that shows, whatever the file is called.
  await page.getByRole("radiogroup", { name: "Picture" }).getByRole("radio", { name: /dark/ }).click();
  await choose(page, "Replace…", [file("IMG_7.png", screenshot(20))]);
  await expect.poll(async () => (await documentOf(page)).screens[0]?.pictures?.map((p) => p.file)).toEqual(["home.png", "home-dark-2.png"]);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(async () => (await documentOf(page)).screens[0]?.pictures?.map((p) => p.file)).toEqual(["home.png", "home-dark.png"]);
  const [home] = (await documentOf(page)).screens;
  expect(home?.pictures?.map((p) => [p.file, p.dark, p.areas.length])).toEqual([
    ["home.png", undefined, 1],
    ["home-dark.png", true, 1],
  ]);
});

test("what is no picture, or one of too many pixels, is refused with a sentence, and the rest is taken in", async ({ page }) => {
  await begin(page, "Home.png");
  const bomb = screenshot();
  bomb.writeUInt32BE(50_000, 16);
  const cut = screenshot();
  await choose(page, "Add pictures…", [
    file("Good.png"),
    file("Bomb.png", bomb),
    file("Drawing.png", Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="document.title=1"/>')),
    file("Text.png", Buffer.from("hello")),
    file("Huge.png", Buffer.alloc(5 * 2 ** 20)),
    file("Damaged.png", cut.subarray(0, 60)),
  ]);
  const told = page.getByRole("status").filter({ hasText: "Taken in" });
  await expect(told).toContainText("one new screen");
  for (const says of [
    "Bomb.png: It is 50000 × 844 pixels; a picture may have 4096 a side.",
    "Drawing.png: It is an SVG",
    "Text.png: It is no PNG, JPEG, WebP or AVIF.",
    "Huge.png: It has 5.0 MiB; a picture may have 4.",
    "Damaged.png: It is damaged",
  ])
    await expect(told).toContainText(says);
  expect((await documentOf(page)).screens.map(({ name }) => name)).toEqual(["Home", "Good"]);
});

test("pictures are dropped onto the map, pasted, and seen in another window; where there is no room that is said first", async ({ page, context }) => {
  await begin(page, "Home.png");
  const other = await context.newPage();
  await other.goto(page.url());
  const transfer = (at: Page, name: string) =>
    at.evaluateHandle(
      ([label, data]) => {
        const made = new DataTransfer();
        made.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], label, { type: "image/png" }));
        return made;
      },
      [name, screenshot().toString("base64")] as const,
    );
  await page.getByRole("link", { name: "Map" }).click();
  await page.locator("[data-card]").first().waitFor();
  await page.getByRole("main").dispatchEvent("drop", { dataTransfer: await transfer(page, "List.png") });
  await expect(page.locator("[data-card][data-place=list] image")).toHaveCount(1);
  await page.locator("[data-card][data-place=list]").dispatchEvent("drop", { dataTransfer: await transfer(page, "Home-wide.png") });
  await expect.poll(async () => (await documentOf(page)).screens[1]?.pictures?.length).toBe(2);
  // The chosen screen has a picture: what is pasted is a screen of its own, and the next one another.
  for (const count of [3, 4]) {
    await page.evaluate(
      (made) => document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: made as DataTransfer, bubbles: true, cancelable: true })),
      await transfer(page, "image.png"),
    );
    await expect.poll(async () => (await documentOf(page)).screens.length).toBe(count);
  }
  expect((await documentOf(page)).screens.map((s) => [s.name, s.pictures?.length])).toEqual([
    ["Home", 1],
    ["List", 2],
    ["Screen 1", 1],
    ["Screen 2", 1],
  ]);
  await expect(strip(other).getByRole("button")).toHaveCount(4);
  await expect(strip(other).locator("img")).toHaveCount(4);
  await page.evaluate(() => {
    navigator.storage.estimate = async () => ({ usage: 100, quota: 200 });
  });
  await page.getByRole("main").dispatchEvent("drop", { dataTransfer: await transfer(page, "More.png") });
  await expect(page.getByText(/This browser has room for 0 MiB more/)).toBeVisible();
  expect((await documentOf(page)).screens).toHaveLength(4);
});

test("screens that are copied into another project take their pictures along, under another name where theirs is taken", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await begin(page, "Home.png", "List.png");
  const two = await context.newPage();
  await begin(two, "List.png");
  await page.bringToFront();
  await page.getByRole("treeitem", { name: /^List/ }).click();
  await page.keyboard.press("Control+c");
  await expect(page.getByText(/^Copied/)).toBeVisible();
  await two.bringToFront();
  await two.getByRole("treeitem", { name: /^List/ }).click();
  await two.keyboard.press("Control+v");
  await expect(two.getByText("One picture came along.")).toBeVisible();
  await expect.poll(async () => (await documentOf(two)).screens.map((s) => s.pictures?.[0]?.file)).toEqual(["list.png", "list-2.png"]);
  await expect(strip(two).locator("img")).toHaveCount(2);
});

test("what a picture shows, for which widths and for the dark is said beside it; and a picture is deleted", async ({ page }) => {
  await begin(page, "Home.png", "List.png");
  await strip(page).getByRole("button", { name: "Home", exact: true }).click();
  await expect(device(page).getByRole("heading", { name: "Home" })).toHaveCount(0);
  await page.getByLabel("What the picture shows").selectOption("body");
  await expect(device(page).getByRole("heading", { name: "Home" })).toBeVisible();
  await page.getByLabel("Widths that the picture is for").selectOption("wide");
  await page.getByLabel("For the dark").check();
  const pictures = async () => (await documentOf(page)).screens[0]?.pictures;
  expect(await pictures()).toMatchObject([{ file: "home.png", holds: "body", for: "wide", dark: true }]);
  await page.getByRole("button", { name: "Delete picture" }).click();
  await expect(page.getByRole("heading", { name: "“Home” has no picture" })).toBeVisible();
  expect(await pictures()).toBeUndefined();
});

test("a document goes out with its pictures as one file, and comes in again with them", async ({ page }) => {
  await begin(page, "Home.png", "List.png");
  const downloading = page.waitForEvent("download");
  await page.getByRole("banner").getByRole("button", { name: "Export" }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toBe("new-app.etape.zip");
  const path = join(mkdtempSync(join(tmpdir(), "etape-zip-")), "new-app.etape.zip");
  await download.saveAs(path);
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles(path);
  await expect(device(page).getByRole("img", { name: "Home" })).toBeVisible();
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({ name: "x.zip", mimeType: "application/zip", buffer: Buffer.from("no zip at all") });
  await expect(page.getByRole("alert")).toContainText("It is no zip that can be read");
});

test("a project is replaced by a file with other pictures of the same names, and taken back with its own", async ({ page }) => {
  await begin(page, "Home.png", "List.png");
  const zip = packed({
    name: "other",
    text: writeProject(await documentOf(page)),
    pictures: new Map([["home.png", new Uint8Array(screenshot(90, 700))]]),
  });
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByLabel("Replace with a file…").setInputFiles({ name: "other.etape.zip", mimeType: "application/zip", buffer: Buffer.from(zip) });
  await expect(page.getByText(/^Replace with other\.etape\.zip/)).toBeVisible();
  const files = async () => (await documentOf(page)).screens.map((s) => s.pictures?.[0]?.file);
  await expect.poll(files).toEqual(["home-2.png", "list.png"]);
  await page.getByRole("button", { name: "Take back" }).first().click();
  await expect.poll(files).toEqual(["home.png", "list.png"]);
});

async function openDemo(page: Page): Promise<Locator> {
  await page.goto("/");
  await page.getByRole("button", { name: "Oddglove" }).click();
  await expect(page.getByTestId("proof")).toContainText("Proved");
  return device(page);
}

test("the walk runs on the pictures: a tap beside says so, rows, fields, tabs, the drawer, a sheet and a dialog are used on them", async ({ page }) => {
  const app = await openDemo(page);
  await expect(app.getByRole("img", { name: "Welcome" })).toBeVisible();
  await app.getByRole("img", { name: "Welcome" }).click({ position: { x: 20, y: 20 } });
  await expect(page.getByText("Nothing works there")).toBeVisible();
  await app.getByRole("button", { name: "Begin" }).click();
  await expect(app).toHaveAttribute("data-screen", "finds2");
  // Bars and tabs are on the picture, and drawn once.
  await expect(app.getByRole("navigation")).toHaveCount(0);
  await app.getByRole("button", { name: /Small brass key/ }).click();
  await app.getByRole("button", { name: "It is mine" }).click();
  await expect(app.locator("[data-layer] img")).toHaveCount(1);
  await expect(app.locator("[data-area=send]")).toBeDisabled();
  await app.getByRole("textbox", { name: "What only its owner knows" }).fill("a notch");
  await app.locator("[data-area=send]").click();
  await expect(app.locator("[data-layer]")).toHaveCount(0);
  await expect(app.getByRole("button", { name: "Finds", exact: true })).toHaveAttribute("aria-current", "page");
  await app.getByRole("button", { name: "Report", exact: true }).click();
  await expect(app).toHaveAttribute("data-screen", "report2");
  await app.getByRole("switch", { name: "Tell me of new finds" }).click();
  await expect(app.getByRole("switch", { name: "Tell me of new finds" })).toHaveAttribute("aria-checked", "true");
  await app.getByRole("button", { name: "Menu" }).click();
  await app.getByRole("button", { name: "Opening hours" }).click();
  // Of this one the picture is what is between the bars.
  await expect(app).toHaveAttribute("data-screen", "openingHours");
  await expect(app.getByRole("heading", { name: "Opening hours" })).toBeVisible();
  await page.getByRole("button", { name: "From start" }).click();
  await app.getByRole("button", { name: "Begin" }).click();
  await page.getByLabel("width").selectOption("wide");
  await expect(app.locator("[data-area='pick:settings']")).toBeVisible();
  await app.locator("[data-area='pick:settings']").click();
  await expect(app).toHaveAttribute("data-screen", "settings");
});

test("the prototype opens from disk with the pictures in it, in the dark with the dark ones", async ({ browser }) => {
  const folder = mkdtempSync(join(tmpdir(), "etape-pictured-"));
  execFileSync(process.execPath, ["bin/etape.mjs", "gen", "demo/oddglove.etape.json", "--to", "prototype", "--out", folder], { stdio: "pipe" });
  const ground = async (colorScheme: "light" | "dark") => {
    const context = await browser.newContext({
      offline: true,
      reducedMotion: "reduce",
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
      colorScheme,
    });
    const page = await context.newPage();
    await page.goto(pathToFileURL(join(folder, "prototype.html")).href);
    await device(page).getByRole("button", { name: "Begin" }).tap();
    await device(page)
      .getByRole("button", { name: /Tartan umbrella/ })
      .tap();
    await expect(device(page)).toHaveAttribute("data-screen", "find");
    const src = await device(page).getByRole("img", { name: "Find", exact: true }).getAttribute("src");
    await context.close();
    return src ?? "";
  };
  const [light, dark] = [await ground("light"), await ground("dark")];
  expect(light).toMatch(/^data:image\/png/);
  expect(dark).toMatch(/^data:image\/png/);
  expect(dark).not.toBe(light);
});

test("the hand-off tells how large the prototype is, and makes it smaller", async ({ page }) => {
  await openDemo(page);
  await page.getByRole("link", { name: "Hand-off" }).click();
  // All of it as a zip has the pictures, though what is looked at has none.
  await page.getByRole("button", { name: /^TypeScript/ }).click();
  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download all as a zip" }).click();
  const files = unzipSync(readFileSync(await (await downloading).path()));
  expect(strFromU8(files["prototype.html"] ?? new Uint8Array()).match(/data:image\/(webp|png)/g)?.length).toBe(26);
  await page.getByRole("button", { name: /^Prototype/ }).click();
  const size = page.getByText(/prototype\.html is [\d.]+ MB with 26 pictures/);
  await expect(size).toBeVisible();
  const told = async () => Number(/is ([\d.]+) MB/.exec((await size.textContent()) ?? "")?.[1]);
  const medium = await told();
  await page.getByLabel("Pictures").selectOption("260");
  await expect.poll(told).toBeLessThan(medium);
});

let server: ChildProcess | undefined;
test.afterEach(() => server?.kill());

test("beside an open file: pictures come from its folder, changes there come in, and new ones are put there", async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), "etape-open-pictures-"));
  cpSync("demo/oddglove.etape.json", join(folder, "oddglove.etape.json"));
  cpSync("demo/oddglove.pictures", join(folder, "oddglove.pictures"), { recursive: true });
  server = spawn(process.execPath, ["bin/etape.mjs", "open", join(folder, "oddglove.etape.json"), "--port", "0"], { stdio: ["ignore", "pipe", "ignore"] });
  const address = await new Promise<string>((done) => {
    let text = "";
    server?.stdout?.on("data", (data: Buffer) => {
      text += data.toString();
      const [first] = text.match(/http:\S+\n/) ?? [];
      if (first) done(first.trim());
    });
  });
  await page.goto(address);
  await expect(device(page).getByRole("img", { name: "Welcome" })).toBeVisible();
  const height = () =>
    device(page)
      .getByRole("img", { name: "Welcome" })
      .evaluate((img: HTMLImageElement) => img.naturalWidth);
  expect(await height()).toBe(585);
  writeFileSync(join(folder, "oddglove.pictures", "welcome.png"), screenshot());
  await expect.poll(height).toBe(390);
  rmSync(join(folder, "oddglove.pictures", "find.png"));
  await expect(page.locator("footer").or(page.getByTestId("foot")).first()).toContainText(/warning|missing/);
  await page.getByRole("link", { name: "Pictures" }).click();
  await choose(page, "Add pictures…", [file("Lost bicycles.png")]);
  await expect.poll(() => existsSync(join(folder, "oddglove.pictures", "lostBicycles.png"))).toBe(true);
  expect(readFileSync(join(folder, "oddglove.pictures", "lostBicycles.png")).equals(screenshot())).toBe(true);
  await expect.poll(() => readFileSync(join(folder, "oddglove.etape.json"), "utf8")).toContain('"file": "lostBicycles.png"');
});
