import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { writeProject } from "../../src/core/model/write.ts";
import { app } from "../vectors/app.ts";
import { expect, type Page, test } from "./test.ts";

/** A prototype as `etape gen` writes it, as an address of a file. */
function prototypeOf(document: string): string {
  const folder = mkdtempSync(join(tmpdir(), "etape-prototype-"));
  execFileSync(process.execPath, ["bin/etape.mjs", "gen", document, "--to", "prototype", "--out", folder], { stdio: "pipe" });
  return pathToFileURL(join(folder, "prototype.html")).href;
}

async function throughTheTour(page: Page, press: "tap" | "click") {
  const device = page.getByTestId("device");
  await device.getByRole("button", { name: "Skip the tour" })[press]();
  await device.locator("input[data-element=code]").fill("FENNICK");
  await device.locator("button[data-element=join]")[press]();
  await page.getByRole("button", { name: "known code", exact: true })[press]();
  await device.locator("[data-item=orchard]")[press]();
  await device.locator("[data-item=larkfoot]")[press]();
  await expect(device).toHaveAttribute("data-screen", "hive");
}

test("a prototype opens from disk with no network and is tapped through", async ({ browser }) => {
  const context = await browser.newContext({ offline: true, reducedMotion: "reduce", viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const troubles: string[] = [];
  page.on("pageerror", (error) => troubles.push(error.message));
  page.on("console", (message) => message.type() === "error" && troubles.push(message.text()));
  page.on("request", (request) => request.url().startsWith("file:") || request.url().startsWith("data:") || troubles.push(request.url()));
  await page.goto(prototypeOf("demo/hollowcomb.etape.json"));
  await throughTheTour(page, "click");
  await page.locator("[data-tab=rotaTab]").click();
  await page.locator("[data-tab=hivesTab]").click();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "hive");
  await page.getByRole("button", { name: "← Back" }).click();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "apiary");
  expect(troubles).toEqual([]);
  await context.close();
});

test("on a phone it fills the window and is used by touch", async ({ browser }) => {
  const context = await browser.newContext({ offline: true, reducedMotion: "reduce", viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await page.goto(prototypeOf("demo/hollowcomb.etape.json"));
  await throughTheTour(page, "tap");
  const box = await page.getByTestId("device").boundingBox();
  expect(box?.width).toBeGreaterThan(380);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("button", { name: "← Back" }).tap();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "apiary");
  await page.getByRole("button", { name: "More" }).tap();
  await expect(page.getByRole("button", { name: "← Back" })).toHaveCount(1);
  for (const control of await page.getByLabel("Outside the app").locator("button, select, label").all())
    expect((await control.boundingBox())?.height).toBeGreaterThanOrEqual(44);
  await page.getByRole("button", { name: "From start" }).tap();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "welcome");
  await context.close();
});

test("no text of the document runs as script, nor ends the data that it is in", async ({ browser }) => {
  const bad = `</script><script>window.ran = true</script><img src=x onerror="window.ran=true"><!--<script>`;
  const project = app("s", {
    stacks: { s: "a b" },
    screens: {
      a: {
        name: bad,
        title: bad,
        elements: [
          { id: "go", kind: "button", label: bad },
          { id: "rows", kind: "list", of: "row", label: bad, text: "{item.id}" },
        ],
      },
      b: { name: "$& {{project}} {{title}}" },
    },
    types: [{ id: "row", name: bad, fields: [{ name: "id", type: "text" }], samples: [{ id: bad }, { id: "javascript:window.ran=true" }] }],
    legs: ["go a push b"],
  });
  const file = join(mkdtempSync(join(tmpdir(), "etape-nasty-")), "nasty.etape.json");
  writeFileSync(file, writeProject({ ...project, name: `{{project}}${bad}` }));
  const page = await browser.newPage();
  const href = prototypeOf(file);
  await page.goto(href);
  await expect(page.getByTestId("device")).toContainText("window.ran = true");
  await page.getByTestId("device").locator("button[data-element=go]").click();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "b");
  await expect(page).toHaveTitle(`{{project}}${bad}`);
  expect(await page.evaluate(() => "ran" in window)).toBe(false);
  // The policy lets no other script run, even one that got into the page.
  await page.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "window.ran = true";
    document.body.append(script);
  });
  expect(await page.evaluate(() => "ran" in window)).toBe(false);
  await page.close();
});
