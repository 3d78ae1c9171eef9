import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";

const violations = async (page: Page) => {
  const { violations: found } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]).analyze();
  return found.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(" "))
        .slice(0, 4)
        .join(" | ")}`,
  );
};

for (const colorScheme of ["light", "dark"] as const)
  test(`no view breaks the rules of accessibility, ${colorScheme}`, async ({ browser }) => {
    const context = await browser.newContext({ colorScheme, reducedMotion: "reduce" });
    const page = await context.newPage();
    await page.goto("/");
    expect(await violations(page)).toEqual([]);
    await page.getByRole("button", { name: "its first draft" }).click();
    await expect(page.getByTestId("proof")).toContainText("Proved", { timeout: 30_000 });
    expect(await violations(page)).toEqual([]);
    await page.getByRole("button", { name: /warning/ }).click();
    await page
      .getByRole("treeitem", { name: /^Hive( |$)/ })
      .first()
      .click();
    expect(await violations(page)).toEqual([]);
    await page.getByLabel("All findings").getByRole("button", { name: "close", exact: true }).click();
    await page.getByRole("treeitem", { name: "Notes button" }).click();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press("l");
    await page.keyboard.type("note");
    await expect(page.getByRole("option").first()).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("The leg that was just made")).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await context.close();
  });

for (const colorScheme of ["light", "dark"] as const)
  test(`no sheet and no other view does either, ${colorScheme}`, async ({ browser }) => {
    const context = await browser.newContext({ colorScheme, reducedMotion: "reduce" });
    const page = await context.newPage();
    await page.goto("/");
    await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
    await expect(page.getByTestId("proof")).toContainText("Proved", { timeout: 30_000 });
    const sheet = async (...keys: string[]) => {
      for (const key of keys) await page.keyboard.press(key);
      await expect(page.getByRole("dialog")).toBeVisible();
      expect(await violations(page), keys.join(" ")).toEqual([]);
      await page.keyboard.press("Escape");
      await expect(page.getByRole("dialog")).toBeHidden();
    };
    await sheet("Control+k");
    await sheet("?");
    await sheet("f");
    await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
    await page
      .getByLabel("Inspector")
      .getByRole("button", { name: /on top of/ })
      .click();
    expect(await violations(page)).toEqual([]);
    await sheet("i");
    await page.getByRole("treeitem", { name: /^Yard/ }).first().click();
    await page
      .getByRole("treeitem", { name: /^House/ })
      .first()
      .click({ modifiers: ["Control"] });
    expect(await violations(page)).toEqual([]);
    await page.getByLabel("Show the whole map").click();
    expect(await violations(page)).toEqual([]);
    await page.getByRole("link", { name: "Parameters" }).click();
    await page.getByRole("button", { name: "follow it" }).first().click();
    expect(await violations(page)).toEqual([]);
    await page.getByRole("tab", { name: /Record types/ }).click();
    expect(await violations(page)).toEqual([]);
    await context.close();
  });

test("two windows on the same project follow each other, and no edit is lost", async ({ context }) => {
  const one = await context.newPage();
  await one.goto("/");
  await one.getByRole("button", { name: /Start empty/ }).click();
  await expect(one.getByRole("treeitem", { name: "Home" })).toBeVisible();
  const two = await context.newPage();
  await two.goto(one.url());
  await expect(two.getByRole("treeitem", { name: "Home" })).toBeVisible();
  const add = async (page: Page, name: string) => {
    await page.getByLabel("Find or add a screen").fill(name);
    await page.keyboard.press("Enter");
  };
  await add(one, "Brood");
  await expect(two.getByRole("treeitem", { name: "Brood" })).toBeVisible();
  await Promise.all([add(one, "Honey"), add(two, "Wax")]);
  for (const page of [one, two]) for (const name of ["Brood", "Honey", "Wax"]) await expect(page.getByRole("treeitem", { name })).toBeVisible();
});
