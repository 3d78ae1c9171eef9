import { defineConfig } from "@playwright/test";

const port = Number(process.env.ETAPE_TEST_PORT ?? 4317);

export default defineConfig({
  testDir: "test/e2e",
  // No limit that a busy machine could break: what hangs is ended by whoever runs the tests.
  timeout: 1_800_000,
  expect: { timeout: 120_000 },
  fullyParallel: true,
  workers: 2,
  // On a busy machine the browser may come too late once. What passes only the second time is told as flaky, and is a bug to be mended.
  retries: 1,
  reporter: "list",
  outputDir: "test-results",
  use: {
    actionTimeout: 120_000,
    baseURL: `http://127.0.0.1:${port}`,
    contextOptions: { reducedMotion: "reduce" },
    viewport: { width: 1280, height: 800 },
    // Each test has a browser of its own, and would fetch everything to keep it. offline.spec.ts tests that.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: process.env.CHROMIUM_HEADLESS ?? process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: { command: "node scripts/start.mjs", env: { PORT: String(port) }, url: `http://127.0.0.1:${port}`, reuseExistingServer: false, timeout: 600_000 },
});
