import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, it } from "vitest";
import Parser from "web-tree-sitter";
import { swiftModule } from "../../../src/core/handoff/swift/module.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { randomDocument } from "../../random/documents.ts";
import { VECTORS } from "../../vectors/all.ts";
import { app } from "../../vectors/app.ts";

const at = createRequire(import.meta.url);

/** Where a grammar of Swift finds what is no Swift: `LINE: the line`. */
async function errorsIn(sources: string[]): Promise<string[]> {
  await Parser.init();
  const parser = new Parser();
  parser.setLanguage(await Parser.Language.load(at.resolve("tree-sitter-wasms/out/tree-sitter-swift.wasm")));
  return sources.flatMap((source) => {
    const lines = source.split("\n");
    const out: string[] = [];
    const look = (node: Parser.SyntaxNode) => {
      if (node.type === "ERROR" || node.isMissing()) out.push(`${node.startPosition.row + 1}: ${lines[node.startPosition.row]}`);
      else if (node.hasError()) node.children.forEach(look);
    };
    look(parser.parse(source).rootNode);
    return out;
  });
}

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

it("a grammar of Swift reads the generated module without an error, for the demo, some vectors and whatever names", async () => {
  const words = app("switch", {
    stacks: { switch: "func let" },
    screens: {
      func: { name: 'a\n*/ "quoted" \\(x)', params: [{ name: "in", type: "state", required: true }] },
      let: { code: "class", params: [{ name: "self", type: "integer", required: false }] },
    },
    types: [{ id: "state", name: "State", fields: [{ name: "is", type: "text" }], samples: [{ is: 'quote " and \\(is) and \u0007 é' }] }],
    legs: ["return let push func", "throw func push let if=param.in.is=='x'"],
  });
  const some = Object.values(VECTORS).flatMap((list) => list.slice(0, 3).map((vector) => vector.app));
  const sources = [demo, words, randomDocument(5, { unknown: true }), ...some].map((project) => swiftModule(project));
  expect(await errorsIn(sources)).toEqual([]);
});

it("the grammar tells what is no Swift", async () => {
  expect(
    await errorsIn([swiftModule(demo).replace("public func launch(stored: Args = [:]) -> State {", "public func launch(stored: Args = [:]) -> {")]),
  ).not.toEqual([]);
});
