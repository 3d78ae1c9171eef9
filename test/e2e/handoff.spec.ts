import { readFileSync, writeFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { strFromU8, unzipSync } from "fflate";
import { app } from "../vectors/app.ts";
import { openDocument } from "./open.ts";
import { expect, type Route, test } from "./test.ts";

test("a hand-off is looked at, copied and downloaded; all of it comes as one zip", async ({ page, context }, info) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByRole("link", { name: "Hand-off" }).click();
  await expect(page.getByRole("tab", { name: "specification.md" })).toBeVisible();
  await expect(page.getByRole("tabpanel")).toContainText("# Hollowcomb");
  await expect(page.getByTestId("proof")).toContainText("Proved");
  await page.getByRole("tab", { name: "specification.html" }).click();
  await expect(page.frameLocator("iframe").getByRole("heading", { name: "Screens" })).toBeVisible();
  await page.getByRole("button", { name: /Graph, Mermaid/ }).click();
  await expect(page.getByRole("tabpanel")).toContainText("stateDiagram-v2");
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain("stateDiagram-v2");
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download all as a zip" }).click();
  const file = info.outputPath("all.zip");
  await (await downloading).saveAs(file);
  const files = unzipSync(new Uint8Array(readFileSync(file)));
  expect(Object.keys(files)).toEqual(expect.arrayContaining(["specification.md", "map.svg", "map.dot", "every-leg.feature", "addresses.csv"]));
  expect(strFromU8(files["every-leg.feature"] ?? new Uint8Array())).toContain("Feature: Hollowcomb");
});

test("a document that names what is not there is handed off to nobody, and says why", async ({ page }, info) => {
  const broken = JSON.parse(readFileSync("demo/hollowcomb.etape.json", "utf8"));
  broken.legs[0].move = { kind: "reset", to: "nowhere" };
  const file = info.outputPath("broken.etape.json");
  const { writeFileSync } = await import("node:fs");
  writeFileSync(file, JSON.stringify(broken));
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles(file);
  await page.getByRole("link", { name: "Hand-off" }).click();
  await expect(page.getByRole("alert")).toContainText("nowhere");
  await expect(page.getByRole("button", { name: "Download all as a zip" })).toBeDisabled();
});

test("a list of addresses and a sitemap open as projects, and say what was left out", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({ name: "paths.txt", mimeType: "text/plain", buffer: Buffer.from("/\n/hives\n/hives/:id?tab=1\n") });
  await expect(page.locator("[data-card]")).toHaveCount(3);
  await expect(page.getByRole("status").filter({ hasText: "Not kept" })).toContainText("line 3");
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({
    name: "map.xml",
    mimeType: "application/xml",
    buffer: Buffer.from('<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><urlset><url><loc>&e;</loc></url></urlset>'),
  });
  await expect(page.getByRole("alert")).toContainText("a document type");
});

test("a state chart opens as a project, and what it can not keep is said", async ({ page }, info) => {
  const file = info.outputPath("desk.scxml");
  writeFileSync(
    file,
    `<scxml xmlns="http://www.w3.org/2005/07/scxml" initial="shelf" name="Lending desk">
  <datamodel><data id="count"/></datamodel>
  <state id="shelf"><transition event="pick" target="loan"/></state>
  <state id="loan"><transition event="cancel" cond="count" target="shelf"/></state>
</scxml>`,
  );
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles(file);
  await expect(page.getByText("Not kept:")).toBeVisible();
  await expect(page.getByText("the condition count, which the leg has as a note")).toBeVisible();
  await page.getByTestId("device").getByRole("button", { name: "pick" }).click();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "loan");
});

test("a prototype is looked at, left for a phone, and walked there", async ({ page, browser }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await page.getByRole("link", { name: "Hand-off" }).click();
  await page.getByRole("button", { name: /^Prototype/ }).click();
  await expect(page.frameLocator("iframe").getByTestId("device")).toHaveAttribute("data-screen", "welcome");
  await page.getByRole("button", { name: "On a phone…" }).click();
  const dialog = page.getByRole("dialog", { name: "On a phone" });
  await expect(dialog).toContainText("npx etape serve --lan");
  const { violations } = await new AxeBuilder({ page }).include('[role="dialog"]').withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  const address = await dialog.getByRole("link").getAttribute("href");
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, reducedMotion: "reduce" });
  const there = await phone.newPage();
  await there.goto(address ?? "");
  await there.getByTestId("device").getByRole("button", { name: "Skip the tour" }).tap();
  await expect(there.getByTestId("device")).toHaveAttribute("data-screen", "join");
  await phone.close();
});

test("the zip waits for the check, and for the frame of the prototype, where these have not come yet", async ({ page }) => {
  const held: Array<() => void> = [];
  const hold = async (route: Route) => {
    await new Promise<void>((go) => held.push(go));
    await route.continue();
  };
  await page.route("**/prototype.html", hold);
  const begun: Array<() => void> = [];
  await page.route(/check\.worker.*\.js$/, async (route) => {
    if (begun.length === 0) await new Promise<void>((go) => begun.push(go));
    await route.continue();
  });
  await openDocument(page, app("main", { stacks: { main: "home item" }, legs: ["go home push item"] }));
  await page.getByRole("link", { name: "Hand-off" }).click();
  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download all as a zip" }).click();
  await expect(page.getByText("The zip comes as soon as the check has ended.")).toBeVisible();
  await expect.poll(() => begun.length).toBe(1);
  begun[0]?.();
  await expect.poll(() => held.length).toBeGreaterThan(1);
  for (const go of held) go();
  const files = unzipSync(readFileSync(await (await downloading).path()));
  expect(strFromU8(files["prototype.html"] ?? new Uint8Array())).toContain("<!doctype html>");
  expect(strFromU8(files["specification.md"] ?? new Uint8Array())).toContain("Proved for any depth of stack");
});
