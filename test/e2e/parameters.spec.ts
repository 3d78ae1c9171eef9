import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { followValue } from "../../src/core/insight/flow.ts";
import { nameOf } from "../../src/core/model/lookup.ts";
import { readProject } from "../../src/core/model/read.ts";
import { app } from "../vectors/app.ts";
import { openDocument, unfold } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

const open = async (page: Page) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByRole("link", { name: "Parameters" }).click();
  await expect(page.getByRole("tab", { name: "What is passed" })).toBeVisible();
};

/** The codes and subjects that the command line finds at blocker level. */
function blockers(file: string): string[] {
  const run = () => execFileSync("node", ["bin/etape.mjs", "check", file, "--format", "json", "--fail-on", "note"], { encoding: "utf8" });
  let out: string;
  try {
    out = run();
  } catch (error) {
    out = (error as { stdout: string }).stdout;
  }
  return JSON.parse(out).findings.flatMap((f: { severity: string; code: string; subjects: string[] }) =>
    f.severity === "blocker" ? [`${f.code} ${f.subjects.join(" ")}`] : [],
  );
}

test("every parameter of Hollowcomb is followed from where it is born to the last screen that has it", async ({ page }) => {
  await open(page);
  for (const screen of demo.screens)
    for (const param of screen.params) {
      const row = page.locator(`[data-slot="${screen.id} ${param.name}"]`).first();
      await row.getByRole("button", { name: "follow it" }).click();
      const flow = followValue(demo, { screen: screen.id, param: param.name });
      const said = page.locator("[data-flow]");
      for (const slot of flow.slots) await expect(said).toContainText(nameOf(demo, slot.screen));
      await row.getByRole("button", { name: "stop following" }).click();
    }
  await page.locator('[data-slot="hive hiveId"]').first().getByRole("button", { name: "follow it" }).click();
  await page.getByRole("link", { name: "See it on the map" }).click();
  await expect(page.getByText("only where hiveId of “Hive” comes from and goes")).toBeVisible();
  await expect(page.locator("[data-card][data-place=notes]")).not.toHaveAttribute("opacity", /.*/);
  await expect(page.locator("[data-card][data-place=welcome]")).toHaveAttribute("opacity", "0.28");
});

test("taking an argument away is reported with a fix that restores it, and the command line agrees", async ({ page }, info) => {
  await open(page);
  const field = page.getByLabel("hiveId from Hive · Notes");
  await field.fill("");
  await field.press("Enter");
  await expect(page.locator("[data-provider=toNotes]").filter({ hasText: "required, and not passed" })).toBeVisible();
  await expect(page.getByTestId("worst")).toContainText('leads to "Notes" without the "hiveId" that it needs');
  const save = async (name: string) => {
    await expect(page.getByTestId("saved")).toHaveText("saved");
    const downloading = page.waitForEvent("download");
    await page.getByRole("button", { name: "Export" }).click();
    const file = info.outputPath(name);
    await (await downloading).saveAs(file);
    return file;
  };
  expect(blockers(await save("without.etape.json"))).toContain("missing-argument toNotes notes hiveId");
  await page.getByRole("button", { name: "Fix: Pass hiveId = param.hiveId" }).click();
  await expect(field).toHaveValue("param.hiveId");
  await expect(page.getByTestId("worst")).not.toContainText("hiveId");
  expect(blockers(await save("fixed.etape.json"))).toEqual([]);
});

test("an expression is completed, typed and tried on the samples as it is written", async ({ page }) => {
  await open(page);
  const field = page.getByLabel("hiveId from Hive · Notes");
  await field.fill("par");
  await expect(page.getByRole("option", { name: /param.hiveId/ })).toBeVisible();
  await field.press("ArrowDown");
  await field.press("Enter");
  await expect(field).toHaveValue("param.hiveId");
  await expect(page.locator("[data-provider=toNotes]")).toContainText('text, on the samples "larkfoot"');
  await field.fill("1 + 1");
  await expect(page.locator("[data-provider=toNotes]").first()).toContainText("this is integer; text is wanted");
  await field.fill("param.nothing");
  await expect(page.locator("[data-provider=toNotes]").first()).toContainText(/nothing/);
  await field.press("Escape");
  await expect(field).toHaveValue("param.hiveId");
});

test("a type, its fields and rows: pasted, what does not fit is said and only the rest comes in; ten thousand rows scroll", async ({ page }) => {
  await open(page);
  await page.getByRole("tab", { name: /Record types/ }).click();
  await page.getByLabel("Name of a new record type").fill("Mark");
  await page.keyboard.press("Enter");
  await page.getByLabel("Name of a new field").fill("year");
  await page.keyboard.press("Enter");
  await page.getByLabel("Type of the field year").selectOption("integer");
  await page.getByLabel(/^Paste rows/).fill("id;year\na;2026\nb;soon\nc");
  await page.getByRole("button", { name: "Add these rows" }).click();
  const alert = page.getByRole("alert");
  await expect(alert).toContainText("2 of 3 rows do not fit");
  await expect(alert).toContainText("row 2, year: soon; expected a whole number");
  await expect(alert).toContainText("row 3: 1 cells; expected 2 cells");
  await alert.getByRole("button", { name: "Take in the one that fits" }).click();
  await expect(page.getByLabel("year of row 1")).toHaveValue("2026");
  const many = Array.from({ length: 10_000 }, (_, i) => ({ id: `m${i}`, year: i }));
  await page.getByLabel("File of samples").setInputFiles({ name: "marks.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(many)) });
  await expect(page.getByText("10000 rows came in.")).toBeVisible();
  expect(await page.getByRole("table", { name: "Samples of Mark" }).getByRole("row").count()).toBeLessThan(60);
  await page.getByTestId("samples").evaluate((frame) => frame.scrollTo(0, frame.scrollHeight));
  await expect(page.getByLabel("id of row 10001")).toHaveValue("m9999");
  await page.getByLabel("year of row 10001").fill("late");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("year of row 10001")).toHaveAttribute("aria-invalid", "true");
  await page.keyboard.press("Escape");
  await expect(page.getByLabel("year of row 10001")).toHaveValue("9999");
});

test("a screen pages through a type, and an address typed in is taken apart", async ({ page }) => {
  await open(page);
  await page.getByRole("treeitem", { name: "Shift" }).first().click();
  await unfold(page);
  await expect(page.getByLabel("Through the rows of")).toHaveValue("shift");
  await page.getByRole("button", { name: "Add Previous and Next" }).click();
  await expect(page.getByText("“Shift” pages now")).toBeVisible();
  await unfold(page);
  await page.getByLabel("in the order of").selectOption("day");
  await expect(page.getByLabel("the one named by")).toHaveValue("shiftId");
  await page
    .getByLabel("Outline")
    .getByRole("button", { name: /Mite alert/ })
    .click();
  await page.getByLabel("Try an address").fill("/alerts/larkfoot/3");
  await expect(page.getByLabel("Inspector").getByRole("status")).toContainText('hiveId = "larkfoot"');
  await page.getByLabel("Try an address").fill("/elsewhere");
  await expect(page.getByLabel("Inspector").getByRole("status")).toContainText("It does not match.");
});

test("a way in says what its address hands on by itself, and which way in goes first", async ({ page }) => {
  await openDocument(
    page,
    app("s", {
      stacks: { s: "list item" },
      screens: {
        item: {
          params: [
            { name: "id", type: "text", required: true },
            { name: "part", type: "text", required: true },
          ],
        },
      },
      legs: ["go list push item pass.id='x' pass.part='y'"],
      entrances: [
        { id: "one", name: "One item", kind: "link", pattern: "/items/{id}/{part}", to: "item", warm: "rebuild" },
        { id: "all", name: "The list", kind: "link", pattern: "/items/all/{part}", to: "list", warm: "rebuild" },
      ],
    }),
  );
  await page.locator("nav").getByText("One item").click();
  await expect(page.getByText("Passes")).toBeVisible();
  await expect(page.getByText("required, and not passed")).toHaveCount(0);
  await page.getByLabel("Try an address").fill("/items/all/cover");
  await expect(page.getByText("This address opens “The list” instead")).toBeVisible();
  await page.getByLabel("Try an address").fill("/items/7/cover");
  await expect(page.getByText("This address opens")).toHaveCount(0);
  await page.getByLabel("id =").fill("'fixed'");
  await page.keyboard.press("Enter");
  await expect(page.getByText("required, and not passed")).toHaveCount(0);
  await expect(page.getByLabel("part =")).toHaveValue("link.part");
});
