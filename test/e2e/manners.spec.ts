import AxeBuilder from "@axe-core/playwright";
import { amount } from "../random/amount.ts";
import { unfold } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

/** What breaks a rule within a part of the page; in the dark, where it is the same but for its colours, only theirs. All of both in the long run. */
const violations = async (page: Page, part: string, dark = false) => {
  const [within, colours] = process.env.ETAPE_LONG ? ["body", false] : [part, dark];
  const axe = new AxeBuilder({ page }).include(within);
  const { violations: found } = await (colours
    ? axe.withRules(["color-contrast"])
    : axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"])
  ).analyze();
  return found.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(" "))
        .slice(0, 4)
        .join(" | ")}`,
  );
};

/** Opens a demo in light, until it is checked. */
async function opened(page: Page, demo: string | RegExp) {
  await page.emulateMedia({ colorScheme: "light" });
  await page.goto("/");
  await page.getByRole("button", { name: demo }).click();
  await expect(page.getByTestId("device")).toBeVisible();
  // Single keys work from here on.
  await expect(page.locator("#places")).toBeFocused();
}

/** Goes to a screen's picture, and chooses one of its areas. */
async function choosePicture(page: Page) {
  await page.getByRole("link", { name: "Pictures" }).click();
  await page.getByRole("list", { name: "Screens" }).getByRole("button", { name: "Find", exact: true }).click();
  await page.getByRole("button", { name: "Area for It is mine" }).click();
  await expect(page.getByLabel("It stands for")).toBeVisible();
}

/** Everything that a view, a sheet or a menu can be, one by one, so that no test runs long; and where it is, if the rest is as elsewhere. */
const SHOWN: ReadonlyArray<[name: string, demo: string | RegExp, show: (page: Page) => Promise<void>, within?: string]> = [
  ["the map", "its first draft", (page) => expect(page.getByTestId("proof")).toContainText("Proved")],
  [
    "all findings, with a screen chosen",
    "its first draft",
    async (page) => {
      await page.getByRole("button", { name: /warning/ }).click();
      await page
        .getByRole("treeitem", { name: /^Hive( |$)/ })
        .first()
        .click();
    },
  ],
  ["an element chosen", "its first draft", (page) => chooseNotes(page), "[aria-label=Inspector]"],
  [
    "picking a target",
    "its first draft",
    async (page) => {
      await chooseNotes(page);
      await page.keyboard.press("l");
      await page.keyboard.type("note");
      await expect(page.locator("[cmdk-item]").first()).toBeVisible();
    },
    "[role=dialog]",
  ],
  [
    "a leg that was just made",
    "its first draft",
    async (page) => {
      await chooseNotes(page);
      await page.keyboard.press("l");
      await page.keyboard.type("note");
      await page.keyboard.press("Enter");
      await expect(page.getByLabel("The leg that was just made")).toBeVisible();
    },
    "[aria-label='The leg that was just made']",
  ],
  ["pictures, with an area chosen", "Oddglove", (page) => choosePicture(page)],
  [
    "what an area that was drawn is for",
    "Oddglove",
    async (page) => {
      await choosePicture(page);
      const box = await page.getByTestId("picture").boundingBox();
      if (!box) throw new Error("the picture is shown");
      await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.76);
      await page.mouse.down();
      await page.mouse.move(box.x + box.width * 0.7, box.y + box.height * 0.82, { steps: 4 });
      await page.mouse.up();
      await expect(page.getByRole("dialog", { name: "What is in this area?" })).toBeVisible();
    },
    "[role=dialog]",
  ],
  ["no pictures yet", /Open Hollowcomb/, (page) => page.getByRole("link", { name: "Pictures" }).click(), "main"],
  ["the palette", /Open Hollowcomb/, (page) => sheet(page, "Control+k"), "[role=dialog]"],
  ["the keys", /Open Hollowcomb/, (page) => sheet(page, "?"), "[role=dialog]"],
  ["the facts", /Open Hollowcomb/, (page) => sheet(page, "f"), "[role=dialog]"],
  ["a leg chosen", /Open Hollowcomb/, (page) => chooseLeg(page), "[aria-label=Inspector]"],
  [
    "what if",
    /Open Hollowcomb/,
    async (page) => {
      await chooseLeg(page);
      await sheet(page, "i");
    },
    "[role=dialog]",
  ],
  [
    "a repair looked at",
    "its first draft",
    async (page) => {
      await page.getByRole("button", { name: /warning/ }).click();
      await page.locator("[data-finding]").getByRole("button", { name: /^Fix/ }).first().click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
    "[role=dialog]",
  ],
  [
    "several chosen, and the whole map",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("treeitem", { name: /^Yard/ }).first().click();
      await page
        .getByRole("treeitem", { name: /^House/ })
        .first()
        .click({ modifiers: ["Control"] });
      await page.getByLabel("Show the whole map").click();
    },
  ],
  [
    "the ways in",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("button", { name: "Ways in" }).click();
      await expect(page.getByRole("group", { name: "Ways in" })).toBeVisible();
    },
  ],
  [
    "the parameters",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("link", { name: "Parameters" }).click();
      await page.getByRole("button", { name: "follow it" }).first().click();
    },
    "main",
  ],
  [
    "the record types",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("link", { name: "Parameters" }).click();
      await page.getByRole("tab", { name: /Record types/ }).click();
    },
    "main",
  ],
  [
    "the walk on the whole window",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("link", { name: "Walk", exact: true }).click();
      await expect(page.getByTestId("device")).toBeVisible();
    },
  ],
  [
    "a screen with all of its fields, and the icons",
    /Open Hollowcomb/,
    async (page) => {
      await page
        .getByRole("treeitem", { name: /^Hive( |$)/ })
        .first()
        .click();
      await unfold(page);
      await page.getByRole("button", { name: /^Icon:/ }).click();
      await expect(page.getByLabel("Find an icon")).toBeVisible();
    },
    "[aria-label=Inspector]",
  ],
  [
    "moving into a container",
    /Open Hollowcomb/,
    async (page) => {
      await page
        .getByRole("treeitem", { name: /^Hive( |$)/ })
        .first()
        .click();
      await page
        .getByLabel("Inspector")
        .getByRole("button", { name: /Move into a container/ })
        .click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
    "[role=dialog]",
  ],
  [
    "adding a way in",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("button", { name: "Add a way in" }).click();
      await expect(page.getByRole("menu")).toBeVisible();
    },
    "[role=menu]",
  ],
  [
    "a target picked for a leg that needs no element, asked for",
    /Open Hollowcomb/,
    async (page) => {
      await page
        .getByRole("treeitem", { name: /^Hive( |$)/ })
        .first()
        .click();
      await page.keyboard.press("w");
      await page.keyboard.type("no");
      await expect(page.getByRole("dialog", { name: /lead/ })).toBeVisible();
    },
    "[role=dialog]",
  ],
  [
    "a pattern, with a name that is taken",
    /Open Hollowcomb/,
    async (page) => {
      await page.getByRole("treeitem", { name: /^Shift/ }).click();
      await page.keyboard.press("a");
      const panel = page.getByRole("dialog", { name: "Put in a pattern" });
      await panel.getByRole("option", { name: "Search over the page" }).click();
      await expect(panel.getByText("looking…")).toHaveCount(0);
      await panel.getByLabel("The search").fill("Rota");
      await expect(panel.getByText(/There is a “Rota” already/)).toBeVisible();
    },
  ],
];

async function chooseNotes(page: Page) {
  await page
    .getByRole("treeitem", { name: /^Hive( |$)/ })
    .first()
    .click();
  await page.getByRole("treeitem", { name: "Notes button" }).click();
}

async function chooseLeg(page: Page) {
  await page.locator("[data-card][data-place=hive] [data-row=notes]").click();
  await page
    .getByLabel("Inspector")
    .getByRole("button", { name: /on top of/ })
    .click();
}

async function sheet(page: Page, key: string) {
  await page.keyboard.press(key);
  await expect(page.getByRole("dialog")).toBeVisible();
}

/** What breaks a rule in light or in dark; the page is the same but for its colours. */
async function inBothThemes(page: Page, within = "body") {
  expect(await violations(page, within), "light").toEqual([]);
  await page.evaluate(() => {
    document.documentElement.dataset.theme = "dark";
  });
  expect(await violations(page, within, true), "dark").toEqual([]);
}

test("the list of projects breaks no rule of accessibility, in light and in dark", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "light" });
  await page.goto("/");
  await inBothThemes(page);
});

// One after the other would take a third of the time of all tests: each second one is looked at, all of them in the long run.
const LOOKED_AT = SHOWN.filter((_, i) => i % amount(1, 2) === 0);

for (const [name, demo, show, within] of LOOKED_AT)
  test(`${name} breaks no rule of accessibility, in light and in dark`, async ({ page }) => {
    await opened(page, demo);
    await show(page);
    await inBothThemes(page, within);
  });

test("two windows on the same project follow each other, and no edit is lost", async ({ context }) => {
  const one = await context.newPage();
  await one.goto("/");
  await one.getByRole("button", { name: /Start empty/ }).click();
  await expect(one.getByRole("treeitem", { name: "Home" })).toBeVisible();
  const two = await context.newPage();
  await two.goto(one.url());
  await expect(two.getByRole("treeitem", { name: "Home" })).toBeVisible();
  const add = async (page: Page, name: string) => {
    await page.getByLabel("Find or add a screen").fill(name);
    await page.keyboard.press("Enter");
  };
  await add(one, "Brood");
  await expect(two.getByRole("treeitem", { name: "Brood" })).toBeVisible();
  await Promise.all([add(one, "Honey"), add(two, "Wax")]);
  for (const page of [one, two]) for (const name of ["Brood", "Honey", "Wax"]) await expect(page.getByRole("treeitem", { name })).toBeVisible();
});
