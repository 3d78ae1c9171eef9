import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { beforeEach, describe, expect, it } from "vitest";
import { main } from "../../src/cli/main.ts";
import { pngOf } from "../pictures/png.ts";
import { printing } from "./printing.ts";

const printed = printing();
let folder: string;
let document: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "etape-pictures-"));
  document = join(folder, "oddglove.etape.json");
  cpSync("demo/oddglove.etape.json", document);
  cpSync("demo/oddglove.pictures", join(folder, "oddglove.pictures"), { recursive: true });
});
const run = async (...args: string[]) => {
  printed.out = "";
  printed.err = "";
  return { status: await main(args), out: printed.out, err: printed.err };
};

describe("pictures on the command line", () => {
  it("are read from the folder beside the document: what is missing, another size or no picture is found", async () => {
    expect((await run("check", document, "--fail-on", "note")).status).toBe(0);
    const pictures = join(folder, "oddglove.pictures");
    rmSync(join(pictures, "find.png"));
    writeFileSync(join(pictures, "sent.png"), "no picture");
    writeFileSync(join(pictures, "claim-dark.png"), pngOf(10, 10));
    writeFileSync(join(pictures, "claims.png"), Buffer.alloc(5 * 2 ** 20));
    const { status, out } = await run("check", document, "--fail-on", "warning");
    expect(status).toBe(1);
    for (const says of [
      'A picture of "Find" is missing: "find.png" is not there.',
      'A picture of "Sent" is missing: "sent.png" is no PNG, JPEG, WebP or AVIF.',
      'A picture of "Claim" is missing: "claim-dark.png" is 10 × 10 pixels, and its areas were drawn on 585 × 1266.',
      'A picture of "Claims" is missing: "claims.png" is no PNG, JPEG, WebP or AVIF.',
    ])
      expect(out).toContain(says);
    expect(out).toContain("0 blockers, 4 warnings");
  });

  it("are packed into one file, which every command reads, and come out of it as they were", async () => {
    const zip = join(folder, "a.etape.zip");
    expect((await run("pack", document, "--out", zip)).status).toBe(0);
    expect((await run("check", zip, "--fail-on", "note")).status).toBe(0);
    expect((await run("unpack", zip, "--out", join(folder, "out", "b.etape.json"))).status).toBe(0);
    expect(readFileSync(join(folder, "out", "b.etape.json"), "utf8")).toBe(readFileSync(document, "utf8"));
    const [was, is] = [join(folder, "oddglove.pictures"), join(folder, "out", "b.pictures")];
    expect(readdirSync(is).sort()).toEqual(readdirSync(was).sort());
    for (const name of readdirSync(is)) expect(readFileSync(join(is, name)).equals(readFileSync(join(was, name))), name).toBe(true);
    rmSync(join(was, "find.png"));
    const missing = await run("pack", document, "--out", zip);
    expect([missing.status, missing.err]).toEqual([1, expect.stringContaining("not packed: find.png is not in")]);
    const wrong = await run("unpack", document, "--out", join(folder, "c.etape.json"));
    expect([wrong.status, wrong.err]).toEqual([2, expect.stringContaining("it is no zip")]);
    expect(existsSync(join(folder, "c.etape.json"))).toBe(false);
  });

  it("are in the prototype, the specification and the faces of the map; those that are missing are drawn as sketches", async () => {
    rmSync(join(folder, "oddglove.pictures", "find.png"));
    const out = join(folder, "out");
    expect((await run("gen", document, "--to", "spec", "--out", out)).status).toBe(0);
    expect((await run("draw", document, "--as", "faces", "--out", join(out, "faces.svg"))).status).toBe(0);
    const count = (file: string, what: RegExp) => readFileSync(join(out, file), "utf8").match(what)?.length ?? 0;
    expect(count("faces.svg", /<image href="data:image\/png/g)).toBe(11);
    expect(count("specification.html", /<img class="picture" src="data:image\/png/g)).toBe(11);
    expect(count("specification.html", /<p>Picture: find\.png<\/p>/g)).toBe(1);
    expect(count("specification.md", /Picture: find\.png/g)).toBe(1);
  });
});
