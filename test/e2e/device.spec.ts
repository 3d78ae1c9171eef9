import { app } from "../vectors/app.ts";
import { openDocument } from "./open.ts";
import { expect, test } from "./test.ts";

const el = (id: string, kind: string, more = {}) => ({ id, kind, label: id, ...more });

test("images and texts that lead somewhere are used, by tap, long press and key; others are not buttons", async ({ page }) => {
  const gallery = app("main", {
    stacks: { main: "wall photo" },
    screens: { wall: { elements: [el("poster", "image"), el("caption", "text"), el("plain", "image"), el("menu", "image")] } },
    legs: ["poster wall push photo", "caption wall push photo", "menu wall:hold push photo"],
  });
  const device = await openDocument(page, gallery);
  for (const name of ["poster", "caption"]) {
    await device.getByRole("button", { name }).click();
    await expect(device).toHaveAttribute("data-screen", "photo");
    await page.getByRole("button", { name: "← Back" }).click();
  }
  await expect(device.getByRole("img", { name: "plain" })).toBeVisible();
  await expect(device.getByRole("button", { name: "plain" })).toHaveCount(0);
  await device.getByRole("button", { name: "caption" }).press("Enter");
  await expect(device).toHaveAttribute("data-screen", "photo");
  await page.getByRole("button", { name: "← Back" }).click();
  await device.getByRole("button", { name: "menu" }).press("Shift+Enter");
  await expect(device).toHaveAttribute("data-screen", "photo");
  await page.getByRole("button", { name: "← Back" }).click();
  await device.getByRole("button", { name: "menu" }).click({ button: "right" });
  await expect(device).toHaveAttribute("data-screen", "photo");
});

test("what a layer does not block is used, however dimmed; what it blocks is not", async ({ page }) => {
  const shop = (blocks: boolean) =>
    app("main", {
      stacks: { main: "list item" },
      modals: { cart: ["total", { edge: "bottom", extent: "half", blocks, dims: true, closeOn: ["outside"] }] },
      legs: ["show list open cart", "next list push item"],
    });
  const device = await openDocument(page, shop(false));
  await device.getByRole("button", { name: "show" }).click();
  await device.getByRole("button", { name: "next" }).click();
  await expect(page.getByTestId("line")).toHaveText("main[list,item] + cart(total)");
  await device.locator("[data-page='0'] h3").click();
  await expect(page.getByTestId("line")).toHaveText("main[list,item]");
  await openDocument(page, shop(true));
  await device.getByRole("button", { name: "show" }).click();
  const beneath = await device.getByRole("button", { name: "next" }).boundingBox();
  if (!beneath) throw new Error("the button is drawn");
  await page.mouse.click(beneath.x + beneath.width / 2, beneath.y + 5);
  await expect(page.getByTestId("line")).toHaveText("main[list]");
});

test("a drawer has the × that closes it, and one that pushes the page leaves the page's menu button in reach", async ({ page }) => {
  const house = (over: boolean) =>
    app("d", { drawers: { d: ["s t", { over, closeOn: ["button"], bar: { show: true, lead: "menu" } }] }, stacks: { s: "a", t: "b" } });
  const device = await openDocument(page, house(true));
  await device.getByRole("button", { name: "Menu" }).click();
  await expect(page.getByTestId("line")).toHaveText("d{*s[a]}!");
  await device.getByRole("button", { name: "Close d" }).click();
  await expect(page.getByTestId("line")).toHaveText("d{*s[a]}");
  await openDocument(page, house(false));
  await device.getByRole("button", { name: "Menu" }).click();
  await expect(page.getByTestId("line")).toHaveText("d{*s[a]}!");
  await device.getByRole("button", { name: "Menu" }).click();
  await expect(page.getByTestId("line")).toHaveText("d{*s[a]}");
});

test("a field that leads somewhere when tapped is passed by the keyboard, and used by Enter", async ({ page }) => {
  const search = app("main", {
    stacks: { main: "home results" },
    screens: { home: { elements: [el("first", "button"), el("query", "field")] } },
    legs: ["query home push results"],
  });
  const device = await openDocument(page, search);
  await device.locator("button[data-element=first]").focus();
  await page.keyboard.press("Tab");
  await expect(device.locator("input[data-element=query]")).toBeFocused();
  await expect(device).toHaveAttribute("data-screen", "home");
  await page.keyboard.press("Enter");
  await expect(device).toHaveAttribute("data-screen", "results");
  await page.getByRole("button", { name: "← Back" }).click();
  await device.locator("input[data-element=query]").click();
  await expect(device).toHaveAttribute("data-screen", "results");
});

test("one named outcome and a leg for anything else: the device asks which", async ({ page }) => {
  const form = app("main", {
    stacks: { main: "form saved failed" },
    legs: ["saved form:submit(send=saved) push saved", "failed form:submit(send) push failed"],
  });
  const device = await openDocument(page, form);
  await device.getByRole("button", { name: "send" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "anything else" }).click();
  await expect(device).toHaveAttribute("data-screen", "failed");
});

test("text stays with the screen on which it was typed", async ({ page }) => {
  const forms = app("main", {
    stacks: { main: "one two" },
    screens: { one: { elements: [el("name", "field")] }, two: { elements: [el("name", "field")] } },
    legs: ["on one push two"],
  });
  const device = await openDocument(page, forms);
  const field = device.getByLabel("name");
  await field.fill("Ada");
  await device.getByRole("button", { name: "on" }).click();
  await expect(device).toHaveAttribute("data-screen", "two");
  await expect(field).toHaveValue("");
  await page.getByRole("button", { name: "← Back" }).click();
  await expect(field).toHaveValue("Ada");
});

test.describe("time", () => {
  const splash = app("main", { stacks: { main: "splash home tip" }, legs: ["on splash:after(800) reset home", "hint home:after(5000) push tip"] });

  test("passes by itself, can be held, stepped and let go, and waits while steps are looked at", async ({ page }) => {
    await page.clock.install();
    const device = await openDocument(page, splash);
    await page.clock.pauseAt(new Date(Date.now() + 3_600_000));
    await page.getByRole("button", { name: "From start" }).click();
    await expect(device).toHaveAttribute("data-screen", "splash");
    await page.clock.runFor(700);
    await expect(device).toHaveAttribute("data-screen", "splash");
    await page.clock.runFor(200);
    await expect(device).toHaveAttribute("data-screen", "home");
    await page.getByLabel("hold time").check();
    await page.clock.runFor(60_000);
    await expect(device).toHaveAttribute("data-screen", "home");
    const time = page.getByRole("group", { name: "Time" });
    await expect(time).toContainText("Time is held");
    await time.getByRole("button", { name: "Now" }).click();
    await expect(device).toHaveAttribute("data-screen", "tip");
    await page.getByLabel("hold time").uncheck();
    await page.getByRole("list", { name: "Steps" }).getByRole("button").first().click();
    await page.clock.runFor(60_000);
    await expect(device).toHaveAttribute("data-screen", "splash");
    await page.getByRole("button", { name: "Let it pass" }).click();
    await page.clock.runFor(1000);
    await expect(device).toHaveAttribute("data-screen", "home");
  });
});

test("the menu of ways in lies inside the window, whatever the panel's edge", async ({ page }) => {
  const linked = app("main", {
    stacks: { main: "home item" },
    entrances: [{ id: "shared", name: "A link with quite a long name that somebody shared", kind: "link", pattern: "/x", to: "item", warm: "rebuild" }],
  });
  const device = await openDocument(page, linked);
  await page.getByRole("button", { name: "Ways in" }).click();
  const menu = await page.getByRole("group", { name: "Ways in" }).boundingBox();
  if (!menu) throw new Error("the menu is there");
  expect(menu.x).toBeGreaterThanOrEqual(0);
  expect(menu.x + menu.width).toBeLessThanOrEqual(1280);
  expect(menu.y + menu.height).toBeLessThanOrEqual(800);
  await page.getByRole("button", { name: /A link with quite a long name.*app running/ }).click();
  await expect(device).toHaveAttribute("data-screen", "item");
});

test("the picture of the stack and what if stand on the state in which the walk stands", async ({ page }) => {
  const deep = app("main", { stacks: { main: "home list item form" }, legs: ["a home push list", "b list push item", "c item push form"] });
  const device = await openDocument(page, deep);
  for (const name of ["a", "b"]) await device.getByRole("button", { name, exact: true }).click();
  await page.locator("[data-card][data-place=item] [data-row=c]").click();
  await page
    .getByLabel("Inspector")
    .getByRole("button", { name: /on top of/ })
    .click();
  await expect(page.getByLabel("Inspector").locator("[aria-hidden=true]", { hasText: "before" }).first()).toContainText("itemlisthomebefore");
});
