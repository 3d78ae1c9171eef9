import { typeInPalette } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const open = async (page: Page) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await expect(page.locator("[data-card][data-place=hive]")).toBeVisible();
};
const empty = async (page: Page, ...screens: string[]) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  for (const name of screens) {
    await page.getByLabel("Find or add a screen").fill(name);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("treeitem", { name })).toBeVisible();
  }
};
const tree = (page: Page) =>
  page.getByRole("treeitem").evaluateAll((rows) => rows.map((row) => `${row.getAttribute("aria-level")} ${row.querySelector("span")?.textContent}`));
const item = (page: Page, name: string) => page.getByRole("treeitem", { name: new RegExp(`^${name}( |$)`) }).first();
const inspector = (page: Page) => page.getByLabel("Inspector");

test("a leg that was just made can go another way by a digit, and Escape takes it back", async ({ page }) => {
  await open(page);
  await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
  await page.keyboard.press("l");
  await page.keyboard.type("queen");
  await expect(page.getByRole("dialog")).toContainText("Pushes “Queen” on top of “Hive”");
  await page.keyboard.press("Enter");
  const made = page.getByLabel("The leg that was just made");
  await expect(made).toContainText("Pushes “Queen” on top of “Hive”");
  await page.keyboard.press("3");
  await expect(inspector(page).getByRole("radio", { checked: true })).toContainText("replace");
  await page.getByRole("button", { name: /^Undo: Another way/ }).click();
  await expect(inspector(page).getByRole("radio", { checked: true })).toContainText("push");
  await page.locator("[data-card][data-place=hive] [data-row=queen]").click();
  await page.keyboard.press("l");
  await page.keyboard.type("rota");
  await page.keyboard.press("Enter");
  await expect(made).toBeVisible();
  await page.keyboard.press("Escape");
  await page.locator("[data-card][data-place=hive] [data-row=queen]").click();
  await expect(inspector(page)).toContainText("Lead somewhere…");
});

test("a target is picked on the map and in the outline while one is looked for, and a new modal goes around a screen", async ({ page }) => {
  await open(page);
  await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
  await page.keyboard.press("l");
  await page.locator("[data-card][data-place=notes] .card-name").click();
  await expect(page.getByLabel("The leg that was just made")).toContainText("Pushes “Notes” on top");
  await page.keyboard.press("Escape");
  await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
  await page.keyboard.press("l");
  await item(page, "Granted").click();
  await expect(page.getByLabel("The leg that was just made")).toContainText("“Granted”");
  await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
  await page.keyboard.press("l");
  await page.keyboard.type("queen");
  await page.getByRole("option", { name: /new modal around “Queen”/ }).click();
  await expect(page.getByLabel("The leg that was just made")).toContainText("Opens “Queen sheet” over the page");
  expect(await tree(page)).toContain("2 Queen");
});

test("what is copied in one project is pasted into another, and what is lost is said", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await open(page);
  await item(page, "Notes").click();
  await page.keyboard.press("Control+c");
  await expect(page.getByRole("status").filter({ hasText: "Copied 1 screen" })).toBeVisible();
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await item(page, "Home").click();
  await page.keyboard.press("Control+v");
  await expect(page.getByRole("status").filter({ hasText: "Pasted 1 screen" })).toContainText(/is lost: there is no/);
  await expect(item(page, "Notes")).toBeVisible();
  await page.getByRole("button", { name: /^Undo: Paste/ }).click();
  await expect(item(page, "Notes")).toHaveCount(0);
});

test("an element is pasted onto several screens at once, and found again as copies to describe once", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await empty(page, "List", "Detail", "Help");
  await item(page, "Home").click();
  await expect(inspector(page).getByLabel("Name", { exact: true })).toBeVisible();
  await page.keyboard.press("e");
  await page.keyboard.type("Help me");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Help");
  await page.keyboard.press("Enter");
  await page.locator("[data-card] [data-row=helpMe]").click();
  await page.keyboard.press("Control+c");
  await item(page, "List").click();
  await item(page, "Detail").click({ modifiers: ["Control"] });
  await page.keyboard.press("Control+v");
  await expect(page.locator("[data-card] [data-row=helpMe]")).toHaveCount(3);
  await page.locator("[data-card][data-place=list] [data-row=helpMe]").click();
  await expect(inspector(page)).toContainText("The same stands on 2 other screens");
  await inspector(page)
    .getByRole("button", { name: /describe it once/ })
    .click();
  await expect(page.locator("[data-card] [data-row=helpMe]")).toHaveCount(0);
  await expect(page.locator("[data-band] [data-row=helpMe]")).toHaveCount(1);
  await expect(page.getByTestId("device").getByRole("button", { name: "Help me" })).toBeVisible();
  await inspector(page).getByRole("button", { name: "Put it on each screen by itself" }).click();
  await expect(page.locator("[data-card] [data-row=helpMe]")).toHaveCount(3);
});

test("the outline by keyboard: several chosen, into a stack and out again, reordered, renamed, ids too", async ({ page }) => {
  await empty(page, "One", "Two", "Three");
  await item(page, "Two").click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("g");
  await page.keyboard.press("s");
  await page.keyboard.type("Flow");
  await page.keyboard.press("Enter");
  expect(await tree(page)).toEqual(["1 Main", "2 Home", "2 One", "2 Flow", "3 Two", "3 Three"]);
  await item(page, "Three").click();
  await page.keyboard.press("Alt+ArrowUp");
  await expect.poll(() => tree(page)).toEqual(["1 Main", "2 Home", "2 One", "2 Flow", "3 Three", "3 Two"]);
  await page.keyboard.press("Alt+ArrowLeft");
  await expect.poll(() => tree(page)).toEqual(["1 Main", "2 Home", "2 One", "2 Flow", "3 Two", "2 Three"]);
  await page.keyboard.press("Alt+ArrowRight");
  await expect.poll(() => tree(page)).toEqual(["1 Main", "2 Home", "2 One", "2 Flow", "3 Two", "3 Three"]);
  await page.keyboard.press("F2");
  await page.keyboard.type("Third");
  await page.keyboard.press("Enter");
  await expect(item(page, "Third")).toBeVisible();
  await inspector(page).getByRole("button", { name: "Change the id three" }).click();
  await inspector(page)
    .getByLabel(/^Id; it follows/)
    .fill("one");
  await expect(inspector(page)).toContainText("“one” is taken.");
  await inspector(page)
    .getByLabel(/^Id; it follows/)
    .fill("third");
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-card][data-place=third]")).toBeVisible();
  await item(page, "Flow").click();
  await page.getByRole("button", { name: /Take the container away/ }).click();
  await expect.poll(() => tree(page)).toEqual(["1 Main", "2 Home", "2 One", "2 Two", "2 Third"]);
});

test("a place is dragged in the outline to where it belongs", async ({ page }) => {
  await empty(page, "One", "Two", "Three");
  await item(page, "Three").dragTo(item(page, "One"), { targetPosition: { x: 60, y: 3 } });
  await expect.poll(() => tree(page)).toEqual(["1 Main", "2 Home", "2 Three", "2 One", "2 Two"]);
});

test("what if: the ways side by side with what Back does and which findings come; a digit takes one", async ({ page }) => {
  await open(page);
  await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
  await inspector(page)
    .getByRole("button", { name: /on top of/ })
    .click();
  await page.keyboard.press("i");
  const sheet = page.getByRole("dialog");
  const way = (name: string) => sheet.getByRole("row").filter({ hasText: name });
  await expect(way("replace")).toContainText("to “Apiaries”");
  await expect(way("reset")).toContainText("leaves the app");
  await expect(sheet).not.toContainText("looking…");
  await expect(way("reset")).toContainText("Back leaves the app from");
  await page.keyboard.press("3");
  await expect(sheet).toBeHidden();
  await expect(inspector(page).getByRole("radio", { checked: true })).toContainText("replace");
});

test("focus shows one screen's legs, a path, a kind and a lane, and the palette jumps", async ({ page }) => {
  await open(page);
  await item(page, "Hive").click();
  await page.keyboard.press("v");
  await page.keyboard.press("l");
  await expect(page.getByText("only the legs of “Hive”")).toBeVisible();
  await expect(page.locator("[data-card][data-place=swap]")).toHaveAttribute("opacity", "0.28");
  await expect(page.locator("[data-card][data-place=notes]")).not.toHaveAttribute("opacity", /.*/);
  await page.getByLabel("Show everything").click();
  await item(page, "Apiaries").click();
  await item(page, "Mite count").click({ modifiers: ["Control"] });
  await inspector(page)
    .getByRole("button", { name: /Only a path between/ })
    .click();
  await expect(page.getByText("only the path from “Apiaries” to “Mite count”")).toBeVisible();
  await expect(page.locator(".map-line")).toHaveCount(2);
  await typeInPalette(page, "over the page");
  await page.keyboard.press("Enter");
  await expect(page.getByText("only what opens over the page")).toBeVisible();
  await typeInPalette(page, "goodbye");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("treeitem", { name: "Goodbye", selected: true })).toBeVisible();
  await expect(page.getByRole("treeitem", { selected: true })).toHaveCount(1);
});

test("a focus that is asked for before its code is there is drawn when that comes", async ({ page }) => {
  let release: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route(/\/assets\/focus-.*\.js$/, async (route) => {
    await held;
    await route.continue();
  });
  await open(page);
  await item(page, "Hive").click();
  await page.keyboard.press("v");
  await page.keyboard.press("l");
  await expect(page.getByText("only the legs of “Hive”")).toBeVisible();
  const swap = page.locator("[data-card][data-place=swap]");
  await expect(swap).not.toHaveAttribute("opacity", /.*/);
  release();
  await expect(swap).toHaveAttribute("opacity", "0.28");
});

test("a motion is chosen, carries what is pointed at, and plays; a fact is added and asked about", async ({ page }) => {
  await open(page);
  await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
  await inspector(page)
    .getByRole("button", { name: /on top of/ })
    .click();
  await inspector(page).getByText("Motion", { exact: true }).first().click();
  await inspector(page).getByLabel("What comes").selectOption("fade");
  await inspector(page)
    .getByRole("button", { name: /Carry an element/ })
    .click();
  await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
  await expect(inspector(page)).toContainText("Now point at where it arrives, on “Notes”.");
  await page.locator("[data-card][data-place=notes] [data-row]").first().click();
  await expect(inspector(page)).toContainText("Photo moves onto");
  await inspector(page).getByRole("button", { name: "Play it, there and back" }).click();
  await typeInPalette(page, "facts");
  await page.keyboard.press("Enter");
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("A new fact").fill("has paid");
  await page.keyboard.press("Enter");
  await expect(sheet).toContainText("set by 0, asked by 0");
  await page.keyboard.press("Escape");
  await inspector(page).getByLabel("Only if").fill("fact.hasPaid");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Inspector").getByLabel("Only if")).not.toHaveAttribute("aria-invalid", "true");
});

test("stand-ins are counted and changed in bulk; deleting several says what else goes", async ({ page }) => {
  await empty(page, "One", "Two");
  await item(page, "One").click();
  await item(page, "Two").click({ modifiers: ["Control"] });
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "2 planned" }).click();
  await expect(inspector(page)).toContainText("2 chosen");
  await inspector(page)
    .getByRole("button", { name: /Only planned, or real/ })
    .click();
  await expect(page.getByRole("button", { name: /planned$/ })).toHaveCount(0);
  await page.keyboard.press("Delete");
  await expect(page.getByRole("dialog")).toContainText("One, Two");
  await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
  expect(await tree(page)).toEqual(["1 Main", "2 Home"]);
});

test("a leg is drawn by touch", async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
  const page = await context.newPage();
  await open(page);
  const from = await page.locator("[data-card][data-place=hive] [data-row=photo]").boundingBox();
  const to = await page.locator("[data-card][data-place=notes]").boundingBox();
  if (!from || !to) throw new Error("both cards are on the map");
  const session = await context.newCDPSession(page);
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", x: number, y: number) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x, y }] });
  const [x, y] = [from.x + from.width - 10, from.y + from.height / 2];
  await touch("touchStart", x, y);
  for (let i = 1; i <= 8; i++) await touch("touchMove", x + ((to.x + 40 - x) * i) / 8, y + ((to.y + 12 - y) * i) / 8);
  await touch("touchEnd", 0, 0);
  await expect(page.getByLabel("The leg that was just made")).toContainText("Pushes “Notes” on top of “Hive”");
  await context.close();
});
