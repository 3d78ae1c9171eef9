// npm run shots: renews docs/screenshots from the demo data.
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { buildApplication } from "./build.mjs";
import { ensureChromium, ensurePackages, root } from "./setup.mjs";

ensurePackages();
const executablePath = ensureChromium();
await buildApplication();
const { bundle, bundleServer } = await import("./bundle.mjs");
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
/** Takes a picture once what its name says is to be seen; without that there is none. */
async function shot(page, name, showing = page.locator("[data-card]").first()) {
  await showing.waitFor({ state: "visible", timeout: 30_000 });
  await page.waitForTimeout(400);
  await page.screenshot({ path: join(folder, `${name}.png`) });
}

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
  if (theme === "dark") {
    await page.getByRole("button", { name: "names", exact: true }).click();
    await page.getByLabel("Lens", { exact: true }).selectOption("reach");
    await shot(page, "lens-reach-dark", page.getByRole("img", { name: /Screens by taps/ }));
  }
  if (theme === "light") {
    await page.getByLabel("width").selectOption("wide");
    await shot(page, "walk-wide-light");
    await page.getByLabel("width").selectOption("narrow");
    await page.getByRole("link", { name: "Walk", exact: true }).click();
    await shot(page, "walk-view", page.getByTestId("device"));
    await page.getByRole("link", { name: "Map", exact: true }).click();
    await page.locator("[data-card][data-place=shift] [data-row=hive]").click();
    await page
      .getByLabel("Inspector")
      .getByRole("button", { name: /Goes to|Pushes|Switches/ })
      .click();
    await shot(page, "leg");
    await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
    await page
      .getByLabel("Inspector")
      .getByRole("button", { name: /on top of/ })
      .click();
    await page.keyboard.press("i");
    await page.getByRole("dialog").waitFor();
    await page.getByText("looking…").first().waitFor({ state: "detached", timeout: 60_000 });
    await page.getByText("looking…").last().waitFor({ state: "detached", timeout: 60_000 });
    await shot(page, "what-if", page.getByRole("dialog"));
    await page.keyboard.press("Escape");
    await page.locator("[data-card][data-place=hive] text").first().click();
    await page.keyboard.press("a");
    await page.keyboard.type("flow");
    await page.getByRole("dialog", { name: "Put in a pattern" }).getByText("looking…").waitFor({ state: "detached", timeout: 60_000 });
    await shot(page, "patterns", page.locator("[data-card][data-place=checkIt]"));
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "names", exact: true }).click();
    await page.locator("[data-card][data-place=hive]").hover();
    await shot(page, "names-light", page.locator(".map-frame .pointed").first());
    await page.getByRole("button", { name: "faces", exact: true }).click();
    await shot(page, "faces-light", page.locator("[data-card][data-place=hive]"));
    await page.getByRole("button", { name: "rows", exact: true }).click();
    await page.getByRole("link", { name: "Parameters" }).click();
    await shot(page, "parameters", page.getByRole("columnheader", { name: "passed by" }));
    await page.getByRole("link", { name: "Rules" }).click();
    await page.locator("[data-rule=welcomeIsOver] button").first().click();
    await shot(page, "rules", page.getByRole("group", { name: "Write the rule" }));
    await page.getByRole("link", { name: "Hand-off" }).click();
    await page.getByRole("button", { name: /^TypeScript/ }).click();
    await shot(page, "hand-off", page.getByRole("tabpanel").filter({ hasText: "Made by Etape" }));
    await page.getByRole("link", { name: "Map" }).click();
    await page.getByRole("treeitem", { name: "Goodbye" }).click();
    await page.locator("[data-card][data-place=goodbye] [data-row=again]").click();
    await page.getByLabel("Inspector").getByRole("button", { name: "Delete" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
    await page.getByTestId("worst").filter({ hasText: "Nobody gets out" }).waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: "Walk it" }).click();
    await page.locator("[data-reason]").waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: /note/ }).click();
    await shot(page, "finding", page.locator("[data-finding]").first());
    await page.goto(served.address);
    await page.getByText("In this browser").waitFor();
    await shot(page, "projects", page.getByRole("link", { name: "Hollowcomb" }));
  }
  await page.context().close();
}
// Screens with pictures, an area chosen and a sheet up on the device.
{
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: "dark", reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(served.address);
  await page.getByRole("button", { name: "Oddglove" }).click();
  await page.getByTestId("proof").filter({ hasText: "Proved" }).waitFor({ timeout: 30_000 });
  await page.getByRole("link", { name: "Pictures" }).click();
  await page.getByRole("list", { name: "Screens" }).getByRole("button", { name: "Find", exact: true }).click();
  await page.getByRole("button", { name: "Area for It is mine" }).click();
  const device = page.getByTestId("device");
  await device.getByRole("button", { name: "Begin" }).click();
  await device.getByRole("button", { name: /Tartan umbrella/ }).click();
  await device.getByRole("button", { name: "It is mine" }).click();
  await shot(page, "pictures-dark", device.locator("[data-layer] img"));
  await context.close();
}
// Three hundred screens as names.
const { writeProject } = await import(pathToFileURL(await bundled("src/core/model/write.ts", "write.mjs")).href);
const { bigProject } = await import(pathToFileURL(await bundled("bench/big.ts", "big.mjs")).href);
const big = join(root, "dist", "shots", "three-hundred.etape.json");
writeFileSync(big, writeProject({ ...bigProject(300), name: "Three hundred" }));
for (const colorScheme of ["light"]) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme, reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(served.address);
  await page.getByLabel("Project file").setInputFiles(big);
  await page.getByTestId("proof").filter({ hasText: "Proved" }).waitFor({ timeout: 60_000 });
  for (const side of ["outline", "walk"]) await page.getByRole("button", { name: `Fold the ${side} away` }).click();
  await page.getByLabel("Show the whole map").click();
  await page.waitForTimeout(1500);
  await shot(page, `map-300-${colorScheme}`);
  await context.close();
}

// A recorded log, followed, in the dark.
{
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: "dark", reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(served.address);
  await page.getByLabel("Project file").setInputFiles("examples/bandstand/bandstand.etape.json");
  await page.getByTestId("proof").filter({ hasText: "Proved" }).waitFor({ timeout: 30_000 });
  await page.getByLabel("Lens", { exact: true }).selectOption("followed");
  const evening = readFileSync("examples/bandstand/logs/evening.jsonl", "utf8").replace('"shows":"booked"', '"shows":"tickets"');
  await page.getByLabel("Read a log…").setInputFiles({ name: "evening.jsonl", mimeType: "application/json", buffer: Buffer.from(evening) });
  await page.getByTestId("followed").waitFor();
  await shot(page, "followed-dark");
  await context.close();
}

// A prototype on a phone, from disk.
{
  const prototype = join(root, "dist", "shots", "prototype.html");
  const { prototypeHtml } = await import(pathToFileURL(await bundled("src/core/handoff/prototype/prototype.ts", "prototype.mjs")).href);
  const document = JSON.parse(readFileSync(join(root, "demo", "hollowcomb.etape.json"), "utf8"));
  writeFileSync(prototype, prototypeHtml(document, readFileSync(join(root, "dist", "prototype", "prototype.html"), "utf8")));
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, reducedMotion: "reduce" });
  const page = await context.newPage();
  await page.goto(pathToFileURL(prototype).href);
  const device = page.getByTestId("device");
  await device.getByRole("button", { name: "Skip the tour" }).tap();
  await device.locator("input[data-element=code]").fill("FENNICK");
  await device.locator("button[data-element=join]").tap();
  await page.getByRole("button", { name: "known code", exact: true }).tap();
  await device.locator("[data-item=orchard]").tap();
  await shot(page, "prototype-phone", device);
  await context.close();
}
await browser.close();
served.close();

async function bundled(entry, name) {
  const file = join(root, "dist", "shots", name);
  await bundle(entry, file);
  return file;
}
