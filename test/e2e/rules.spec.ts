import { readFileSync } from "node:fs";
import { fromLines } from "../../src/core/lines/build.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { documentOf, openDocument } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const SHOP = `app Shop
fact member
Shop
  Goods (hub): Cart > Cart, Help > Help
  Cart: Order > Form
  Form: Send > Sent
  Sent: Shop on > Goods (reset)
  Help
`;

/** Opens an app from its lines, on its rules. */
async function openRules(page: Page, lines: string) {
  const made = fromLines(lines);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  await openDocument(page, made.project);
  await page.getByRole("link", { name: "Rules" }).click();
  await expect(page.getByText("What you promise of this app")).toBeVisible();
}

/** The rules of the open project as its export says them. */
async function rulesOf(page: Page): Promise<NonNullable<Project["rules"]>> {
  return (await documentOf(page)).rules ?? [];
}

test("from an empty list: a rule of each kind is written on the map, by typing and by tick, proved, and its break walked", async ({ page }) => {
  await openRules(page, SHOP);
  const panel = page.getByRole("region", { name: "Rules" });
  const editor = panel.getByRole("group", { name: "Write the rule" });
  const add = panel.getByRole("group", { name: "Add a rule" });

  await add.getByRole("button", { name: "Never" }).click();
  await page
    .locator("[data-card][data-place=form]")
    .first()
    .click({ position: { x: 60, y: 12 } });
  await expect(editor.locator("[data-part=see]")).toContainText("Form");
  await editor.locator("[data-part=after]").click();
  await page.keyboard.type("Sent");
  await page.keyboard.press("Enter");
  await expect(editor.locator("[data-part=after]")).toContainText("Sent");
  await expect(panel.locator("[data-standing=broken]")).toContainText("“Form” shows after “Sent”");
  await panel.locator("[data-standing=broken]").getByRole("button", { name: "Walk it" }).click();
  await expect(page.getByTestId("line")).toHaveText(/form/);
  await expect(page.getByRole("list", { name: "Steps" })).toContainText("breaks a rule");
  await editor.getByRole("button", { name: "Done" }).click();

  await add.getByRole("button", { name: "First" }).click();
  await page.keyboard.type("Sent");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.type("Form");
  await page.keyboard.press("Enter");
  await expect.poll(() => rulesOf(page)).toHaveLength(2);
  await editor.getByRole("button", { name: "Done" }).click();

  await add.getByRole("button", { name: "Only" }).click();
  await editor.getByLabel("member, while the rule holds").selectOption("is");
  await editor.locator("[data-part=see]").click();
  await page
    .getByRole("treeitem", { name: /^Goods/ })
    .first()
    .click();
  await expect(editor.locator("[data-part=see]")).toContainText("Goods");
  await editor.getByRole("button", { name: "Done" }).click();

  await add.getByRole("button", { name: "Within taps" }).click();
  await page.keyboard.type("Goods");
  await page.keyboard.press("Enter");
  await editor.getByLabel("Taps").fill("2");
  await editor.getByLabel("Name").fill("Near home");
  await editor.getByLabel("Name").press("Enter");
  await editor.getByLabel("Why, for others").fill("Gloves.");
  await editor.getByLabel("Why, for others").press("Enter");
  await editor.getByLabel("If it is broken").selectOption("warning");
  await editor.getByRole("button", { name: "Done" }).click();

  await expect
    .poll(async () => (await rulesOf(page)).map(({ id: _, ...rule }) => rule))
    .toEqual([
      { name: "No Form after Sent", kind: "never", see: { places: ["form"] }, after: { places: ["sent"] } },
      { name: "Form before Sent", kind: "first", needs: { places: ["form"] }, before: { places: ["sent"] } },
      { name: "Only Goods while member is yes", kind: "only", while: "fact.member", see: ["goods"] },
      { name: "Near home", about: "Gloves.", severity: "warning", kind: "within", taps: 2, to: ["goods"] },
    ]);
  await expect(panel.locator("[data-standing]")).toHaveCount(4);
  await expect
    .poll(() => panel.locator("[data-standing]").evaluateAll((all) => all.map((one) => one.getAttribute("data-standing"))))
    .toEqual(["broken", "proved", "empty", "proved"]);
});

test("a leg picked on the map, a suggestion taken, a rule changed and deleted, and all of it undone", async ({ page }) => {
  await openRules(page, SHOP.replace("Form: Send > Sent", "Form: Send > Sent (submit, replace)"));
  const panel = page.getByRole("region", { name: "Rules" });
  const suggestions = panel.getByRole("region", { name: "Suggestions" });
  await expect(suggestions).toContainText("“Sent” follows on “Form”");
  await suggestions.getByRole("listitem").filter({ hasText: "“Sent” follows on “Form”" }).getByRole("button").click();
  await expect(panel.locator("[data-standing=proved]")).toHaveText(/Proved for any depth of stack/);
  await expect(suggestions).not.toContainText("“Sent” follows on “Form”");

  await panel.locator("[data-rule] button").first().click();
  const editor = panel.getByRole("group", { name: "Write the rule" });
  await editor.locator("[data-part=needs]").click();
  await page.locator("[data-card][data-place=cart] [data-row]").first().click();
  await expect.poll(async () => (await rulesOf(page))[0]).toMatchObject({ needs: { places: ["form"], legs: [expect.any(String)] } });
  // What is written stands in the document: an undo shows at once, and is not overwritten by the next change.
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(editor.locator("[data-part=needs]")).not.toContainText("on Cart");
  await editor.getByLabel("If it is broken").selectOption("note");
  await expect.poll(async () => (await rulesOf(page))[0]).toMatchObject({ severity: "note", needs: { places: ["form"] } });
  expect((await rulesOf(page))[0]).not.toMatchObject({ needs: { legs: [expect.any(String)] } });
  await editor.getByRole("button", { name: "Delete" }).click();
  await expect.poll(() => rulesOf(page)).toEqual([]);
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: /^Undo/ }).click();
  await expect.poll(() => rulesOf(page)).toEqual([]);
  for (let i = 0; i < 2; i++) await page.getByRole("button", { name: "Redo" }).click();
  await expect.poll(async () => (await rulesOf(page))[0]).toMatchObject({ kind: "first" });
});

test("the demo's rules hold, and its first draft breaks two of them, on the map too", async ({ page }) => {
  const draft = JSON.parse(readFileSync("demo/hollowcomb-first-draft.etape.json", "utf8")) as Project;
  expect(draft.rules).toHaveLength(5);
  await page.goto("/");
  await page
    .getByRole("button", { name: /first draft/i })
    .first()
    .click();
  await page.getByRole("link", { name: "Rules" }).click();
  const panel = page.getByRole("region", { name: "Rules" });
  await expect(panel.locator("[data-standing=broken]")).toHaveCount(2);
  await expect(panel.locator("[data-standing=proved]")).toHaveCount(2);
  // Nobody gets to the swap, because the shift is opened without its hive: so the rule about it says nothing.
  await expect(panel.locator("[data-standing=empty]")).toHaveCount(1);
  await expect(panel.getByText("2 of 5 hold")).toBeVisible();
});

test("a log that breaks a rule is told with its line", async ({ page }) => {
  const made = fromLines(`${SHOP}rule Sent is final: never Form after Sent\n`);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  await openDocument(page, made.project);
  await page.getByLabel("Lens", { exact: true }).selectOption("followed");
  const log = [{ run: "a", event: { do: "launch" } }, ...["goods", "cart", "form", "sent", "form"].map((shows) => ({ run: "a", shows }))];
  const buffer = Buffer.from(log.map((entry) => JSON.stringify(entry)).join("\n"));
  await page.getByLabel("Read a log…").setInputFiles({ name: "shop.jsonl", mimeType: "application/json", buffer });
  await expect(page.getByRole("list", { name: "Rules that the log breaks" })).toHaveText("Breaks the rule “Sent is final” in line 6");
});
