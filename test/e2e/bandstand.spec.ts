import { built, Site } from "./example.ts";
import { expect, type Page, test } from "./test.ts";
import { openToolbar, type Toolbar, toolbarWorks } from "./toolbar.ts";

let folder = "";
let toolbar: Toolbar;
let site: Site;
let address = "";

test.describe.configure({ mode: "serial" });
let works = false;
test.beforeAll(async () => {
  works = await toolbarWorks();
  folder = await built();
});
test.beforeEach(async () => {
  test.skip(!works, "The browser's own toolbar cannot be clicked here (Xvfb and xdotool are needed)");
  toolbar = await openToolbar();
  site = new Site(folder);
  address = await site.start();
  await toolbar.page.goto(`${address}/before`);
});
test.afterEach(async () => {
  if (!works) return;
  await toolbar.close();
  site.stop();
});

const heading = (page: Page, name: string | RegExp) => page.getByRole("heading", { level: 1, name });
const link = (page: Page, name: string) => page.getByRole("link", { name, exact: true });
const button = (page: Page, name: string) => page.getByRole("button", { name, exact: true });

test("a list, a detail with details like it, the toolbar's Back and Forward, the title, and a list that stays where it was scrolled", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/`);
  await expect(heading(page, "What is on")).toBeVisible();
  await expect(page).toHaveURL(`${address}/gigs`);
  await link(page, "Paper Moths 48").click();
  await expect(page).toHaveURL(`${address}/gigs/g48`);
  await expect(page).toHaveTitle("Gig g48");
  await expect(heading(page, "Paper Moths 48")).toBeVisible();
  expect(await page.evaluate(() => window.scrollY)).toBe(0);
  await link(page, "Slow Ferry 2").click();
  await link(page, "Paper Larks 4").click();
  await expect(heading(page, "Paper Larks 4")).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.activeElement?.getAttribute("data-at"))).toBe("gig");
  press("back");
  await expect(heading(page, "Slow Ferry 2")).toBeVisible();
  press("forward");
  await expect(heading(page, "Paper Larks 4")).toBeVisible();
  press("back");
  await expect(heading(page, "Slow Ferry 2")).toBeVisible();
  press("back");
  await expect(heading(page, "Paper Moths 48")).toBeVisible();
  press("back");
  await expect(page).toHaveURL(`${address}/gigs`);
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBeGreaterThan(500);
  press("back");
  await expect(page.getByText("before")).toBeVisible();
});

test("tabs keep what stands in them; a town that is picked comes back to the list", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/`);
  await button(page, "Any town").click();
  await expect(page.getByRole("dialog", { name: "Choose a town" })).toBeVisible();
  await button(page, "Abbotsmere").click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(button(page, "Abbotsmere")).toBeVisible();
  await expect(page.getByRole("link")).toHaveCount(30);
  await link(page, "Paper Moths 48").click();
  await button(page, "Tickets").click();
  await expect(page.getByText("Sign in to see your tickets")).toBeVisible();
  await button(page, "Gigs").click();
  await expect(heading(page, "Paper Moths 48")).toBeVisible();
  await button(page, "‹ Back").click();
  await expect(button(page, "Abbotsmere")).toBeVisible();
  // The picker is over the page: the toolbar's Back closes it, and nothing is picked.
  await button(page, "Abbotsmere").click();
  press("back");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(page.getByRole("link")).toHaveCount(30);
});

test("a form with outcomes, a modal with steps of its own, and a sign-out that stays: Back, Forward, reload, a new tab", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/gigs/g2`);
  await button(page, "Book a seat").click();
  await page.getByLabel("E-mail").fill("nobody@park.example");
  await page.getByRole("dialog").getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toBeVisible();
  await page.getByLabel("E-mail").fill("ida@park.example");
  await page.getByRole("dialog").getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await button(page, "Book a seat").click();
  await button(page, "A2").click();
  await expect(heading(page, "Seat A2, Slow Ferry 2")).toBeVisible();
  await page.getByLabel("Card").fill("1");
  await button(page, "Pay").click();
  await expect(heading(page, "The card was declined")).toBeVisible();
  press("back");
  await expect(heading(page, "Seat A2, Slow Ferry 2")).toBeVisible();
  await expect(page.getByLabel("Card")).toHaveValue("1");
  await page.getByLabel("Card").fill("4242");
  await button(page, "Pay").click();
  await expect(heading(page, "Seat A2 is yours")).toBeVisible();
  await page.getByText("To my tickets").click();
  await expect(heading(page, "Your tickets")).toBeVisible();
  await expect(button(page, "Seat A2")).toBeVisible();
  const mine = heading(page, "Your tickets");

  // Who is signed in stays so in a new tab and over a reload.
  press("reload");
  await expect(mine).toBeVisible();
  const other = await page.context().newPage();
  await other.goto(`${address}/tickets`);
  await expect(heading(other, "Your tickets")).toBeVisible();
  await other.close();

  await button(page, "Me").click();
  await button(page, "Sign out").click();
  await expect(page.getByText("Sign in to see your tickets")).toBeVisible();
  for (const way of ["back", "forward", "reload", "back", "back"] as const) {
    press(way);
    await page.waitForLoadState();
    await expect(mine).toHaveCount(0);
  }
  const fresh = await page.context().newPage();
  await fresh.goto(`${address}/tickets`);
  await expect(fresh.getByText("Sign in to see your tickets")).toBeVisible();
});

test("a pasted link has its trail beneath once the page was touched; before that, browsers let Back pass over it", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/g/g3`);
  // Nothing of the page is looked into here: the driver's scripts would count as a touch.
  await expect.poll(() => page.url()).toBe(`${address}/gigs/g3`);
  press("back");
  await expect.poll(() => page.url()).toBe(`${address}/before`);
  await page.goto(`${address}/g/g3`);
  await heading(page, "Brass Moths 3").click();
  press("back");
  await expect(heading(page, "What is on")).toBeVisible();
  press("back");
  await expect(page.getByText("before")).toBeVisible();
});

test("a link opens in a new tab at its own address, and the tab that it was opened from stays", async () => {
  const { page } = toolbar;
  await page.goto(`${address}/`);
  const opening = page.context().waitForEvent("page");
  await link(page, "Slow Ferry 2").click({ modifiers: ["Control"] });
  const other = await opening;
  await expect(heading(other, "Slow Ferry 2")).toBeVisible();
  await expect(other).toHaveURL(`${address}/gigs/g2`);
  await expect(heading(page, "What is on")).toBeVisible();
});

test("ten quick Backs end outside, two taps at once go one step, and what leads out of the app comes back to where it was", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/`);
  await link(page, "Slow Ferry 2").dblclick();
  await expect(heading(page, "Slow Ferry 2")).toBeVisible();
  press("back");
  await expect(heading(page, "What is on")).toBeVisible();
  for (const name of ["Slow Ferry 2", "Paper Larks 4", "Slow Moths 6", "Slow Ferry 2", "Paper Larks 4"]) await link(page, name).click();
  // Two entries at once, as the list on a long press of Back goes.
  await page.evaluate(() => window.history.go(-2));
  await expect(heading(page, "Slow Moths 6")).toBeVisible();
  await expect(page).toHaveURL(`${address}/gigs/g6`);
  await button(page, "Me").click();
  await button(page, "Rules of the park").click();
  await expect(page.getByText("No dogs.")).toBeVisible();
  press("back");
  await expect(heading(page, "Me")).toBeVisible();
  press("back", 10);
  await expect.poll(() => [`${address}/before`, "about:blank"].includes(page.url())).toBe(true);
});

test("an entry from before a deployment is entered by its address, an unknown address is told, and a base path is kept to", async () => {
  const { page, press } = toolbar;
  await page.goto(`${address}/`);
  await link(page, "Slow Ferry 2").click();
  await link(page, "Paper Larks 4").click();
  site.folder = await built((design) =>
    design
      .replace('"name": "Bandstand",', '"name": "Bandstand",\n  "about2": 1,')
      .replace('\n  "about2": 1,', "")
      .replace('"chosenAgain": "root"', '"chosenAgain": "nothing"'),
  );
  press("reload");
  await expect(heading(page, "Paper Larks 4")).toBeVisible();
  press("back");
  await expect(page.getByRole("heading", { level: 1 }).first()).toBeVisible();

  const told: string[] = [];
  page.on("console", (message) => told.push(message.text()));
  await page.goto(`${address}/nothing/here`);
  await expect(heading(page, "What is on")).toBeVisible();
  await expect.poll(() => told).toContain("nothing is at /nothing/here");

  const park = new Site(await built(undefined, "/park/"), "/park/");
  const there = await park.start();
  await page.goto(`${there}/park/gigs/g2`);
  await expect(heading(page, "Slow Ferry 2")).toBeVisible();
  await link(page, "Paper Larks 4").click();
  await expect(page).toHaveURL(`${there}/park/gigs/g4`);
  park.stop();
});
