import { app } from "../vectors/app.ts";
import { openDocument } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const shop = app("main", {
  stacks: { main: "home item" },
  screens: { home: { name: "Home" }, item: { name: "Item", bar: { show: true, lead: "none" } } },
  legs: ["go home push item", "stay item replace item"],
});

/** Milliseconds after which what is waited for is said not to come, as for everything else that a test expects. */
const LIMIT = 120_000;

/** Lets workers start as usual, or fail as they do when their file is not there. */
async function breakWorkers(page: Page) {
  await page.route(/check\.worker.*\.js$/, (route) => route.fulfill({ status: 404, body: "" }));
}
const repairWorkers = (page: Page) => page.unroute(/check\.worker.*\.js$/);

test("where the checking part fails, every wait ends with a sentence and a way on", async ({ page }) => {
  await openDocument(page, shop);
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
  await breakWorkers(page);
  await page.getByRole("treeitem", { name: "Item" }).click();
  const inspector = page.getByLabel("Inspector");
  await inspector.getByRole("button", { name: "Walk from here" }).click();
  await expect(inspector.getByRole("alert")).toContainText("No way was looked for");
  await repairWorkers(page);
  await inspector.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByTestId("device")).toHaveAttribute("data-screen", "item");
  await breakWorkers(page);
  await page.locator("footer").getByRole("button", { name: /all/ }).click();
  await page.locator("[data-finding]").getByRole("button", { name: /^Fix/ }).first().click();
  await expect(page.getByRole("dialog").getByRole("alert")).toContainText("What comes and goes is not known");
  await repairWorkers(page);
  await page.getByRole("dialog").getByRole("button", { name: "Try again" }).click();
  await expect(page.getByRole("dialog").getByRole("alert")).toHaveCount(0);
  await page.keyboard.press("Escape");
  await breakWorkers(page);
  await page.getByRole("link", { name: "Hand-off" }).click();
  await expect(page.getByRole("main").getByRole("alert")).toContainText("could not be made");
  await repairWorkers(page);
  // The check that ends meanwhile makes the files again by itself; either way they come.
  await expect(async () => {
    const again = page.getByRole("main").getByRole("button", { name: "Try again" });
    if ((await again.count()) > 0) await again.click({ timeout: 2000 });
    await expect(page.getByRole("tab").first()).toBeVisible({ timeout: 4000 });
  }).toPass({ timeout: LIMIT });
});

test("the foot says that the check failed, and checks again at the next edit", async ({ page }) => {
  await breakWorkers(page);
  await openDocument(page, shop);
  await expect(page.getByTestId("proof")).toContainText("The check failed");
  await repairWorkers(page);
  await page.getByRole("button", { name: "check again" }).click();
  await expect(page.getByTestId("proof")).toContainText("roved");
});

test("one view that fails says so and leaves the rest of the page standing", async ({ page }) => {
  await page.addInitScript(() => {
    const create = document.createElementNS.bind(document);
    document.createElementNS = ((space: string, name: string, options?: ElementCreationOptions) => {
      if (name === "circle" && (window as unknown as { broken?: boolean }).broken) throw new Error("no circles");
      return create(space, name, options);
    }) as typeof document.createElementNS;
  });
  const device = await openDocument(page, shop);
  await page.evaluate(() => {
    (window as unknown as { broken: boolean }).broken = true;
  });
  await page.getByRole("treeitem", { name: "Item" }).click();
  await page.getByLabel("Label of a new element").fill("Another");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("Something went wrong in the map");
  await device.getByRole("button", { name: "go", exact: true }).click();
  await expect(device).toHaveAttribute("data-screen", "item");
  await page.evaluate(() => {
    (window as unknown as { broken: boolean }).broken = false;
  });
  await page.getByRole("button", { name: "Show it again" }).click();
  await expect(page.locator("[data-card][data-place=item]")).toBeVisible();
});

test("an address at which there is nothing says so, with a way back", async ({ page }) => {
  await page.goto("/no/such/page");
  await expect(page.getByRole("heading", { name: "There is nothing at this address." })).toBeVisible();
  await page.getByRole("link", { name: "All projects" }).click();
  await expect(page.getByRole("button", { name: /Start empty/ })).toBeVisible();
});

test("a file that is not UTF-8 is refused with the place, and nothing is replaced silently", async ({ page }) => {
  await page.goto("/");
  await page
    .getByLabel("Project file")
    .setInputFiles({ name: "latin.etape.json", mimeType: "application/json", buffer: Buffer.from('{\n"name": "Caf\xe9"}', "latin1") });
  await expect(page.getByRole("alert")).toContainText("bytes that are not UTF-8");
  await expect(page.getByRole("alert")).toContainText("line 2");
});
