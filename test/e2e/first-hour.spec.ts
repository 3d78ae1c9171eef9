import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { expect, test } from "./test.ts";

/** Runs the command line on a file; gives its status and what it printed. */
function etape(...args: string[]): { status: number; out: string; err: string } {
  try {
    return { status: 0, out: execFileSync("node", ["bin/etape.mjs", ...args], { encoding: "utf8" }), err: "" };
  } catch (error) {
    const { status, stdout, stderr } = error as { status: number; stdout: string; stderr: string };
    return { status, out: stdout, err: stderr };
  }
}

const codes = (json: string): string[] => JSON.parse(json).findings.map((f: { code: string; subjects: string[] }) => `${f.code} ${f.subjects.join(" ")}`);

test("a new user sees how it hangs together, breaks it, is told, fixes it, and takes it away", async ({ page }, info) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();

  const device = page.getByTestId("device");
  await expect(device).toHaveAttribute("data-screen", "welcome");
  await expect(page.locator("[data-card][data-place=hive]")).toBeVisible();
  await expect(page.getByTestId("proof")).toContainText("Proved for any depth of stack");

  await device.getByRole("button", { name: "Skip the tour" }).click();
  await device.locator("input[data-element=code]").fill("FENNICK");
  await device.locator("button[data-element=join]").click();
  await page.getByRole("button", { name: "known code", exact: true }).click();
  await device.locator("[data-item=orchard]").click();
  await device.locator("[data-item=larkfoot]").click();
  await expect(device).toHaveAttribute("data-screen", "hive");
  await expect(page.getByTestId("line")).toHaveText("app[house{*yard{*hivesTab[apiaries,apiary,hive]}}]");
  await expect(page.getByRole("complementary", { name: "Beneath" })).toContainText("larkfoot");

  await page.getByRole("treeitem", { name: "Goodbye" }).click();
  await page.locator("[data-card][data-place=goodbye] [data-row=again]").click();
  await page
    .getByLabel("Inspector")
    .getByRole("button", { name: /Clears the history and starts over/ })
    .click();
  await page.getByLabel("Inspector").getByRole("button", { name: "Delete" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();

  const worst = page.getByTestId("worst");
  await expect(worst).toContainText('Nobody gets out of "Goodbye"');
  await page.getByRole("button", { name: "Walk it" }).click();
  await expect(device).toHaveAttribute("data-screen", "goodbye");
  await expect(page.locator("[data-reason]")).toContainText("Nobody gets out");

  const from = await page.locator("[data-card][data-place=goodbye] [data-row=again]").boundingBox();
  const to = await page.locator("[data-card][data-place=join]").boundingBox();
  if (!from || !to) throw new Error("both cards are on the map");
  await page.mouse.move(from.x + from.width - 8, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 60, to.y + 12, { steps: 10 });
  await page.mouse.up();
  await expect(page.getByTestId("proof")).not.toContainText("Otherwise");
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
  await expect(worst).not.toContainText("Goodbye");
  await expect(page.getByTestId("saved")).toHaveText("saved");

  await page.reload();
  await page.getByRole("treeitem", { name: "Goodbye" }).click();
  await page.locator("[data-card][data-place=goodbye] [data-row=again]").click();
  await expect(page.getByLabel("Inspector").getByRole("button", { name: /“Join”/ })).toBeVisible();

  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  const file = info.outputPath("hollowcomb.etape.json");
  await (await downloading).saveAs(file);
  expect(etape("format", "--check", file).status).toBe(0);
  const checked = etape("check", file, "--format", "json");
  expect(checked.status).toBe(0);
  await expect(page.getByTestId("proof")).toContainText("Proved");
  await page.getByRole("button", { name: /note/ }).click();
  const shown = () => page.locator("[data-finding]").evaluateAll((rows) => rows.map((row) => row.getAttribute("data-finding")));
  await expect.poll(shown).toEqual(codes(checked.out).map((line) => line.split(" ")[0]));
});

test("undo and redo go through every edit and outlive a reload", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await page.getByLabel("Find or add a screen").fill("Brood");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("treeitem", { name: "Brood" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("treeitem", { name: "Brood" })).toHaveCount(0);
  await page.keyboard.press("Control+Shift+z");
  await expect(page.getByRole("treeitem", { name: "Brood" })).toBeVisible();
  await expect(page.getByTestId("saved")).toHaveText("saved");
  await page.reload();
  await page.getByRole("button", { name: 'Undo: Add screen "Brood"' }).click();
  await expect(page.getByRole("treeitem", { name: "Brood" })).toHaveCount(0);
  await page.getByRole("button", { name: "Redo" }).click();
  await expect(page.getByRole("treeitem", { name: "Brood" })).toBeVisible();
});

test("a malformed document shows all its errors with places, on the page and on the command line, and changes nothing", async ({ page }, info) => {
  const broken = JSON.parse(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  broken.screens[3].params = [{ name: "code", type: 7, required: true }];
  broken.legs[0].colour = "red";
  broken.containers[0].id = broken.screens[0].id;
  const file = info.outputPath("broken.etape.json");
  writeFileSync(file, JSON.stringify(broken));
  const before = readFileSync(file, "utf8");

  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles(file);
  const alert = page.getByRole("alert");
  for (const place of ["screens[3].params[0].type", "legs[0].colour", "screens[0].id"]) await expect(alert).toContainText(place);
  await expect(page.getByText("Nothing yet.")).toBeVisible();

  const refused = etape("check", file);
  expect(refused.status).toBe(2);
  expect(refused.out).toBe("");
  for (const place of ["screens[3].params[0].type", "legs[0].colour", "screens[0].id"]) expect(refused.err).toContain(`broken.etape.json: ${place}`);
  expect(etape("format", file).status).toBe(2);
  expect(readFileSync(file, "utf8")).toBe(before);
});
