import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["test/**/*.test.ts", "test/**/*.test.tsx"],
    exclude: ["test/e2e/**"],
    // Files share what they load, which is half of the time of the short ones; what a test changes of the world it puts back.
    isolate: false,
    maxWorkers: 2,
    // No limit that a busy machine could break: what hangs is ended by whoever runs the tests.
    testTimeout: 1_800_000,
    hookTimeout: 1_800_000,
  },
});
