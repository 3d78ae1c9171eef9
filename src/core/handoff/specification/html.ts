import { mapSvg } from "../../map/svg.ts";
import type { Project } from "../../model/schema.ts";
import { escaped } from "../../text/xml.ts";
import type { Checked } from "../handed.ts";
import { type Part, specification } from "./content.ts";

const STYLE = `body{font:15px/1.5 "Hanken Grotesk","Helvetica Neue",Arial,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1.5rem;color:#1f2a30;background:#fcfaf4}
h1,h2,h3{font-stretch:125%;line-height:1.2}h2{margin-top:2.5rem;border-bottom:1px solid #d5cdb9}h3{margin-top:2rem;break-after:avoid}
table{border-collapse:collapse;width:100%;font-size:13px;break-inside:avoid}th,td{border-bottom:1px solid #d5cdb9;padding:.25rem .75rem .25rem 0;text-align:left;vertical-align:top}th{font-weight:400;color:#5e6661}
nav ul{columns:3;list-style:none;padding:0;font-size:13px}.level-2{font-weight:600;margin-top:.5rem}a{color:inherit}
svg{max-width:100%;height:auto}.picture{max-width:200px;max-height:420px;border:1px solid #d5cdb9;border-radius:6px;break-inside:avoid}@media print{body{margin:0;background:#fff}}`;

/** The specification as one page to read or print, the map in it. There is no script in it, and none may run. */
export function specificationHtml(project: Project, checked: Checked): string {
  return `<!doctype html>
<!-- Made from the project document; do not edit. -->
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:">
<meta name="viewport" content="width=device-width">
<title>${escaped(project.name)}</title>
<style>${STYLE}</style>
</head>
<body>
${specification(project, checked)
  .map((part) => written(project, part))
  .join("\n")}
</body>
</html>
`;
}

function written(project: Project, part: Part): string {
  switch (part.kind) {
    case "heading":
      return `<h${part.level}${part.id === undefined ? "" : ` id="${escaped(part.id)}"`}>${escaped(part.text)}</h${part.level}>`;
    case "contents":
      return `<nav aria-label="Contents"><ul>${part.entries.map(({ level, text, id }) => `<li class="level-${level}"><a href="#${escaped(id)}">${escaped(text)}</a></li>`).join("")}</ul></nav>`;
    case "text":
      return `<p>${escaped(part.text)}</p>`;
    case "list":
      return `<ul>${part.items.map((item) => `<li>${escaped(item)}</li>`).join("")}</ul>`;
    case "table": {
      const row = (cells: string[], tag: string) => `<tr>${cells.map((cell) => `<${tag}>${escaped(cell)}</${tag}>`).join("")}</tr>`;
      return `<table><thead>${row(part.head, "th")}</thead><tbody>${part.rows.map((cells) => row(cells, "td")).join("")}</tbody></table>`;
    }
    case "picture":
      return part.address === undefined
        ? `<p>Picture: ${escaped(part.file)}</p>`
        : `<img class="picture" src="${escaped(part.address)}" alt="${escaped(part.of)}">`;
    case "map":
      return `<figure>${mapSvg(project)}</figure>`;
  }
}
