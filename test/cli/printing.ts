import { afterEach, beforeEach, vi } from "vitest";

/** What a command prints while a test runs, in place of the terminal: empty before each test. */
export function printing(): { out: string; err: string } {
  const printed = { out: "", err: "" };
  beforeEach(() => {
    printed.out = "";
    printed.err = "";
    vi.spyOn(process.stdout, "write").mockImplementation((text) => {
      printed.out += String(text);
      return true;
    });
    vi.spyOn(process.stderr, "write").mockImplementation((text) => {
      printed.err += String(text);
      return true;
    });
  });
  afterEach(() => vi.restoreAllMocks());
  return printed;
}
