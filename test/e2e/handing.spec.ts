import { app } from "../vectors/app.ts";
import { documentOf, moveOf, openDocument, typeInPalette } from "./open.ts";
import { expect, test } from "./test.ts";

/** A form and a list in a sheet over it, from which nothing comes back yet. */
const ORDER = app("orders", {
  stacks: { orders: "form" },
  modals: { sheet: "paints" },
  types: [{ id: "paint", name: "Paint", fields: [{ name: "name", type: "text" }], samples: [{ name: "Ochre" }, { name: "Umber" }] }],
  screens: {
    form: { name: "Form", elements: [{ id: "choose", kind: "button", label: "Choose a paint", text: "{has(param.paint) ? param.paint : 'Choose a paint'}" }] },
    paints: { name: "Paints", elements: [{ id: "rows", kind: "list", label: "Paint", of: "paint", text: "{item.name}" }] },
  },
  legs: ["choose form:on(choose) open sheet", "picked paints:on(rows) close"],
});

test("a picker hands back the row that was tapped, and the form shows it", async ({ page }) => {
  const device = await openDocument(page, ORDER);
  await typeInPalette(page, "paints paint leg");
  await page.keyboard.press("Enter");
  const inspector = page.getByLabel("Inspector");
  await inspector.getByLabel("Hand something back").fill("paint");
  await inspector.getByLabel("Hand something back").press("Enter");
  await expect(inspector.getByLabel("paint =")).toHaveValue("item.name");
  await expect(inspector).toContainText("Hands back paint.");
  const project = await documentOf(page);
  expect(moveOf(project, "picked")).toEqual({ kind: "close", give: { paint: "item.name" } });
  expect(project.screens.find(({ id }) => id === "form")?.params).toEqual([{ name: "paint", type: "text", required: false }]);

  await device.getByRole("button", { name: "Choose a paint" }).click();
  await device.getByText("Umber").click();
  await expect(device.getByRole("button", { name: "Umber" })).toBeVisible();
  await expect(page.getByLabel("Beneath")).toContainText("handed back by Paints");

  await page.getByRole("link", { name: "Parameters" }).click();
  await expect(page.locator("[data-slot='form paint']").filter({ hasText: "hands it back" })).toBeVisible();

  // Undone in one step: the parameter and what is handed back go together.
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await documentOf(page)).screens.find(({ id }) => id === "form")?.params).toEqual([]);
  expect(moveOf(await documentOf(page), "picked")).toEqual({ kind: "close" });
});
