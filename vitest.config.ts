import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["test/**/*.test.ts", "test/**/*.test.tsx"],
    exclude: ["test/e2e/**"],
    // No limit that a busy machine could break: what hangs is ended by whoever runs the tests.
    testTimeout: 1_800_000,
    hookTimeout: 1_800_000,
  },
});
