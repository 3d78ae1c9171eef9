import { app } from "../vectors/app.ts";
import { documentOf, openDocument, openEmpty, screensOf, typeInPalette, unfold } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const undoName = (page: Page) => page.getByRole("button", { name: /^Undo/ });

test.describe("adding and finding by name", () => {
  test("the field keeps the focus, so names are typed one after another and no letter is a command", async ({ page }) => {
    await openEmpty(page, "Plots");
    await page.keyboard.type("News");
    await page.keyboard.press("Enter");
    await page.keyboard.type("Profile");
    await page.keyboard.press("Enter");
    await page.keyboard.type("Sheds, Paths");
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Find or add a screen")).toBeFocused();
    const made = await documentOf(page);
    expect(screensOf(made)).toEqual(["Home", "Plots", "News", "Profile", "Sheds", "Paths"]);
    expect(made).toMatchObject({ facts: [], entrances: [] });
    expect(made.screens.some((screen) => screen.planned)).toBe(false);
  });

  test("an exact name finds, anything else adds, unless a suggestion was chosen with the arrows", async ({ page }) => {
    await openEmpty(page, "Bookings");
    await page.keyboard.type("Booking");
    await page.keyboard.press("Enter");
    await page.keyboard.type("bookings");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("treeitem", { name: "Bookings", selected: true })).toBeVisible();
    await page.keyboard.type("Boo");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(page.locator("[data-key=booking][aria-selected=true]")).toBeVisible();
    expect(screensOf(await documentOf(page))).toEqual(["Home", "Bookings", "Booking"]);
  });

  test("the target picker takes the very name that was typed", async ({ page }) => {
    await openDocument(
      page,
      app("main", {
        stacks: { main: "home soups soup" },
        screens: { home: { name: "Home", elements: [{ id: "go", kind: "button", label: "Go" }] }, soups: { name: "Soups" }, soup: { name: "Soup" } },
      }),
    );
    const pick = async (name: string) => {
      await page.locator("[data-card][data-place=home] [data-row=go]").click();
      await expect(page.getByRole("region", { name: "Inspector" }).getByRole("heading", { name: "Go" })).toBeVisible();
      await page.keyboard.press("l");
      await page.keyboard.type(name);
      await page.keyboard.press("Enter");
    };
    const leadsTo = async () => (await documentOf(page)).legs[0]?.move;
    await pick("Soup");
    await expect.poll(leadsTo).toMatchObject({ to: "soup" });
    await pick("Me");
    await expect.poll(leadsTo).toMatchObject({ to: "me" });
    expect(screensOf(await documentOf(page))).toContain("Me");
  });

  for (const [part, opens, asked] of [
    ["TargetPicker", "l", "Where does “Go” on “Home” lead?"],
    ["Palette", "Control+k", "Do or find anything"],
  ] as const)
    test(`what is typed while the part for it (${part}) is still loading is carried out when it is there, Enter too`, async ({ page }) => {
      const held: Array<() => void> = [];
      let holding = true;
      await page.route(new RegExp(`/assets/${part}-.*\\.js`), async (route) => {
        if (holding) await new Promise<void>((go) => held.push(go));
        await route.continue();
      });
      await openDocument(
        page,
        app("main", {
          stacks: { main: "home soups soup" },
          screens: { home: { name: "Home", elements: [{ id: "go", kind: "button", label: "Go" }] }, soups: { name: "Soups" }, soup: { name: "Soup" } },
        }),
      );
      await page.locator("[data-card][data-place=home] [data-row=go]").click();
      await expect(page.getByRole("region", { name: "Inspector" }).getByRole("heading", { name: "Go" })).toBeVisible();
      await page.keyboard.press(opens);
      await page.keyboard.type("Soupx");
      await page.keyboard.press("Backspace");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("dialog", { name: asked })).toHaveCount(0);
      holding = false;
      for (const go of held) go();
      // A click before it is there, as the one that exports the document, would mean that they changed their mind.
      if (part === "TargetPicker") {
        await expect(page.getByLabel("The leg that was just made")).toBeVisible();
        expect((await documentOf(page)).legs[0]?.move).toMatchObject({ to: "soup" });
      } else await expect(page.locator("[data-key=soup][aria-selected=true]")).toBeVisible();
    });

  test("lines that are pasted are names, too", async ({ page, context }) => {
    await context.grantPermissions(["clipboard-read", "clipboard-write"]);
    await openEmpty(page);
    await page.evaluate(() => navigator.clipboard.writeText("Sheds\nPaths\n\nTools\n"));
    await page.getByLabel("Find or add a screen").focus();
    await page.keyboard.press("Control+v");
    await page.keyboard.press("Enter");
    expect(screensOf(await documentOf(page))).toEqual(["Home", "Sheds", "Paths", "Tools"]);
  });
});

test.describe("taking back", () => {
  const garden = app("main", {
    stacks: { main: "home plot" },
    screens: {
      home: { name: "Home", elements: [{ id: "go", kind: "button", label: "Go" }] },
      plot: { name: "Plot", elements: [{ id: "x", kind: "button", label: "X" }] },
    },
  });
  const lead = async (page: Page) => {
    await page.locator("[data-card][data-place=home] [data-row=go]").click();
    await page.keyboard.press("l");
    await page.keyboard.type("Plot");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("region", { name: "The leg that was just made" })).toBeVisible();
  };

  test("Escape takes back the whole leg that was just made, whichever way it was led meanwhile", async ({ page }) => {
    await openDocument(page, garden);
    await lead(page);
    await page.keyboard.press("3");
    await page.keyboard.press("4");
    await page.keyboard.press("Escape");
    await expect.poll(async () => (await documentOf(page)).legs).toEqual([]);
  });

  test("after another edit the box is gone, and Escape takes nothing back", async ({ page }) => {
    await openDocument(page, garden);
    await lead(page);
    await unfold(page);
    await page.getByLabel("Inspector").getByLabel("Note").fill("on purpose");
    await page.getByLabel("Inspector").getByLabel("Note").press("Enter");
    await expect(page.getByRole("region", { name: "The leg that was just made" })).toHaveCount(0);
    await page.getByLabel("Inspector").getByRole("heading").first().click();
    await page.keyboard.press("Escape");
    expect((await documentOf(page)).legs).toMatchObject([{ note: "on purpose" }]);
  });

  test("renaming in the outline is one step, undone by one Ctrl Z, also after a drop-down or a tick box was used", async ({ page }) => {
    await openEmpty(page, "Plot");
    await page.getByRole("treeitem", { name: "Plot" }).click();
    await page.keyboard.press("F2");
    await page.keyboard.type("Field");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("treeitem", { name: "Field" })).toBeVisible();
    await page.keyboard.press("Control+z");
    await expect(page.getByRole("treeitem", { name: "Plot" })).toBeVisible();
    const inspector = page.getByLabel("Inspector");
    await unfold(page);
    await inspector.getByLabel("only planned").check();
    await page.keyboard.press("Control+z");
    await expect(inspector.getByLabel("only planned")).not.toBeChecked();
    await inspector.getByLabel("Up leads to").selectOption("none");
    await page.keyboard.press("Control+z");
    await expect(inspector.getByLabel("Up leads to")).toHaveValue("auto");
    await inspector.getByLabel("Name", { exact: true }).click();
    await page.keyboard.press("Control+Shift+z");
    await expect(inspector.getByLabel("Up leads to")).toHaveValue("none");
  });

  test("the project is renamed in the head, and that is undone like anything else", async ({ page }) => {
    await openEmpty(page);
    await page.getByRole("button", { name: /New app/ }).click();
    await page.keyboard.type("Allotments");
    await page.keyboard.press("Enter");
    await expect(undoName(page)).toContainText("Rename");
    expect((await documentOf(page)).name).toBe("Allotments");
    await undoName(page).click();
    await expect(page.getByRole("heading", { name: "New app" })).toBeVisible();
  });
});

test("a deletion says that other screens' Up changes with it", async ({ page }) => {
  await openDocument(
    page,
    app("main", { stacks: { main: "home plot bed" }, screens: { bed: { name: "Bed", up: "plot" } }, legs: ["a home push plot", "b plot push bed"] }),
  );
  await page.getByRole("treeitem", { name: "plot" }).click();
  await page.keyboard.press("Delete");
  await expect(page.getByRole("dialog")).toContainText("Up of “Bed” leads as usual again");
});

test("several rows are chosen by Shift over places alone, and dragged together", async ({ page }) => {
  await openDocument(
    page,
    app("main", {
      stacks: { main: "home a b c", other: "d" },
      tabs: {},
      screens: { a: { elements: [{ id: "x", kind: "button", label: "X" }] } },
      modals: { m: "other" },
    }),
  );
  const row = (id: string) => page.locator(`[role=treeitem][data-key="${id}"]`);
  await row("a").click();
  await page.keyboard.press("Shift+ArrowDown");
  await expect(page.getByRole("treeitem", { selected: true })).toHaveCount(2);
  await row("b").dragTo(row("other"), { targetPosition: { x: 60, y: 15 } });
  await expect.poll(async () => (await documentOf(page)).containers.find((c) => c.id === "other")?.members).toEqual(["d", "a", "b"]);
});

test("where things lead: new screens from tabs and from a bare modal, a drawer from inside, and what a modal covers", async ({ page }) => {
  const shop = app("root", {
    drawers: { root: "tabs about" },
    tabs: { tabs: ["s t", { elements: [{ id: "help", kind: "button", label: "Help" }] }] },
    stacks: { s: "list", t: "more" },
    modals: { sheet: "edit" },
    screens: {
      list: { name: "List", elements: [{ id: "burger", kind: "icon", label: "Burger" }] },
      edit: {
        name: "Edit",
        elements: [
          { id: "next", kind: "button", label: "Next" },
          { id: "done", kind: "button", label: "Done" },
          { id: "own", kind: "button", label: "Own" },
        ],
      },
    },
    legs: ["up list open sheet"],
  });
  await openDocument(page, shop);
  const lead = async (element: string, target: string) => {
    await page.locator(`[data-row=${element}]`).first().click();
    await page.keyboard.press("l");
    await page.keyboard.type(target);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("region", { name: "The leg that was just made" })).toBeVisible();
  };
  await lead("help", "Help page");
  await lead("next", "Second step");
  await lead("done", "List");
  await lead("own", "sheet");
  await lead("burger", "root");
  const made = await documentOf(page);
  expect(made.containers.find((c) => c.id === "tabs")?.members).toEqual(["s", "t"]);
  const byElement = Object.fromEntries(made.legs.map((leg) => ["element" in leg.on ? leg.on.element : "", leg.move]));
  expect(byElement).toMatchObject({
    help: { kind: "push", to: "helpPage" },
    next: { kind: "push", to: "secondStep" },
    done: { kind: "close", modal: "sheet" },
    own: { kind: "close", modal: "sheet" },
    burger: { kind: "menu", drawer: "root" },
  });
  await expect(page.getByTestId("worst")).not.toContainText("fails");
});

test("what leads to no place is said in the words that people use: a Cancel, a menu button, an exit", async ({ page }) => {
  const house = app("d", {
    drawers: { d: "s t" },
    stacks: { s: "home", t: "news" },
    modals: { sheet: "edit" },
    screens: { home: { name: "Home" }, edit: { name: "Edit" } },
    legs: ["up home open sheet"],
  });
  await openDocument(page, house);
  const build = async (screen: string, label: string, word: string) => {
    await page.locator(`[role=treeitem][data-key="${screen}"]`).click();
    await expect(page.getByLabel("Inspector").getByLabel("Name", { exact: true })).toBeVisible();
    await page.keyboard.press("e");
    await page.keyboard.type(label);
    await page.keyboard.press("Enter");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog", { name: /lead/ })).toBeVisible();
    await page.keyboard.type(word);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("region", { name: "The leg that was just made" })).toBeVisible();
  };
  await build("edit", "Cancel", "cancel");
  await build("edit", "Done", "dismiss");
  await build("home", "Burger", "hamburger");
  await build("home", "Bye", "exit");
  const made = await documentOf(page);
  const moves = Object.fromEntries(made.legs.map((leg) => ["element" in leg.on ? leg.on.element : "", leg.move?.kind]));
  expect(moves).toMatchObject({ cancel: "close", done: "close", burger: "menu", bye: "leave" });
});

test("everyday words find what they mean, in the palette and where a target is picked", async ({ page }) => {
  await openDocument(
    page,
    app("d", {
      drawers: { d: "s t" },
      stacks: { s: "home", t: "news" },
      modals: { sheet: "edit" },
      screens: { home: { name: "Home", elements: [{ id: "go", kind: "button", label: "Go" }] }, edit: { name: "Edit" } },
      legs: ["up home open sheet"],
    }),
  );
  const found = async (word: string) => {
    await typeInPalette(page, word);
    const options = await page.getByRole("option").allTextContents();
    await page.keyboard.press("Escape");
    await expect(page.locator("#places")).toBeFocused();
    return options.slice(0, 6).join(" | ");
  };
  await page.locator('[role=treeitem][data-key="home"]').click();
  for (const [word, command] of [
    ["overlay", "Put into a modal"],
    ["sheet", "Put into a modal"],
    ["popup", "Put into a modal"],
    ["hamburger", "Put into a drawer"],
    ["exit", "Lead somewhere from here"],
    ["rename", "Rename"],
    ["delay", "Lead on after a while"],
    ["redirect", "Lead on as soon as it shows"],
    ["deep link", "A link that leads here"],
    ["back stack", "Put into a stack"],
    ["push", "Lead somewhere from here"],
    ["bottom navigation", "Put into tabs"],
    ["unsaved changes", "Ask when it is left"],
    ["initial", "Show this first"],
    ["address", "Address"],
    ["dark mode", "Light or dark"],
  ] as const)
    expect(await found(word), word).toContain(command);
  const offered = async (word: string) => {
    await page.locator("[data-card] [data-row=go]").click();
    await page.keyboard.press("l");
    await page.keyboard.type(word);
    const [first = ""] = await page.getByRole("dialog").getByRole("option").allTextContents();
    await page.keyboard.press("Escape");
    await expect(page.locator("#places")).toBeFocused();
    return first;
  };
  for (const [word, first] of [
    ["exit", "Leave the app"],
    ["hamburger", "Menu “d”"],
    ["go back", "Back"],
  ] as const)
    expect(await offered(word), word).toContain(first);
});

test("no letter acts by accident: not after Enter in a field, not outside of where keys belong, not when they are switched off", async ({ page }) => {
  await openEmpty(page, "Plot");
  await page.getByRole("treeitem", { name: "Plot" }).click();
  await page.keyboard.press("F2");
  await page.keyboard.type("Bed");
  await page.keyboard.press("Enter");
  // The last letter of a name, typed too late.
  await page.keyboard.press("p");
  await expect(page.getByRole("button", { name: "1 planned" })).toHaveCount(0);
  await page.keyboard.press("Shift");
  await page.keyboard.press("p");
  await expect(page.getByRole("button", { name: "1 planned" })).toBeVisible();
  await page.getByRole("button", { name: "Export" }).focus();
  await page.keyboard.press("p");
  await expect(page.getByRole("button", { name: "1 planned" })).toBeVisible();
  await page.locator("#places").focus();
  await page.keyboard.press("?");
  await page.getByLabel("Single letters are keys").uncheck();
  await page.keyboard.press("Escape");
  await expect(page.locator("#places")).toBeFocused();
  await page.keyboard.press("p");
  await expect(page.getByRole("button", { name: "1 planned" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "1 planned" })).toHaveCount(0);
});

test("the focus is never on the page's body after an edit", async ({ page }) => {
  await openEmpty(page, "Plot", "Bed");
  const focused = async (what: string) => {
    await expect.poll(() => page.evaluate(() => document.activeElement?.tagName), { message: what }).not.toBe("BODY");
  };
  await page.getByRole("treeitem", { name: "Bed" }).click();
  await page.keyboard.press("g");
  await page.keyboard.press("m");
  await page.keyboard.press("Enter");
  await focused("after putting it into a modal");
  await page.keyboard.press("Delete");
  await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
  await focused("after deleting");
  await page.keyboard.press("Control+z");
  await focused("after undo");
  await page.getByRole("treeitem", { name: "Plot" }).click();
  await page.getByLabel("Inspector").getByRole("button", { name: "Put into tabs" }).click();
  await page.keyboard.press("Enter");
  await focused("after a button of the inspector");
  await page.keyboard.press("Control+k");
  await page.keyboard.press("Escape");
  await focused("after a sheet");
});

test("several go into a container that is there, and the legs that go another way are named", async ({ page }) => {
  await openDocument(
    page,
    app("main", {
      stacks: { main: "home a b", other: "d" },
      tabs: {},
      modals: { m: "other" },
      screens: { home: { name: "Home" } },
      legs: ["x home push a", "y home push b"],
    }),
  );
  await page.locator('[role=treeitem][data-key="a"]').click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("g");
  await page.keyboard.press("i");
  await page
    .getByRole("dialog", { name: "Move these 2 into…" })
    .getByRole("option", { name: /^other/ })
    .click();
  await expect(page.getByText("2 places are in “other” now.")).toBeVisible();
  await expect(page.getByText(/2 legs go another way now/)).toBeVisible();
  expect((await documentOf(page)).containers.find((c) => c.id === "other")?.members).toEqual(["d", "a", "b"]);
});
