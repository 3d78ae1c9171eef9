import { builtApp } from "../../bench/apps.ts";
import { bigProject } from "../../bench/big.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { seeded } from "../random/documents.ts";
import { openDocument, typeInPalette } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const WORDS = "Order Account Profile Stock Photo Weather Harvest Ticket Message Payment Address Delivery Coupon Trip Lesson Report".split(" ");
const TAILS = "list details settings edit review photo history search filter".split(" ");
/** A project whose screens have names as people give them. */
function named(project: Project, seed: number): Project {
  const random = seeded(seed);
  const word = (list: readonly string[]) => list[Math.floor(random() * list.length)] ?? "";
  return {
    ...project,
    screens: project.screens.map((screen) => ({ ...screen, name: random() < 0.5 ? word(WORDS) : `${word(WORDS)} ${word(TAILS)}` })),
  };
}

interface Drawn {
  text: string;
  size: number;
  box: { x: number; y: number; width: number; height: number };
}

/** The names of the map as they are on the screen: what is drawn, how large, and where. */
async function namesOf(page: Page): Promise<Drawn[]> {
  return page.locator(".map-frame .name").evaluateAll((texts) =>
    texts.map((element) => {
      const { x, y, width, height } = element.getBoundingClientRect();
      const scale = (element as SVGTextElement).getScreenCTM()?.a ?? 1;
      return { text: element.textContent ?? "", size: Number.parseFloat(getComputedStyle(element).fontSize) * scale, box: { x, y, width, height } };
    }),
  );
}

/** Pairs of texts whose letters lie on one another; lines may touch. */
function overlaps(names: readonly Drawn[]): string[] {
  return names.flatMap((a, i) =>
    names
      .slice(i + 1)
      .filter(
        (b) =>
          a.box.x + 1 < b.box.x + b.box.width &&
          b.box.x + 1 < a.box.x + a.box.width &&
          Math.abs(a.box.y + a.box.height / 2 - b.box.y - b.box.height / 2) < Math.min(a.size, b.size) * 0.95,
      )
      .map((b) => `${a.text} on ${b.text}`),
  );
}

async function foldSides(page: Page) {
  for (const name of ["Fold the outline away", "Fold the walk away"]) await page.getByRole("button", { name }).click();
}

const button = (page: Page, name: string) => page.getByRole("group", { name: "How the map is drawn" }).getByRole("button", { name });

for (const [what, project, folded] of [
  ["8 screens beside both panels", named(builtApp(8), 1), false],
  ["34 screens beside both panels", named(builtApp(34), 2), false],
  ["100 screens with the panels folded", named(builtApp(100), 3), true],
  ["300 screens with the panels folded", named(builtApp(300), 4), true],
  ["300 screens on few grounds with the panels folded", named(bigProject(300), 5), true],
] as const)
  test(`every name can be read: ${what}`, async ({ page }) => {
    await openDocument(page, project);
    if (folded) await foldSides(page);
    await button(page, "names").click();
    await expect.poll(async () => (await namesOf(page)).length).toBe(project.screens.length);
    // The room is measured after the sides are folded.
    const map = await page.locator(".map-frame").boundingBox();
    if (!map) throw new Error("the map is on the page");
    await expect.poll(async () => Math.max(...(await namesOf(page)).map(({ box }) => box.y + box.height))).toBeLessThanOrEqual(map.y + map.height);
    const names = await namesOf(page);
    expect(Math.min(...names.map(({ size }) => size))).toBeGreaterThanOrEqual(10.99);
    expect(names.filter(({ box }) => box.x < map.x || box.x + box.width > map.x + map.width || box.y < map.y)).toEqual([]);
    expect(overlaps(names)).toEqual([]);
    expect(names.filter(({ text }) => text.endsWith("…")).length / names.length).toBeLessThanOrEqual(0.05);
    expect(names.filter(({ text }) => text === "")).toEqual([]);
  });

test("zooming passes from rows to names and back; what is under the pointer stays there", async ({ page }) => {
  const project = named(builtApp(40), 6);
  await openDocument(page, project);
  const card = page.locator(`[data-card][data-place=${project.screens[4]?.id}]`).first();
  await page.locator(`[role=treeitem][data-key="${project.screens[4]?.id}"]`).click();
  const middle = async () => {
    const box = await card.boundingBox();
    if (!box) throw new Error("the card is on the map");
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const before = await middle();
  await page.mouse.move(before.x, before.y);
  const zoom = async (by: number, until: string) => {
    await page.keyboard.down("Control");
    await expect
      .poll(async () => {
        await page.mouse.wheel(0, by);
        return button(page, until).getAttribute("aria-pressed");
      })
      .toBe("true");
    await page.keyboard.up("Control");
  };
  await zoom(12, "names");
  await expect.poll(async () => Math.hypot((await middle()).x - before.x, (await middle()).y - before.y)).toBeLessThan(12);
  await page.mouse.move((await middle()).x, (await middle()).y);
  const far = await middle();
  await zoom(-12, "rows");
  await expect.poll(async () => Math.hypot((await middle()).x - far.x, (await middle()).y - far.y)).toBeLessThan(40);
});

test("faces sketch each screen; the whole is shown by key and by name; the drawing is kept over a reload", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await expect(page.getByTestId("device")).toBeVisible();
  await typeInPalette(page, "faces");
  await page.keyboard.press("Enter");
  await expect(page.locator(".map-frame [data-card][data-place=welcome]")).toContainText("Show me round");
  await expect(page.locator(".map-frame .name").filter({ hasText: "Welcome" })).toBeVisible();
  await page.reload();
  await expect(button(page, "faces")).toHaveAttribute("aria-pressed", "true");
  await page.locator(".map-frame").focus();
  await page.keyboard.press("v");
  await page.keyboard.press("w");
  await expect(button(page, "names")).toHaveAttribute("aria-pressed", "true");
  await expect(page.locator(".map-frame .name")).toHaveCount(35);
});

test("far out, what is pointed at shows its legs, and a chosen kind its flows", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await button(page, "names").click();
  const legs = page.locator(".map-frame .pointed");
  await expect(legs).toHaveCount(0);
  await page.locator("[data-card][data-place=hive]").hover();
  await expect.poll(() => legs.count()).toBeGreaterThan(4);
  const flows = await page.locator(".map-frame .flow").count();
  expect(flows).toBeGreaterThan(3);
  await page.mouse.move(5, 300);
  await typeInPalette(page, "only what opens over the page");
  await page.keyboard.press("Enter");
  await expect.poll(() => page.locator(".map-frame .flow").count()).not.toBe(flows);
  await expect(page.locator(".map-frame .flow-group").first()).toContainText(/leg/);
});

test("the reach lens says how far each screen is, on the map, in the outline and in words", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByLabel("Lens", { exact: true }).selectOption("reach");
  const panel = page.getByRole("complementary", { name: "Lens" });
  await expect(panel).toContainText("Farthest: “Review”");
  await expect(panel.getByRole("img", { name: /Screens by taps from launch: 0: 1/ })).toBeVisible();
  await expect(page.locator("[role=treeitem][data-key=hive]")).toContainText("“Hive” is 3 taps from launch");
  await expect(page.locator("[data-card][data-place=hive]")).toContainText("3");
  await panel.getByRole("combobox", { name: "Taps" }).selectOption({ label: "back to Apiaries" });
  await expect(panel).toContainText("back to “Apiaries”");
  await panel.getByRole("button", { name: /^Review/ }).click();
  await expect(page.locator("[role=treeitem][data-key=review]")).toHaveAttribute("aria-selected", "true");
  await panel.getByRole("button", { name: "Without a lens" }).click();
  await expect(panel).toHaveCount(0);
});

test("while a leg is considered, the reach lens says what it would change", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByLabel("Lens", { exact: true }).selectOption("reach");
  await expect(page.getByRole("complementary", { name: "Lens" })).toContainText("Farthest");
  await page.locator("[role=treeitem][data-key=apiaries]").click();
  await page.locator('[role=treeitem][data-key^="apiaries "]').last().click();
  await page.keyboard.press("Enter");
  await page.getByPlaceholder("A name, or back").fill("Review");
  await expect(page.getByRole("complementary", { name: "Lens" }).getByRole("status")).toContainText("With this leg");
});

test("a version is kept, compared on the map, and taken back as one undo; a file can be compared with", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByRole("link", { name: "Versions" }).click();
  await page.getByLabel("Name of the version").fill("Before the fair");
  await page.getByRole("button", { name: "Keep this version" }).click();
  const kept = page.getByRole("list", { name: "Kept versions" });
  await expect(kept).toContainText("Before the fair");
  await page.getByRole("link", { name: "Map", exact: true }).click();
  await page.locator("[role=treeitem][data-key=queen]").click();
  await page.keyboard.press("F2");
  await page.keyboard.type("Her majesty");
  await page.keyboard.press("Enter");
  await page.getByLabel("Find or add a screen").fill("Fair");
  await page.keyboard.press("Enter");
  await page.getByLabel("Lens", { exact: true }).selectOption("changed");
  const panel = page.getByRole("complementary", { name: "Lens" });
  await panel.getByLabel("Since").selectOption({ label: "Before the fair" });
  await expect(panel).toContainText("What changed since “Before the fair”?");
  await expect(panel.getByRole("list", { name: "What it shows" })).toContainText("new screen");
  await expect(panel.getByRole("list", { name: "What it shows" })).toContainText("is called “Her majesty” now");
  await expect(page.locator("[role=treeitem][data-key=queen]")).toContainText("~");
  await page.getByRole("link", { name: "Versions" }).click();
  await kept.getByRole("button", { name: "Take back" }).last().click();
  await expect(page.locator("[role=treeitem][data-key=queen]")).toContainText("Queen");
  await expect(kept).toContainText("Before “Before the fair”");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.locator("[role=treeitem][data-key=queen]")).toContainText("Her majesty");
  await page.getByLabel("Compare with a file…").setInputFiles({ name: "broken.json", mimeType: "application/json", buffer: Buffer.from("{") });
  await expect(page.getByRole("alert")).toContainText("broken.json is no project");
  await page.getByLabel("Compare with a file…").setInputFiles("demo/hollowcomb-first-draft.etape.json");
  await expect(panel).toContainText("What changed since hollowcomb-first-draft.etape.json?");
  await expect(panel).toContainText(/findings have gone since/);
});
