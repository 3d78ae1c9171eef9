import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { check } from "../../src/core/check/check.ts";
import { lookup } from "../../src/core/model/lookup.ts";
import { readProject } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";

/** Exports the open document. */
async function exported(page: Page, file: string): Promise<Project> {
  await expect(page.getByTestId("saved")).toHaveText("saved");
  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  await (await downloading).saveAs(file);
  const read = readProject(readFileSync(file, "utf8"));
  if (!read.ok) throw new Error("the export can be read");
  return read.project;
}

/** Five screens, two tabs, a modal and a notification, and nobody stuck. */
function expectShop(project: Project) {
  expect(project.screens.map((s) => s.name).sort()).toEqual(["Home", "New order", "Order", "Orders", "Settings"]);
  const tabs = project.containers.find((c) => c.kind === "tabs");
  expect(tabs?.members).toHaveLength(2);
  const modal = project.containers.find((c) => c.kind === "modal");
  const named = (name: string) => project.screens.find((s) => s.name === name)?.id ?? "";
  expect(modal?.members).toEqual([named("New order")]);
  expect(project.entrances).toMatchObject([{ kind: "notification", to: named("Order") }]);
  expect(project.legs.map((leg) => [leg.from, leg.move?.kind, leg.move && "to" in leg.move ? leg.move.to : ""])).toEqual([
    [named("Home"), "open", modal?.id],
    [named("Orders"), "push", named("Order")],
    [named("Home"), "push", named("Settings")],
  ]);
  expect(lookup(project).owners.get(named("Order"))?.members).toContain(named("Orders"));
  expect(check(project).findings.filter((finding) => finding.severity === "blocker")).toEqual([]);
}

test("with the keyboard alone, from empty, an app with tabs, a modal and a notification takes under 60 key strokes plus names", async ({ page }, info) => {
  let strokes = 0;
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      strokes += 1;
      await page.keyboard.press(key);
    }
  };
  const type = (name: string) => page.keyboard.type(name);
  await page.goto("/");
  await expect(page.getByRole("button", { name: /Start empty/ })).toBeVisible();
  for (let tabs = 0; tabs < 12 && !(await page.getByRole("button", { name: /Start empty/ }).evaluate((button) => button === document.activeElement)); tabs++)
    await press("Tab");
  await press("Enter");
  await expect(page.getByRole("treeitem", { name: "Home" })).toBeVisible();
  const goTo = async (name: string) => {
    await press("/");
    await type(name);
    await press("Enter");
    await expect(page.getByRole("treeitem", { name, exact: false, selected: true })).toBeVisible();
    // The field keeps the focus for the next name; from an empty field the arrow goes to the tree.
    await press("ArrowDown");
  };
  const put = async (label: string) => {
    await press("e");
    await type(label);
    await press("Enter");
    await press("l");
    await expect(page.getByRole("dialog")).toBeVisible();
  };
  await goTo("Orders");
  await press("Shift+ArrowUp", "g", "t", "Enter");
  await goTo("Home");
  await put("New order");
  await type("New order");
  await press("ArrowDown", "Enter");
  await goTo("Orders");
  await put("One of them");
  await type("Order");
  for (let down = 0; down < 8 && !(await page.locator("[cmdk-item][data-selected=true]", { hasText: "New screen “Order”" }).count()); down++)
    await press("ArrowDown");
  await press("Enter");
  await goTo("Home");
  await put("Settings");
  await type("Settings");
  await press("Enter");
  await goTo("Order");
  await press("n");
  expectShop(await exported(page, info.outputPath("shop.etape.json")));
  expect(strokes).toBeLessThan(60);
});

test("with the mouse alone but for names, the same app", async ({ page }, info) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await page.getByLabel("Find or add a screen").fill("Orders");
  await page.getByRole("button", { name: /Add screen “Orders”/ }).click();
  await page.getByRole("treeitem", { name: "Home" }).click({ modifiers: ["Control"] });
  await page
    .getByLabel("Inspector")
    .getByRole("button", { name: /Put into tabs/ })
    .click();
  const put = async (screen: string, label: string) => {
    await page.locator("[data-card]").filter({ hasText: screen }).first().locator(".card-name").click();
    await page.getByLabel("Label of a new element").fill(label);
    await page.getByLabel("Inspector").getByRole("button", { name: "Add", exact: true }).first().click();
  };
  const dragToGround = async (label: string) => {
    const row = await page.locator("[data-row]").filter({ hasText: label }).first().boundingBox();
    if (!row) throw new Error("the row is on the map");
    await page.mouse.move(row.x + row.width - 6, row.y + row.height / 2);
    await page.mouse.down();
    await page.mouse.move(row.x + row.width + 70, row.y + 60, { steps: 6 });
    await page.mouse.up();
    await expect(page.getByRole("dialog")).toBeVisible();
  };
  await put("Home", "New order");
  await dragToGround("New order");
  await page.getByPlaceholder("A name, or back, close, menu…; ↓ lists them all").fill("New order");
  await page.getByRole("option", { name: /in a new modal/ }).click();
  await put("Orders", "One of them");
  await dragToGround("One of them");
  await page.getByPlaceholder("A name, or back, close, menu…; ↓ lists them all").fill("Order");
  await page.getByRole("option", { name: "+ New screen “Order”", exact: true }).click();
  await put("Home", "Settings");
  await dragToGround("Settings");
  await page.getByPlaceholder("A name, or back, close, menu…; ↓ lists them all").fill("Settings");
  await page.getByRole("option", { name: "+ New screen “Settings”", exact: true }).click();
  await page
    .locator("[data-card]")
    .filter({ hasText: /^Order/ })
    .last()
    .locator(".card-name")
    .click();
  await page.getByRole("button", { name: "Find, do…" }).click();
  await page.getByRole("option", { name: /A notification that leads here/ }).click();
  expectShop(await exported(page, info.outputPath("shop.etape.json")));
});
