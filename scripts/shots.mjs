// npm run shots: renews docs/screenshots from the demo data.
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensureChromium, ensurePackages, root, runTool } from "./setup.mjs";

ensurePackages();
const executablePath = ensureChromium();
if (runTool("vite", ["build", "--logLevel", "warn"]) !== 0) process.exit(1);
const { bundleServer } = await import("./bundle.mjs");
const file = join(root, "dist", "server", "main.mjs");
await bundleServer(file);
const { start } = await import(pathToFileURL(file).href);
const { chromium } = await import("@playwright/test");
const folder = join(root, "docs", "screenshots");
mkdirSync(folder, { recursive: true });

const served = await start(join(root, "dist", "app"), 0);
const browser = await chromium.launch({
  executablePath,
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
});

/** A page with Hollowcomb open, checked, in a theme. */
async function open(colorScheme) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme, reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(served.address);
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByTestId("proof").filter({ hasText: "Proved" }).waitFor({ timeout: 30_000 });
  return page;
}
const shot = (page, name) => page.screenshot({ path: join(folder, `${name}.png`) });

/** Walks to a hive with an inspection begun, by tapping. */
async function walkToHive(page) {
  const device = page.getByTestId("device");
  await device.getByRole("button", { name: "Skip the tour" }).click();
  await device.locator("input[data-element=code]").fill("FENNICK");
  await device.locator("button[data-element=join]").click();
  await page.getByRole("button", { name: "known code", exact: true }).click();
  await device.locator("[data-item=orchard]").click();
  await device.locator("[data-tab=rotaTab]").click();
  await device.locator("[data-tab=hivesTab]").click();
  await device.locator("[data-item=larkfoot]").click();
}

for (const theme of ["light", "dark"]) {
  const page = await open(theme);
  await walkToHive(page);
  await shot(page, `map-${theme}`);
  for (const width of ["narrow", "middle", "wide"]) {
    await page.getByLabel("width").selectOption(width);
    await shot(page, `walk-${width}-${theme}`);
  }
  await page.getByLabel("width").selectOption("narrow");
  if (theme === "light") {
    await page.locator("[data-card][data-place=shift] [data-row=hive]").click();
    await page
      .getByLabel("Inspector")
      .getByRole("button", { name: /Goes over to/ })
      .click();
    await shot(page, "leg");
    await page.locator("[data-card][data-place=hive] [data-row=photo]").click();
    await page.keyboard.press("l");
    await page.keyboard.type("notes");
    await page.waitForTimeout(300);
    await shot(page, "target");
    await page.keyboard.press("Escape");
    await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
    await page
      .getByLabel("Inspector")
      .getByRole("button", { name: /on top of/ })
      .click();
    await page.keyboard.press("i");
    await page.getByText("looking…").first().waitFor({ state: "detached", timeout: 60_000 });
    await page.waitForTimeout(8000);
    await shot(page, "what-if");
    await page.keyboard.press("Escape");
    await page.getByLabel("Show the whole map").click();
    await page.waitForTimeout(500);
    await shot(page, "whole-map");
    await page.getByRole("link", { name: "Parameters" }).click();
    await shot(page, "parameters");
    await page.getByRole("tab", { name: /Record types/ }).click();
    await page.getByRole("button", { name: /^Hive/ }).first().click();
    await shot(page, "types");
    await page.getByRole("link", { name: "Hand-off" }).click();
    await page.getByRole("tab", { name: "specification.html" }).click();
    await page.waitForTimeout(1500);
    await shot(page, "hand-off");
    await page.getByRole("link", { name: "Map" }).click();
    await page.getByRole("treeitem", { name: "Goodbye" }).click();
    await page.locator("[data-card][data-place=goodbye] [data-row=again]").click();
    await page.getByLabel("Inspector").getByRole("button", { name: "Delete" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
    await page.getByTestId("worst").filter({ hasText: "Nobody gets out" }).waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: "Walk it" }).click();
    await page.waitForTimeout(4500);
    await page.getByRole("button", { name: /note/ }).click();
    await shot(page, "finding");
    await page.goto(served.address);
    await page.getByText("In this browser").waitFor();
    await shot(page, "projects");
  }
  await page.context().close();
}
await browser.close();
served.close();
