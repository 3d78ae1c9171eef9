import { amount } from "../random/amount.ts";
import { pick, type Random, seeded } from "../random/documents.ts";
import { documentOf } from "./open.ts";
import { expect, type Page, test } from "./test.ts";

const KEYS = [
  "Enter",
  "Escape",
  "ArrowDown",
  "ArrowUp",
  "Tab",
  "Delete",
  "F2",
  "Control+z",
  "Control+Shift+z",
  "Control+d",
  "e",
  "l",
  "n",
  "p",
  "f",
  "i",
  "g t",
  "g s",
  "g d",
  "g m",
  "g u",
  "g e",
  "1",
  "3",
  "r",
  "b",
  "[",
  "]",
  "/",
  "Shift+ArrowDown",
  "Alt+ArrowDown",
  "Alt+ArrowLeft",
];
const TEXTS = ["Plot", "800", "-1", "true", "1e999", "param.x", "item.id == 'x' && ", "{", "Ünïcode 🐝", "a,b,c", "/x/{y}"];

/** What can be clicked or written into now, each numbered so that it can be found again. */
async function controls(page: Page): Promise<Array<{ number: number; kind: "click" | "write" | "choose"; label: string }>> {
  return page.evaluate(() => {
    const found: Array<{ number: number; kind: "click" | "write" | "choose"; label: string }> = [];
    const shown = document.querySelector("[role=dialog]") ?? document;
    for (const element of shown.querySelectorAll<HTMLElement | SVGElement>(
      "button, input, select, textarea, a[href^='/p/'], [role=treeitem], [data-row], [data-card]",
    )) {
      const box = element.getBoundingClientRect();
      const hit = document.elementFromPoint(box.x + box.width / 2, box.y + Math.min(box.height / 2, 10));
      if (box.width === 0 || !hit || !(element.contains(hit) || hit.contains(element)) || (element as HTMLButtonElement).disabled) continue;
      const label = element.getAttribute("aria-label") ?? element.textContent ?? "";
      if (/^Export|On a phone|Download|From a file|all projects/.test(label) || element.getAttribute("type") === "file") continue;
      const number = found.length;
      element.setAttribute("data-number", String(number));
      const text =
        element instanceof HTMLTextAreaElement || (element instanceof HTMLInputElement && !["checkbox", "radio", "submit", "button"].includes(element.type));
      found.push({ number, kind: text ? "write" : element instanceof HTMLSelectElement ? "choose" : "click", label: label.slice(0, 60) });
    }
    return found;
  });
}

/** One thing that somebody might do; says what it was. */
async function doSomething(page: Page, random: Random): Promise<string> {
  if (random() < 0.35) {
    const keys = pick(random, KEYS).split(" ");
    for (const key of keys) await page.keyboard.press(key);
    return `press ${keys.join(" ")}`;
  }
  const one = pick(random, await controls(page));
  if (!one) return "nothing to do";
  const at = page.locator(`[data-number="${one.number}"]`).first();
  const says = `${one.kind} ${one.label}`;
  const quickly = { timeout: 1500 };
  if (one.kind === "write") {
    await at.fill(pick(random, TEXTS), quickly).catch(() => undefined);
    await page.keyboard.press(pick(random, ["Enter", "Tab", "ArrowDown", "Escape"]));
  } else if (one.kind === "choose") {
    const values = await at.locator("option").evaluateAll((options) => options.map((option) => (option as HTMLOptionElement).value));
    await at.selectOption(pick(random, values), quickly).catch(() => undefined);
  } else await at.click({ ...quickly, force: true, noWaitAfter: true }).catch(() => undefined);
  return says;
}

for (const [seed, open] of [
  [1, /Start empty/],
  [2, /Open Hollowcomb/],
  [3, "Tidewatch"],
] as const)
  test(`whatever is pressed, the document reads and is saved, and the page stands (seed ${seed})`, async ({ page }) => {
    const random = seeded(seed);
    const errors: string[] = [];
    const did: string[] = [];
    page.on("pageerror", (error) => errors.push(`${error.message}, after ${did.slice(-4).join("; ")}`));
    page.on("dialog", (dialog) => dialog.dismiss());
    await page.goto("/");
    await page.getByRole("button", { name: open }).click();
    await expect(page.getByTestId("device")).toBeVisible();
    for (let i = 0; i < amount(90, 15); i++) {
      did.push(await doSomething(page, random));
      expect(errors).toEqual([]);
      await expect(page.getByText("Something went wrong"), did.slice(-4).join("; ")).toHaveCount(0);
    }
    // What was opened last may come only after the first Escape.
    const over = page.locator("[role=dialog], [data-radix-popper-content-wrapper]");
    await expect(async () => {
      for (let i = 0; i < 3; i++) await page.keyboard.press("Escape");
      await expect(over).toHaveCount(0, { timeout: 1_000 });
    }).toPass();
    expect((await documentOf(page)).format, did.join("\n")).toBe("etape/1");
    await page.reload();
    await expect(page.getByRole("navigation", { name: "Views" })).toBeVisible();
    expect(errors).toEqual([]);
  });
