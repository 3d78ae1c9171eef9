import { readFileSync } from "node:fs";
import { documentOf, moveOf, openEmpty, typeInPalette } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const APP = [
  "app Allotment",
  "fact member (persists)",
  "rows plot(id, name): a, Oak Corner | b, Long Bed",
  "Main",
  "  Welcome (once, no up, no bar): Sign in > Yard (reset, set member = true), on arriving > Yard (reset, if fact.member)",
  "  Yard (tabs)",
  "    Plots",
  "      Plots (hub): Plot list (of plot) > Plot(plotId = item.id), New plot > New plot",
  "      Plot(plotId) (title {param.plotId})",
  "    Calendar (hub)",
  "    Sheds (hub)",
  "New plot (sheet): Name field, Save > close",
].join("\n");

/** Pastes lines into the field above the outline. */
async function paste(page: Page, lines: string) {
  await page.getByLabel("Find or add a screen").evaluate((element, text) => {
    const data = new DataTransfer();
    data.setData("text/plain", text);
    element.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  }, lines);
}

test("an app is pasted as lines into the empty project: nothing is wrong, one undo", async ({ page }) => {
  await openEmpty(page);
  await paste(page, APP);
  await expect(page.getByRole("treeitem", { name: "Calendar" })).toBeVisible();
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
  const project = await documentOf(page);
  expect([project.name, project.screens.length, project.containers.map(({ kind }) => kind).sort()]).toEqual([
    "Allotment",
    6,
    ["modal", "stack", "stack", "tabs"],
  ]);
  await expect(page.getByText("Nothing is wrong.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("treeitem", { name: "Calendar" })).toHaveCount(0);
});

test("one line builds into a project that is begun, with a preview; a wrong one says where", async ({ page }) => {
  await openEmpty(page, "Plots");
  const field = page.getByLabel("Find or add a screen");
  await field.fill("Plots: Plot list > Plot, New plot > New plot sheet (sheet), Settings icon > Settings");
  await expect(page.getByRole("status").filter({ hasText: "Enter makes" })).toContainText("3 elements, 3 legs");
  await field.press("Enter");
  await expect(page.getByRole("treeitem", { name: "New plot sheet" }).first()).toBeVisible();
  const project = await documentOf(page);
  expect(project.legs.map(({ id }) => moveOf(project, id)?.kind)).toEqual(["push", "open", "push"]);
  expect(project.screens.map(({ name }) => name).sort()).toEqual(["Home", "New plot sheet", "Plot", "Plots", "Settings"]);
  await field.fill("Plots: > Plot");
  await expect(page.getByRole("status").filter({ hasText: "Column 8" })).toContainText("expected what is tapped before >");
  await field.fill("Plots: Plot list > Plot");
  await expect(page.getByRole("status").filter({ hasText: "Enter makes" })).toContainText("nothing new");
  await field.fill("Shed");
  await field.press("Enter");
  await expect(page.getByRole("treeitem", { name: "Shed" })).toBeVisible();
});

test("the five lines with which the README begins make an app in which nothing is wrong", async ({ page }) => {
  const [, block = ""] = /## Ten minutes[\s\S]*?```\n([\s\S]*?)```/.exec(readFileSync("README.md", "utf8")) ?? [];
  const lines = block.trim().split("\n");
  expect(lines).toHaveLength(5);
  await openEmpty(page);
  for (const line of lines) {
    await page.keyboard.type(line.trim());
    await expect(page.getByRole("status").filter({ hasText: "Enter makes" })).toBeVisible();
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Find or add a screen")).toHaveValue("");
  }
  await expect(page.getByText("Nothing is wrong.", { exact: true })).toBeVisible();
  expect((await documentOf(page)).screens.map(({ name }) => name)).toEqual(["Plots", "Plot", "New plot", "Photo", "Log"]);
});

test("a project is copied as lines, and a file of lines opens as a project", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  await expect(page.getByTestId("device")).toBeVisible();
  await typeInPalette(page, "copy the project as lines");
  await page.keyboard.press("Enter");
  await expect(page.getByText("on the clipboard as lines")).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toContain("Apiaries (hub, lead menu, path /apiaries)");
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({ name: "hives.lines", mimeType: "text/plain", buffer: Buffer.from(text) });
  await expect(page.getByTestId("device")).toBeVisible();
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false", { timeout: 30_000 });
  await expect(page.getByTestId("worst")).toContainText("taps from launch");
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles({ name: "bad.lines", mimeType: "text/plain", buffer: Buffer.from("Home: > x") });
  await expect(page.getByText("expected what is tapped before >")).toBeVisible();
});

test("an empty project asks for its name and begins with a shape, as one undo", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  const start = page.getByRole("region", { name: "Start here" });
  await start.getByLabel("What is the app called?").fill("Lost property");
  await start.getByRole("button", { name: "Sign-in first" }).click();
  await expect(page.getByRole("treeitem", { name: "Sign in" }).first()).toBeVisible();
  await expect(start).toHaveCount(0);
  await expect(page.getByText("Nothing is wrong.", { exact: true })).toBeVisible();
  expect(await documentOf(page)).toMatchObject({
    name: "Lost property",
    screens: [{ name: "Home" }, { name: "Welcome" }, { name: "Sign in" }],
  });
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(start).toBeVisible();
});

test("a list of addresses that is pasted starts a project; a line that is none is named", async ({ page }) => {
  await openEmpty(page);
  await page.getByLabel("Find or add a screen").evaluate((element) => {
    const data = new DataTransfer();
    data.setData("text/plain", "/\n/orders\nOrders, and so on\n/orders/[id]\n/orders/[id]/edit\n");
    element.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(page.getByRole("treeitem", { name: "Edit", exact: true }).first()).toBeVisible();
  await expect(page.getByText("line 3: “Orders, and so on” is no address")).toBeVisible();
  expect((await documentOf(page)).screens.map(({ name }) => name)).toEqual(["Home", "Orders", "Order", "Edit"]);
});

test("lines as people write them in any list build, and a condition in plain words becomes an expression", async ({ page }) => {
  await openEmpty(page);
  await paste(page, "1. Feed (tab) -> Story\n2. You (tab): Sign out > Welcome (reset, set member = false), Ask > Ask (alert)\n3. Welcome: In > Feed (reset)");
  await expect(page.getByRole("treeitem", { name: "Welcome" })).toBeVisible();
  const built = await documentOf(page);
  expect(moveOf(built, "signOutWelcome")).toEqual({ kind: "reset", to: "welcome" });
  expect(built.facts.map(({ id }) => id)).toEqual(["member"]);

  await page.getByRole("treeitem", { name: "You" }).click();
  await page.locator("[data-card][data-place=you] [data-row=ask]").click();
  const inspector = page.getByLabel("Inspector");
  await inspector.getByText("Opens “Ask” over the page").click();
  const condition = inspector.getByLabel("Only if");
  await condition.fill("not member");
  await expect(inspector.getByText("reads !fact.member, boolean")).toBeVisible();
  await condition.press("Enter");
  await expect(condition).toHaveValue("!fact.member");
  expect((await documentOf(page)).legs.find(({ id }) => id === "askAsk")?.when).toBe("!fact.member");
  await condition.fill("membr");
  await expect(inspector.getByText("there is no “membr” here")).toHaveCount(0);
  await expect(inspector.getByText('there is no "membr" here; there are fact, width, param, field, and text stands in quotes')).toBeVisible();
});

test("lines that could not be built are fixed on the spot, and nothing is lost", async ({ page }) => {
  await openEmpty(page);
  await paste(page, "Corner library\n\nDesk: Book list > Book\nBook: Lend > Lend (fancy), Back\nLend (sheet): Done > close");
  const dialog = page.getByRole("dialog", { name: "These lines need a fix" });
  const area = dialog.getByLabel("Lines");
  await expect(area).toHaveValue(/^Corner library\n/);
  await expect(dialog.getByRole("button", { name: "Build" })).toBeDisabled();
  await dialog.getByRole("button", { name: /^Line 4, column 20: found “fancy”/ }).click();
  await expect(area).toBeFocused();
  expect(await area.evaluate((field: HTMLTextAreaElement) => field.value.slice(field.selectionStart, field.selectionStart + 5))).toBe("fancy");
  await area.fill((await area.inputValue()).replace(" (fancy)", ""));
  await page.mouse.click(20, 700);
  await expect(page.getByRole("dialog", { name: "These lines can be built" })).toContainText("Build makes screens “Desk”, “Book”");
  await page.getByRole("button", { name: "Build" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const built = await documentOf(page);
  expect([built.name, built.screens.map(({ name }) => name)]).toEqual(["Corner library", ["Desk", "Book", "Lend"]]);
  expect(moveOf(built, "backBack")).toEqual({ kind: "back" });
});

test("a table that is copied from a spreadsheet is pasted as what leads where", async ({ page }) => {
  await openEmpty(page);
  await paste(page, "Screen\tAction\tGoes to\tHow\nDesk\tBook list\tBook\t\n\tNew book\tNew book\tmodal\nBook\tBack\tback\t\n");
  await expect(page.getByRole("treeitem", { name: "New book" }).first()).toBeVisible();
  const built = await documentOf(page);
  expect(built.screens.map(({ name }) => name)).toEqual(["Desk", "Book", "New book"]);
  expect(built.legs.map(({ move }) => move?.kind)).toEqual(["push", "open", "back"]);
});
