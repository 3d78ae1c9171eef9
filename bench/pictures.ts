import { execFileSync } from "node:child_process";
import type { BrowserType, Page } from "@playwright/test";
import { frames } from "./page.ts";

/** Measures pictures in Chromium: many dropped at once, and the faces drawing of them. */
export async function picturesBench(chromium: BrowserType, address: string, executablePath: string): Promise<void> {
  for (const count of (process.env.ETAPE_BENCH_PICTURES ?? "100,300").split(",").map(Number)) {
    const browser = await chromium.launch({ executablePath, args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"] });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    await page.getByRole("button", { name: /Start empty/ }).click();
    await page.getByTestId("proof").waitFor();
    await page.waitForTimeout(1_500);
    const bytes = await makePictures(page, count);
    let most = 0;
    const timer = setInterval(() => {
      most = Math.max(most, largestRenderer());
    }, 200);
    const { ms, gaps } = await dropAll(page);
    most = Math.max(most, largestRenderer());
    clearInterval(timer);
    const long = gaps.filter((gap) => gap > 50);
    process.stdout.write(
      `${count} pictures of 1,170 × 2,532 (${(bytes / 2 ** 20).toFixed(0)} MiB) dropped at once: all there in ${(ms / 1000).toFixed(1)} s; ${long.length} of ${gaps.length} frames over 50 ms, the longest ${Math.max(...gaps).toFixed(0)} ms; renderer at most ${most} MiB\n`,
    );
    await page.waitForTimeout(5_000);
    const box = await page.locator(".map-frame").boundingBox();
    if (!box) throw new Error("the map is on the page");
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const pan = await frames(page, 120, (i) => page.mouse.wheel(i % 40 < 20 ? 40 : -40, i % 80 < 40 ? 60 : -60));
    const p95 = pan.sort((a, b) => a - b)[Math.floor(pan.length * 0.95)] ?? 0;
    process.stdout.write(`faces of ${count} pictures: scripting a frame at the 95th percentile: pan ${p95.toFixed(1)} ms\n`);
    await browser.close();
  }
}

/** Draws pictures in the page, as files to be dropped; gives how many bytes they are. */
function makePictures(page: Page, count: number): Promise<number> {
  return page.evaluate(async (n) => {
    const files: File[] = [];
    for (let i = 1; i <= n; i++) {
      const canvas = new OffscreenCanvas(1170, 2532);
      const context = canvas.getContext("2d");
      if (!context) throw new Error("no canvas");
      const ground = context.createLinearGradient(0, 0, 1170, 2532);
      ground.addColorStop(0, `hsl(${i * 7} 40% 92%)`);
      ground.addColorStop(1, `hsl(${i * 13} 50% 70%)`);
      context.fillStyle = ground;
      context.fillRect(0, 0, 1170, 2532);
      context.fillStyle = "#234";
      context.font = "48px sans-serif";
      for (let row = 0; row < 20; row++) context.fillText(`Row ${row} of the screen ${i}`, 60, 160 + row * 110);
      files.push(new File([await canvas.convertToBlob({ type: "image/png" })], `Screen ${i}.png`, { type: "image/png" }));
    }
    (window as unknown as { dropped: File[] }).dropped = files;
    return files.reduce((sum, { size }) => sum + size, 0);
  }, count);
}

/** Drops them, and waits until the map shows a face of each; with the milliseconds between frames meanwhile. */
function dropAll(page: Page): Promise<{ ms: number; gaps: number[] }> {
  return page.evaluate(
    () =>
      new Promise<{ ms: number; gaps: number[] }>((done) => {
        const data = new DataTransfer();
        for (const file of (window as unknown as { dropped: File[] }).dropped) data.items.add(file);
        const gaps: number[] = [];
        const began = performance.now();
        let last = began;
        const look = (now: number) => {
          gaps.push(now - last);
          last = now;
          const told = [...document.querySelectorAll("[role=status]")].some((one) => one.textContent?.startsWith("Taken in"));
          if (told && document.querySelector("[data-card] image")) done({ ms: performance.now() - began, gaps });
          else requestAnimationFrame(look);
        };
        document.body.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }));
        requestAnimationFrame(look);
      }),
  );
}

/** MiB that the largest process of a page holds. */
function largestRenderer(): number {
  const lines = execFileSync("ps", ["-eo", "rss,args"], { encoding: "utf8" }).split("\n");
  const sizes = lines.filter((line) => line.includes("--type=renderer")).map((line) => Number.parseInt(line.trim(), 10));
  return Math.round(Math.max(0, ...sizes) / 1024);
}
