import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { typeInPalette } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

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

test("a side is dragged wider, folded away by its handle and by key, and stays so; with both folded the map has the whole window", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await expect(page.getByTestId("device")).toBeVisible();
  const map = page.getByRole("main");
  const width = async () => (await map.boundingBox())?.width ?? 0;
  const before = await width();
  const edge = await page.getByRole("separator", { name: "Resize the outline" }).boundingBox();
  if (!edge) throw new Error("there is an edge");
  await page.mouse.move(edge.x + edge.width / 2, edge.y + 200);
  await page.mouse.down();
  await page.mouse.move(edge.x + edge.width / 2 + 90, edge.y + 200, { steps: 5 });
  await page.mouse.up();
  await expect.poll(width).toBe(before - 90);
  await page.getByRole("separator", { name: "Resize the walk" }).focus();
  await page.keyboard.press("ArrowLeft");
  await expect.poll(width).toBe(before - 114);
  await page.reload();
  await expect.poll(width).toBe(before - 114);
  await page.getByRole("button", { name: "Fold the outline away" }).click();
  await page.keyboard.press("Alt+Shift+ArrowRight");
  await expect.poll(width).toBe(1280);
  await expect(page.getByTestId("device")).toBeHidden();
  await page.reload();
  await expect.poll(width).toBe(1280);
  await page.getByRole("button", { name: "Bring back the walk" }).click();
  await expect(page.getByTestId("device")).toBeVisible();
  await page.keyboard.press("Alt+Shift+ArrowLeft");
  await page.getByRole("separator", { name: "Resize the outline" }).dblclick();
  await page.getByRole("separator", { name: "Resize the walk" }).dblclick();
  await expect.poll(width).toBe(before);
});

test("the map keeps half of the window beside a wide device too, which stays whole with its controls", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Tidewatch" }).click();
  for (const width of ["middle", "wide"]) {
    await page.getByLabel("Walk", { exact: true }).getByLabel("width").selectOption(width);
    await expect(page.getByTestId("device")).toBeVisible();
    for (const selector of ["[data-testid=device]", "button:has-text('← Back')", "button:has-text('Ways in')", "button:has-text('From start')"])
      expect(await uncovered(page, selector), `${selector}, ${width}`).toBe(true);
    await expect.poll(async () => (await page.getByRole("main").boundingBox())?.width, width).toBeGreaterThanOrEqual(640);
  }
});

test("the walk takes the whole window at an address of its own, with what is beneath beside it, and goes on there", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByTestId("device").getByRole("button", { name: "Show me round" }).click();
  await page.getByRole("link", { name: "Walk", exact: true }).click();
  await expect(page).toHaveURL(/\/walk$/);
  const device = page.getByTestId("device");
  await expect(device).toHaveAttribute("data-screen", "tourHives");
  await expect(page.getByRole("complementary", { name: "Beneath" })).toBeVisible();
  await expect.poll(async () => (await device.boundingBox())?.height ?? 0).toBeGreaterThan(560);
  await expect.poll(() => uncovered(page, "[data-testid=device]")).toBe(true);
  await expect(page.getByRole("complementary", { name: "Beneath" })).toContainText("Welcome");
  await typeInPalette(page, "go to the map");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("treeitem", { name: "Welcome" })).toBeVisible();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "tourHives");
});

/** What a build says of a part of the page: its file, and the parts without which it can not be drawn. */
interface Part {
  file: string;
  imports?: string[];
}

/** Compressed kilobytes of all that some parts of the page need before they can be drawn. */
function needed(manifest: Record<string, Part>, ...parts: string[]): number {
  const files = new Set<string>();
  const visit = (key: string) => {
    const part = manifest[key];
    if (!part) throw new Error(`the build has no part ${key}`);
    if (files.has(part.file)) return;
    files.add(part.file);
    for (const next of part.imports ?? []) visit(next);
  };
  for (const key of parts) visit(key);
  return [...files].reduce((sum, file) => sum + gzipSync(readFileSync(`dist/app/${file}`)).length, 0) / 1024;
}

test("what has to be there before anything is drawn is less than 300 kB: for the list of projects, and for a map", () => {
  const manifest: Record<string, Part> = JSON.parse(readFileSync("dist/app/.vite/manifest.json", "utf8"));
  expect(needed(manifest, "index.html", "features/projects/ProjectsPage.tsx")).toBeLessThan(300);
  expect(needed(manifest, "index.html", "shell/ProjectPage.tsx", "shell/Workspace.tsx")).toBeLessThan(300);
  // A part that is drawn later is in neither.
  expect(needed(manifest, "features/map/TargetPicker.tsx")).toBeGreaterThan(1);
});
