import { runWalk, type WalkResult, walkTrouble } from "../core/insight/walks.ts";
import { escaped } from "../core/text/xml.ts";
import { readDesign } from "./files.ts";

/** `etape walk`: replays all walks of a document; 0 where all pass, 1 where one does not. */
export async function walkCommand(file: string, options: { format: "text" | "json" | "junit" }): Promise<number> {
  const { project } = await readDesign(file);
  const started = performance.now();
  const results = project.walks.map((walk) => runWalk(project, walk));
  const ms = Math.round(performance.now() - started);
  process.stdout.write(report(file, results, ms, options.format));
  return results.every((result) => result.passed) ? 0 : 1;
}

function report(file: string, results: WalkResult[], ms: number, format: "text" | "json" | "junit"): string {
  const failed = results.filter((result) => !result.passed).length;
  switch (format) {
    case "json":
      return `${JSON.stringify({ walks: results, ms }, null, 2)}\n`;
    case "junit": {
      const cases = results.map((result) => {
        const trouble = walkTrouble(result);
        const body = result.passed ? "" : `<failure message="${escaped(trouble)}">${escaped(trouble)}</failure>`;
        return `    <testcase classname="walks" name="${escaped(result.name || result.id)}" time="0">${body}</testcase>`;
      });
      const attributes = `tests="${results.length}" failures="${failed}" errors="0" time="${(ms / 1000).toFixed(3)}"`;
      return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites ${attributes}>\n  <testsuite name="${escaped(file)}" ${attributes}>\n${cases.join("\n")}\n  </testsuite>\n</testsuites>\n`;
    }
    case "text": {
      const lines = results.map(
        (result) => `${result.passed ? "passed" : "FAILED"} ${result.id} ${result.name}${result.passed ? "" : `\n  ${walkTrouble(result)}`}`,
      );
      return `${[...lines, `${file}: ${results.length - failed} passed, ${failed} failed`].join("\n")}\n`;
    }
  }
}
