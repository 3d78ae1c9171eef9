import { writeFileSync } from "node:fs";
import { bigProject } from "../../bench/big.ts";
import type { Leg, Project, Screen } from "../../src/core/model/schema.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { app } from "../vectors/app.ts";
import { openDocument, openEmpty } from "./open.ts";
import { expect, test } from "./test.ts";

test("findings are grouped, a fix is looked at before it is made, and what is intended keeps its reason", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("button", { name: "its first draft" }).click();
  await expect(page.getByTestId("proof")).toContainText("Proved");
  await page.getByRole("button", { name: /warning/ }).click();
  const panel = page.getByLabel("All findings");
  await expect(panel).toBeVisible();
  const before = await panel.locator("[data-finding]").count();
  await panel.getByRole("radio", { name: "by place" }).click();
  await expect(panel.locator("[data-finding]")).toHaveCount(before);
  await panel.getByRole("radio", { name: "by what is wrong" }).click();

  const missing = panel.locator("[data-finding=missing-argument]").first();
  await missing.getByRole("button", { name: /^Fix: Pass/ }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet).toContainText("hiveId = item.hive");
  await expect(sheet).toContainText("− ");
  await sheet.getByRole("button", { name: "Make it so" }).click();
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "false");
  await expect.poll(() => panel.locator("[data-finding]").count()).toBeLessThan(before);

  const note = panel.locator("[data-finding]").last();
  const message = (await note.getByRole("button").first().textContent()) ?? "";
  await note.getByRole("button", { name: "intended…" }).click();
  await note.getByLabel(/Why is this intended/).fill("The co-operative asked for it.");
  await page.keyboard.press("Enter");
  await expect(panel.getByRole("listitem").filter({ hasText: "The co-operative asked for it." })).toContainText(message);
  await panel.getByRole("button", { name: "not any more" }).click();
  await expect(panel.getByText("The co-operative asked for it.")).toHaveCount(0);
});

test("what is not built yet is counted apart and calmly, and is told in words", async ({ page }) => {
  await openEmpty(page, "Settings");
  const foot = page.locator("footer");
  await expect(foot).toContainText("Nothing is wrong so far.");
  await expect(foot.locator("[data-count=open]")).toHaveText(/^\d open ends$/);
  for (const severity of ["blocker", "warning"]) await expect(foot.locator(`[data-count=${severity}]`)).toHaveCount(0);
  await expect(page.getByRole("tree").locator(".bg-urgent")).toHaveCount(0);
  await foot.getByText("all", { exact: true }).click();
  const ends = page.getByRole("region", { name: "Open ends" });
  await expect(ends).toContainText('Nobody ever gets to "Settings"');
});

test("a group of findings says in words what it means", async ({ page }) => {
  await openDocument(
    page,
    app("s", { stacks: { s: "a b" }, screens: { b: { up: "none", elements: [{ id: "t", kind: "text", label: "T" }] } }, legs: ["go a reset b"] }),
  );
  await page.locator("footer").getByText("all", { exact: true }).click();
  const group = page.getByRole("region", { name: "dead-end" });
  await expect(group).toContainText("Nothing leads on from a screen, and neither does Back");
  await expect(group).toContainText("Give the screen a way on");
});

test("how many taps are too far is set in the list of findings, and kept by the browser", async ({ page }) => {
  const steps = ["a", "b", "c", "d"];
  await openDocument(page, app("s", { stacks: { s: `${steps.join(" ")} x` }, legs: steps.slice(1).map((to, i) => `go${to} ${steps[i]} push ${to}`) }));
  await page.locator("footer").getByText("all", { exact: true }).click();
  const panel = page.getByLabel("All findings");
  await expect(panel.locator("[data-finding=far]")).toHaveCount(0);
  await panel.getByLabel(/far is more than/).selectOption("2");
  await expect(panel.locator("[data-finding=far]")).toHaveText(/"d" is 3 taps from launch/);
  // What a fix changes is told by the same limit.
  await panel
    .locator("[data-finding=unreachable]")
    .getByRole("button", { name: /^Fix: / })
    .first()
    .click();
  const sheet = page.getByRole("dialog");
  await expect(sheet).toContainText("Nobody ever gets to");
  await expect(sheet).not.toContainText("taps from launch");
  await page.keyboard.press("Escape");
  await page.reload();
  await page.locator("footer").getByText("all", { exact: true }).click();
  await expect(panel.locator("[data-finding=far]")).toHaveCount(1);
  await panel.getByLabel(/far is more than/).selectOption("3");
  await expect(panel.locator("[data-finding=far]")).toHaveCount(0);
});

test("a long check tells how far it is and can be stopped, and what it had not finished is not shown as known", async ({ page }, info) => {
  const file = info.outputPath("big.etape.json");
  writeFileSync(file, writeProject(withTrap(bigProject(1000))));
  await page.goto("/");
  await page.getByLabel("Project file").setInputFiles(file);
  await expect(page.getByTestId("proof")).toContainText(/\d+ states/);
  await page.getByRole("button", { name: "stop", exact: true }).click();
  await expect(page.getByTestId("proof")).toContainText("The check was stopped");
  await expect(page.getByTestId("proof")).not.toContainText("Proved");
  await page.getByRole("button", { name: "check again" }).click();
  await expect(page.getByTestId("proof")).toHaveAttribute("data-running", "true");
});

/** Two screens that lead to one another and nowhere else: where there is a trap, the check follows everything closely, which takes long. */
function withTrap(project: Project): Project {
  const pit = (id: string): Screen => ({
    id,
    name: id,
    params: [],
    up: "none",
    bar: { show: false, lead: "none" },
    elements: [{ id: "over", kind: "button", label: "Over" }],
    coversTabs: true,
  });
  const leg = (from: string, element: string, move: Leg["move"]): Leg => ({ id: `${from}${element}In`, from, on: { kind: "tap", element }, move });
  const legs = [
    leg("t0s1", "e4", { kind: "reset", to: "pitA" }),
    leg("pitA", "over", { kind: "replace", to: "pitB" }),
    leg("pitB", "over", { kind: "replace", to: "pitA" }),
  ];
  return {
    ...project,
    screens: [...project.screens, pit("pitA"), pit("pitB")],
    containers: project.containers.map((c) => (c.id === "tab0" ? { ...c, members: [...c.members, "pitA", "pitB"] } : c)),
    legs: [...project.legs.filter((other) => other.from !== "t0s1" || other.id !== "t0s1e4"), ...legs],
  };
}
