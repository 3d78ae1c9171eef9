import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { layoutMap } from "../../../src/core/map/layout.ts";
import { linesOf } from "../../../src/core/map/lines.ts";
import { mapSvg } from "../../../src/core/map/svg.ts";
import { randomDocument } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

/** The elements of an XML text by name, with their attributes; throws where it is not well formed. */
function parsed(xml: string): { names: string[]; attributes: Array<Record<string, string>>; text: string } {
  const out = { names: [] as string[], attributes: [] as Array<Record<string, string>>, text: "" };
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", (tag) => {
    out.names.push(tag.name);
    out.attributes.push(tag.attributes as Record<string, string>);
  });
  parser.on("text", (text) => {
    out.text += text;
  });
  parser.write(xml).close();
  return out;
}

describe("the map as SVG", () => {
  it("is well formed, has every place and every line, and is the same each time", () => {
    for (let seed = 0; seed < 60; seed++) {
      const project = randomDocument(seed, { broken: seed % 2 === 0, guarded: true, screens: 8, legs: 14 });
      const svg = mapSvg(project);
      const { attributes } = parsed(svg);
      const layout = layoutMap(project);
      const placed = attributes.flatMap((a) => a["data-place"] ?? []);
      for (const card of layout.cards) expect(placed).toContain(card.id);
      expect(attributes.filter((a) => a["data-leg"] !== undefined)).toHaveLength(linesOf(project, layout).length);
      expect(mapSvg(project)).toBe(svg);
    }
  });

  it("shows text as text, whatever is in it", () => {
    const name = `</text><script>alert("x")</script> & ]]> \u0007`;
    const svg = mapSvg(app("s", { stacks: { s: "a" }, screens: { a: { name, elements: [{ id: "e", kind: "button", label: "<b>&amp;" }] } } }));
    const { names, text } = parsed(svg);
    expect(names).not.toContain("script");
    expect(text).toContain("<b>&amp;");
    expect(text).toContain("alert(");
  });
});
