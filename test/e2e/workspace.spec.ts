import { expect, type Page, test } from "@playwright/test";

const SIZES = [
  { width: 1280, height: 720 },
  { width: 1280, height: 800 },
  { width: 1366, height: 768 },
  { width: 1440, height: 900 },
];

/** Whether something lies whole in the window and nothing covers it: looked at in its middle and near its corners. */
async function uncovered(page: Page, selector: string): Promise<boolean> {
  return page
    .locator(selector)
    .first()
    .evaluate((element) => {
      const { left, top, right, bottom } = element.getBoundingClientRect();
      if (left < 0 || top < 0 || right > innerWidth || bottom > innerHeight) return false;
      const points = [
        [(left + right) / 2, (top + bottom) / 2],
        [left + 6, top + 6],
        [right - 6, top + 6],
        [left + 6, bottom - 6],
        [right - 6, bottom - 6],
      ];
      // A rounded corner shows what is behind it, which is around it in the page.
      return points.every(([x = 0, y = 0]) => {
        const hit = document.elementFromPoint(x, y);
        return hit !== null && (element.contains(hit) || hit.contains(element));
      });
    });
}

for (const viewport of SIZES)
  test(`the device and its controls are whole and uncovered whatever is chosen, ${viewport.width}x${viewport.height}`, async ({ page }) => {
    await page.setViewportSize(viewport);
    await page.goto("/");
    await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
    await expect(page.getByTestId("device")).toBeVisible();
    const whole = async (what: string) => {
      for (const selector of ["[data-testid=device]", "button:has-text('← Back')", "button:has-text('Ways in')", "button:has-text('From start')"])
        expect(await uncovered(page, selector), `${selector} with ${what}`).toBe(true);
      const map = await page.getByRole("main").boundingBox();
      expect(map?.width, what).toBeGreaterThanOrEqual(viewport.width / 2);
    };
    await whole("nothing chosen");
    for (const key of ["hive", "yard", "house", "hivesTab"]) {
      await page.locator(`[role=treeitem][data-key="${key}"]`).click();
      await whole(key);
    }
    await page.locator("[data-card][data-place=apiary] [data-row]").first().click();
    await whole("an element");
    await page.keyboard.press("l");
    await expect(page.getByRole("dialog", { name: /lead\?/ })).toBeVisible();
    await whole("a target being picked");
    await page.keyboard.type("Notes");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("region", { name: "The leg that was just made" })).toBeVisible();
    await whole("a leg that was just made");
  });

test("names and what tabs, menus and sheets show first are never below the fold", async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 720 });
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  for (const key of ["yard", "house", "hivesTab", "hive"]) {
    await page.locator(`[role=treeitem][data-key="${key}"]`).click();
    const inspector = page.getByLabel("Inspector");
    await expect(inspector.getByLabel("Name", { exact: true })).toBeInViewport({ ratio: 1 });
    if (key !== "hive") await expect(inspector.getByLabel("Shows first")).toBeInViewport({ ratio: 1 });
  }
});
