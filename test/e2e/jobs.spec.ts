import { check } from "../../src/core/check/check.ts";
import { lookup } from "../../src/core/model/lookup.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { app } from "../vectors/app.ts";
import { documentOf, openDocument } from "./open.ts";
import { expect, type Locator, type Page, test } from "./test.ts";

/** Hands that count: each key that is pressed and each press or drag of the pointer; names that are typed are free. */
class Hands {
  count = 0;
  constructor(readonly page: Page) {}

  async press(...keys: string[]) {
    for (const key of keys) {
      this.count += 1;
      await this.page.keyboard.press(key);
    }
  }
  type(name: string) {
    return this.page.keyboard.type(name);
  }
  async click(where: Locator, options: Parameters<Locator["click"]>[0] = {}) {
    this.count += 1;
    await where.click(options);
  }
  /** From the right end of something on the map to the middle of something else there. */
  async drag(from: Locator, to: Locator) {
    this.count += 1;
    const [a, b] = [await from.boundingBox(), await to.boundingBox()];
    if (!a || !b) throw new Error("both are on the map");
    const { mouse } = this.page;
    await mouse.move(a.x + a.width - 6, a.y + a.height / 2);
    await mouse.down();
    await mouse.move(b.x + b.width / 2, b.y + b.height / 2, { steps: 6 });
    await mouse.up();
  }
}

const card = (page: Page, name: string) => page.locator("[data-card]").filter({ has: page.locator("text.card-name", { hasText: new RegExp(`^${name}$`) }) });
const head = (page: Page, name: string) => card(page, name).locator("[data-head]");
const chosen = (page: Page, name: string) => expect(page.getByRole("treeitem", { name, selected: true }).first()).toBeVisible();
const picker = (page: Page) => page.getByRole("dialog", { name: /lead|left/ });
const made = (page: Page) => expect(page.getByRole("region", { name: "The leg that was just made" })).toBeVisible();
const inspector = (page: Page) => page.getByLabel("Inspector");

async function empty(page: Page): Promise<Hands> {
  await page.goto("/");
  await page.getByRole("button", { name: /Start empty/ }).click();
  await expect(page.getByLabel("Find or add a screen")).toBeFocused();
  return new Hands(page);
}

/** Opens a document with a screen chosen, as somebody has it who is about to work on it. */
async function on(page: Page, project: Project, screen: string): Promise<Hands> {
  await openDocument(page, project);
  await page.locator(`[role=treeitem][data-key="${screen}"]`).click();
  await expect(page.getByLabel("Inspector").getByLabel("Name", { exact: true })).toBeVisible();
  return new Hands(page);
}

const legsOf = (project: Project) =>
  project.legs.map(({ from, move }) => [lookup(project).places.get(from)?.id, move?.kind, move && "to" in move ? move.to : undefined]);
const noBlocker = (project: Project) => expect(check(project).findings.filter((finding) => finding.severity === "blocker" && !finding.open)).toEqual([]);

test.describe("three screens and two legs, in at most 12", () => {
  const expectThree = async (page: Page, hands: Hands) => {
    const project = await documentOf(page);
    expect(legsOf(project)).toEqual([
      ["home", "push", "plots"],
      ["plots", "push", "plot"],
    ]);
    noBlocker(project);
    expect(hands.count).toBeLessThanOrEqual(12);
  };
  test("by keyboard", async ({ page }) => {
    const hands = await empty(page);
    await hands.type("Plots");
    await hands.press("Enter");
    await hands.type("Plot");
    await hands.press("Enter", "ArrowDown", "ArrowUp", "ArrowUp");
    await chosen(page, "Home");
    await hands.press("l");
    await hands.type("Plots");
    await hands.press("Enter");
    await made(page);
    await hands.press("ArrowDown", "l");
    await hands.type("Plot");
    await hands.press("Enter");
    await made(page);
    await expectThree(page, hands);
  });
  test("by mouse", async ({ page }) => {
    const hands = await empty(page);
    await hands.type("Plots");
    await hands.click(page.getByRole("button", { name: /Add screen “Plots”/ }));
    await page.getByLabel("Find or add a screen").fill("Plot");
    await hands.click(page.getByRole("button", { name: /Add screen “Plot”/ }));
    await hands.drag(head(page, "Home"), card(page, "Plots"));
    await made(page);
    await hands.drag(head(page, "Plots"), card(page, "Plot"));
    await made(page);
    await expectThree(page, hands);
  });
});

test.describe("five screens in two tabs with a modal and a notification, in at most 40", () => {
  const expectShop = async (page: Page, hands: Hands) => {
    const project = await documentOf(page);
    expect(project.screens.map((s) => s.name).sort()).toEqual(["Home", "New order", "Order", "Orders", "Settings"]);
    const named = (name: string) => project.screens.find((s) => s.name === name)?.id ?? "";
    expect(project.containers.find((c) => c.kind === "tabs")?.members).toHaveLength(2);
    const modal = project.containers.find((c) => c.kind === "modal");
    expect(modal?.members).toEqual([named("New order")]);
    expect(project.entrances).toMatchObject([{ kind: "notification", to: named("Order") }]);
    expect(legsOf(project)).toEqual([
      [named("Home"), "open", modal?.id],
      [named("Orders"), "push", named("Order")],
      [named("Home"), "push", named("Settings")],
    ]);
    expect(lookup(project).owners.get(named("Order"))?.members).toContain(named("Orders"));
    noBlocker(project);
    expect(hands.count).toBeLessThanOrEqual(40);
  };
  test("by keyboard", async ({ page }) => {
    const hands = await empty(page);
    await hands.type("Orders");
    await hands.press("Enter", "ArrowDown", "Shift+ArrowUp", "g", "t");
    await expect(page.getByLabel(/Another name for/)).toBeFocused();
    await hands.press("Enter", "/");
    await hands.type("Home");
    await hands.press("Enter", "ArrowDown");
    await chosen(page, "Home");
    await hands.press("l");
    await hands.type("New order");
    await expect(picker(page)).toContainText("in a new modal");
    await hands.press("ArrowDown", "Enter");
    await made(page);
    await hands.press("/");
    await hands.type("Orders");
    await hands.press("Enter", "ArrowDown");
    await hands.press("l");
    await hands.type("Order");
    while (!(await page.locator("[cmdk-item][data-selected=true]", { hasText: /New screen “Order”$/ }).count())) await hands.press("ArrowDown");
    await hands.press("Enter");
    await made(page);
    await hands.press("/");
    await hands.type("Home");
    await hands.press("Enter", "ArrowDown");
    await hands.press("l");
    await hands.type("Settings");
    await hands.press("Enter");
    await made(page);
    await hands.press("/");
    await hands.type("Order");
    await hands.press("Enter", "ArrowDown", "n");
    await expect(page.getByText("Notification to Order").first()).toBeVisible();
    await expectShop(page, hands);
  });
  test("by mouse", async ({ page }) => {
    const hands = await empty(page);
    await hands.type("Orders");
    await hands.click(page.getByRole("button", { name: /Add screen “Orders”/ }));
    await hands.click(page.getByRole("treeitem", { name: "Home" }), { modifiers: ["Control"] });
    await hands.click(inspector(page).getByRole("button", { name: /Put into tabs/ }));
    const lead = async (from: string, name: string, option: string) => {
      await hands.click(head(page, from));
      await hands.click(inspector(page).getByRole("button", { name: "Lead somewhere with a new button" }));
      await expect(picker(page)).toBeVisible();
      await hands.type(name);
      await hands.click(page.getByRole("option", { name: option, exact: true }));
      await made(page);
    };
    await lead("Home", "New order", "+ New screen “New order” in a new modal");
    await lead("Orders", "Order", "+ New screen “Order”");
    await lead("Home", "Settings", "+ New screen “Settings”");
    await hands.click(head(page, "Order"));
    await hands.click(page.getByRole("button", { name: "Add a way in" }));
    await hands.click(page.getByRole("menuitem", { name: /notification/ }));
    await expect(inspector(page).getByLabel("Name", { exact: true })).toHaveValue("Notification to Order");
    await expectShop(page, hands);
  });
});

const house = app("d", {
  drawers: { d: "s t" },
  stacks: { s: "home", t: "news" },
  modals: { sheet: "edit" },
  screens: { home: { name: "Home" }, edit: { name: "Edit" } },
  legs: ["up home open sheet"],
});

for (const { job, screen, label, word, option, kind } of [
  { job: "a Cancel that closes its modal", screen: "edit", label: "Cancel", word: "cancel", option: /^Close “/, kind: "close" },
  { job: "a menu button of one's own", screen: "home", label: "Burger", word: "hamburger", option: /^Menu “/, kind: "menu" },
  { job: "an exit button", screen: "home", label: "Bye", word: "exit", option: /^Leave the app/, kind: "leave" },
]) {
  test.describe(`${job}, in at most 4`, () => {
    const expectMade = async (page: Page, hands: Hands) => {
      const project = await documentOf(page);
      const leg = project.legs.at(-1);
      expect(leg).toMatchObject({ from: screen, move: { kind } });
      const element = lookup(project)
        .screens.get(screen)
        ?.elements.find(({ id }) => leg && "element" in leg.on && leg.on.element === id);
      expect(element?.label).toBe(label);
      expect(hands.count).toBeLessThanOrEqual(4);
    };
    test("by keyboard", async ({ page }) => {
      const hands = await on(page, house, screen);
      await hands.press("e");
      await hands.type(label);
      await hands.press("Enter", "Enter");
      await expect(picker(page)).toBeVisible();
      await hands.type(word);
      await hands.press("Enter");
      await made(page);
      await expectMade(page, hands);
    });
    test("by mouse", async ({ page }) => {
      const hands = await on(page, house, screen);
      await hands.click(inspector(page).getByLabel("Label of a new element"));
      await hands.type(label);
      await hands.click(inspector(page).getByRole("button", { name: "Add", exact: true }));
      await hands.click(inspector(page).getByRole("button", { name: `Lead “${label}” somewhere` }));
      await hands.type(word);
      await hands.click(page.getByRole("option", { name: option }));
      await made(page);
      await expectMade(page, hands);
    });
  });
}

test.describe("previous and next with both ends right, in at most 10", () => {
  const shelf = app("main", {
    stacks: { main: "plots plot" },
    screens: { plots: { name: "Plots", elements: [{ id: "rows", kind: "list", label: "Plots" }] }, plot: { name: "Plot" } },
    legs: ["rows plots push plot"],
  });
  const expectPaging = async (page: Page, hands: Hands) => {
    const project = await documentOf(page);
    expect(lookup(project).screens.get("plot")).toMatchObject({ pages: { over: "plot", by: "plotId" } });
    expect(check(project).findings).toEqual([]);
    expect(hands.count).toBeLessThanOrEqual(10);
    const device = page.getByTestId("device");
    await device.locator("[data-item=plot1]").click();
    await expect(device.getByRole("button", { name: "Previous" })).toBeDisabled();
    await device.getByRole("button", { name: "Next" }).click();
    await expect(device.getByRole("button", { name: "Previous" })).toBeEnabled();
    await device.getByRole("button", { name: "Next" }).click();
    await expect(device.getByRole("button", { name: "Next" })).toBeDisabled();
    await page.getByRole("button", { name: "← Back" }).click();
    await expect(device).toHaveAttribute("data-screen", "plots");
  };
  test("by keyboard", async ({ page }) => {
    const hands = await on(page, shelf, "plot");
    await hands.press("Control+k");
    await expect(page.getByPlaceholder("Type what to do, or where to go")).toBeFocused();
    await hands.type("previous");
    await hands.press("Enter");
    await expect(page.getByText("“Plot” pages now")).toBeVisible();
    await expectPaging(page, hands);
  });
  test("by mouse", async ({ page }) => {
    const hands = await on(page, shelf, "plot");
    await hands.click(inspector(page).getByText("Paging", { exact: true }));
    await hands.click(inspector(page).getByRole("button", { name: "Add Previous and Next" }));
    await expect(page.getByText("“Plot” pages now")).toBeVisible();
    await expectPaging(page, hands);
  });
});

test.describe("a sent form that is gone from the history, in at most 6", () => {
  const post = app("main", { stacks: { main: "home form" }, screens: { home: { name: "Home" }, form: { name: "Form" } }, legs: ["go home push form"] });
  const expectSent = async (page: Page, hands: Hands) => {
    const project = await documentOf(page);
    expect(project.legs.at(-1)).toMatchObject({ from: "form", move: { kind: "replace", to: "sent" } });
    expect(hands.count).toBeLessThanOrEqual(6);
  };
  test("by keyboard", async ({ page }) => {
    const hands = await on(page, post, "form");
    await hands.press("e");
    await hands.type("Send");
    await hands.press("Enter", "Enter");
    await expect(picker(page)).toBeVisible();
    await hands.type("Sent");
    await hands.press("Enter");
    await made(page);
    await hands.press("3");
    await expect(inspector(page).getByRole("radio", { checked: true })).toContainText("replace");
    await expectSent(page, hands);
  });
  test("by mouse", async ({ page }) => {
    const hands = await on(page, post, "form");
    await hands.click(inspector(page).getByLabel("Label of a new element"));
    await hands.type("Send");
    await hands.click(inspector(page).getByRole("button", { name: "Add", exact: true }));
    await hands.click(inspector(page).getByRole("button", { name: "Lead “Send” somewhere" }));
    await hands.type("Sent");
    await hands.click(page.getByRole("option", { name: "+ New screen “Sent”", exact: true }));
    await made(page);
    await hands.click(page.getByRole("region", { name: "The leg that was just made" }).getByRole("radio", { name: /replace/ }));
    await expectSent(page, hands);
  });
});

test.describe("a leg after 800 ms from a screen, in at most 6", () => {
  const splash = app("main", { stacks: { main: "splash home" }, screens: { splash: { name: "Splash" }, home: { name: "Home" } } });
  const expectAfter = async (page: Page, hands: Hands) => {
    const project = await documentOf(page);
    expect(project.legs).toMatchObject([{ from: "splash", on: { kind: "after", ms: 800 }, move: { kind: "replace", to: "home" } }]);
    expect(hands.count).toBeLessThanOrEqual(6);
  };
  test("by keyboard", async ({ page }) => {
    const hands = await on(page, splash, "splash");
    await hands.press("w");
    await expect(picker(page)).toBeVisible();
    await hands.press("Shift+Tab");
    await hands.type("800");
    await hands.press("Tab");
    await hands.type("Home");
    await hands.press("Enter");
    await made(page);
    await expectAfter(page, hands);
  });
  test("by mouse", async ({ page }) => {
    const hands = await on(page, splash, "splash");
    await hands.click(inspector(page).getByRole("button", { name: "after a while…" }));
    await hands.click(picker(page).getByLabel("Milliseconds"));
    await hands.type("800");
    await hands.click(card(page, "Home"));
    await made(page);
    await expectAfter(page, hands);
  });
});
