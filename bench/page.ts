import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { BrowserType, Page } from "@playwright/test";
import { writeProject } from "../src/core/model/write.ts";
import { bigProject } from "./big.ts";

/** Measures the map in Chromium: opening, panning, zooming, dragging a leg, an edit. */
export async function pageBench(chromium: BrowserType, address: string, executablePath: string): Promise<void> {
  const browser = await chromium.launch({ executablePath, args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"] });
  const folder = mkdtempSync(join(tmpdir(), "etape-bench-"));
  for (const screens of (process.env.ETAPE_BENCH_SCREENS ?? "200,300,1000").split(",").map(Number)) {
    const project = bigProject(screens);
    const file = join(folder, `big-${screens}.etape.json`);
    writeFileSync(file, writeProject(project));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    await page.getByLabel("Project file").setInputFiles(file);
    await page.locator("[data-card]").first().waitFor();
    const url = page.url();
    await page.goto(address);
    await page.locator(`a[href="${new URL(url).pathname}"]`).waitFor({ timeout: 10_000 });
    const opening = await timed(
      page,
      () => page.evaluate((to) => document.querySelector<HTMLElement>(`a[href="${to}"]`)?.click(), new URL(url).pathname),
      "[data-card]",
    );
    // The check takes a core of its own; what is measured next is the map alone.
    await page.locator("[data-testid=proof][data-running=false]").waitFor({ timeout: 120_000 });
    const box = await page.locator(".map-frame").boundingBox();
    if (!box) throw new Error("the map is on the page");
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const pan = await frames(page, 120, (i) => page.mouse.wheel(i % 40 < 20 ? 40 : -40, i % 80 < 40 ? 60 : -60));
    await page.keyboard.down("Control");
    const zoom = await frames(page, 60, (i) => page.mouse.wheel(0, i % 30 < 15 ? 14 : -14));
    await page.keyboard.up("Control");
    await page.getByLabel("Show the whole map").click();
    const out = await frames(page, 60, (i) => page.mouse.wheel(i % 20 < 10 ? 40 : -40, 20));
    for (let i = 0; i < 12; i++) await page.getByLabel("Zoom in").click();
    const chosen = page.getByRole("treeitem").nth(5);
    await chosen.click();
    const place = await chosen.getAttribute("data-key");
    const row = await page.locator(`[data-card][data-place="${place}"] [data-row]`).first().boundingBox();
    let drag: number[] = [];
    if (row) {
      await page.mouse.move(row.x + row.width - 4, row.y + row.height / 2);
      await page.mouse.down();
      drag = await frames(page, 60, (i) => page.mouse.move(row.x + row.width + i * 3, row.y + i * 2));
      if ((await page.locator('path[stroke-dasharray="5 3"]').count()) !== 1) throw new Error("a leg is being drawn");
      await page.keyboard.press("Escape");
      await page.mouse.up();
      await page.keyboard.press("Escape");
    }
    const edits: number[] = [];
    for (let i = 0; i < 40; i++) {
      await page
        .getByRole("treeitem")
        .nth(6 + i)
        .click();
      await page.keyboard.press("F2");
      await page.keyboard.type(`Name ${i}`);
      await page.waitForTimeout(Number(process.env.ETAPE_BENCH_PAUSE ?? 250));
      edits.push(await keyToPaint(page, "Enter"));
    }
    const found: number[] = [];
    for (let i = 0; i < 24; i++) {
      await page
        .getByRole("treeitem")
        .nth(6 + i)
        .click();
      await page.keyboard.press("F2");
      await page.keyboard.type(`Other ${i}`);
      await page.waitForTimeout(250);
      found.push(await keyToFindings(page, "Enter"));
    }
    const p95 = (list: number[]) => `${(list.sort((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? 0).toFixed(1)} ms`;
    process.stdout.write(
      `map, ${screens} screens, ${project.legs.length} legs: opens in ${opening.toFixed(0)} ms; scripting a frame at the 95th percentile: pan ${p95(pan)}, zoom ${p95(zoom)}, pan with all in view ${p95(out)}, drag ${p95(drag)}; edit to paint ${p95(edits)} (median ${(edits[Math.floor(edits.length / 2)] ?? 0).toFixed(0)} ms); edit to findings ${p95(found)} (median ${(found[Math.floor(found.length / 2)] ?? 0).toFixed(0)} ms)\n`,
    );
    for (const drawing of ["faces", "names"]) await farBench(page, screens, drawing, box);
    await page.close();
  }
  await browser.close();
}

/** Measures one of the far drawings with both sides folded away. */
async function farBench(page: Page, screens: number, drawing: string, box: { x: number; y: number; width: number; height: number }) {
  for (const side of ["outline", "walk"]) {
    const fold = page.getByRole("button", { name: `Fold the ${side} away` });
    if ((await fold.count()) > 0) await fold.click();
  }
  await page.getByRole("button", { name: "rows", exact: true }).click();
  const shown = await timed(
    page,
    () => page.evaluate((name) => [...document.querySelectorAll("button")].find((one) => one.textContent === name)?.click(), drawing),
    ".map-frame .m [data-card]",
  );
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const pan = await frames(page, 120, (i) => page.mouse.wheel(i % 40 < 20 ? 40 : -40, i % 80 < 40 ? 60 : -60));
  await page.keyboard.down("Control");
  // Within the scales of the drawing: no other one is passed to.
  const zoom = await frames(page, 60, (i) => page.mouse.wheel(0, i % 30 < 15 ? -3 : 3));
  await page.keyboard.up("Control");
  const edits: number[] = [];
  await page.getByRole("button", { name: "Bring back the outline" }).click();
  for (let i = 0; i < 24; i++) {
    await page
      .getByRole("treeitem")
      .nth(6 + i)
      .click();
    await page.keyboard.press("F2");
    await page.keyboard.type(`Far ${i}`);
    await page.waitForTimeout(Number(process.env.ETAPE_BENCH_PAUSE ?? 250));
    edits.push(await keyToPaint(page, "Enter"));
  }
  await page.getByRole("button", { name: "Fold the outline away" }).click();
  const p95 = (list: number[]) => `${(list.sort((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? 0).toFixed(1)} ms`;
  process.stdout.write(
    `map as ${drawing}, ${screens} screens: opens in ${shown.toFixed(0)} ms; scripting a frame at the 95th percentile: pan ${p95(pan)}, zoom ${p95(zoom)}; edit to paint ${p95(edits)} (median ${(edits[Math.floor(edits.length / 2)] ?? 0).toFixed(0)} ms)\n`,
  );
}

/** Milliseconds from an action to the first frame in which something is there. */
async function timed(page: Page, act: () => Promise<unknown>, selector: string): Promise<number> {
  await page.evaluate((wanted) => {
    const w = window as unknown as { began: number; there: Promise<number> };
    w.began = performance.now();
    w.there = new Promise((done) => {
      const look = () => (document.querySelector(wanted) ? requestAnimationFrame(() => done(performance.now())) : requestAnimationFrame(look));
      look();
    });
  }, selector);
  await act();
  return page.evaluate(async () => {
    const w = window as unknown as { began: number; there: Promise<number> };
    return (await w.there) - w.began;
  });
}

interface TraceEvent {
  name: string;
  ph: string;
  ts: number;
  dur?: number;
  tid: number;
  pid: number;
}
const SCRIPTING = new Set(["EventDispatch", "FunctionCall", "TimerFire", "FireAnimationFrame", "RunMicrotasks", "EvaluateScript", "FireIdleCallback"]);

/** Milliseconds of scripting on the page's own thread in each frame that it makes while something is done, from a trace of the browser. */
export async function frames(page: Page, count: number, act: (i: number) => Promise<void>): Promise<number[]> {
  const browser = page.context().browser();
  if (!browser) throw new Error("the page has a browser");
  await browser.startTracing(page, { categories: ["devtools.timeline", "disabled-by-default-devtools.timeline"] });
  for (let i = 0; i < count; i++) {
    await act(i);
    await page.waitForTimeout(16);
  }
  const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
  // The page's own thread is the one that dispatches events; a frame of it ends with a commit.
  const counts = new Map<string, number>();
  for (const e of trace.traceEvents) if (e.name === "EventDispatch") counts.set(`${e.pid} ${e.tid}`, (counts.get(`${e.pid} ${e.tid}`) ?? 0) + 1);
  const [main] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
  const mine = trace.traceEvents.filter((e) => `${e.pid} ${e.tid}` === main);
  const starts = mine
    .filter((e) => e.name === "Commit")
    .map((e) => e.ts)
    .sort((a, b) => a - b);
  const scripts = mine.filter((e) => e.ph === "X" && SCRIPTING.has(e.name)).sort((a, b) => a.ts - b.ts);
  const out = starts.map(() => 0);
  let until = 0;
  let frame = 0;
  for (const event of scripts) {
    // One inside another counts once.
    const from = Math.max(event.ts, until);
    const to = event.ts + (event.dur ?? 0);
    if (to <= from) continue;
    until = to;
    while (frame + 1 < starts.length && (starts[frame + 1] ?? 0) <= from) frame += 1;
    out[frame] = (out[frame] ?? 0) + (to - from) / 1000;
  }
  return out;
}

/** Milliseconds from a key to the frame after it. */
async function keyToPaint(page: Page, key: string): Promise<number> {
  await page.evaluate(() => {
    const w = window as unknown as { painted: Promise<number> };
    w.painted = new Promise((done) => {
      const once = () => {
        const began = performance.now();
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => done(performance.now() - began);
          port2.postMessage(0);
        });
      };
      window.addEventListener("keydown", once, { capture: true, once: true });
    });
  });
  await page.keyboard.press(key);
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted);
}

/** Milliseconds from a key to the findings of the edit that it makes. */
async function keyToFindings(page: Page, key: string): Promise<number> {
  await page.evaluate(() => {
    const w = window as unknown as { found: Promise<number> };
    w.found = new Promise((done) => {
      const once = () => {
        const began = performance.now();
        const proof = document.querySelector("[data-testid=proof]");
        if (!proof) return;
        let ran = false;
        new MutationObserver((_, observer) => {
          const running = proof.getAttribute("data-running") === "true";
          ran ||= running;
          if (!ran || running) return;
          observer.disconnect();
          done(performance.now() - began);
        }).observe(proof, { attributes: true });
      };
      window.addEventListener("keydown", once, { capture: true, once: true });
    });
  });
  await page.keyboard.press(key);
  return page.evaluate(() => (window as unknown as { found: Promise<number> }).found);
}
