import { SaxesParser } from "saxes";
import { SIZE_LIMIT } from "../../model/read.ts";
import { pathsOf, projectOfPaths } from "./addresses.ts";
import type { ImportResult } from "./imported.ts";
import { withVariables } from "./siblings.ts";

/**
 * A project from a sitemap (sitemaps.org, `urlset` of `url` with `loc`). Entities other than those
 * of XML itself are refused, and so is any document type: nothing is fetched and nothing grows.
 */
export function fromSitemap(text: string, name = "Imported"): ImportResult {
  if (text.length > SIZE_LIMIT)
    return { ok: false, problems: [{ message: `The file has ${text.length} characters; at most ${SIZE_LIMIT} (20 MiB) are expected.` }] };
  const addresses: string[] = [];
  let inside: string[] = [];
  let problem: { line: number; message: string } | undefined;
  const parser = new SaxesParser();
  const stop = (message: string) => {
    problem ??= { line: parser.line, message };
  };
  let loc = "";
  let root: string | undefined;
  const ignored = new Set<string>();
  parser.on("doctype", () => stop("a document type; expected none, for it could bring entities from elsewhere"));
  parser.on("error", (error) => stop(error.message.replace(/^\d+:\d+: /, "")));
  parser.on("opentag", (tag) => {
    root ??= tag.name;
    inside.push(tag.name);
    loc = "";
    if (inside.length === 3 && tag.name !== "loc") ignored.add(tag.name);
  });
  parser.on("text", (value) => {
    if (inside.at(-1) === "loc") loc += value;
  });
  parser.on("closetag", (tag) => {
    if (tag.name === "loc" && inside.length === 3 && inside[1] === "url") addresses.push(loc.trim());
    inside = inside.slice(0, -1);
  });
  // In pieces, so that reading ends where something is wrong.
  for (let at = 0; at < text.length && !problem; at += 65_536) parser.write(text.slice(at, at + 65_536));
  if (!problem) parser.close();
  if (problem) return { ok: false, problems: [problem] };
  if (root !== "urlset") return { ok: false, problems: [{ message: `The file begins with <${root ?? "nothing"}>; a sitemap with <urlset> is expected.` }] };
  const { paths: all, lost, problems } = pathsOf(addresses.join("\n"));
  const left = [...lost, ...problems.map(({ line, message }) => `line ${line}: ${message}`)].map((what) => what.replace(/^line (\d+)/, "address $1"));
  const { paths, examples, says } = withVariables([...all.values()]);
  return projectOfPaths(paths, examples, name, [...left, ...says, ...[...ignored].map((tag) => `<${tag}> of every address`)]);
}
