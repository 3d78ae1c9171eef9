import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import { main } from "../../src/cli/main.ts";
import { readProject } from "../../src/core/model/read.ts";
import { writeProject } from "../../src/core/model/write.ts";
import { app } from "../vectors/app.ts";
import { printing } from "./printing.ts";

const DESIGN = "examples/bandstand/bandstand.etape.json";
const LOG = "examples/bandstand/logs/evening.jsonl";
const printed = printing();
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "etape-follow-"));
});

function write(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

describe("etape follow", () => {
  it("tells what a log comes to, as text, JSON and JUnit, and by its status whether the app departs", async () => {
    expect(await main(["follow", DESIGN, "--log", LOG])).toBe(0);
    expect(printed.out).toContain("Screens: Gig 5, Gigs 4");
    expect(printed.out).toContain("Never used: ticketsSignIn, meSignIn, rules");
    expect(printed.out).toContain("22 entries in 2 runs; the app follows the design");
    const broken = write("broken.jsonl", readFileSync(LOG, "utf8").replace('"shows":"seats"', '"shows":"tickets"'));
    printed.out = "";
    expect(await main(["follow", DESIGN, "--log", broken])).toBe(1);
    expect(printed.out).toMatch(
      /broken\.jsonl:8: run ida at 2026-06-12T18:07:00\.000Z: After tap Book a seat on “Gig” the app showed “Tickets”; the design shows “Seats”\./,
    );
    printed.out = "";
    expect(await main(["follow", DESIGN, "--log", broken, "--format", "json"])).toBe(1);
    expect(JSON.parse(printed.out)).toMatchObject({ entries: 22, departures: [{ is: "other-screen", row: 8, run: "ida", from: ["gig"], shows: "tickets" }] });
    printed.out = "";
    expect(await main(["follow", DESIGN, "--log", broken, "--format", "junit"])).toBe(1);
    expect(printed.out).toContain('failures="1"');
  });

  it("names every line that cannot be read, and what cannot be used", async () => {
    expect(await main(["follow", DESIGN, "--log", write("bad.jsonl", '{"run":"a","shows":"gigs"}\nno\n{"run":7}\n')])).toBe(2);
    expect(printed.err).toMatch(/bad\.jsonl: line 2: .*expected one JSON object\n.*bad\.jsonl: line 3: /);
    expect(printed.out).toBe("");
    writeFileSync(join(folder, "latin.jsonl"), Buffer.from([0x7b, 0xff, 0x7d]));
    expect(await main(["follow", DESIGN, "--log", join(folder, "latin.jsonl")])).toBe(2);
    expect(printed.err).toContain("can not be read as UTF-8");
    expect(await main(["follow", DESIGN, "--log", join(folder, "none.jsonl")])).toBe(2);
    expect(await main(["follow", "-", "--log", "-"])).toBe(2);
    expect(await main(["open", "-"])).toBe(2);
  });

  it("keeps the walk of a run in the document, up to a line", async () => {
    const out = join(folder, "kept.etape.json");
    expect(await main(["follow", DESIGN, "--log", LOG, "--keep", "ida", "--until", "4", "--out", out])).toBe(0);
    expect(await main(["walk", out])).toBe(0);
    const read = readProject(readFileSync(out, "utf8"));
    expect(read.ok && read.project.walks.at(-1)).toMatchObject({ events: [{ leg: "toGig" }, { leg: "toSimilar" }, { do: "back" }], expect: [{ after: 3 }] });
    expect(await main(["follow", DESIGN, "--log", LOG, "--keep", "nobody"])).toBe(2);
    expect(printed.err).toContain('the log has no run "nobody"');
    // Who was a member before the app began is not on a first launch.
    expect(await main(["follow", DESIGN, "--log", LOG, "--keep", "ben", "--until", "x"])).toBe(2);
  });

  it("shows on the drawn map where the app was", async () => {
    expect(await main(["draw", DESIGN, "--as", "names", "--lens", "followed", "--log", LOG, "--out", "-"])).toBe(0);
    expect(printed.out).toContain("<svg");
    expect(await main(["draw", DESIGN, "--lens", "followed", "--out", "-"])).toBe(2);
    expect(printed.err).toContain("--lens followed needs --log FILE");
  });

  it("a first draft is imported from a log, and what it cannot know is said", async () => {
    const out = join(folder, "draft.etape.json");
    expect(await main(["import", LOG, "--from", "log", "--out", out])).toBe(0);
    expect(printed.err).toContain("not kept: which screens are tabs, sheets or in a drawer");
    expect(await main(["check", out])).toBe(0);
    expect(await main(["follow", out, "--log", write("screens.jsonl", screensOnly())])).toBe(0);
  });

  it("a log with nothing in it is no trouble", async () => {
    const design = write("a.etape.json", writeProject(app("s", { stacks: { s: "a b" }, legs: ["go a push b"] })));
    expect(await main(["follow", design, "--log", write("empty.jsonl", "\n\n")])).toBe(0);
    expect(printed.out).toContain("0 entries in 0 runs");
  });
});

/** The evening as an app would log it that tells its screens alone. */
function screensOnly(): string {
  const lines = readFileSync(LOG, "utf8").trim().split("\n");
  return lines
    .map((line) => JSON.parse(line))
    .map(({ run, shows }) => JSON.stringify({ run, shows }))
    .join("\n");
}
