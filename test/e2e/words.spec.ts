import type { Project } from "../../src/core/model/schema.ts";
import { amount } from "../random/amount.ts";
import { documentOf } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

/** The page's whole text except for what is meant to be read as code: ids, expressions, addresses, files. */
async function textOf(page: Page): Promise<string> {
  return page.evaluate(() => {
    const parts: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const parent = node.parentElement;
      if (parent && !parent.closest("code, pre, script, style, .font-mono, iframe")) parts.push(node.textContent ?? "");
    }
    for (const element of document.querySelectorAll("[title], [aria-label]"))
      if (!element.closest("code, pre, .font-mono")) parts.push(element.getAttribute("title") ?? "", element.getAttribute("aria-label") ?? "");
    return parts.join("\n");
  });
}

/** Ids that nobody would take for words, of things that have a name of their own. */
function idsOf(project: Project): string[] {
  const named = [...project.screens, ...project.containers, ...project.entrances, ...project.facts, ...project.types].filter(
    (one) => one.name && one.name !== one.id,
  );
  const legs = project.legs.map((leg) => leg.id);
  return [...named.map((one) => one.id), ...legs].filter((id) => /[a-z][A-Z]/.test(id));
}

/** What in a text is code, notation of the file, or an id where a name belongs. */
function slips(text: string, ids: readonly string[]): string[] {
  const code = text.match(/.*(?:\bundefined\b|\bNaN\b|\[object |===|&&|=>|\{"|\.length\b|null\b).*/g) ?? [];
  const known = new Set(ids);
  return [...code, ...(text.match(/\b[a-z]+[A-Z]\w*\b/g) ?? []).filter((word) => known.has(word))];
}

const DEMOS = [
  ["its first draft", "its first draft"],
  ["Hollowcomb", /Open Hollowcomb/],
  ["Tidewatch", "Tidewatch"],
] as const;

for (const [name, open] of DEMOS.slice(0, amount(DEMOS.length, 1)))
  test(`no view shows code, notation or ids: ${name}`, async ({ page }) => {
    await page.goto("/");
    await page.getByRole("button", { name: open }).click();
    await expect(page.getByTestId("proof")).toContainText(/Proved|proved/);
    const project = await documentOf(page);
    const ids = idsOf(project);
    const looksRight = async (what: string) => expect(slips(await textOf(page), ids), what).toEqual([]);
    await looksRight("the map");
    for (const place of [
      project.screens[3],
      project.containers[0],
      project.containers.find((c) => c.kind === "tabs"),
      project.containers.find((c) => c.kind === "modal"),
    ]) {
      await page.locator(`[role=treeitem][data-key="${place?.id}"]`).click();
      await looksRight(`${place?.name} chosen`);
    }
    await page.locator(`[role=treeitem][data-key="${project.screens[3]?.id}"]`).click();
    await page.locator(`[role=treeitem][data-key^="${project.screens[3]?.id} "]`).first().click();
    await looksRight("an element chosen");
    await page.keyboard.press("l");
    await page.keyboard.type("a");
    await looksRight("picking a target");
    await page.keyboard.press("Escape");
    await expect(page.locator("#places")).toBeFocused();
    for (const key of ["?", "f", "Control+k"]) {
      await page.keyboard.press(key);
      await expect(page.getByRole("dialog")).toBeVisible();
      await looksRight(`the sheet of ${key}`);
      await page.keyboard.press("Escape");
      await expect(page.locator("#places")).toBeFocused();
    }
    await page.locator("footer").getByRole("button", { name: /all/ }).click();
    await looksRight("all findings");
    for (const fix of (await page.getByRole("button", { name: /^Fix: / }).all()).slice(0, 14)) {
      if (await fix.evaluate((button) => button.closest("footer > div") !== null)) continue;
      await fix.click();
      await expect(page.getByRole("dialog")).toBeVisible();
      await looksRight("a repair looked at");
      await page.keyboard.press("Escape");
    }
    await page.getByRole("link", { name: "Parameters" }).click();
    await expect(page.getByRole("table").first()).toBeVisible();
    await looksRight("parameters");
    await page.getByRole("tab", { name: /Record types/ }).click();
    await looksRight("record types");
    await page.getByPlaceholder("A new type: Hive").fill("Bee");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("table", { name: "Samples of Bee" })).toBeVisible();
    await looksRight("an empty record type");
    await page.getByRole("link", { name: "Hand-off" }).click();
    // The first draft names a place that is not there, and so is not handed off.
    const shown = name === "its first draft" ? page.getByRole("alert").getByText(/Nothing can be handed off/) : page.getByRole("tab").first();
    await expect(shown).toBeVisible();
    await looksRight("hand-off");
    await page.getByRole("link", { name: /all projects/ }).click();
    await looksRight("projects");
  });
