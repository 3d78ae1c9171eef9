import { app } from "../vectors/app.ts";
import { documentOf, openDocument, typeInPalette } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

/** Counts each click and each key that is pressed. */
class Hands {
  presses = 0;

  constructor(readonly page: Page) {}

  async click(name: RegExp, role: "button" | "treeitem" | "option" = "button") {
    this.presses += 1;
    await this.page.getByRole(role, { name }).first().click();
  }

  async key(key: string) {
    this.presses += 1;
    await this.page.keyboard.press(key);
  }

  /** Puts a pattern in as it is. */
  async pattern(name: RegExp) {
    await this.key("a");
    const panel = this.page.getByRole("dialog", { name: "Put in a pattern" });
    await expect(panel).toBeVisible();
    await this.click(name, "option");
    await this.click(/^Put it in/);
    await expect(panel).toHaveCount(0);
  }
}

test("an app with sign-in, three tabs, list and detail, a menu with settings and a new-item flow is built of patterns in under 30 presses", async ({
  page,
}) => {
  await page.goto("/");
  const hands = new Hands(page);
  await hands.click(/Start empty/);
  await hands.click(/^Tabs/);
  await hands.click(/^Home/, "treeitem");
  await hands.pattern(/^List and detail/);
  await hands.pattern(/^A flow/);
  await hands.click(/^Main/, "treeitem");
  await hands.pattern(/^Side menu/);
  await hands.pattern(/^Sign-in/);
  await expect(page.getByText("Nothing is wrong.", { exact: true })).toBeVisible();
  expect(hands.presses).toBeLessThan(30);
  const made = await documentOf(page);
  expect(made.containers.map(({ kind, name }) => `${kind} ${name}`)).toEqual(expect.arrayContaining(["tabs Main", "drawer Menu", "modal New item"]));
  expect(made.screens.map(({ name }) => name)).toEqual(
    expect.arrayContaining(["Welcome", "Sign in", "Home", "Search", "Profile", "Item", "Settings", "What", "When", "Check it"]),
  );
});

test.describe("putting in a pattern", () => {
  const garden = app("s", {
    stacks: { s: "home plot" },
    screens: { home: { name: "Home", hub: true }, plot: { name: "Plot" } },
    legs: ["go home push plot"],
  });

  test("the map shows what it would make, and says what comes and goes; names are asked for; Escape leaves all as it was", async ({ page }) => {
    await openDocument(page, garden);
    await page.locator("[data-card][data-place=plot]").click();
    await page.keyboard.press("a");
    const panel = page.getByRole("dialog", { name: "Put in a pattern" });
    await panel.getByPlaceholder("Find a pattern").pressSequentially("search");
    await expect(panel.getByText("Search over the page on “Plot”")).toBeVisible();
    await expect(page.locator("[data-card][data-place=result]")).toBeVisible();
    await panel.getByLabel("The search").fill("Home");
    await expect(panel.getByText("There is a “Home” already; another name is expected.")).toBeVisible();
    await expect(panel.getByRole("button", { name: "Put it in" })).toBeDisabled();
    await expect(page.locator("[data-card][data-place=result]")).toHaveCount(0);
    await panel.getByLabel("The search").fill("Look for a plot");
    await expect(page.locator("[data-card][data-place=lookForAPlot2]")).toBeVisible();
    await expect(panel.getByText("no change")).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(panel).toHaveCount(0);
    await expect(page.locator("[data-card][data-place=result]")).toHaveCount(0);
    expect(await documentOf(page)).toEqual(garden);
  });

  test("it is one undo, the place stays chosen, and a version from before is kept", async ({ page }) => {
    await openDocument(page, garden);
    await page.locator("[data-card][data-place=plot]").click();
    await typeInPalette(page, "are you sure");
    await page.keyboard.press("Enter");
    const panel = page.getByRole("dialog", { name: "Put in a pattern" });
    await panel.getByLabel("The question").fill("Give the plot up?");
    await panel.getByLabel("The question").press("Enter");
    await expect(page.getByText("“Ask before it is done” is in, on “Plot”.")).toBeVisible();
    await expect(page.getByRole("treeitem", { name: "Plot", selected: true })).toBeVisible();
    expect((await documentOf(page)).containers.map(({ name }) => name)).toEqual(["s", "Give the plot up?"]);
    await page.keyboard.press("Control+z");
    expect(await documentOf(page)).toEqual(garden);
    await page.getByRole("link", { name: "Versions" }).click();
    await expect(page.getByText("Before “Ask before it is done”")).toBeVisible();
  });

  test("a click on the map chooses another place; what cannot go there is not offered", async ({ page }) => {
    await openDocument(page, garden);
    await page.locator("[data-card][data-place=plot]").click();
    await page.keyboard.press("a");
    const panel = page.getByRole("dialog", { name: "Put in a pattern" });
    await expect(panel.getByRole("option", { name: "Tabs" })).toBeVisible();
    await panel.getByRole("option", { name: "Settings" }).click();
    await expect(panel.getByText("Settings on “Plot”")).toBeVisible();
    await page.locator("[data-card][data-place=home]").click();
    await expect(panel.getByText("Settings on “Home”")).toBeVisible();
    // What is only tried cannot be chosen: neither its screens nor what is on them.
    await page.locator("[data-card][data-place=settings] [data-row]").first().click();
    await page.locator("[data-card][data-place=settings] text").first().click();
    await expect(panel.getByText("Settings on “Home”")).toBeVisible();
    await expect(page.getByRole("treeitem", { name: "Home", selected: true })).toBeVisible();
    await panel.getByRole("button", { name: "Put it in" }).click();
    expect((await documentOf(page)).legs.map(({ from }) => from)).toContain("home");
  });
});
