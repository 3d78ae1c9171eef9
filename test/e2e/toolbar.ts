/** A browser with its own toolbar on a screen that nobody sees, and hands that click on it. A script of a page, or of a driver, counts as a gesture or goes past the toolbar, and so hides what people get. */
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { type Browser, chromium, type Page } from "@playwright/test";

/** Where things are in the window, in pixels, at the size below. */
const BUTTONS = { back: [22, 60], forward: [58, 60], reload: [94, 60] } as const;
const SIZE = [1280, 900] as const;

export interface Toolbar {
  browser: Browser;
  page: Page;
  /** Clicks a button of the toolbar, so many times one right after the other. */
  press(button: keyof typeof BUTTONS, times?: number): void;
  close(): Promise<void>;
}

export async function openToolbar(): Promise<Toolbar> {
  const screen = spawn("Xvfb", ["-displayfd", "3", "-screen", "0", `${SIZE.join("x")}x24`, "-nolisten", "tcp"], {
    stdio: ["ignore", "ignore", "ignore", "pipe"],
  });
  const display = `:${await numberFrom(screen)}`;
  const env = { ...process.env, DISPLAY: display } as Record<string, string>;
  const browser = await chromium.launch({
    headless: false,
    env,
    executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking", "--window-position=0,0", `--window-size=${SIZE.join(",")}`],
  });
  const context = await browser.newContext({ viewport: null });
  const page = await context.newPage();
  return {
    browser,
    page,
    press: (button, times = 1) => {
      const [x, y] = BUTTONS[button];
      execFileSync("xdotool", ["mousemove", String(x), String(y), "click", "--repeat", String(times), "--delay", "60", "1"], { env });
    },
    close: async () => {
      await browser.close();
      screen.kill();
    },
  };
}

/**
 * Whether the toolbar can be clicked on this machine: between two plain pages Back goes to the first. Where it cannot (no screen, a window that
 * looks otherwise), what is tested with it is left out, and says so.
 */
export async function toolbarWorks(): Promise<boolean> {
  if (!existsSync("/usr/bin/Xvfb") || !existsSync("/usr/bin/xdotool")) return false;
  const toolbar = await openToolbar().catch(() => undefined);
  if (!toolbar) return false;
  const { page, press, close } = toolbar;
  try {
    await page.goto("data:text/html,one");
    await page.goto("data:text/html,two");
    press("back");
    await page.waitForURL("data:text/html,one", { timeout: PREFLIGHT_MS });
    return true;
  } catch {
    return false;
  } finally {
    await close();
  }
}

/** How long Back may take between two plain pages, on the busiest machine. */
const PREFLIGHT_MS = 60_000;

/** The number of the display, which the server writes when it is ready. */
function numberFrom(screen: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    screen.once("error", reject);
    screen.once("exit", (code) => reject(new Error(`Xvfb ended with ${code}`)));
    screen.stdio[3]?.once("data", (text: Buffer) => resolve(text.toString().trim()));
  });
}
