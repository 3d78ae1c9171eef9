import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { wayTo } from "../../src/core/check/counterexample/wayTo.ts";
import { appOf } from "../../src/core/insight/app.ts";
import { elementIdOf, lookup } from "../../src/core/model/lookup.ts";
import { readProject } from "../../src/core/model/read.ts";
import type { NavEvent, Project } from "../../src/core/model/schema.ts";
import { planOf } from "../../src/core/plan/planOf.ts";
import { stateLine } from "../../src/core/semantics/line.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import type { State } from "../../src/core/semantics/types.ts";
import { amount } from "../random/amount.ts";
import { seeded } from "../random/documents.ts";
import { unfold } from "./open.ts";
import { expect, type Locator, type Page, test } from "./test.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo does not read");
const project: Project = read.project;

/** The demo without what takes more than a tap: ways to screens are looked for in it. */
const tapped: Project = { ...project, legs: project.legs.filter((leg) => !["hold", "swipe", "after"].includes(leg.on.kind)), entrances: [] };

async function open(page: Page): Promise<Locator> {
  await page.goto("/");
  await page.getByRole("button", { name: /Open Hollowcomb/ }).click();
  const device = page.getByTestId("device");
  await expect(device).toHaveAttribute("data-screen", "welcome");
  return device;
}

/** Does an event by hand on the device: taps, typing, choosing the outcome. */
async function byHand(page: Page, device: Locator, event: NavEvent) {
  switch (event.do) {
    case "tab":
      return device.locator(`[data-tab=${event.to}]`).click();
    case "pick":
      return device.locator(`[data-pick=${event.to}]`).click();
    case "lead":
      return device.locator("[data-lead]").last().click();
    case "close":
      return device.locator("[data-close]").click();
    case "leg": {
      const leg = lookup(project).legs.get(event.leg);
      const element = leg && elementIdOf(leg);
      if (!leg || element === undefined) throw new Error(`${event.leg} can not be tapped`);
      for (const [field, value] of Object.entries(event.fields ?? {})) {
        const input = device.locator(`input[data-element=${field}]`);
        if ((await input.count()) > 0 && (await input.getAttribute("type")) !== "checkbox") await input.fill(String(value));
      }
      const at = device.locator(
        `[data-of=${leg.from}][data-element=${element}]${event.item === undefined ? "" : `[data-item="${typeof event.item === "object" ? Object.values(event.item)[0] : event.item}"]`}`,
      );
      await at.first().click();
      const outcome = "outcome" in leg.on ? leg.on.outcome : undefined;
      if (outcome !== undefined) await page.getByRole("dialog").getByRole("button", { name: outcome, exact: true }).click();
      return;
    }
    default:
      throw new Error(`${event.do} is no tap`);
  }
}

test("every screen of Hollowcomb is walked to by tapping only", async ({ page }) => {
  const device = await open(page);
  const met = new Set<string>();
  for (const screen of project.screens) {
    if (met.has(screen.id)) continue;
    const way = wayTo(tapped, screen.id);
    expect(way, `a way to ${screen.id}`).toBeDefined();
    if (!way) continue;
    const restart = page.getByRole("button", { name: "From start" });
    if (await restart.isEnabled()) await restart.click();
    let state = launch(appOf(project));
    for (const event of way) {
      await byHand(page, device, event);
      state = step(appOf(project), state, event).state;
      await expect(device).toHaveAttribute("data-screen", currentScreen(state).at);
      met.add(currentScreen(state).at);
    }
    await expect(page.getByTestId("line")).toHaveText(stateLine(planOf(project), state));
  }
  expect([...met, "welcome"].sort()).toEqual(expect.arrayContaining(project.screens.map((s) => s.id).sort()));
});

/** What can be tapped on the device now: each with what it stands for, as the page says it. */
async function tappable(device: Locator): Promise<Array<Record<string, string>>> {
  return device.evaluate((root) => {
    const found: Array<Record<string, string>> = [];
    for (const [i, element] of [...root.querySelectorAll<HTMLElement>("button, input")].entries()) {
      element.dataset.number = String(i);
      const box = element.getBoundingClientRect();
      const inside = root.getBoundingClientRect();
      const y = box.y + Math.min(box.height / 2, 12);
      const x = box.x + box.width / 2;
      const hit = y > inside.y && y < inside.bottom && document.elementFromPoint(x, y);
      if (!hit || !(element === hit || element.contains(hit)) || (element as HTMLButtonElement).disabled) continue;
      found.push({
        ...(element.dataset as Record<string, string>),
        label: element.getAttribute("aria-label") ?? "",
        x: String(x),
        y: String(y),
        tag: element.tagName,
      });
    }
    return found;
  });
}

/** What a tap should come to by the engine: the event, or none where nothing should happen. */
function expectedOf(state: State, tap: Record<string, string>, fields: Record<string, string>): { event: NavEvent; outcome?: string } | undefined {
  if (tap.tab) return { event: { do: "tab", to: tap.tab } };
  if (tap.pick) return { event: { do: "pick", to: tap.pick } };
  if (tap.lead) return { event: { do: "lead" } };
  if (tap.close !== undefined) return { event: { do: "close", via: "button" } };
  if (tap.label === "Swipe away") return { event: { do: "close", via: "swipe" } };
  if (tap.label?.startsWith("Outside") || tap.label === "Beside the drawer") return { event: { do: "close", via: "outside" } };
  const kinds = tap.tag === "INPUT" ? ["tap"] : ["tap", "submit"];
  const legs = project.legs.filter((leg) => leg.from === tap.of && elementIdOf(leg) === tap.element && kinds.includes(leg.on.kind));
  for (const leg of legs) {
    const event: NavEvent = { do: "leg", leg: leg.id, ...(tap.item ? { item: tap.item } : {}), ...(Object.keys(fields).length > 0 ? { fields } : {}) };
    if (step(appOf(project), state, event).outcome !== "ignored")
      return { event, ...("outcome" in leg.on && leg.on.outcome ? { outcome: leg.on.outcome } : {}) };
  }
  return undefined;
}

test("random taps leave the device and step agreeing at each", async ({ page }) => {
  const device = await open(page);
  const random = seeded(20261123);
  let state = launch(appOf(project));
  let moves = 0;
  for (let i = 0; i < amount(200, 30); i++) {
    if (currentScreen(state).at === "join") await device.locator("input[data-element=code]").fill("FENNICK");
    const fields = Object.fromEntries(
      await device
        .locator("input[data-element]:not([type=checkbox])")
        .evaluateAll((inputs) =>
          inputs.flatMap((e) => ((e as HTMLInputElement).value === "" ? [] : [[(e as HTMLElement).dataset.element ?? "", (e as HTMLInputElement).value]])),
        ),
    );
    const taps = (await tappable(device)).filter((tap) => tap.element !== "code");
    const tap = taps[Math.floor(random() * taps.length)];
    if (!tap) {
      await page.getByRole("button", { name: "← Back" }).click();
      state = step(appOf(project), state, { do: "back" }).state;
    } else {
      const expected = expectedOf(state, tap, fields);
      await page.mouse.click(Number(tap.x), Number(tap.y));
      if (expected?.outcome !== undefined) await page.getByRole("dialog").getByRole("button", { name: expected.outcome, exact: true }).click();
      const result = expected && step(appOf(project), state, expected.event);
      if (result?.outcome === "moved") moves += 1;
      state = result?.state ?? state;
    }
    await expect(page.getByTestId("line"), `after tap ${i + 1}: ${JSON.stringify(tap)}`).toHaveText(stateLine(planOf(project), state));
    await expect(device).toHaveAttribute("data-screen", currentScreen(state).at);
  }
  expect(moves).toBeGreaterThan(amount(100, 12));
});

test("a walk is kept, expects something, breaks through an edit, and says at which step", async ({ page }, info) => {
  const device = await open(page);
  await device.getByRole("button", { name: "Show me round" }).click();
  await device.getByRole("button", { name: "Go on" }).click();
  await page.getByRole("button", { name: /Keep these 2 steps/ }).click();
  await page.getByLabel("Name of the walk").fill("The tour");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Expect what shows" }).click();
  await expect(page.getByTestId("walks")).toHaveText("all 2 pass");

  await page.locator("[data-card][data-place=tourHives] [data-row=on]").click();
  await page.getByLabel("Inspector").getByRole("button", { name: "Delete" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Delete" }).click();
  await expect(page.getByTestId("walks")).toHaveText("1 of 2 broken");
  await expect(page.getByLabel("Kept walks")).toContainText("It breaks at step 2");

  const downloading = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  const file = info.outputPath("broken-walk.etape.json");
  await (await downloading).saveAs(file);
  let out = "";
  try {
    execFileSync("node", ["bin/etape.mjs", "walk", file], { encoding: "utf8" });
  } catch (error) {
    out = String((error as { stdout: string }).stdout);
  }
  expect(out).toContain("FAILED theTour The tour\n  It breaks at step 2");
  await page.getByRole("button", { name: /Undo: Delete/ }).click();
  await expect(page.getByTestId("walks")).toHaveText("all 2 pass");
});

test("a long press takes the leg that waits for it, and no tap besides", async ({ page }) => {
  const device = await open(page);
  await page.getByRole("treeitem", { name: "Notes", exact: true }).click();
  await page.getByRole("button", { name: "Walk from here" }).click();
  await expect(device).toHaveAttribute("data-screen", "notes");
  await device.locator("[data-item=n1]").click({ delay: 900 });
  await expect(device).toHaveAttribute("data-screen", "photo");
  await device.locator("[data-close]").click();
  await device.locator("[data-item=n1]").click();
  await expect(device).toHaveAttribute("data-screen", "note");
});

test("motions: a push slides in from the end, Back is its reverse, a sheet rises, a carried element goes along", async ({ browser }) => {
  const context = await browser.newContext({ reducedMotion: "no-preference" });
  const page = await context.newPage();
  const device = await open(page);
  await page.getByLabel("slow motion").check();
  const moving = () =>
    page.evaluate(() => ({
      how: document.documentElement.dataset.moving,
      carried: [...document.querySelectorAll<HTMLElement>("[data-element]")].filter((e) => e.style.viewTransitionName === "carry-0").length,
    }));
  const settled = () => expect.poll(async () => (await moving()).how).toBeUndefined();
  await device.getByRole("button", { name: "Show me round" }).click();
  await expect.poll(async () => (await moving()).how).toBe("page slide end on");
  await settled();
  await page.getByRole("button", { name: "← Back" }).click();
  await expect.poll(async () => (await moving()).how).toBe("page slide end back");
  await settled();
  await device.getByRole("button", { name: "Skip the tour" }).click();
  await expect.poll(async () => (await moving()).how).toBe("page fade end on");
  await settled();
  await device.locator("input[data-element=code]").fill("X");
  await device.locator("button[data-element=join]").click();
  await page.getByRole("button", { name: "known code", exact: true }).click();
  await settled();
  await device.locator("[data-item=orchard]").click();
  await settled();
  await device.locator("[data-item=larkfoot]").click();
  await expect.poll(moving).toEqual({ how: "page grow end on", carried: 1 });
  await settled();
  await device.locator("[data-element=inspect]").click();
  await expect.poll(async () => (await moving()).how).toBe("layer rise bottom on");
  await settled();
  await device.locator("[data-close]").click();
  await expect.poll(async () => (await moving()).how).toBe("layer rise bottom back");
  await context.close();
});

test("a sideways swipe goes to the next tab; the drawer slides in and a member is picked", async ({ page }) => {
  const device = await open(page);
  await page.getByRole("treeitem", { name: /^Apiaries/ }).click();
  await page.getByRole("button", { name: "Walk from here" }).click();
  await expect(device).toHaveAttribute("data-screen", "apiaries");
  const box = await device.boundingBox();
  if (!box) throw new Error("the device is on the page");
  await page.mouse.move(box.x + 150, box.y + 260);
  await page.mouse.down();
  await page.mouse.move(box.x + 40, box.y + 262, { steps: 5 });
  await page.mouse.up();
  await expect(device).toHaveAttribute("data-screen", "rota");
  await device.locator("[data-lead=menu]").click();
  await device.locator("[data-pick=larder]").click();
  await expect(page.getByTestId("line")).toHaveText("app[house{*larder[stores]}]");
});

test("a screen to which no walk leads asks for what it needs", async ({ page }) => {
  const device = await open(page);
  await page.getByLabel("Find or add a screen").fill("Drone");
  await page.keyboard.press("Enter");
  await unfold(page);
  await page.getByLabel("Name of a new parameter").fill("count");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Walk from here" }).click();
  await page.getByLabel("count", { exact: true }).fill("7");
  await page.getByRole("button", { name: "Show it" }).click();
  await expect(device).toHaveAttribute("data-screen", "drone");
  await expect(page.getByRole("complementary", { name: "Beneath" })).toContainText('"7"');
});

test("a tap that does nothing says why; a way in by address; walking to a screen; widths", async ({ page }) => {
  const device = await open(page);
  await page.getByRole("treeitem", { name: "Hive", exact: true }).click();
  await page.getByRole("button", { name: "Walk from here" }).click();
  await expect(device).toHaveAttribute("data-screen", "hive");
  await expect(page.getByRole("complementary", { name: "Beneath" })).toContainText("larkfoot");

  await page.getByRole("button", { name: "Ways in" }).click();
  await page.getByLabel("Address of a link").fill("/alerts/tansy/7");
  await page.getByRole("button", { name: "Go", exact: true }).click();
  await expect(device).toHaveAttribute("data-screen", "miteCount");
  await expect(page.getByRole("complementary", { name: "Beneath" })).toContainText("from Mite alert");

  await page.getByLabel("width").selectOption("wide");
  await expect(device.locator("[data-pick=larder]")).toBeVisible();
  await expect(device.getByLabel("Address")).toHaveValue("/hives/tansy/mites");
  await device.getByLabel("Address").fill("/nowhere");
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-told]")).toContainText("No way in has an address");
});

test("replaying two hundred walks on the command line", async ({ page: _ }, info) => {
  const walks = Array.from({ length: 200 }, (_, i) => ({ ...project.walks[0], id: `walk${i}` }));
  const file = info.outputPath("many.etape.json");
  writeFileSync(file, JSON.stringify({ ...project, walks }));
  const { walks: results } = JSON.parse(execFileSync("node", ["bin/etape.mjs", "walk", file, "--format", "json"], { encoding: "utf8" }));
  expect(results).toHaveLength(200);
  expect(results.every((r: { passed: boolean }) => r.passed)).toBe(true);
});
