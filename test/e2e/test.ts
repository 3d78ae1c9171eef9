import { test as base, expect } from "@playwright/test";

export { type BrowserContext, expect, type Locator, type Page, type Request, type Route } from "@playwright/test";

/** A test that fails, too, where the page wanted to load or run what its policy forbids. */
export const test = base.extend<{ nothingForbidden: undefined }>({
  nothingForbidden: [
    async ({ context }, use) => {
      const forbidden: string[] = [];
      context.on("console", (message) => {
        if (/Content Security Policy/i.test(message.text())) forbidden.push(message.text().replace(/data:[^'"]{100,}/, "data:…"));
      });
      await use(undefined);
      expect(forbidden).toEqual([]);
    },
    { auto: true },
  ],
});
