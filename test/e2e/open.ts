import { readProject } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { isZip, unpacked } from "../../src/core/pictures/zip.ts";
import { expect, type Locator, type Page } from "./test.ts";

/** Opens a document in the page as from a file; gives the device. */
export async function openDocument(page: Page, project: Project): Promise<Locator> {
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({ name: "test.etape.json", mimeType: "application/json", buffer: Buffer.from(writeProject(project)) });
  const device = page.getByTestId("device");
  await expect(device).toBeVisible();
  return device;
}

/** Opens an empty project and adds screens by name, one after another in the same field. */
export async function openEmpty(page: Page, ...names: string[]) {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await page.getByLabel("Find or add a screen").click();
  for (const name of names) {
    await page.keyboard.type(name);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("treeitem", { name }).first()).toBeVisible();
  }
}

/** The open document, when everything is saved, as its export says it. */
export async function documentOf(page: Page): Promise<Project> {
  await expect(page.getByTestId("saved")).toHaveText("saved");
  const downloading = page.waitForEvent("download");
  await page.getByRole("banner").getByRole("button", { name: "Export" }).click();
  const stream = await (await downloading).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(chunk as Buffer);
  const bytes = new Uint8Array(Buffer.concat(chunks));
  const zip = isZip(bytes) ? unpacked(bytes) : undefined;
  if (zip && !zip.ok) throw new Error(zip.message);
  const read = readProject(zip ? zip.packed.text : new TextDecoder().decode(bytes));
  if (!read.ok) throw new Error("the export can be read");
  return read.project;
}

export const screensOf = (project: Project) => project.screens.map((screen) => screen.name);
export const moveOf = (project: Project, leg: string) => project.legs.find((one) => one.id === leg)?.move;

/** Unfolds what is folded in the inspector. */
export async function unfold(page: Page) {
  // What it shows is loaded beside the page: before it is there, nothing is folded.
  await expect(page.getByLabel("Inspector").locator("summary, h2, input, button").first()).toBeAttached();
  const folded = page.getByLabel("Inspector").locator("details:not([open]) > summary");
  while ((await folded.count()) > 0) await folded.first().click();
}

/** Opens the palette and types into it once its field has the focus. */
export async function typeInPalette(page: Page, text: string) {
  await page.keyboard.press("Control+k");
  await expect(page.getByPlaceholder("Type what to do, or where to go")).toBeFocused();
  await page.keyboard.type(text);
}
